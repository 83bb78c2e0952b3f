import { asBriefed } from '../evaluate';
import { applyEdit, newBust, type Build, type Change } from '../document';
import { cautionsFor, liftingCaution } from '../finding';
import { cardOf, Evaluator, type Report } from '../evaluate';
import { resizeEdit, type Finding } from '../finding';
import { sheetOf } from '../sheet';
import { evaluateWithRemedies, withRemedies } from '../improve';
import { statusOf, worstStatus } from '../piece';

const evaluator = new Evaluator();

function changed(changes: readonly Change[], from: Build = newBust('b', '2026-12-01')): Build {
  const next = applyEdit(from, { label: 'test', changes });
  if (!next.ok) throw new Error(`${next.path}: ${next.message}`);
  return next.value;
}
function report(build: Build, remedies = false): Report {
  const r = remedies
    ? evaluateWithRemedies(evaluator, asBriefed(build), { ranges: true })
    : evaluator.evaluate(asBriefed(build), { ranges: true });
  if (!r.ok) throw new Error(`${r.path}: ${r.message}`);
  return r.value;
}
const parameter = (key: string, value: unknown): Change => ({ path: ['armature', 'school', 'parameters', key], value });
const find = (r: Report, id: string): Finding => {
  const f = r.findings.find((x) => x.id === id);
  if (!f) throw new Error(`no finding ${id}; there are ${r.findings.map((x) => x.id).join(', ')}`);
  return f;
};

describe('status', () => {
  test('limits stand where they are said to', () => {
    expect([0.59, 0.6, 1, 1.01, Infinity, NaN].map((v) => statusOf(v))).toEqual([
      'sound',
      'watch',
      'watch',
      'fails',
      'fails',
      'unknown',
    ]);
    expect(worstStatus(['sound', 'watch', 'unknown'])).toBe('watch');
    expect(worstStatus([])).toBe('sound');
  });
});

describe('sentences say what, why, and with which figure', () => {
  test('every finding has a sentence, a reason and a place, and its range holds its figure', () => {
    for (const clay of [
      'paper-clay',
      'earthen-air-dry',
      'epoxy-clay',
      'oil-medium',
      'water-based',
      'oven-polymer',
      'cold-porcelain',
      'paper-strips',
    ]) {
      for (const f of report(changed([{ path: ['brief', 'clay'], value: clay }])).findings) {
        expect(f.sentence).toMatch(/^[A-Z0-9].*[.]$/);
        expect(f.reason.length).toBeGreaterThan(10);
        expect(f.place).not.toBe('');
        expect(`${f.sentence} ${f.reason}`).not.toMatch(/NaN|undefined|Infinity|\[object/);
        if (f.range) {
          expect(f.range.low).toBeLessThanOrEqual(f.measured + 1e-9);
          expect(f.range.high).toBeGreaterThanOrEqual(f.measured - 1e-9);
        }
      }
    }
  });

  test('a weak head frame fails by name, and says what it resists with', () => {
    const r = report(
      changed([
        parameter('bulk', 'none'),
        parameter('frameSize', '1.5mm'),
        { path: ['form', 'start', 'measures', 'headForward'], value: 0.12 },
      ]),
    );
    const f = find(r, 'member/stuffed/head-frame');
    expect(f.status).toBe('fails');
    expect(f.sentence).toMatch(/head frame gives way/);
    expect(f.reason).toMatch(/resists with/);
    expect(r.letGo.when).not.toBe('at-once');
  });

  test('a head hung forward keeps its wires and its upright covered, and does not crack over them', () => {
    for (const value of [0.06, 0.09, 0.12]) {
      const r = report(changed([{ path: ['form', 'start', 'measures', 'headForward'], value }]));
      const short = r.findings.filter((f) => f.id.startsWith('cover/') && f.status !== 'sound');
      expect([value, short.map((f) => f.sentence)]).toEqual([value, []]);
      expect(r.summary.crack).toBeLessThan(1);
    }
  });

  test('held until enough water has left: later than at once, sooner than dry through', () => {
    // Between wet and dry the load falls; somewhere on the way a middling frame comes to bear it.
    for (let forward = 0.08; forward < 0.24; forward += 0.004) {
      const r = report(changed([{ path: ['form', 'start', 'measures', 'headForward'], value: forward }]));
      if (r.letGo.when !== 'after') continue;
      expect(r.letGo.unproppedWet).toBeGreaterThan(1);
      expect(r.letGo.unproppedDry).toBeLessThanOrEqual(1);
      expect(r.letGo.after!).toBeGreaterThan(0);
      expect(r.letGo.after!).toBeLessThanOrEqual(r.summary.throughAfter! * 1.001);
      return;
    }
    throw new Error('no piece on the way was found');
  });

  test('on the road and overhead ask for more than the bench', () => {
    const at = (situation: string) => report(changed([{ path: ['brief', 'situation'], value: situation }]));
    const bench = at('bench'),
      moved = at('moved'),
      worn = at('worn');
    const of = (r: Report, id: string) =>
      r.lifeStages.find((m) => m.stage === id)?.bones.reduce((u, b) => Math.max(u, b.utilisation), 0) ?? 0;
    expect(moved.lifeStages.map((m) => m.stage)).toContain('moved');
    expect(of(moved, 'moved')).toBeGreaterThan(of(bench, 'dry') * 2);
    expect(of(worn, 'worn')).toBeCloseTo(of(moved, 'moved') * 1.5, 1);
    expect(moved.base.screwUtilisation).toBeGreaterThan(bench.base.screwUtilisation);
  });

  test('a head hung far out over a small board falls, and ballast or a wider board mends it', () => {
    const r = report(
      changed([
        { path: ['form', 'start', 'measures', 'headForward'], value: 0.24 },
        parameter('boardDepth', 0.16),
        parameter('boardWidth', 0.2),
      ]),
      true,
    );
    const f = find(r, 'tip');
    expect(f.status).not.toBe('sound');
    expect(f.sentence).toMatch(/front/);
    expect(f.remedies.map((x) => x.id)).toEqual(expect.arrayContaining(['wider-base', 'ballast']));
    const ballast = f.remedies.find((x) => x.id === 'ballast');
    expect(ballast?.after).toBeGreaterThanOrEqual(15);
  });

  test('slick foil lets thick clay slide; twine holds it', () => {
    const r = report(
      changed([
        parameter('bulk', 'polystyrene-expanded'),
        parameter('wrap', 'none'),
        { path: ['brief', 'clay'], value: 'earthen-air-dry' },
        { path: ['regions', 'everywhere', 'coats'], value: [0.06] },
      ]),
      true,
    );
    const f = find(r, 'staying-put');
    expect(f.status).toBe('fails');
    expect(f.remedies.map((x) => x.id)).toContain('twine');
    expect(find(r, 'thick-coat').status).toBe('watch');
  });

  test('a deadline is held against the day it is ready by the plan: passed it fails, passed at the latest it is watched', () => {
    const at = (due: string | null) => {
      const build = newBust('b', '2026-12-01');
      const edit = applyEdit(build, { label: 'due', changes: [{ path: ['brief', 'deadline'], value: due }] });
      return report(edit.ok ? edit.value : build);
    };
    const { ready, dryThrough } = at(null).dates;
    expect(ready!.likely > dryThrough!.likely.slice(0, 10)).toBe(true);
    expect(ready!.likely < ready!.latest).toBe(true);
    const before = new Date(Date.parse(ready!.likely) - 86400e3).toISOString().slice(0, 10);
    const status = (due: string) => find(at(due), 'deadline').status;
    expect([before, ready!.likely, ready!.latest].map(status)).toEqual(['fails', 'watch', 'sound']);
  });

  test('kept damp, it says for how long; never drying, that it never does', () => {
    expect(
      find(report(changed([{ path: ['brief', 'clay'], value: 'water-based' }])), 'workable').measured,
    ).toBeGreaterThan(0.3);
    expect(find(report(changed([{ path: ['brief', 'clay'], value: 'oil-soft' }])), 'never-dries').status).toBe('sound');
    const bagged = report(
      changed([
        { path: ['brief', 'clay'], value: 'water-based' },
        { path: ['room', 'covers'], value: [{ kind: 'bagged', from: 0, until: 2000, regions: [] }] },
      ]),
    );
    expect(bagged.workableDays!).toBeGreaterThan(7);
  });

  test('nothing but soft filling along a bone is said', () => {
    const added = {
      nodes: [{ id: 'horn', at: [0.03, -0.05, 0.6], held: false }],
      bones: [
        {
          id: 'horn-bone',
          name: 'horn',
          from: 'stuffed/crown',
          to: 'horn',
          masses: [],
          joinFrom: 'welded',
          joinTo: 'welded',
        },
      ],
      members: [],
    };
    expect(find(report(changed([{ path: ['armature', 'added'], value: added }])), 'no-metal/horn-bone').status).toBe(
      'watch',
    );
  });

  test('a bone that hangs on nothing is refused by its joint', () => {
    const added = {
      nodes: [],
      bones: [
        { id: 'x', name: 'x', from: 'stuffed/crown', to: 'nowhere', masses: [], joinFrom: 'welded', joinTo: 'welded' },
      ],
      members: [],
    };
    expect(evaluator.evaluate(asBriefed(changed([{ path: ['armature', 'added'], value: added }])))).toMatchObject({
      ok: false,
      code: 'unknown-node',
    });
  });
});

describe('remedies', () => {
  test('help, are ranked by how much, and leave alone what is sound', () => {
    const r = report(
      changed([
        { path: ['brief', 'clay'], value: 'earthen-air-dry' },
        parameter('bulk', 'foil-packed'),
        parameter('wrap', 'none'),
      ]),
      true,
    );
    for (const f of r.findings) {
      if (f.status === 'sound') expect(f.remedies).toEqual([]);
      // Those that turn it stand first; none makes its own figure worse.
      const rank = f.remedies.map((x) => (x.turns ? 0 : 1));
      expect([...rank].sort()).toEqual(rank);
      for (const x of f.remedies) expect(f.smallerIsWorse ? x.after >= x.before : x.after <= x.before).toBe(true);
    }
    const crack = r.findings.find((f) => f.id.startsWith('crack/'));
    expect(crack?.remedies.length).toBeGreaterThan(2);
  });
  test('working in steps gives the same as at once', () => {
    const build = changed([{ path: ['brief', 'clay'], value: 'earthen-air-dry' }]);
    const answer = evaluator.judge(asBriefed(build));
    if (!answer.ok) throw new Error(answer.message);
    const steps = withRemedies(evaluator, asBriefed(build), answer.value, {});
    let pauses = 0;
    let step = steps.next();
    while (!step.done) {
      pauses += 1;
      step = steps.next();
    }
    expect(pauses).toBeGreaterThan(3);
    expect({ ok: true, value: step.value }).toEqual(evaluateWithRemedies(evaluator, asBriefed(build)));
  });
  test('resizing there and back gives the coats back', () => {
    const b = newBust('b', '2026-12-01');
    const small = applyEdit(b, resizeEdit(b, 0.5));
    if (!small.ok) throw new Error(small.message);
    expect(small.value.regions.everywhere.coats[0]).toBeCloseTo(0.005, 12);
    const back = applyEdit(small.value, resizeEdit(small.value, 1));
    expect(back.ok && back.value.regions.everywhere.coats[0]).toBeCloseTo(0.01, 12);
  });
});

describe('cautions stand beside results', () => {
  const cautions = (changes: readonly Change[]) => {
    const piece = evaluator.piece(asBriefed(changed(changes)));
    if (!piece.ok) throw new Error(piece.message);
    return cautionsFor(piece.value).join(' ');
  };
  test.each([
    ['paper-clay', /respirator/],
    ['epoxy-clay', /gloves/],
    ['oil-soft', /50 °C/],
    ['oven-polymer', /bare hands/],
  ])('%s', (clay, words) => expect(cautions([{ path: ['brief', 'clay'], value: clay }])).toMatch(words));
  test('foam, plaster, and pieces that are worn', () => {
    expect(cautions([parameter('bulk', 'foam-sprayed')])).toMatch(/solvent/);
    expect(cautions([parameter('bulk', 'plaster-set')])).toMatch(/mask/);
    expect(cautions([{ path: ['brief', 'situation'], value: 'worn' }])).toMatch(/licensed engineer/);
  });
  test('lifting', () => {
    expect(liftingCaution(5)).toBeNull();
    expect(liftingCaution(15)).toMatch(/second pair/);
    expect(liftingCaution(40)).toMatch(/hoist/);
  });
});

test('the card and the sheet of a build that cannot be worked out say why', () => {
  const bad = changed([{ path: ['brief', 'clay'], value: 'marzipan' }]);
  expect(cardOf(asBriefed(bad), evaluator, {})).toMatchObject({
    summary: null,
    problem: expect.stringContaining('brief.clay'),
  });
  expect(sheetOf(asBriefed(bad), evaluator)).toMatchObject({ ok: false, path: 'brief.clay' });
  const good = sheetOf(asBriefed(changed([parameter('bulk', 'none')])), evaluator);
  expect(good.ok && good.value.bulk).toBeNull();
  expect(good.ok && good.value.wrap).toBeNull();
});
