import { asBriefed } from '.';
import { newBust, type Build } from '../document';
import { otherDemoBuilds, lamplighter } from '../../server/demo-builds';
import { schools, startBuild } from '../school';
import { cutsToFree } from '../piece';
import { compareSchool, schoolsFor, underSchool } from '../improve';
import { Evaluator, type Report } from '.';

const demo = (name: string): Build => otherDemoBuilds('2026-12-01', '2026-12-24').find((b) => b.name.includes(name))!;
function reportOf(build: Build, evaluator = new Evaluator()): Report {
  const report = evaluator.evaluate(asBriefed(build));
  if (!report.ok) throw new Error(`${report.path}: ${report.message}`);
  return report.value;
}
const find = (r: Report, id: string) => r.findings.find((f) => f.id === id);

describe('the worst of all', () => {
  test('is named with its place, moment and cause', () => {
    const r = reportOf(demo('Walrus'));
    expect(r.worst?.sentence).toMatch(/on the road, from (a bump|braking|pulling away|a bend)/);
    const net = reportOf(demo('net'));
    expect(net.worst).toMatchObject({ status: 'fails' });
    expect(net.worst?.sentence).toMatch(/^Worst of all: .*wet, from the weight of the wet clay/);
    expect(net.findings.some((f) => f.id === net.worst?.finding)).toBe(true);
  });
  test('what is sound says so', () =>
    expect(reportOf(demo('Harbour')).worst?.sentence).toMatch(/^Nothing is near its limit/));
});

describe('situations', () => {
  test('the road asks more than the bench, wearing more than the road; with ranges only', () => {
    const evaluator = new Evaluator();
    const ranged = evaluator.evaluate(asBriefed(lamplighter('2026-12-01', null)), { ranges: true });
    if (!ranged.ok) throw new Error(ranged.message);
    const [bench, road, worn] = ranged.value.situations ?? [];
    expect(road?.utilisation).toBeGreaterThan(bench?.utilisation ?? Infinity);
    // Three for two, and the little more that it sways under it.
    expect(worn!.utilisation / road!.utilisation).toBeGreaterThanOrEqual(1.5 - 1e-9);
    expect(worn!.utilisation / road!.utilisation).toBeLessThan(1.56);
    expect(reportOf(lamplighter('2026-12-01', null)).situations).toBeNull();
  });
});

describe('finished, mounted, moved', () => {
  test('a shell leaves its form: the clay alone is worn', () => {
    const r = reportOf(demo('Whelk'));
    expect(r.finished.mass).toBeCloseTo(r.ledger.clayDry, 9);
    expect(r.mount).toMatchObject({ kind: 'worn', mass: r.finished.mass });
    expect(find(r, 'worn')?.status).toBe('sound');
    expect(find(r, 'straps')).toBeDefined();
  });
  test('too heavy on the head fails, and a maker’s own limit goes before', () => {
    const mask = demo('Whelk');
    const on = (where: 'head' | 'shoulder', failsFrom: number | null): Build => ({
      ...mask,
      regions: { painted: [], seams: [], everywhere: { coats: [0.012] }, own: {} },
      armature: { ...mask.armature, mount: { kind: 'worn', where, hours: 3, watchFrom: null, failsFrom, straps: [] } },
    });
    expect(find(reportOf(on('head', null)), 'worn')?.status).toBe('fails');
    expect(find(reportOf(on('head', 9)), 'worn')?.status).toBe('watch');
    expect(find(reportOf(on('head', null)), 'straps')?.status).toBe('watch');
  });
  test('hung out of line it turns, in line it hangs as it was made', () => {
    const hung = (x: number): Build => {
      const b = demo('Harbour');
      return { ...b, armature: { ...b.armature, mount: { kind: 'hangs', points: [[x, 0, 0.4]] } } };
    };
    const centre = reportOf(hung(0)).finished.centre;
    expect(
      find(
        reportOf({
          ...hung(0),
          armature: { ...hung(0).armature, mount: { kind: 'hangs', points: [[centre[0], centre[1], 0.4]] } },
        }),
        'hanging',
      )?.status,
    ).toBe('sound');
    expect(find(reportOf(hung(0.1)), 'hanging')?.status).toBe('watch');
  });
  test('a steel giant in sections: each weighs its share, all of them together the piece without its base', () => {
    const made = startBuild('giant', '2026-12-01', 'figure', 1);
    if (!made.ok) throw new Error(made.message);
    const r = reportOf({
      ...made.value,
      armature: { ...made.value.armature, school: { kind: 'steel-mesh-foam', parameters: {} } },
    });
    expect(r.handling.parts.length).toBeGreaterThan(2);
    const fixed = r.ledger.items
      .filter((i) => ['base', 'ballast', 'hardware'].includes(i.kind))
      .reduce((s, i) => s + i.dry, 0);
    expect(r.handling.parts.reduce((s, p) => s + p.mass, 0)).toBeCloseTo(r.ledger.dry - fixed, 3);
  });
  test('a door too narrow and a vehicle too low are findings', () => {
    const b = demo('Walrus');
    const r = reportOf({
      ...b,
      brief: { ...b.brief, travel: { ...b.brief.travel, doorWidth: 0.7, vehicle: 'hatchback' } },
    });
    expect([find(r, 'door')?.status, find(r, 'vehicle')?.status]).toEqual(['fails', 'fails']);
    expect([find(reportOf(b), 'door')?.status, find(reportOf(b), 'vehicle')?.status]).toEqual(['sound', 'sound']);
  });
});

describe('on its own feet', () => {
  const own = (kind: string, measures: Record<string, string> = {}, size?: number): Build => {
    const made = startBuild('x', '2026-12-01', kind, size ?? 0.2);
    if (!made.ok) throw new Error(made.message);
    return {
      ...made.value,
      form: { ...made.value.form, start: { ...made.value.form.start, measures } },
      armature: {
        ...made.value.armature,
        school: {
          ...made.value.armature.school,
          parameters: { ...made.value.armature.school.parameters, standing: 'own' },
        },
      },
    };
  };
  test('a figure stands on the hull of its two soles, front and back nearer than the sides; on one leg it is worse off', () => {
    const standing = reportOf(own('figure', { stance: 'standing' })),
      one = reportOf(own('figure', { stance: 'balancing' }));
    expect(standing.stance.polygon.length).toBeGreaterThan(3);
    const wide =
      Math.max(...standing.stance.polygon.map((p) => p[0])) - Math.min(...standing.stance.polygon.map((p) => p[0]));
    const foot = Math.max(...one.stance.polygon.map((p) => p[0])) - Math.min(...one.stance.polygon.map((p) => p[0]));
    expect(wide).toBeGreaterThan(1.5 * foot);
    expect(one.stance.tipAngle).toBeLessThan(standing.stance.tipAngle);
    expect(standing.stance.tipAngle).toBeLessThan(20);
  });
  test('four legs stand within their feet; a ball rolls; the board is no longer weighed or screwed', () => {
    const dog = reportOf(own('four-legged', {}, 0.3));
    expect(dog.stance.tipAngle).toBeGreaterThan(8);
    expect(dog.ledger.items.some((i) => i.kind === 'base')).toBe(false);
    expect(find(dog, 'base')?.sentence).toMatch(/own feet/);
    const ball = reportOf(own('free', {}, 1));
    expect(ball.stance.tipAngle).toBeLessThan(12);
  });
});

describe('clay kept damp comes off its armature', () => {
  const damp = (kind: string): Build => {
    const b = newBust('b', '2026-12-01');
    return {
      ...b,
      brief: { ...b.brief, clay: 'water-based' },
      armature: { ...b.armature, school: { kind, parameters: {} } },
    };
  };
  const cuts = (build: Build) => {
    const piece = new Evaluator().piece(asBriefed(build));
    if (!piece.ok) throw new Error(piece.message);
    return cutsToFree(piece.value);
  };
  test('loops wider than the neck: the head is cut, above its widest; a straight stick lets it off whole', () => {
    const dense = cuts(damp('dense'));
    expect(dense.length).toBeGreaterThan(0);
    expect(dense[0]?.members.join()).toMatch(/head loop|band/);
    expect(dense[0]?.level).toBeGreaterThan(0.3);
    expect(dense.map((c) => c.level)).toEqual([...dense.map((c) => c.level)].sort((a, b) => b - a));
    const head = startBuild('h', '2026-12-01', 'head', 1);
    if (!head.ok) throw new Error(head.message);
    expect(
      cuts({
        ...head.value,
        brief: { ...head.value.brief, clay: 'water-based' },
        armature: { ...head.value.armature, school: { kind: 'dowel-and-ball', parameters: {} } },
      }),
    ).toEqual([]);
  });
  test('it is a finding only for such clay, and nothing rigid may lie within 15 mm of the face', () => {
    const r = reportOf(damp('stuffed'));
    expect(find(r, 'off')?.sentence).toMatch(/cut in \d pieces/);
    expect(find(reportOf(newBust('b', '2026-12-01')), 'off')).toBeUndefined();
    expect(Math.min(...r.cover.map((c) => c.wanted))).toBeGreaterThanOrEqual(0.015);
  });
});

describe('schools side by side', () => {
  test('each row is that school’s own report; the form stays', () => {
    const build = lamplighter('2026-12-01', null);
    const evaluator = new Evaluator();
    const kinds = schoolsFor(build).map((s) => s.kind);
    expect(kinds[0]).toBe('stuffed');
    expect(kinds.length).toBeGreaterThan(6);
    for (const kind of kinds) {
      const row = compareSchool(asBriefed(build), kind, evaluator);
      if (!('kind' in row)) throw new Error(row.message);
      const other = underSchool(build, kind);
      expect(other.form).toBe(build.form);
      expect(row.summary).toEqual(reportOf(other).summary);
      expect(row.name).toBe(schools.find((s) => s.kind === kind)?.name);
    }
  });
  test('what practitioners say of them comes out: dense is heavier and firmer, the pipe stiffest, foil alone sags most', () => {
    const evaluator = new Evaluator();
    const build = lamplighter('2026-12-01', null);
    const row = (kind: string) => {
      const r = compareSchool(asBriefed(build), kind, evaluator);
      if (!('kind' in r)) throw new Error(r.message);
      return r;
    };
    const stuffed = row('stuffed'),
      dense = row('dense'),
      pipe = row('bent-pipe'),
      foil = row('foil-only');
    expect(dense.clayOn).toBeGreaterThan(3 * stuffed.clayOn);
    expect(dense.give).toBeLessThan(stuffed.give);
    expect(dense.summary.nights ?? Infinity).toBeGreaterThan(3 * (stuffed.summary.nights ?? 0));
    expect(pipe.sag).toBeLessThan(stuffed.sag);
    expect(foil.sag).toBeGreaterThan(pipe.sag);
  });
});
