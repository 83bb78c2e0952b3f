import { DistanceField, solidExtent, voxelise, type Mass } from '..';
import { add, scale, subtract, unit, type Vec3 } from '../../quantity';
import { solidPieces } from '../../../../tests/support/solid-pieces';
import { handBreadth, handHolds, handMasses, type HandHold } from './human-hand';

const { abs, acos, hypot } = Math;

/** Lying with the palm up, the fingers along x and the thumb along y. */
const place = { wrist: [0, 0, 0], along: [1, 0, 0], palm: [0, 0, 1] } as const;
const hand = (hold: HandHold, length = 0.19, more: Partial<typeof place> = {}) =>
  handMasses({ ...place, ...more, joint: 'wrist-left', region: 'hands' }, length, hold);
const gridOf = (masses: readonly Mass[], step: number) => voxelise(new DistanceField(masses), { step, depth: 0.1 });
const find = (masses: readonly Mass[], id: string) => masses.find((m) => m.id === `${id}-left`)!;
const end = (m: Mass): Vec3 => (m.shape.kind === 'round-cone' ? add(m.at, m.shape.reach) : m.at);
const volume = (masses: readonly Mass[]) => {
  const step = 0.003;
  return solidPieces(gridOf(masses, step)).reduce((a, b) => a + b, 0) * step ** 3;
};

test('open it is as long and as broad as a hand of that length', () => {
  for (const length of [0.12, 0.19, 0.21]) {
    const masses = hand('open', length);
    const { high } = solidExtent(gridOf(masses, length / 70));
    // The longest finger splays a degree.
    expect(abs(high[0] / length - 1)).toBeLessThan(0.02);
    // Over the four knuckles, without the thumb: written down before as 0.44 to 0.48 of its length.
    const knuckles = ['finger-index-1', 'finger-little-1'].map((id) => find(masses, id));
    const [index, little] = knuckles as [Mass, Mass];
    const thick = (m: Mass) => (m.shape.kind === 'round-cone' ? m.shape.radiusFrom : 0);
    const broad = index.at[1] - little.at[1] + thick(index) + thick(little);
    expect(broad / length).toBeGreaterThan(0.36);
    expect(broad / length).toBeLessThan(0.48);
    expect(handBreadth(length) / length).toBeCloseTo(0.475, 2);
  }
});

test('fingers by length: middle, then ring, then first, then little', () => {
  const masses = hand('open');
  const tip = (id: string) => end(find(masses, `finger-${id}-3`))[0];
  expect(tip('middle')).toBeGreaterThan(tip('ring'));
  expect(tip('ring')).toBeGreaterThan(tip('little'));
  expect(tip('index')).toBeGreaterThan(tip('little'));
  // The bones of the middle finger, as they were measured.
  const [one, two] = ['finger-middle-1', 'finger-middle-2'].map((id) => find(masses, id));
  const long = (m: Mass) => hypot(...subtract(end(m), m.at));
  expect(long(one!) / long(two!)).toBeCloseTo(44.6 / 26.3, 6);
});

test('as much hand as there is: a quarter to half a litre, a fist a little less for what it presses together', () => {
  const open = volume(hand('open'));
  expect(open).toBeGreaterThan(0.00025);
  expect(open).toBeLessThan(0.0005);
  for (const { id } of handHolds) {
    const v = volume(hand(id));
    expect([id, v / open]).toEqual([id, expect.any(Number)]);
    expect(v / open).toBeGreaterThan(0.85);
    expect(v / open).toBeLessThan(1.05);
  }
});

test.each(handHolds.map((h) => h.id))('%s: in one piece', (hold) => {
  expect(solidPieces(gridOf(hand(hold), 0.0025)).filter((n) => n > 2)).toHaveLength(1);
});

describe('how it is held', () => {
  const tipOf = (hold: HandHold, finger: string) => end(find(hand(hold), `finger-${finger}-3`));
  const lineOf = (hold: HandHold, finger: string) => {
    const m = find(hand(hold), `finger-${finger}-3`);
    return unit(subtract(end(m), m.at));
  };
  test('a fist has its tips in the palm, an open hand at its end', () => {
    for (const finger of ['index', 'middle', 'ring', 'little']) {
      expect(tipOf('fist', finger)[0]).toBeLessThan(0.085);
      expect(tipOf('fist', finger)[2]).toBeGreaterThan(0.005);
      expect(abs(tipOf('open', finger)[2])).toBeLessThan(0.02);
    }
  });
  test('round a staff there is room for one as thick as a thumb', () => {
    const masses = hand('holding');
    const field = new DistanceField(masses);
    let most = -1;
    // Somewhere between palm and fingers, across the hand.
    for (let x = 0.07; x < 0.13; x += 0.004)
      for (let z = 0.008; z < 0.05; z += 0.004) most = Math.max(most, field.at(x, 0, z, field.all()));
    expect(most).toBeGreaterThan(0.008);
  });
  test('pointing, the first finger is straight and the others are shut', () => {
    const bend = (finger: string) => (acos(lineOf('pointing', finger)[0]) * 180) / Math.PI;
    expect(bend('index')).toBeLessThan(12);
    for (const finger of ['middle', 'ring', 'little']) expect(bend(finger)).toBeGreaterThan(120);
  });
  test('bends toward the palm, whichever way the hand hangs', () => {
    const along = unit([0, -0.3, -1]),
      palm: Vec3 = [-1, 0, 0];
    const masses = hand('relaxed', 0.19, { along, palm } as never);
    const tip = end(find(masses, 'finger-middle-3'));
    expect(tip[0]).toBeLessThan(-0.02);
    expect(tip[2]).toBeLessThan(-0.1);
    // The thumb is in front.
    expect(end(find(masses, 'thumb-2'))[1]).toBeLessThan(scale(along, 0.1)[1] - 0.02);
  });
});
