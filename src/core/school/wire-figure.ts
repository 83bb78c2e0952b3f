import { z } from 'zod';
import type { Allowance } from '../armature';
import { joinIds, type JoinKindId } from '../catalogue';
import type { PosedJoint, ResolvedForm } from '../form';
import { mix, type Vec3 } from '../quantity';
import { boardFields, boardParameters, boardUnder, type BoardParameters } from './base';
import { boneName, footBoard, lengthOf, limbsOf, standingJoints, wireForHeight } from './limbs';
import { arc, heightOf, spanOfForm, withoutWire, type School, type SchoolContext, type SchoolField } from './school';
import { SettingOut } from './setting-out';
import { bentInto, wireName, wireRuns } from './wire-that-fits';

/**
 * Wire figure: one wire through trunk, head and a leg, the next limbs bound on where they leave, foil on it as muscle
 * and gauze or tape over. Feet are folded over and stapled or screwed to the board.
 */
export const limbParameters = {
  wireStock: z.string().default('aluminium-annealed'),
  /** Empty lets the height of the form decide. */
  wireSize: z.string().default(''),
  strands: z.number().int().min(1).max(12).default(2),
  bonded: z.boolean().default(false),
  join: z.enum(joinIds).default('bound-glued'),
  ...boardParameters,
};
export interface LimbFigures extends BoardParameters {
  readonly bulk: string;
  readonly wrap: string;
  readonly wireStock: string;
  readonly wireSize: string;
  readonly strands: number;
  readonly bonded: boolean;
  readonly join: JoinKindId;
}
export const limbFields: readonly SchoolField[] = [
  { kind: 'heading', label: 'Wire' },
  { kind: 'stock', key: 'wireStock', size: 'wireSize', label: 'Wire', from: 'bar' },
  { kind: 'number', key: 'strands', label: 'Strands' },
  { kind: 'yes-no', key: 'bonded', label: 'Strands splinted together' },
  { kind: 'join', key: 'join', label: 'Limbs joined by' },
];

const parameters = z.strictObject({
  bulk: z.string().default('foil-firm'),
  wrap: z.string().default('tape'),
  ...limbParameters,
});
export type WireFigureParameters = z.infer<typeof parameters>;

export interface LimbSetting {
  readonly out: SettingOut;
  readonly feet: readonly PosedJoint[];
  readonly size: string;
  readonly finish: () => ReturnType<SettingOut['finish']>;
}

/** Bones along every limb, and unless `wires` is false a wire on each. */
export function setOutLimbs(context: SchoolContext, p: LimbFigures, prefix: string, wires = true): LimbSetting {
  const { form } = context;
  const { joints } = form.skeleton;
  const out = new SettingOut(prefix);
  const height = heightOf(form);
  const size = p.wireSize || wireForHeight(context, p.wireStock, height);
  const standing = standingJoints(joints);
  const byId = new Map(joints.map((j) => [j.id, j]));
  const place = (id: string): Vec3 => byId.get(id)?.at ?? [0, 0, 0];
  const asked = { stock: p.wireStock, size, strands: p.strands, byHand: p.wireSize !== '' };
  const limbs = wireRuns(context, asked, limbsOf(joints));
  const used = new Set(limbs.flatMap((l) => l.joints));
  for (const j of joints) if (used.has(j.id)) out.node(j.id, j.at, standing.has(j.id));
  for (const { joints: chain, first, size: own, strands, path: run } of limbs) {
    const wire = context.across(p.wireStock, own);
    const second = chain[1]!,
      last = chain[chain.length - 1]!;
    chain.slice(1).forEach((id, i) => {
      const from = chain[i]!;
      out.bone(
        id,
        boneName(joints, from, id),
        from,
        id,
        form.masses.filter((m) => m.joint === from || m.joint === id).map((m) => m.id),
        i === 0 && !first ? { joinFrom: p.join } : {},
      );
    });
    if (!wires) continue;
    const head = last === 'crown' ? headLoop(form, place(chain[chain.length - 2]!), place(last)) : null;
    const ends: Allowance[] = [
      first
        ? { what: 'turned over at the start', at: 'start', length: 4 * wire }
        : { what: 'bound along the other wire', at: 'start', length: 12 * wire },
      standing.has(last)
        ? { what: 'foot, folded and fixed', at: 'end', length: Math.max(14 * wire, height / 12) }
        : head
          ? { what: 'bound below the head', at: 'end', length: 8 * wire }
          : { what: 'end loop', at: 'end', length: 6 * wire },
    ];
    const path = [...run.slice(0, head ? -1 : undefined), ...(head ?? [])];
    out.member(`wire-${second}`, wireName(chain.slice(1).map((id) => byId.get(id)!)), {
      stock: p.wireStock,
      size: own,
      sizedBy: { stock: 'wireStock', size: 'wireSize', strands: 'strands' },
      ...bentInto(context, p.wireStock, own, strands),
      strands,
      bonded: p.bonded,
      path,
      bones: [...chain.slice(1), ...(head ? [last] : [])],
      allowances: strands > 1 ? [...ends, { what: 'twisting the strands', length: 0.03 * lengthOf(path) }] : ends,
    });
  }
  out.adopt(form.masses, limbs[0]?.joints[1] ?? '');
  const feet = joints.filter((j) => standing.has(j.id));
  const middle = (k: 0 | 1) => feet.reduce((sum, j) => sum + j.at[k], 0) / Math.max(1, feet.length);
  const wire = wires ? context.across(p.wireStock, size) : 0;
  const screws = wires ? 2 * Math.max(1, feet.length) : 0;
  const plate = { diameter: Math.max(0.02, 8 * wire), mass: 0, circle: Math.max(0.015, 6 * wire), screws };
  return {
    out,
    feet,
    size,
    finish: () => out.finish(boardUnder(context, p, [middle(0), middle(1), 0], footBoard(spanOfForm(form)), plate), p),
  };
}

/** The wire goes round inside the head and comes back to the neck. */
function headLoop(form: ResolvedForm, neck: Vec3, crown: Vec3): Vec3[] | null {
  const skull = form.masses
    .filter((m) => m.joint === 'head' && m.shape.kind === 'ellipsoid')
    .sort((a, b) => radiusOf(b) - radiusOf(a))[0];
  if (!skull || skull.shape.kind !== 'ellipsoid') return null;
  const across = skull.shape.radii[0] * 0.5;
  const middle = mix(neck, crown, 0.55);
  const up: Vec3 = [(crown[0] - neck[0]) * 0.45, (crown[1] - neck[1]) * 0.45, (crown[2] - neck[2]) * 0.45];
  return [...arc(middle, [across, 0, 0], up, -60, 240, 14), neck];
}

const radiusOf = (m: { readonly shape: { readonly kind: string } }): number =>
  'radii' in m.shape ? ((m.shape as { radii: readonly number[] }).radii[0] ?? 0) : 0;

export const wireFigure: School<WireFigureParameters> = {
  kind: 'wire-figure',
  name: 'wire figure',
  when: 'Figures and creatures: a wire through every limb, foil on it for muscle, bound where limbs meet.',
  how: 'One wire runs through the joints of each limb as it is posed, round inside the head and back; where limbs meet, the next is bound along the first. Feet are folded over on the board and fixed.',
  cuts: 'twelve diameters where a wire is bound along another, six for an end loop, a twelfth of the height for a foot, 3 % for twisting strands together, and 5 % for trim',
  traits: { posedLater: 'until the clay is on', reused: 'little' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Filled with' },
    { kind: 'wrap', key: 'wrap', label: 'Wrapped in' },
    ...limbFields,
    ...boardFields,
  ],
  fits: (form) => form.skeleton.joints.length > 1,
  unsuited: withoutWire,
  make: (context, p) => setOutLimbs(context, p, 'limb').finish(),
};
