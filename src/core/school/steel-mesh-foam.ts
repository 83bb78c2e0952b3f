import { z } from 'zod';
import { joinIds } from '../catalogue';
import type { Section } from '../armature';
import { add, distance, mix, subtract, type Vec3 } from '../quantity';
import { boardFields, boardParameters, boardUnder } from './base';
import { setOutCage } from './hoops';
import { bodyLimb } from './body-names';
import { boneName, footBoard, limbsOf, nearestSize, standingJoints } from './limbs';
import { heightOf, massesOn, spanOfForm, type School, type SchoolContext } from './school';
import { SettingOut } from './setting-out';
import { bentInto } from './wire-that-fits';

/**
 * Steel, mesh and sprayed foam: square tube welded through every limb, hoops and stringers round the thick parts, mesh
 * and foam on them. For pieces taller than a person; it comes apart at bolted plates so that it goes through a door.
 */
const parameters = z.strictObject({
  bulk: z.string().default('foam-sprayed'),
  wrap: z.string().default('mesh'),
  tubeStock: z.string().default('steel-square-tube'),
  /** Empty lets the height of the form decide. */
  tubeSize: z.string().default(''),
  hoopStock: z.string().default('mild-steel'),
  hoopSize: z.string().default(''),
  around: z.number().int().min(4).max(16).default(8),
  /** How the limbs come away from the trunk. */
  sectionJoin: z.enum(joinIds).default('bolted'),
  ...boardParameters,
  boardSize: z.string().default('24mm'),
});
export type SteelMeshFoamParameters = z.infer<typeof parameters>;

function make(context: SchoolContext, p: SteelMeshFoamParameters) {
  const { form } = context;
  const { joints } = form.skeleton;
  const out = new SettingOut('steel');
  const byId = new Map(joints.map((j) => [j.id, j]));
  const at = (id: string): Vec3 => byId.get(id)?.at ?? [0, 0, 0];
  const name = (id: string) => byId.get(id)?.name ?? id;
  const standing = standingJoints(joints);
  const limbs = limbsOf(joints);
  const used = new Set(limbs.flatMap((l) => l.joints));
  for (const j of joints) if (used.has(j.id)) out.node(j.id, j.at, standing.has(j.id));
  const clay = Math.max(...form.regions.map((r) => context.clayOver(r)));
  const height = heightOf(form);
  const hoopSize = p.hoopSize || nearestSize(context, p.hoopStock, height / 300);
  const tubeSize = p.tubeSize || nearestSize(context, p.tubeStock, height / 45);
  const hoop = context.across(p.hoopStock, hoopSize);
  const sections: Section[] = [];
  limbs.forEach(({ joints: chain, first }, c) => {
    const bones: string[] = [];
    chain.slice(1).forEach((id, i) => {
      const from = chain[i]!;
      const masses = form.masses.filter((m) => m.joint === from || m.joint === id).map((m) => m.id);
      const middle = mix(at(from), at(id), 0.5);
      // A cage only where there is room between tube and face.
      const roomy = context.depthAt(middle) > clay + 0.06 && distance(at(from), at(id)) > 0.12;
      const before = out.bones.length;
      if (roomy) {
        bones.push(
          ...setOutCage(context, out, {
            prefix: `c${c + 1}-${i + 1}`,
            beam: [
              { id: from, at: at(from) },
              { id, at: at(id) },
            ],
            hoops: Math.max(2, Math.round(distance(at(from), at(id)) / 0.25)),
            around: p.around,
            under: clay + hoop * 1.5 + 0.008,
            stock: p.hoopStock,
            size: hoopSize,
            spokeEvery: Math.max(1, Math.round(p.around / 4)),
            masses,
            most: height * 0.4,
            bent: context.toCarry,
          }),
        );
      } else {
        out.bone(id, boneName(joints, from, id), from, id, masses);
        bones.push(id);
      }
      const start = out.bones[before];
      if (i === 0 && !first && start) out.bones[before] = { ...start, joinFrom: p.sectionJoin };
    });
    const last = chain[chain.length - 1]!,
      second = chain[1]!;
    out.member(`tube-${second}`, tubeName(name, second, last), {
      stock: p.tubeStock,
      size: tubeSize,
      sizedBy: { stock: 'tubeStock', size: 'tubeSize' },
      ...bentInto(context, p.tubeStock, tubeSize, 1),
      path: chain.map(at),
      bones,
      allowances: [
        {
          what: first || standing.has(last) ? 'foot plate, welded' : 'plate, welded',
          length: 0.02 * (chain.length - 1),
        },
      ],
    });
    const own = massesOn(form, first ? chain : chain.slice(1));
    sections.push({
      id: second,
      name: first ? 'trunk' : `from the ${name(chain[0]!)} to the ${name(last)}`,
      masses: own,
      heldBy: first ? 'the foot plates' : 'two plates and four bolts',
    });
    if (!first) out.fitting(`plates-${second}`, `bolted plates at the ${name(chain[0]!)}`, 1, 0.9, at(second));
  });
  out.adopt(form.masses, limbs[0]?.joints[1] ?? '');
  const feet = joints.filter((j) => standing.has(j.id));
  const centre = feet.reduce<Vec3>((sum, j) => add(sum, j.at), [0, 0, 0]);
  const middle: Vec3 = [centre[0] / Math.max(1, feet.length), centre[1] / Math.max(1, feet.length), 0];
  const span = spanOfForm(form);
  const plate = { diameter: 0.16, mass: 1.2, circle: 0.13, screws: 4 * Math.max(1, feet.length) };
  return out.finish(boardUnder(context, p, subtract(middle, [0, 0, 0]), footBoard(span), plate), p, {
    sections: unshared(sections),
  });
}

/** A mass two sections would have goes with the first. */
function unshared(sections: readonly Section[]): Section[] {
  const taken = new Set<string>();
  return sections
    .map((s) => {
      const masses = s.masses.filter((m) => !taken.has(m));
      for (const m of masses) taken.add(m);
      return { ...s, masses };
    })
    .filter((s) => s.masses.length > 0);
}

function tubeName(name: (joint: string) => string, from: string, to: string): string {
  const limb = bodyLimb(to);
  return limb ? `${limb} tube` : `tube, ${name(from)} to ${name(to)}`;
}

export const steelMeshFoam: School<SteelMeshFoamParameters> = {
  kind: 'steel-mesh-foam',
  name: 'welded steel, mesh and foam',
  when: 'Pieces taller than a person: strong, light for their size, and in sections that come apart at bolted plates.',
  how: 'Square tube is welded through every limb; hoops and stringers stand round what is thick; mesh is tied on and foam sprayed or stacked behind it. Limbs bolt to the trunk.',
  cuts: '20 mm of plate at each end of a tube, 60 mm of overlap on a hoop, 80 mm turned over on a stringer or spoke, and 5 % for trim',
  traits: { posedLater: 'no', reused: 'the upright' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Filled with' },
    { kind: 'wrap', key: 'wrap', label: 'Covered with' },
    { kind: 'heading', label: 'Steel' },
    { kind: 'stock', key: 'tubeStock', size: 'tubeSize', label: 'Tube', from: 'upright' },
    { kind: 'stock', key: 'hoopStock', size: 'hoopSize', label: 'Hoops and stringers', from: 'bar' },
    { kind: 'number', key: 'around', label: 'Stringers round it' },
    { kind: 'join', key: 'sectionJoin', label: 'Sections joined by' },
    ...boardFields,
  ],
  fits: (form) =>
    form.skeleton.joints.length >= 3 &&
    (form.head === null || form.head.mesh !== undefined) &&
    !['mask', 'worn-shell', 'found-object'].includes(form.kind),
  make,
};
