import { z } from 'zod';
import type { Allowance, Armature, ArmatureNode, Bone, Member } from '../armature';
import { joinIds } from '../catalogue';
import type { PosedJoint } from '../form';
import { distance, type Vec3 } from '../quantity';
import { boardParameters, boardUnder } from './base';
import { spanOfForm, type School, type SchoolContext } from './school';

/**
 * Wire along the limbs: one wire through every joint of a chain, the next chain bound on where it leaves, so that any
 * posed form has something to stand on. Feet are bent over and stapled or screwed to the board.
 */
const parametersSchema = z.strictObject({
  bulk: z.string().default('foil-firm'),
  wrap: z.string().default('tape'),
  wireStock: z.string().default('aluminium-annealed'),
  /** Empty lets the height of the form decide. */
  wireSize: z.string().default(''),
  strands: z.number().int().min(1).max(12).default(2),
  bonded: z.boolean().default(false),
  join: z.enum(joinIds).default('bound-glued'),
  ...boardParameters,
});
export type LimbWireParameters = z.infer<typeof parametersSchema>;

/** A round wire of about a hundredth of the height, the nearest there is: two of them go into the thinnest limbs. */
export function wireForHeight(context: Pick<SchoolContext, 'sizesOf' | 'across'>, stock: string, height: number): string {
  const sizes = context.sizesOf(stock);
  const wanted = height / 100;
  return sizes.reduce((best, s) => (Math.abs(context.across(stock, s) - wanted) < Math.abs(context.across(stock, best) - wanted) ? s : best), sizes[0] ?? '');
}

/** Joints in chains: each runs on through its first child; every other child starts a chain at its parent. */
export function chainsOf(joints: readonly PosedJoint[]): string[][] {
  const children = new Map<string, string[]>();
  for (const j of joints) if (j.parent !== null) children.set(j.parent, [...(children.get(j.parent) ?? []), j.id]);
  const chains: string[][] = [];
  const run = (start: readonly string[], id: string) => {
    const chain = [...start];
    for (let at: string | undefined = id; at !== undefined;) {
      chain.push(at);
      const [next, ...others]: string[] = children.get(at) ?? [];
      for (const other of others) run([at], other);
      at = next;
    }
    if (chain.length > 1) chains.push(chain);
  };
  for (const j of joints) if (j.parent === null) run([], j.id);
  return chains;
}

/** The joints that meet the base: those made to, as far as the pose leaves them low; else whatever is lowest. */
export function standingJoints(joints: readonly PosedJoint[]): ReadonlySet<string> {
  const low = Math.min(...joints.map((j) => j.at[2])), high = Math.max(...joints.map((j) => j.at[2]));
  const near = (j: PosedJoint) => j.at[2] <= low + 0.06 * (high - low) + 1e-9;
  const meant = joints.filter((j) => j.ground && near(j));
  return new Set((meant.length > 0 ? meant : joints.filter(near)).map((j) => j.id));
}

function make(context: SchoolContext, p: LimbWireParameters): Armature {
  const { form } = context;
  const { joints } = form.skeleton;
  const span = spanOfForm(form);
  const size = p.wireSize || wireForHeight(context, p.wireStock, span.high[2] - span.low[2]);
  const wire = context.across(p.wireStock, size);
  const standing = standingJoints(joints);
  const node = (id: string) => `limb/${id}`;
  const byId = new Map(joints.map((j) => [j.id, j]));
  const place = (id: string): Vec3 => byId.get(id)?.at ?? [0, 0, 0];
  const nodes: ArmatureNode[] = joints.map((j) => ({ id: node(j.id), at: j.at, held: standing.has(j.id) }));
  const bones: Bone[] = [];
  const members: Member[] = [];
  chainsOf(joints).forEach((chain, c) => {
    // Two joints in one place make no bone.
    const end = byId.get(chain[chain.length - 1] as string);
    // A foot that is off the ground has no board to be fixed to: its wire ends at the ankle.
    const reached = end?.ground && !standing.has(end.id) ? chain.slice(0, -1) : chain;
    const kept = reached.filter((id, i) => i === 0 || distance(place(id), place(reached[i - 1] as string)) > 1e-4);
    if (kept.length < 2) return;
    const second = kept[1] as string, last = kept[kept.length - 1] as string;
    const ids = kept.slice(1).map((id, i) => {
      const from = kept[i] as string;
      bones.push({
        id: node(id), name: boneName(byId, from, id), from: node(from), to: node(id), joinTo: 'welded', joinFrom: i === 0 && c > 0 ? p.join : 'welded',
        masses: form.masses.filter((m) => m.joint === from || m.joint === id).map((m) => m.id),
      });
      return node(id);
    });
    const ends: Allowance[] = [
      { what: c === 0 ? 'turned over at the start' : 'bound along the other wire', length: (c === 0 ? 4 : 12) * wire },
      { what: standing.has(last) ? 'foot, bent over and fixed' : 'end loop', length: (standing.has(last) ? 14 : 6) * wire },
    ];
    members.push({
      id: `limb/wire-${second}`, name: second === last ? `wire to ${byId.get(last)?.name ?? last}` : `wire, ${byId.get(second)?.name ?? second} to ${byId.get(last)?.name ?? last}`, stock: p.wireStock, size, strands: p.strands, bonded: p.bonded,
      path: kept.map(place), bones: ids, allowances: p.strands > 1 ? [...ends, { what: 'twisting the strands', length: 0.03 * lengthOf(kept.map(place)) }] : ends,
    });
  });
  const feet = joints.filter((j) => standing.has(j.id));
  const middle = (k: 0 | 1) => feet.reduce((sum, j) => sum + j.at[k], 0) / Math.max(1, feet.length);
  return {
    nodes, bones, members,
    base: boardUnder(context, p, [middle(0), middle(1), 0], { width: 2 * reach(span.low[0], span.high[0]) * 0.8, depth: 2 * reach(span.low[1], span.high[1]) * 0.9 }, {
      diameter: Math.max(0.02, 8 * wire), mass: 0, circle: Math.max(0.015, 6 * wire), screws: 2 * Math.max(1, feet.length),
    }),
    hardware: [], bulk: p.bulk, wrap: p.wrap,
  };
}

const reach = (low: number, high: number) => Math.max(Math.abs(low), Math.abs(high), 0.03);

function lengthOf(path: readonly Vec3[]): number {
  return path.slice(1).reduce((sum, b, i) => sum + distance(path[i] as Vec3, b), 0);
}

function boneName(joints: ReadonlyMap<string, PosedJoint>, from: string, to: string): string {
  return `${joints.get(from)?.name ?? from} to ${joints.get(to)?.name ?? to}`;
}

export const limbWire: School<LimbWireParameters> = {
  kind: 'limb-wire',
  name: 'wire along the limbs',
  when: 'Figures, creatures and branching pieces: a wire through every limb, foil on it, bound where limbs meet.',
  parameters: parametersSchema,
  fits: (form) => form.skeleton.joints.length > 1,
  make,
};
