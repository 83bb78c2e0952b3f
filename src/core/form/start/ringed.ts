import type { Mass } from '../../document';
import { add, scale, type Vec3 } from '../../quantity';
import { massBox } from '../distance';
import { choice, length, measuresSchema, share, type MeasuresOf } from '../measure';
import type { Joint } from '../skeleton';
import { birdMeasures, birdTypes, makeBird } from './bird-like';
import { head } from './head';
import { headTypes } from './head-types';
import { setIn, setInPlace } from './set-in';
import { ball, limb, startForm, type FormType, type MadeForm } from './start-form';

/** A bird perched on the ring, or a head on its neck. */
const sitters = [
  { id: 'owl', name: 'an owl', bird: 'owl' },
  { id: 'raven', name: 'a raven', bird: 'raven' },
  { id: 'swan', name: 'a swan', bird: 'swan' },
  { id: 'old-man', name: 'an old man’s head', bird: null },
  { id: 'elf', name: 'an elf’s head', bird: null },
  { id: 'skull', name: 'a skull', bird: null },
] as const;
type Sitter = (typeof sitters)[number]['id'];

const ringedMeasures = {
  ring: length('Ring, across', 0.05, 3, 0.5),
  thick: length('Ring, thick', 0.008, 0.4, 0.05),
  sitter: choice('Sits in it', sitters as readonly { id: Sitter; name: string }[], 'owl'),
  fills: share('How much of the ring it fills', 0.3, 0.95, 0.72),
  foot: length('Foot under the ring', 0.01, 1, 0.06),
};
type Ringed = MeasuresOf<typeof ringedMeasures>;

const types: readonly FormType[] = sitters.map((s) => ({
  id: s.id,
  name: `${s.name} in a ring`,
  measures: s.id === 'owl' ? ({} as Record<string, string>) : { sitter: s.id },
}));

/** As it is made by itself, its feet or the cut of its neck at height 0. */
function made(id: Sitter): Pick<MadeForm, 'masses' | 'joints'> {
  const bird = sitters.find((s) => s.id === id)?.bird;
  if (bird) {
    const measures = birdTypes.find((t) => t.id === bird)?.measures ?? {};
    const own = measuresSchema(birdMeasures).parse({ ...measures, legLength: 0.02, crestLength: 0 });
    // It sits on the ring with its breast: what carries it goes up into the body, and its legs are not to be seen.
    const { masses, joints } = makeBird(own as never, true);
    return {
      masses: masses.filter((m) => m.region !== 'legs').map((m) => (m.region === 'feet' ? { ...m, joint: 'back' } : m)),
      joints: joints.filter((j) => !/^(hip|hock|foot)-/.test(j.id)),
    };
  }
  const measures = headTypes.find((t) => t.id === id)?.measures ?? {};
  const { masses, joints } = head.make(head.schema.parse({ ...measures, standHeight: 0.01 }) as never);
  return {
    masses: masses.map((m) => (m.joint === 'jaw' ? { ...m, joint: 'head' } : m)),
    joints: joints
      .filter((j) => j.id !== 'stand' && j.id !== 'jaw')
      .map((j) => (j.id === 'neck' ? { ...j, parent: null } : j)),
  };
}

/** With how high and how broad it is, masses and all. */
function sitterOf(id: Sitter) {
  const { masses, joints } = made(id);
  const low = [Infinity, Infinity, Infinity],
    high = [-Infinity, -Infinity, -Infinity];
  for (const m of masses) {
    const box = massBox(m);
    for (let k = 0; k < 3; k++) {
      low[k] = Math.min(low[k]!, box.low[k]!, k === 0 ? -box.high[k]! : Infinity);
      high[k] = Math.max(high[k]!, box.high[k]!, k === 0 ? -box.low[k]! : -Infinity);
    }
  }
  return { masses, joints, low, high };
}

const arcs = 5;

function make(m: Ringed): MadeForm {
  const r = m.thick / 2;
  const radius = Math.max(m.ring / 2 - r, 1.2 * r);
  const middle: Vec3 = [0, 0, m.foot + radius + r];
  const on = (degrees: number): Vec3 => {
    const a = (degrees * Math.PI) / 180;
    return [radius * Math.sin(a), 0, middle[2] - radius * Math.cos(a)];
  };
  const part = (id: string, name: string, joint: string) => ({ id, name, region: 'ring', joint, blend: 0.02 * r });
  const joint = (k: number) => (k === 0 ? 'ring' : `ring-${k}-left`);
  const masses: Mass[] = [
    limb(part('foot', 'foot of the ring', 'base'), [0, 0, r * 1.5], [0, 0, m.foot + r], r * 1.5, r * 1.05),
    ball(part('plinth', 'plinth', 'base'), [0, 0, r * 0.6], [r * 3.2, r * 3.2, r * 0.6]),
  ];
  const joints: Joint[] = [
    { id: 'base', name: 'foot', parent: null, at: [0, 0, 0], ground: true },
    { id: 'ring', name: 'bottom of the ring', parent: 'base', at: on(0) },
  ];
  // Two halves, bent up from the foot to where they meet; each in short straight lengths.
  const lengths = 3 * arcs;
  for (let k = 0; k < arcs; k++) {
    for (let i = 0; i < 3; i++) {
      const n = 3 * k + i;
      const [from, to] = [on((180 * n) / lengths), on((180 * (n + 1)) / lengths)];
      masses.push(limb(part(`ring-part-${n + 1}-left`, `ring, part ${n + 1}, left`, joint(k)), from, to, r, r));
    }
    joints.push({
      id: `ring-${k + 1}-left`,
      name: `ring, joint ${k + 1}, left`,
      parent: joint(k),
      at: k === arcs - 1 ? on(176) : on((180 * (k + 1)) / arcs),
    });
  }
  const sitter = sitterOf(m.sitter);
  const inside = 2 * (radius - r);
  // As large as fits under the ring's top and between its sides; sunk into the ring by some of its thickness.
  const feet = sitters.find((s) => s.id === m.sitter)?.bird ? 0 : sitter.low[2]!;
  const tall = sitter.high[2]! - feet;
  const seat = add(on(0), [0, 0, 0.5 * r]);
  const size = Math.min(
    (m.fills * inside) / tall,
    (0.8 * inside) / (sitter.high[0]! - sitter.low[0]!),
    // A tail that hangs down beside the foot stays off the ground.
    (0.9 * seat[2]) / Math.max(1e-3, feet - sitter.low[2]!),
  );
  const root = sitter.joints[0]!.at;
  const setting = { at: add(seat, scale([0, root[1], feet], -size)), size };
  const ids = new Map(sitter.joints.map((j) => [j.id, `sitter-${j.id}`]));
  masses.push(
    ...setIn(sitter.masses, setting).map((mass) => ({
      ...mass,
      id: `sitter-${mass.id}`,
      region: ['trunk', 'feet'].includes(mass.region) ? 'sitter' : mass.region,
      joint: ids.get(mass.joint ?? '') ?? 'ring',
    })),
  );
  joints.push(
    ...sitter.joints.map((j): Joint => {
      const { ground: _, ...rest } = j;
      return {
        ...rest,
        id: ids.get(j.id)!,
        parent: j.parent === null ? 'ring' : ids.get(j.parent)!,
        at: setInPlace(j.at, setting),
      };
    }),
  );
  return {
    masses,
    joints,
    envelopes: [],
    landmarks: [{ id: 'middle', name: 'middle of the ring', joint: 'ring', at: middle, half: radius * 1.3 }],
  };
}

export const ringed = startForm({
  kind: 'ringed',
  name: 'ring with something sitting in it',
  when: 'A hoop on a foot with an owl, a swan or a head in it: a lantern, a wreath, a moon.',
  usualSize: 1,
  types,
  finelyMade: true,
  measures: ringedMeasures,
  make,
});
