import { z } from 'zod';
import { mix, type Vec3 } from '../quantity';
import { boardFields, boardParameters, boardUnder, plateFor } from './base';
import { mainChain } from './limbs';
import { insideShare, spanOfForm, type School, type SchoolContext } from './school';
import { SettingOut } from './setting-out';

/**
 * Bent pipe: lengths of pipe with elbows between, up the middle of the piece. Strong and hard to adjust; it holds back
 * the clay's shrinkage wherever it lies near.
 */
const parameters = z.strictObject({
  bulk: z.string().default('paper-firm'),
  wrap: z.string().default('tape'),
  pipeStock: z.string().default('steel-pipe'),
  pipeSize: z.string().default('1-2'),
  /** Cross pipe for the shoulders of a bust. */
  tee: z.boolean().default(true),
  ...boardParameters,
});
export type BentPipeParameters = z.infer<typeof parameters>;

/** kg of an elbow or tee against a length of its own pipe of that many diameters. */
const fittingLong = 6;

function make(context: SchoolContext, p: BentPipeParameters) {
  const { form } = context;
  const out = new SettingOut('pipe');
  const { joints } = form.skeleton;
  const byId = new Map(joints.map((j) => [j.id, j]));
  const chain = mainChain(joints);
  const pipe = context.across(p.pipeStock, p.pipeSize);
  const at = (id: string): Vec3 => byId.get(id)?.at ?? [0, 0, 0];
  const tip = chain[chain.length - 1]!;
  const end = chain[chain.length - 2]!;
  // The last length stops short of the tip: over it there is only bulk and clay.
  const last = context.toCarry ? Math.max(0.1, insideShare(context, at(end), at(tip), 0.55, pipe)) : 0.55;
  const places = chain.map((id) => (id === tip ? mix(at(end), at(tip), last) : at(id)));
  chain.forEach((id, i) => out.node(id, places[i]!, i === 0));
  chain.slice(1).forEach((id, i) => {
    const from = chain[i]!;
    const masses = form.masses.filter((m) => m.joint === from || m.joint === id).map((m) => m.id);
    out.bone(id, `pipe, ${byId.get(from)?.name ?? from} to ${byId.get(id)?.name ?? id}`, from, id, masses, {
      joinFrom: 'threaded',
    });
    out.member(`length-${id}`, `pipe to the ${byId.get(id)?.name ?? id}`, {
      stock: p.pipeStock,
      size: p.pipeSize,
      sizedBy: { stock: 'pipeStock', size: 'pipeSize', together: true },
      path: [places[i]!, places[i + 1]!],
      bones: [id],
      allowances: [{ what: 'threads into two fittings', length: 0.026 }],
    });
    if (i > 0)
      out.fitting(`elbow-${from}`, `pipe elbow at the ${byId.get(from)?.name ?? from}`, 1, fittingMass(pipe), at(from));
  });
  if (p.tee && form.bust) shoulders(context, p, out, chain, at);
  out.adopt(form.masses, chain[1] ?? '');
  const span = spanOfForm(form);
  const plate = plateFor(pipe);
  out.fitting('flange', 'floor flange', 1, plate.mass, places[0]!);
  const needs = {
    width: Math.max(0.15, (span.high[0] - span.low[0]) * 0.85),
    depth: Math.max(0.15, (span.high[1] - span.low[1]) * 1.05),
  };
  return out.finish(boardUnder(context, p, places[0]!, needs, plate), p);
}

function fittingMass(pipe: number): number {
  return Math.round(7850 * Math.PI * pipe * pipe * 0.13 * fittingLong * pipe * 1000) / 1000;
}

/** A tee at the chest and a pipe towards each shoulder. */
function shoulders(
  context: SchoolContext,
  p: BentPipeParameters,
  out: SettingOut,
  chain: readonly string[],
  at: (id: string) => Vec3,
): void {
  const { bust, size } = context.form;
  if (!bust || !chain.includes('chest')) return;
  const pipe = context.across(p.pipeStock, p.pipeSize);
  const reach = (bust.measures.shoulderBreadth * size) / 2 - context.clayOver('chest') - 0.035 * size - pipe / 2;
  const middle = at('chest');
  for (const [side, sign] of [
    ['left', 1],
    ['right', -1],
  ] as const) {
    const end: Vec3 = [sign * reach, middle[1], middle[2] - 0.025 * size];
    out.node(`tee-${side}`, end);
    out.bone(`tee-${side}`, `cross pipe, ${side}`, 'chest', `tee-${side}`, ['chest', `shoulder-${side}`], {
      joinFrom: 'threaded',
    });
    out.member(`tee-${side}`, `cross pipe, ${side}`, {
      stock: p.pipeStock,
      size: p.pipeSize,
      sizedBy: { stock: 'pipeStock', size: 'pipeSize', together: true },
      path: [middle, end],
      bones: [`tee-${side}`],
      allowances: [{ what: 'thread into the tee', length: 0.013 }],
    });
  }
}

export const bentPipe: School<BentPipeParameters> = {
  kind: 'bent-pipe',
  name: 'bent pipe',
  when: 'Heavy heads and reaching necks that must not move: strong, awkward to change, and unforgiving under clay that shrinks.',
  how: 'Pipe lengths screwed together with elbows follow the piece from its foot to the middle of the head; a tee carries the shoulders.',
  cuts: 'thirteen millimetres of thread into each fitting, and 5 % for trim',
  traits: { posedLater: 'no', reused: 'all of it' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Filled with' },
    { kind: 'wrap', key: 'wrap', label: 'Wrapped in' },
    { kind: 'heading', label: 'Pipe' },
    { kind: 'stock', key: 'pipeStock', size: 'pipeSize', label: 'Pipe', from: 'upright' },
    { kind: 'yes-no', key: 'tee', label: 'Cross pipe for the shoulders' },
    ...boardFields,
  ],
  fits: (form) => form.head !== null || form.kind === 'long-neck',
  make,
};
