import { ballMesh, turnedMesh } from '../../../tests/support/meshes';
import { gravity } from '../quantity';
import { weld } from '../form';
import { handled, squeeze, tableHeight, thumb, type Handled, type HandledInputs } from './handled';

/** Balls taken in hand, against what is known of a ball under a load on a small place. */
const radius = 0.1,
  thickness = 0.004;
const resin = { youngs: 1.5e9, poisson: 0.35 };
const ball = (parts: number): HandledInputs => {
  const { positions, triangles } = weld(ballMesh(radius, parts), 1e-7);
  return { positions, triangles, thickness, material: resin, density: 1060 };
};
function run(inputs: HandledInputs): { mass: number; cases: Handled[] } {
  const work = handled(inputs);
  for (;;) {
    const { done, value } = work.next();
    if (!done) {
      expect(value).toBeGreaterThan(0);
      expect(value).toBeLessThan(1);
      continue;
    }
    if (!value.ok) throw new Error(value.message);
    return value.value;
  }
}
const of = ({ cases }: { cases: Handled[] }, id: Handled['id']) => cases.find((c) => c.id === id)!;
/**
 * Young, Budynas, Sadegh (2012), *Roark's Formulas for Stress and Strain*, a ball under a load evenly over a small
 * circle: 15 mm is 1.35 by its measure of how small. It goes in by A P R sqrt(1 - nu2) / E t2; inside, the face is
 * pulled by (C (1 + nu) - B sqrt(1 - nu2)) P / t2.
 */
const [a, b, c] = [0.293, 0.146, 0.234];
const root = Math.sqrt(1 - resin.poisson ** 2);
const goesIn = (force: number) => (a * force * radius * root) / (resin.youngs * thickness ** 2);
const pulled = (force: number) => ((c * (1 + resin.poisson) - b * root) * force) / thickness ** 2;
const taken = run(ball(44));

test('it weighs its face by its wall', () => {
  expect(taken.mass / (4 * Math.PI * radius ** 2 * thickness * 1060)).toBeCloseTo(1, 2);
});

test.each(['across', 'front-to-back'] as const)('two hands, %s, come together by what both poles go in', (id) => {
  const { gives, force } = of(taken, id);
  expect(force).toBe(squeeze);
  expect(gives / (2 * goesIn(squeeze))).toBeGreaterThan(0.85);
  expect(gives / (2 * goesIn(squeeze))).toBeLessThan(1.15);
});

test('a thumb goes in as far as by the handbook, and pulls the inside as much', () => {
  const { gives, stress } = of(taken, 'thumb');
  // On average over the thumb, which is less than in its middle.
  expect(gives / goesIn(thumb)).toBeGreaterThan(0.75);
  expect(gives / goesIn(thumb)).toBeLessThan(1.2);
  // The place that comes out worst of many, on triangles that are not all alike.
  expect(stress / pulled(thumb)).toBeGreaterThan(0.8);
  expect(stress / pulled(thumb)).toBeLessThan(1.35);
});

test('what it fell goes into bending it: m g h is half the force times the way', () => {
  const { force, gives } = of(taken, 'dropped');
  expect((force * gives) / 2 / (taken.mass * gravity * tableHeight)).toBeCloseTo(1, 9);
  const byHand = Math.sqrt((2 * taken.mass * gravity * tableHeight) / goesIn(1));
  expect(force / byHand).toBeGreaterThan(0.9);
  expect(force / byHand).toBeLessThan(1.1);
});

test('stress under what presses hardly hangs on how fine the triangles are; nor on how it lies in space', () => {
  const coarse = run(ball(32));
  const { positions, triangles } = weld(
    turnedMesh(ballMesh(radius, 32), (p) => [p[1], p[2], p[0]]),
    1e-7,
  );
  const turned = run({ ...ball(32), positions, triangles });
  for (const id of ['across', 'dropped'] as const) {
    expect(Math.abs(of(coarse, id).stress / of(taken, id).stress - 1)).toBeLessThan(0.25);
    expect(Math.abs(of(turned, id).force / of(coarse, id).force - 1)).toBeLessThan(0.1);
  }
});

test('twice as thick it bends less than a third as far', () => {
  const thick = run({ ...ball(32), thickness: 2 * thickness });
  const thin = run(ball(32));
  // By the handbook 4 for a point, and less for a hand, that is small beside a thick wall.
  expect(of(thin, 'across').gives / of(thick, 'across').gives).toBeGreaterThan(3);
  expect(of(thin, 'across').gives / of(thick, 'across').gives).toBeLessThan(4.2);
});

test('held by nothing: whichever point it is worked out from, a bowl bears the same', () => {
  const whole = ball(24);
  const kept: number[] = [];
  for (let t = 0; t < whole.triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => whole.triangles[t + k]!);
    if (corners.every((c) => whole.positions[3 * c + 2]! > -0.02)) kept.push(...corners);
  }
  const half = Math.floor(kept.length / 6) * 3;
  const [one, other] = [kept, [...kept.slice(half), ...kept.slice(0, half)]].map((triangles) =>
    run({ ...whole, triangles }),
  );
  for (const [i, c] of one!.cases.entries()) {
    expect(other!.cases[i]!.gives / c.gives).toBeCloseTo(1, 5);
    expect(other!.cases[i]!.stress / c.stress).toBeCloseTo(1, 5);
  }
});
