import type { Bone, Member } from '../armature';
import { seeded } from '../quantity';
import { type Parcels } from '../form';
import { distance, mix, type Vec3 } from '../quantity';
import { amountIndex, lumpLoad, stationAt, stationsPerBone } from '.';

/** Bones in a tangle, parcels all over: many more than are looked at one by one. */
function tangle(seed: number, boneCount: number, parcelCount: number) {
  const random = seeded(seed);
  const point = (): Vec3 => [random() - 0.5, random() - 0.5, random()];
  // No two bones meet: at a shared joint both would be equally near.
  const nodes = Array.from({ length: 2 * boneCount }, (_, i) => ({ id: `n${i}`, at: point(), held: i === 0 }));
  const masses = ['a', 'b', 'c'];
  const bones: Bone[] = Array.from({ length: boneCount }, (_, i) => ({
    id: `b${i}`,
    name: `b${i}`,
    from: `n${2 * i}`,
    to: `n${2 * i + 1}`,
    masses: i % 4 === 3 ? ['c'] : ['a', 'b'],
    joinFrom: 'welded',
    joinTo: 'welded',
  }));
  const triples = (n: number, make: () => Vec3) => Float64Array.from(Array.from({ length: n }, make).flat());
  const places = Array.from({ length: parcelCount }, point);
  let k = 0;
  const parcels: Parcels = {
    count: parcelCount,
    mass: Uint16Array.from({ length: parcelCount }, () => Math.floor(random() * 3)),
    clayVolume: Float64Array.from({ length: parcelCount }, () => (random() < 0.3 ? 0 : 1e-6 * random())),
    bulkVolume: Float64Array.from({ length: parcelCount }, () => 1e-6 * (0.01 + random())),
    clayCentre: triples(parcelCount, () => places[k++]!),
    bulkCentre: triples(parcelCount, point),
  };
  return { nodes, bones, masses, parcels };
}

function away(p: Vec3, a: Vec3, b: Vec3): number {
  const l2 = distance(a, b) ** 2;
  const t = Math.min(1, Math.max(0, [0, 1, 2].reduce((s, k) => s + (p[k]! - a[k]!) * (b[k]! - a[k]!), 0) / l2));
  return distance(p, mix(a, b, t));
}

test('what stands round a bone is as thick as it is, round the bone or beside it; its core in proportion', () => {
  const [radius, side] = [0.03, 0.004];
  for (const beside of [0, 0.08]) {
    const places: Vec3[] = [];
    for (let x = -radius; x <= radius; x += side)
      for (let y = -radius; y <= radius; y += side)
        if (Math.hypot(x, y) <= radius) for (let z = side / 2; z < 0.4; z += side) places.push([x + beside, y, z]);
    const each = side ** 3;
    const flat = Float64Array.from(places.flat());
    const load = lumpLoad(
      {
        count: places.length,
        mass: new Uint16Array(places.length),
        clayVolume: new Float64Array(places.length).fill(0.75 * each),
        bulkVolume: new Float64Array(places.length).fill(0.25 * each),
        clayCentre: flat,
        bulkCentre: flat,
      },
      [0],
      1,
      ['a'],
      [
        { id: 'foot', at: [0, 0, 0], held: true },
        { id: 'top', at: [0, 0, 0.4], held: false },
      ],
      [{ id: 'b', name: 'b', from: 'foot', to: 'top', masses: ['a'], joinFrom: 'welded', joinTo: 'welded' }],
      [],
      () => 0,
    );
    expect(load.outerDiameter[0]! / (2 * radius)).toBeCloseTo(1, 1);
    expect(load.coreDiameter[0]! / load.outerDiameter[0]!).toBeCloseTo(0.5, 6);
  }
});

test('what is counted with another mass hangs on the bones that carry either, and on no other', () => {
  const at = Float64Array.from([0.09, 0, 0.3, -0.11, 0, 0.3]);
  const parcels: Parcels = {
    count: 2,
    // All of it counted with the first, whichever it was.
    mass: Uint16Array.from([0, 0]),
    clayVolume: Float64Array.from([2e-3, 1e-3]),
    bulkVolume: new Float64Array(2),
    clayCentre: at,
    bulkCentre: at,
  };
  const upright = (id: string, x: number, masses: string[]): Bone => ({
    id,
    name: id,
    from: `${id} foot${x}`,
    to: `${id} top${x}`,
    masses,
    joinFrom: 'welded',
    joinTo: 'welded',
  });
  const bones = [upright('left', 0.1, ['a']), upright('right', -0.1, ['b']), upright('other', -0.11, ['c'])];
  const nodes = bones.flatMap((b, i) => {
    const x = [0.1, -0.1, -0.11][i]!;
    return [
      { id: b.from, at: [x, 0, 0] as Vec3, held: true },
      { id: b.to, at: [x, 0, 0.4] as Vec3, held: false },
    ];
  });
  const load = lumpLoad(parcels, [0, 0, 0], 1, ['a', 'b', 'c'], nodes, bones, [], () => 0, [], [0, 0, 2]);
  const clay = (bone: number) => {
    let sum = 0;
    for (let s = 0; s < stationsPerBone; s++) sum += load.amounts[amountIndex(load, bone, s, 0)]!;
    return sum;
  };
  expect([clay(0), clay(1), clay(2)]).toEqual([expect.closeTo(2e-3, 12), expect.closeTo(1e-3, 12), 0]);
});

test('a mass far larger than its short bone is no sleeve round it: as thick as it spreads', () => {
  const [radius, side] = [0.1, 0.01];
  const places: Vec3[] = [];
  const steps = Array.from({ length: 21 }, (_, i) => (i - 10) * side);
  for (const x of steps)
    for (const y of steps) for (const z of steps) if (Math.hypot(x, y, z) <= radius) places.push([x, y, z]);
  const flat = Float64Array.from(places.flat());
  const load = lumpLoad(
    {
      count: places.length,
      mass: new Uint16Array(places.length),
      clayVolume: new Float64Array(places.length).fill(side ** 3),
      bulkVolume: new Float64Array(places.length),
      clayCentre: flat,
      bulkCentre: flat,
    },
    [0],
    1,
    ['a'],
    [
      { id: 'foot', at: [0, 0, -0.01], held: true },
      { id: 'top', at: [0, 0, 0.01], held: false },
    ],
    [{ id: 'b', name: 'b', from: 'foot', to: 'top', masses: ['a'], joinFrom: 'welded', joinTo: 'welded' }],
    [],
    () => 0,
  );
  // A ball spreads R2/5 along each of the two ways across the bone, a rod of radius r r2/4: r = R sqrt(4/5).
  expect(load.outerDiameter[0]! / (2 * radius * Math.sqrt(4 / 5))).toBeCloseTo(1, 1);
});

describe.each([
  [1, 9, 300],
  [2, 40, 1500],
  [3, 230, 4000],
])('seed %d, %d bones, %d parcels', (seed, boneCount, parcelCount) => {
  const { nodes, bones, masses, parcels } = tangle(seed, boneCount, parcelCount);
  const load = lumpLoad(parcels, [0, 0, 1], 2, masses, nodes, bones, [], () => 0, [0.4, 0.2, 0]);
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  const at = (array: Float64Array, p: number): Vec3 => [array[p * 3]!, array[p * 3 + 1]!, array[p * 3 + 2]!];

  test('every parcel hangs on the bone of its mass that is nearest, as found by looking at all of them', () => {
    const volume = new Float64Array(boneCount);
    for (let p = 0; p < parcelCount; p++) {
      const clay = parcels.clayVolume[p]!,
        bulk = parcels.bulkVolume[p]!;
      const middle = mix(at(parcels.clayCentre, p), at(parcels.bulkCentre, p), bulk / (clay + bulk));
      let best = -1,
        least = Infinity;
      bones.forEach((b, i) => {
        if (!b.masses.includes(masses[parcels.mass[p]!]!)) return;
        const d = away(middle, place.get(b.from)!, place.get(b.to)!);
        if (d < least) {
          least = d;
          best = i;
        }
      });
      volume[best]! += clay + bulk;
    }
    for (let b = 0; b < boneCount; b++) {
      let hung = 0;
      for (let s = 0; s < stationsPerBone; s++)
        for (let c = 0; c < 3; c++) hung += load.amounts[amountIndex(load, b, s, c)]!;
      expect(Math.abs(hung - volume[b]!)).toBeLessThan(1e-14);
    }
  });

  test('amount and first moment of clay, bulk and wrap are kept; what has no clay is not wrapped', () => {
    const total = (component: number) => {
      const sum = [0, 0, 0, 0];
      for (let b = 0; b < boneCount; b++) {
        for (let s = 0; s < stationsPerBone; s++) {
          const i = amountIndex(load, b, s, component);
          const from = stationAt(load.ends[b]!, s);
          const amount = load.amounts[i]!;
          sum[0] = sum[0]! + amount;
          for (let k = 0; k < 3; k++) sum[k + 1] = sum[k + 1]! + amount * from[k]! + load.amounts[i + 1 + k]!;
        }
      }
      return sum;
    };
    const wanted = (volume: Float64Array, centre: Float64Array, only: (mass: number) => boolean) => {
      const sum = [0, 0, 0, 0];
      for (let p = 0; p < parcelCount; p++) {
        if (!only(parcels.mass[p]!)) continue;
        const v = volume[p]!;
        sum[0] = sum[0]! + v;
        for (let k = 0; k < 3; k++) sum[k + 1] = sum[k + 1]! + v * centre[p * 3 + k]!;
      }
      return sum;
    };
    const close = (a: readonly number[], b: readonly number[]) =>
      a.forEach((v, i) => expect(Math.abs(v - b[i]!)).toBeLessThan(1e-12));
    close(
      total(0),
      wanted(parcels.clayVolume, parcels.clayCentre, (m) => m < 2),
    );
    close(
      total(1),
      wanted(parcels.clayVolume, parcels.clayCentre, (m) => m === 2),
    );
    close(
      total(2),
      wanted(parcels.bulkVolume, parcels.bulkCentre, () => true),
    );
    expect(total(3)[0]).toBeCloseTo(0.6, 9);
    expect(total(4)[0]).toBe(0);
  });
});

test('a wire weighs on the bones it runs along, however near it comes to others', () => {
  const nodes = ['a', 'b', 'c', 'd'].map((id, i) => ({
    id,
    at: [i < 2 ? 0 : 0.1, 0, i % 2] as Vec3,
    held: false,
  }));
  const bone = (id: string, from: string, to: string): Bone => ({
    id,
    name: id,
    from,
    to,
    masses: [],
    joinFrom: 'welded',
    joinTo: 'welded',
  });
  const bones = [bone('left', 'a', 'b'), bone('right', 'c', 'd')];
  const wire = (along: readonly string[]) =>
    ({
      id: 'w',
      bones: along,
      path: [
        [0.08, 0, 0],
        [0.08, 0, 1],
      ],
    }) as unknown as Member;
  const none = { count: 0, mass: new Uint16Array(), clayVolume: new Float64Array(), bulkVolume: new Float64Array() };
  const parcels = { ...none, clayCentre: new Float64Array(), bulkCentre: new Float64Array() };
  const metal = (along: readonly string[]) => {
    const load = lumpLoad(parcels, [], 0, [], nodes, bones, [wire(along)], () => 2);
    return bones.map((_, b) =>
      Array.from({ length: stationsPerBone }, (_, s) => load.amounts[amountIndex(load, b, s, 2)]!),
    );
  };
  // Evenly, an equal share on each station; the two at the ends are for what lies beyond them.
  const even = Array.from({ length: stationsPerBone }, (_, s) =>
    s === 0 || s === stationsPerBone - 1 ? 0 : 2 / (stationsPerBone - 2),
  );
  const close = (found: readonly number[], wanted: readonly number[]) =>
    found.forEach((v, i) => expect(Math.abs(v - wanted[i]!)).toBeLessThan(0.07));
  const [left, right] = metal(['left']);
  close(left!, even);
  expect(right!.every((v) => v === 0)).toBe(true);
  // One that runs along none hangs on the nearest.
  expect(metal([])[0]!.every((v) => v === 0)).toBe(true);
});

test('past the joint where two bones meet it is as far from either: it hangs on the one it lies more beside, in any order', () => {
  const nodes = (
    [
      ['left', -1, 0],
      ['joint', 0, 0],
      ['top', 0, 1],
    ] as const
  ).map(([id, x, z]) => ({ id, at: [x, 0, z] as Vec3, held: id === 'left' }));
  const level = { id: 'level', from: 'left', to: 'joint' },
    upright = { id: 'upright', from: 'joint', to: 'top' };
  const hangsOn = (bones: readonly (typeof level)[], at: Vec3): string => {
    const all = bones.map((b): Bone => ({ ...b, name: b.id, masses: ['m'], joinFrom: 'welded', joinTo: 'welded' }));
    const places = Float64Array.from(at);
    const load = lumpLoad(
      {
        count: 1,
        mass: new Uint16Array(1),
        clayVolume: Float64Array.of(1e-6),
        bulkVolume: new Float64Array(1),
        clayCentre: places,
        bulkCentre: places,
      },
      [0],
      1,
      ['m'],
      nodes,
      all,
      [],
      () => 0,
    );
    return bones.find((_, b) =>
      Array.from({ length: stationsPerBone }, (_s, s) => load.amounts[amountIndex(load, b, s, 0)]!).some((v) => v > 0),
    )!.id;
  };
  for (const bones of [
    [level, upright],
    [upright, level],
  ]) {
    // A tenth past the end of one, three tenths under the foot of the other; and the other way round.
    expect(hangsOn(bones, [0.1, 0, -0.3])).toBe('level');
    expect(hangsOn(bones, [0.3, 0, -0.1])).toBe('upright');
  }
});
