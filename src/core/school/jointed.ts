import { z } from 'zod';
import type { Allowance } from '../armature';
import { mix, type Vec3 } from '../quantity';
import { joinIds } from '../catalogue';
import { boardFields, boardParameters, boardUnder } from './base';
import { boneName, footBoard, lengthOf, limbsOf, standingJoints, wireForHeight } from './limbs';
import { heightOf, insideShare, reachesOut, spanOfForm, type School, type SchoolContext } from './school';
import { SettingOut } from './setting-out';
import { bentInto, wireName, wireRuns } from './wire-that-fits';

/**
 * Jointed: doubled or tripled soft wire, splinted along every bone so that it bends only at the joints; nuts in the feet
 * for tie-down bolts; foam for volume without weight. It is posed again and again, so joints are judged on wire alone.
 */
const parameters = z.strictObject({
  bulk: z.string().default('foam-camping'),
  wrap: z.string().default('cloth'),
  wireStock: z.string().default('aluminium-annealed'),
  wireSize: z.string().default(''),
  strands: z.number().int().min(1).max(6).default(3),
  splintStock: z.string().default('brass-rod'),
  splintSize: z.string().default(''),
  /** Of a bone's length, left soft at each of its ends. */
  soft: z.number().min(0.05).max(0.4).default(0.14),
  join: z.enum(joinIds).default('epoxied'),
  /** Nuts and bolts in the feet. */
  tieDown: z.string().default('m5'),
  ...boardParameters,
});
export type JointedParameters = z.infer<typeof parameters>;

function make(context: SchoolContext, p: JointedParameters) {
  const { form } = context;
  const { joints } = form.skeleton;
  const out = new SettingOut('jointed');
  const byId = new Map(joints.map((j) => [j.id, j]));
  const place = (id: string): Vec3 => byId.get(id)?.at ?? [0, 0, 0];
  const name = (id: string) => byId.get(id)?.name ?? id;
  const standing = standingJoints(joints);
  const size = p.wireSize || wireForHeight(context, p.wireStock, heightOf(form));
  const splintSize = p.splintSize || wireForHeight(context, p.splintStock, heightOf(form));
  const wire = context.across(p.wireStock, size);
  const asked = { stock: p.wireStock, size, strands: p.strands, byHand: p.wireSize !== '' };
  const limbs = wireRuns(context, asked, limbsOf(joints));
  const used = new Set(limbs.flatMap((l) => l.joints));
  for (const j of joints) if (used.has(j.id)) out.node(j.id, j.at, standing.has(j.id));
  for (const { joints: chain, first, size: own, strands, path } of limbs) {
    const along: string[] = [];
    chain.slice(1).forEach((to, i) => {
      const from = chain[i]!;
      const masses = form.masses.filter((m) => m.joint === from || m.joint === to).map((m) => m.id);
      const called = boneName(joints, from, to);
      const a = place(from),
        b = place(to);
      out.node(`${to}/near`, mix(a, b, p.soft));
      out.node(`${to}/far`, mix(a, b, 1 - p.soft));
      out.bone(
        `${to}/soft-near`,
        `${called}, soft at the ${name(from)}`,
        from,
        `${to}/near`,
        masses,
        i === 0 && !first ? { joinFrom: p.join } : {},
      );
      out.bone(to, `${called}, splinted`, `${to}/near`, `${to}/far`, masses);
      out.bone(`${to}/soft-far`, `${called}, soft at the ${name(to)}`, `${to}/far`, to, masses);
      along.push(`${to}/soft-near`, to, `${to}/soft-far`);
      // A foot is bent flat round its nut: where there is no room a splint would stand out.
      const far = context.toCarry
        ? standing.has(to)
          ? 0
          : insideShare(context, a, b, 1 - p.soft, context.across(p.splintStock, splintSize))
        : 1 - p.soft;
      if (far < p.soft + 0.2) return;
      out.member(`splint-${to}`, `splint of the ${called}`, {
        stock: p.splintStock,
        size: splintSize,
        sizedBy: { stock: 'splintStock', size: 'splintSize' },
        bonded: true,
        path: [mix(a, b, p.soft), mix(a, b, far)],
        bones: [to],
        allowances: [],
      });
    });
    const last = chain[chain.length - 1]!,
      second = chain[1]!;
    const ends: Allowance[] = [
      {
        what: first ? 'turned over at the start' : 'set in putty with the other wire',
        at: 'start',
        length: (first ? 4 : 10) * wire,
      },
      {
        what: standing.has(last) ? 'round the nut in the foot' : 'end loop',
        at: 'end',
        length: (standing.has(last) ? 16 : 6) * wire,
      },
      { what: 'twisting the strands', length: 0.03 * lengthOf(path) },
    ];
    out.member(`wire-${second}`, wireName(chain.slice(1).map((id) => byId.get(id)!)), {
      stock: p.wireStock,
      size: own,
      sizedBy: { stock: 'wireStock', size: 'wireSize', strands: 'strands', bends: true },
      ...bentInto(context, p.wireStock, own, strands),
      strands,
      path,
      bones: along,
      allowances: ends,
    });
  }
  out.adopt(form.masses, limbs[0]?.joints[1] ?? '');
  const feet = joints.filter((j) => standing.has(j.id));
  const bolt = context.across('threaded-rod', p.tieDown);
  for (const j of feet) {
    out.fitting(`nut-${j.id}`, `nut in the ${j.name}, with its bolt from below`, 1, 0.004 + 60 * bolt ** 2, j.at);
  }
  const middle = (k: 0 | 1) => feet.reduce((sum, j) => sum + j.at[k], 0) / Math.max(1, feet.length);
  const plate = {
    diameter: Math.max(0.02, 4 * bolt),
    mass: 0,
    circle: Math.max(0.015, 3 * bolt),
    screws: 2 * Math.max(1, feet.length),
  };
  const base = boardUnder(context, p, [middle(0), middle(1), 0], footBoard(spanOfForm(form)), plate);
  out.hole({
    what: 'in the board, for the tie-down bolts',
    count: feet.length,
    diameter: bolt + 0.0005,
    depth: base.thickness,
    at: feet.map((j) => [j.at[0] - base.at[0], j.at[1] - base.at[1]]),
  });
  return out.finish(base, p);
}

export const jointed: School<JointedParameters> = {
  kind: 'jointed',
  name: 'jointed, soft wire on splints',
  when: 'Puppets and studies that are posed again and again, and figures bolted down for a scene.',
  how: 'Doubled or tripled soft wire through every limb, splinted along each bone so that it bends at the joints only; a nut in each foot for a bolt from below; foam for volume without weight.',
  cuts: 'ten diameters set in putty where limbs meet, six for an end loop, sixteen round a nut, 3 % for twisting, and 5 % for trim',
  traits: { posedLater: 'yes', reused: 'all of it' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Filled with' },
    { kind: 'wrap', key: 'wrap', label: 'Wrapped in' },
    { kind: 'heading', label: 'Wire and splints' },
    { kind: 'stock', key: 'wireStock', size: 'wireSize', label: 'Wire', from: 'wire' },
    { kind: 'number', key: 'strands', label: 'Strands' },
    { kind: 'stock', key: 'splintStock', size: 'splintSize', label: 'Splints', from: 'bar' },
    { kind: 'number', key: 'soft', label: 'Left soft at each end, of the bone' },
    { kind: 'join', key: 'join', label: 'Limbs joined by' },
    {
      kind: 'choice',
      key: 'tieDown',
      label: 'Tie-down bolts',
      choices: ['m4', 'm5', 'm6', 'm8', 'm10', 'm12'].map((id) => ({ id, name: id.toUpperCase() })),
    },
    ...boardFields,
  ],
  // A hand stands on its upright, with no feet to bolt down.
  fits: (form) =>
    form.kind !== 'hand' && form.skeleton.joints.length >= 6 && (form.head === null || form.head.mesh !== undefined),
  unsuited: (form) => (reachesOut(form) ? 'Soft wire does not hold a head this heavy so far out.' : null),
  make,
};
