import { curveAt, nearestCell, slicePlane, wetScale, type WholeDrying, type WholeStage } from '../../core/drying';
import type { Picture } from '../../workers/protocol';
import { loadColour, moistureColour } from './ramp';
import { faceColours, frameAt, sectionOf } from './whole-picture';

/**
 * A lattice of 4 by 3 by 2 cells of a centimetre with clay in three of them: at (1,1,0), (2,1,0) and (2,1,1); the first two
 * have a face. Three moments: as laid, half way, dry.
 */
const size = [4, 3, 2] as const;
const cells = [
  [1, 1, 0],
  [2, 1, 0],
  [2, 1, 1],
] as const;
const latticeOf = Int32Array.from(cells, ([x, y, z]) => x + 4 * (y + 3 * z));
const indexOf = new Int32Array(24).fill(-1);
latticeOf.forEach((l, c) => (indexOf[l] = c));
const stage = {
  size,
  origin: [0, 0, 0],
  step: 0.01,
  latticeOf,
  indexOf,
  face: {
    cell: Uint32Array.of(0, 1, 1),
    crack: Float32Array.of(0.2, 0.9, 0.4),
    holdAt: Float32Array.of(3600, 7200, 5400),
  },
} as unknown as WholeStage;
const frame = (time: number, ...wet: number[]) => ({ time, stage: 0, wet: Uint8Array.from(wet, (w) => w * wetScale) });
const whole = {
  stages: [stage],
  frames: [frame(0, 1, 1, 1), frame(5000, 0.5, 0.4, 0.8), frame(90_000, 0, 0, 0)],
} as unknown as WholeDrying;
const middle = (x: number, y: number, z: number) => [(x + 0.5) / 100, (y + 0.5) / 100, (z + 0.5) / 100] as const;

test('the frame nearest a time, also before the first and after the last', () => {
  expect([-5, 0, 2400, 2600, 47_000, 48_000, 1e9].map((t) => frameAt(whole, t))).toEqual([0, 0, 0, 1, 1, 2, 2]);
});

describe('a cut', () => {
  test('across each axis shows the water of the cells it passes, and nothing where there is no clay', () => {
    const level = slicePlane(whole, 1, 2, 0);
    expect([level.width, level.height]).toEqual([4, 3]);
    expect([...level.values].map((v) => Math.round(v * 10) / 10)).toEqual([
      -1, -1, -1, -1, -1, 0.5, 0.4, -1, -1, -1, -1, -1,
    ]);
    const front = slicePlane(whole, 1, 1, 1);
    expect([front.width, front.height]).toEqual([4, 2]);
    expect(front.values[2 + 4]).toBeCloseTo(0.8, 6);
    expect(slicePlane(whole, 1, 0, 2).values[1]).toBeCloseTo(0.4, 6);
    expect(slicePlane(whole, 9, 0, 2)).toMatchObject({ width: 0, height: 0 });
  });
  test('goes from where there is clay to where there is; its picture lies where its cells do', () => {
    const at = (share: number) => sectionOf(whole, 1, 0, share)!.at;
    expect(at(0)).toBeCloseTo(0.015, 9);
    expect(at(1)).toBeCloseTo(0.025, 9);
    const cut = sectionOf(whole, 1, 2, 0)!;
    expect(cut).toMatchObject({ axis: 2, corner: [0, 0], step: 0.01, width: 4, height: 3 });
    const pixel = (i: number) => [...cut.pixels.slice(i * 4, i * 4 + 4)];
    expect(pixel(0)).toEqual([0, 0, 0, 0]);
    expect(pixel(5)).toEqual([...moistureColour(0.5).map((v) => Math.trunc(v * 255)), 255]);
    expect(sectionOf(whole, 9, 0, 0.5)).toBeNull();
  });
});

describe('a place', () => {
  test('the cell it is in, else the nearest within three; further off there is none', () => {
    expect(nearestCell(stage, middle(1, 1, 0))).toBe(0);
    expect(nearestCell(stage, middle(2, 1, 1))).toBe(2);
    expect(nearestCell(stage, middle(0, 1, 0))).toBe(0);
    expect(nearestCell(stage, [-0.019, 0.015, 0.005])).toBe(0);
    expect(nearestCell(stage, [0.5, 0.5, 0.5])).toBe(-1);
  });
  test('its water from frame to frame', () => {
    expect(curveAt(whole, middle(2, 1, 1)).map((p) => [p.time, p.wet && Math.round(p.wet * 10) / 10])).toEqual([
      [0, 1],
      [5000, 0.8],
      [90_000, 0],
    ]);
    expect(curveAt(whole, [9, 9, 9]).map((p) => p.wet)).toEqual([null, null, null]);
  });
});

describe('the face', () => {
  // One point over each cell with a face, one over a cell within, one nowhere near.
  const points = [middle(1, 1, 0), middle(2, 1, 0), middle(2, 1, 1), [9, 9, 9]];
  const picture = { surface: { positions: Float32Array.from(points.flat()) } } as unknown as Picture;
  const colours = (mode: 'moisture' | 'crack' | 'hold', f = 1) => faceColours(whole, f, picture, mode);

  test('by its water', () => {
    expect(colours('moisture')[0]).toEqual(moistureColour(0.5));
    expect(colours('moisture', 2)[1]).toEqual(moistureColour(0));
  });
  test('by its cracks: the worst of a cell’s faces; clay without a face, and no clay, are plain', () => {
    const crack = colours('crack');
    expect(crack[0]).toEqual(loadColour(Math.fround(0.2)));
    expect(crack[1]).toEqual(loadColour(Math.fround(0.9)));
    expect(crack[2]).toEqual(crack[3]);
  });
  test('where a hand may hold by then: all of a cell’s faces have to be firm', () => {
    const [first, second, , none] = colours('hold');
    expect(first).not.toEqual(second);
    expect(first).not.toEqual(none);
    // By the last frame both are firm, and told alike.
    const later = colours('hold', 2);
    expect(later[0]).toEqual(first);
    expect(later[1]).toEqual(first);
    expect(colours('hold', 9)).toEqual([]);
  });
});
