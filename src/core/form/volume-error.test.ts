import type { Mass, MassShape } from '../document';
import { DistanceField, measureForm, sampleForm } from '.';
import { seeded } from '../quantity';

/** Shapes of known volume, apart from one another, so that the sum is exact. */
function randomShape(random: () => number, size: number): { shape: MassShape; volume: number } {
  const r = () => size * (0.35 + 0.65 * random());
  const kind = Math.floor(random() * 5);
  if (kind === 0) {
    const radii: [number, number, number] = [r(), r(), r()];
    return { shape: { kind: 'ellipsoid', radii }, volume: (4 / 3) * Math.PI * radii[0] * radii[1] * radii[2] };
  }
  if (kind === 1) {
    const radius = r() * 0.4;
    const long = size - radius;
    return {
      shape: { kind: 'round-cone', reach: [0, 0, long], radiusFrom: radius, radiusTo: radius },
      volume: Math.PI * radius ** 2 * long + (4 / 3) * Math.PI * radius ** 3,
    };
  }
  if (kind === 2) {
    const half: [number, number, number] = [r() * 0.57, r() * 0.57, r() * 0.57];
    const k = Math.min(...half) * random();
    const [a, b, c] = half.map((h) => h - k) as [number, number, number];
    return {
      shape: { kind: 'rounded-box', half, rounding: k },
      volume:
        8 * a * b * c +
        8 * k * (a * b + b * c + c * a) +
        2 * Math.PI * k * k * (a + b + c) +
        (4 / 3) * Math.PI * k ** 3,
    };
  }
  if (kind === 3) {
    const radius = r() * 0.7,
      half = r() * 0.7;
    return { shape: { kind: 'drum', radius, half, rounding: 0 }, volume: 2 * half * Math.PI * radius ** 2 };
  }
  const thickness = size * (0.1 + 0.2 * random());
  const radius = size - thickness;
  return { shape: { kind: 'ring', radius, thickness }, volume: 2 * Math.PI ** 2 * radius * thickness ** 2 };
}

function randomForm(seed: number): { masses: Mass[]; volume: number } {
  const random = seeded(seed);
  const size = 0.01 + 0.15 * random();
  const count = 1 + Math.floor(random() * 4);
  const turn = () => (random() - 0.5) * 360;
  const made = Array.from({ length: count }, (_, i) => ({ i, ...randomShape(random, size) }));
  return {
    volume: made.reduce((sum, m) => sum + m.volume, 0),
    masses: made.map(({ i, shape }) => ({
      id: `m-${i}`,
      name: `m ${i}`,
      region: 'r',
      at: [(i % 2) * 2.6 * size + random() * 0.01 * size, Math.floor(i / 2) * 2.6 * size, random() * 0.3 * size],
      turn: [turn(), turn(), turn()],
      blend: 0,
      shape,
    })),
  };
}

test('the true error of the volume is within the one shown in 95 of 100 forms, and under 1 % in all but a few', () => {
  let within = 0,
    small = 0;
  for (let seed = 1; seed <= 100; seed++) {
    const { masses, volume } = randomForm(seed);
    const measured = measureForm(
      sampleForm(new DistanceField(masses), 0),
      Float64Array.from(masses, () => Infinity),
    );
    const error = Math.abs(measured.outerVolume - volume);
    if (error <= measured.volumeError) within += 1;
    if (error <= 0.01 * volume) small += 1;
  }
  expect(within).toBeGreaterThanOrEqual(95);
  expect(small).toBeGreaterThanOrEqual(98);
});
