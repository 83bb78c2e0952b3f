import { z } from 'zod';
import { joinIds } from '../catalogue';
import { mix, type Vec3 } from '../quantity';
import { boardFields, boardParameters, boardUnder, plateFor } from './base';
import { mainChain } from './limbs';
import { reachInside, spanOfForm, type School, type SchoolContext } from './school';
import { SettingOut } from './setting-out';

/**
 * Dowel and ball: a stick in a board with foil or paper balled on it. The quickest there is; nothing but friction keeps
 * the ball from turning on the stick, so it is weakest in torsion.
 */
const parameters = z.strictObject({
  bulk: z.string().default('foil-packed'),
  wrap: z.string().default('tape'),
  postStock: z.string().default('hardwood-dowel'),
  postSize: z.string().default('20mm'),
  /** How the ball is held on the stick. */
  join: z.enum(joinIds).default('taped'),
  ...boardParameters,
});
export type DowelAndBallParameters = z.infer<typeof parameters>;

function make(context: SchoolContext, p: DowelAndBallParameters) {
  const { form } = context;
  const out = new SettingOut('dowel');
  const span = spanOfForm(form);
  const post = context.across(p.postStock, p.postSize);
  const { joints } = form.skeleton;
  const chain = mainChain(joints).map((id) => joints.find((j) => j.id === id)!.at!);
  const root = chain[0] ?? [0, 0, 0];
  const foot: Vec3 = [root[0], root[1], 0];
  const enters = Math.max(0.01, span.low[2]);
  // Straight up, as far as the form leaves it room; the head that hangs in front of it is balled on.
  const leave = Math.max(0.004, post / 2) + context.clayOver(form.regions[0] ?? '');
  const inside: Vec3 = [foot[0], foot[1], enters + Math.max(0.02, 0.25 * (span.high[2] - enters))];
  const up = reachInside(context, inside, [0, 0, 1], leave, Math.max(0.02, span.high[2] - inside[2]));
  const top: Vec3 = [inside[0], inside[1], inside[2] + Math.max(0.005, up)];
  const rim: Vec3 = [foot[0], foot[1], enters];
  out.node('foot', foot, true);
  out.node('rim', rim);
  out.node('inside', inside);
  out.node('top', top);
  out.bone('post', 'stick below the piece', 'foot', 'rim', [], { joinFrom: 'epoxied' });
  out.bone(
    'lower',
    'lower part of the stick',
    'rim',
    'inside',
    form.masses.map((m) => m.id),
  );
  out.bone(
    'upper',
    'upper part of the stick',
    'inside',
    'top',
    form.masses.map((m) => m.id),
  );
  const bones = ['post', 'lower', 'upper'];
  const tip = chain[chain.length - 1];
  if (tip && Math.hypot(tip[0] - top[0], tip[1] - top[1], tip[2] - top[2]) > post) {
    // What lies beyond the stick's end hangs on packed foil alone.
    out.node('ball', mix(top, tip, 0.8));
    out.bone(
      'ball',
      'ball beyond the stick',
      'top',
      'ball',
      form.masses.map((m) => m.id),
      { joinFrom: p.join },
    );
  }
  out.member('stick', 'stick', {
    stock: p.postStock,
    size: p.postSize,
    sizedBy: { stock: 'postStock', size: 'postSize', together: true },
    path: [foot, rim, inside, top],
    bones,
    allowances: [{ what: 'let into the board', length: context.across(p.boardStock, p.boardSize) }],
  });
  const base = boardUnder(
    context,
    p,
    foot,
    {
      width: Math.max(0.12, (span.high[0] - span.low[0]) * 1.1),
      depth: Math.max(0.12, (span.high[1] - span.low[1]) * 1.1),
    },
    { ...plateFor(post), mass: 0 },
  );
  out.hole({
    what: 'in the board, for the stick',
    count: 1,
    diameter: post,
    depth: base.thickness,
    at: [[foot[0] - base.at[0], foot[1] - base.at[1]]],
  });
  return out.finish(base, p);
}

export const dowelAndBall: School<DowelAndBallParameters> = {
  kind: 'dowel-and-ball',
  name: 'stick and ball',
  when: 'Small heads and studies wanted tonight: a stick in a board and a ball of foil on it. It turns on its stick when pushed.',
  how: 'The stick goes straight up into the form as far as there is room, let into the board; foil or paper is balled on it and taped.',
  cuts: 'the depth let into the board, and 5 % for trim',
  traits: { posedLater: 'no', reused: 'the upright' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Ball of' },
    { kind: 'wrap', key: 'wrap', label: 'Wrapped in' },
    { kind: 'join', key: 'join', label: 'Ball held by' },
    { kind: 'heading', label: 'Stick' },
    { kind: 'stock', key: 'postStock', size: 'postSize', label: 'Stick', from: 'bar' },
    ...boardFields,
  ],
  fits: (form) => form.head !== null || form.kind === 'free',
  make,
};
