import fc from 'fast-check';
import type { Build, MassShape } from '../document';
import { startBuild } from '../school';
import { asBriefed, Evaluator } from '.';

/** Poses and masses nobody would mean: they give figures or a sentence, never a crash. */
const angle = fc.double({ min: -360, max: 360, noNaN: true });
const turn = fc.tuple(angle, angle, angle);
const size = fc.constantFrom(0.0005, 0.01, 0.3);
const shape: fc.Arbitrary<MassShape> = fc.oneof(
  fc.record({ kind: fc.constant('ellipsoid' as const), radii: fc.tuple(size, size, size) }),
  fc.record({
    kind: fc.constant('round-cone' as const),
    reach: fc.constantFrom<[number, number, number]>([0, 0, 0], [0, 0, 0.2], [0.001, 0, 0]),
    radiusFrom: size,
    radiusTo: size,
  }),
  fc.record({
    kind: fc.constant('rounded-box' as const),
    half: fc.tuple(size, size, size),
    rounding: fc.constantFrom(0, 0.01, 5),
  }),
  fc.record({ kind: fc.constant('ring' as const), radius: size, thickness: size }),
  fc.record({ kind: fc.constant('drum' as const), radius: size, half: size, rounding: fc.constantFrom(0, 3) }),
  fc.record({
    kind: fc.constant('shell' as const),
    radii: fc.tuple(size, size, size),
    open: fc.constantFrom(-1, 0, 1),
  }),
);
const kinds = ['figure', 'four-legged', 'branching', 'free', 'worn-shell', 'bust'] as const;
const joints: Readonly<Record<(typeof kinds)[number], readonly string[]>> = {
  figure: ['pelvis', 'hip-left', 'knee-left', 'neck', 'shoulder-right'],
  'four-legged': ['loin', 'neck', 'hock-left'],
  branching: ['foot', 'fork-2'],
  free: ['body'],
  'worn-shell': ['piece'],
  bust: ['neck', 'head'],
};

test('any pose, any mass, on six forms: a report of finite figures, or a failure that names its place', () => {
  const evaluator = new Evaluator();
  let solved = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(...kinds),
      fc.array(turn, { minLength: 1, maxLength: 4 }),
      fc.array(shape, { maxLength: 2 }),
      fc.boolean(),
      (kind, turns, shapes, collapsed) => {
        const made = startBuild('x', '2026-12-01', kind, 0.3);
        if (!made.ok) throw new Error(made.message);
        const pose = Object.fromEntries(
          turns.map((t, i) => [
            joints[kind][i % joints[kind].length]!,
            { turned: t, ...(collapsed ? { moved: [0, 0, -0.4] as [number, number, number] } : {}) },
          ]),
        );
        const added = shapes.map((s, i): Build['form']['added'][number] => ({
          id: `own/x-${i}`,
          name: `x ${i}`,
          region: 'x',
          at: [0, 0, 0.2 * i],
          turn: [0, 0, 0],
          blend: i * 0.5,
          shape: s,
          joint: joints[kind][0],
        }));
        const report = evaluator.evaluate(asBriefed({ ...made.value, form: { ...made.value.form, pose, added } }), {
          ranges: true,
        });
        if (!report.ok) {
          expect(report.path.length + report.message.length).toBeGreaterThan(5);
          return;
        }
        solved += 1;
        const { summary, size: measured, members } = report.value;
        for (const v of [
          summary.wet,
          summary.dry,
          summary.utilisation,
          summary.tipAngle,
          summary.cost,
          measured.volume,
          measured.height,
          ...members.map((m) => m.utilisation),
        ])
          expect(Number.isFinite(v)).toBe(true);
      },
    ),
    { seed: 23, numRuns: 36 },
  );
  expect(solved).toBeGreaterThan(24);
});
