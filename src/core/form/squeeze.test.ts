import { seeded } from '../quantity';
import type { Mass } from './mass';
import { massDistance } from './mass-distance';
import { compile } from './compiled';
import { stretchedOver } from './squeeze';
import { rotate, rotationOf } from './turn';

test('an ellipsoid stretched along the world’s axes goes through the stretched places of its face, and no others', () => {
  const random = seeded(5);
  for (let n = 0; n < 40; n++) {
    const r = (low: number, high: number) => low + (high - low) * random();
    const mass: Mass = {
      id: 'a',
      name: 'a',
      region: 'a',
      at: [r(-1, 1), r(-1, 1), r(-1, 1)],
      turn: [r(-180, 180), r(-180, 180), r(-180, 180)],
      blend: 0.1,
      shape: { kind: 'ellipsoid', radii: [r(0.05, 0.4), r(0.05, 0.4), r(0.05, 0.4)] },
    };
    const by = [r(0.3, 2), r(0.1, 1), r(0.3, 2)] as const;
    const stretched = compile(stretchedOver(mass, by));
    const rotation = rotationOf(mass.turn);
    const radii = (mass.shape as { radii: [number, number, number] }).radii;
    for (let k = 0; k < 12; k++) {
      const u = [r(-1, 1), r(-1, 1), r(-1, 1)];
      const long = Math.hypot(...u);
      const own = rotate(rotation, [(radii[0] * u[0]!) / long, (radii[1] * u[1]!) / long, (radii[2] * u[2]!) / long]);
      const p = [0, 1, 2].map((i) => (mass.at[i]! + own[i]!) * by[i]!);
      expect(Math.abs(massDistance(stretched, p[0]!, p[1]!, p[2]!))).toBeLessThan(1e-9);
    }
    const volume = (stretchedOver(mass, by).shape as { radii: number[] }).radii.reduce((a, b) => a * b);
    expect(volume / (radii[0] * radii[1] * radii[2] * by[0] * by[1] * by[2])).toBeCloseTo(1, 9);
  }
});

test('alike all ways it is a plain scaling, and another shape is moved only', () => {
  const common = { id: 'a', name: 'a', region: 'a', turn: [0, 0, 0] as [number, number, number], blend: 0.02 };
  const ball: Mass = { ...common, at: [1, 2, 3], shape: { kind: 'ellipsoid', radii: [0.1, 0.2, 0.3] } };
  const twice = stretchedOver(ball, [2, 2, 2]);
  expect(twice.at).toEqual([2, 4, 6]);
  expect((twice.shape as { radii: number[] }).radii.map((v) => v.toFixed(12))).toEqual(
    [0.2, 0.4, 0.6].map((v) => v.toFixed(12)),
  );
  const drum: Mass = { ...common, at: [1, 2, 3], shape: { kind: 'drum', radius: 0.1, half: 0.1, rounding: 0 } };
  expect(stretchedOver(drum, [1, 0.5, 1])).toMatchObject({ at: [1, 1, 3], shape: drum.shape });
});
