import { changed, edited, judged } from '../../../tests/support/judged';
import { newBust, type Build } from '../document';
import { turnOver } from '../load';
import { takeMould, type MouldKindId } from '../mould';
import { turnedMass } from '../piece';
import { startBuild } from '../school';
import { cover } from './cover';
import { mouldReady } from './mould-ready';

const bust = (clay: string, kind: MouldKindId | null, over: readonly string[] = []): Build => {
  const plain = changed(
    newBust('Test', '2026-12-01', 0.4),
    { path: ['brief', 'clay'], value: clay },
    { path: ['regions', 'everywhere', 'over'], value: [...over] },
  );
  return kind ? edited(plain, takeMould(plain, kind)) : plain;
};
const judge = (build: Build) => mouldReady.judge(judged(build)).filter((f) => /state|seal/.test(f.id));
const statusOf = (build: Build) => judge(build).map((f) => `${f.id} ${f.status}`);

test.each([
  ['paper-clay', null, [], []],
  ['paper-clay', 'rubber-skin', [], ['mould-ready/seal watch']],
  ['paper-clay', 'plaster-parts', [], ['mould-ready/seal fails']],
  ['paper-clay', 'plaster-parts', ['glue-wash'], ['mould-ready/seal fails']],
  ['paper-clay', 'plaster-parts', ['shellac'], ['mould-ready/state sound']],
  ['paper-clay', 'shim-halves', ['shellac'], ['mould-ready/state fails']],
  ['epoxy-clay', 'rubber-skin', [], ['mould-ready/state sound']],
  ['epoxy-clay', 'shim-halves', [], ['mould-ready/state fails']],
  ['water-based', 'plaster-parts', [], ['mould-ready/state sound']],
  ['water-based', 'shim-halves', [], ['mould-ready/state sound']],
  ['water-based', 'latex-skin', [], ['mould-ready/state fails']],
  ['oil-medium', 'shim-halves', [], ['mould-ready/state sound']],
] as const)('%s, %s, over it %j: %j', (clay, kind, over, expected) => {
  expect(statusOf(bust(clay, kind, over))).toEqual(expected);
});

test('each thing that is offered puts it right', () => {
  for (const build of [
    bust('paper-clay', 'plaster-parts'),
    bust('paper-clay', 'shim-halves', ['shellac']),
    bust('water-based', 'latex-skin'),
  ]) {
    const on = judged(build);
    const [found] = mouldReady.judge(on);
    const offered = mouldReady.propose!(on, found!);
    expect(offered.length).toBeGreaterThan(0);
    expect(judge(edited(build, offered[0]!.edit))[0]!.status).toBe('sound');
  }
});

test('a region with layers of its own is named, and is sealed with the others', () => {
  const own = changed(bust('paper-clay', 'plaster-parts', ['shellac']), {
    path: ['regions', 'own', 'head'],
    value: { coats: [0.005], over: [] },
  });
  const on = judged(own);
  const [found] = mouldReady.judge(on);
  expect(found).toMatchObject({ id: 'mould-ready/seal', place: 'head', measured: 1 });
  const [first] = mouldReady.propose!(on, found!);
  expect(judge(edited(own, first!.edit))[0]!.status).toBe('sound');
});

test('wires near under the face are named with the figures of Armature, which offers the same remedies', () => {
  // A coat of 2 mm over stock pipe and wire.
  const thin = judged(
    changed(bust('oil-medium', 'shim-halves'), { path: ['regions', 'everywhere', 'coats'], value: [0.002] }),
  );
  const found = mouldReady.judge(thin).find((f) => f.id === 'mould-ready/cover')!;
  const worst = cover
    .judge(thin)
    .flatMap((f) => f.parts)
    .reduce((a, b) => (b.measured < a.measured ? b : a));
  expect(found).toMatchObject({ status: 'watch', unit: 'metres' });
  expect(found.measured).toBeLessThan(found.limit);
  expect(thin.report.cover.some((c) => c.least === found.measured && c.wanted === found.limit)).toBe(true);
  expect(found.sentence).toContain(worst.name.split(',')[0]);
  const offered = mouldReady.propose!(thin, found);
  expect(offered.map((p) => p.id)).toEqual(
    cover.judge(thin).flatMap((f) => (f.status === 'sound' ? [] : cover.propose!(thin, f).map((p) => p.id))),
  );
});

test('passes that are left are told once the face is begun, and until the mould is', () => {
  const on = judged(bust('oil-medium', 'shim-halves'));
  const steps = on.plan!.steps;
  const withPasses = steps.filter((s) => (s.passes ?? []).length > 0).map((s) => s.id);
  expect(withPasses.length).toBeGreaterThan(1);
  const after = (done: readonly string[]) =>
    mouldReady
      .judge({ ...on, plan: { ...on.plan!, steps: steps.map((s) => ({ ...s, done: done.includes(s.id) })) } })
      .find((f) => f.id === 'mould-ready/passes');
  expect(after([])).toBeUndefined();
  const some = after(withPasses.slice(0, 1))!;
  expect(some.status).toBe('watch');
  expect(some.measured).toBeGreaterThan(0);
  expect(some.sentence).toMatch(/still to be done/);
  expect(after(withPasses)).toBeUndefined();
  const mould = steps.find((s) => s.kind === 'moulding')!.id;
  expect(after([...withPasses.slice(0, 1), mould])).toBeUndefined();
});

test('what lies is turned with half its mould on: piece, board and half the plaster, and who can', () => {
  const lying = (size: number) =>
    judged(
      changed(
        edited(newBust('Test', '2026-12-01', size), takeMould(newBust('Test', '2026-12-01', size), 'plaster-parts')),
        {
          path: ['mould', 'posture'],
          value: 'lying',
        },
      ),
    );
  const turn = (on: ReturnType<typeof lying>) => mouldReady.judge(on).find((f) => f.id === 'mould-ready/turn');
  const large = lying(2.4);
  const found = turn(large)!;
  const own = large.report.stances.find((s) => s.stage === 'dry')!.mass;
  const face = large.piece.volumes.perMass.reduce((sum, m) => sum + (m.clay > 0 ? m.area : 0), 0);
  // 25 mm of plaster at 1600 kg/m3, a little more where it goes round: half of it.
  const half = 0.5 * face * 0.025 * 1600;
  expect(found.status).toBe('watch');
  expect((found.measured - own) / half).toBeGreaterThan(1);
  expect((found.measured - own) / half).toBeLessThan(1.15);
  expect(found.sentence).toMatch(/people turn it together|a hoist/);
  const seen = new Set<number>();
  for (const size of [0.9, 1.2, 1.6, 1.7, 1.75, 1.8, 1.9, 2.4]) {
    const on = lying(size);
    const mass = turnedMass(on.piece, on.report.stances.find((s) => s.stage === 'dry')!.mass)!;
    const { people } = turnOver({ mass, breadth: on.report.size.width });
    seen.add(people);
    expect([size, turn(on) !== undefined]).toEqual([size, people > 2]);
  }
  expect([...seen]).toEqual(expect.arrayContaining([2, 3]));
  expect(turn(judged(bust('oil-medium', 'shim-halves')))).toBeUndefined();
});

test('what lies near under a bare form prints in no mould', () => {
  const made = startBuild('Test', '2026-12-01', 'mask', 0.5, 'helmet');
  if (!made.ok) throw new Error(made.message);
  const on = judged(edited(made.value, takeMould(made.value, 'plaster-parts')));
  const thin = on.report.cover.filter((c) => c.least < c.wanted);
  expect(thin.map((c) => on.piece.form.masses[c.mass]!.id)).toEqual(['rim']);
  expect(cover.judge(on).filter((f) => f.status !== 'sound')).toEqual([]);
  expect(mouldReady.judge(on).map((f) => f.id)).not.toContain('mould-ready/cover');
  // What runs on from there into clay with too little over it is told by its place in the clay.
  const clad = on.piece.form.masses.findIndex((m) => m.role !== 'bare' && m.role !== 'opening');
  const runsOn = thin.map((c) => ({ ...c, shortIn: [...c.shortIn, { mass: clad, least: 0.002, wanted: 0.006 }] }));
  const further = { ...on, report: { ...on.report, cover: runsOn } };
  expect(cover.judge(further)[0]).toMatchObject({ status: 'watch', measured: 0.002, limit: 0.006 });
  expect(cover.measure!(further, `cover/${thin[0]!.member}`)).toMatchObject({ status: 'watch', measured: 0.002 });
  expect(mouldReady.judge(further).map((f) => f.id)).toContain('mould-ready/cover');
});
