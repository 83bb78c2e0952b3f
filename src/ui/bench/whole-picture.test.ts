import { middle, whole } from '../../../tests/support/three-cells';
import type { Picture } from '../../workers/protocol';
import { loadColour, moistureColour } from './ramp';
import { faceColours, frameAt, sectionOf } from './whole-picture';

test('the frame nearest a time, also before the first and after the last', () => {
  expect([-5, 0, 2400, 2600, 47_000, 48_000, 1e9].map((t) => frameAt(whole, t))).toEqual([0, 0, 0, 1, 1, 2, 2]);
});

describe('a cut', () => {
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
