import { edited, judged } from '../../../tests/support/judged';
import type { Build, Mass } from '../document';
import { findStartForm } from '../form';
import { startBuild } from '../school';
import { cover } from './cover';
import { findingsOf, worstOf } from './findings';
import { unsupported } from './unsupported';

const begun = (kind: string, school?: string): Build => {
  const made = startBuild('x', '2026-12-01', kind, 1);
  if (!made.ok) throw new Error(made.message);
  const { value } = made;
  return school ? { ...value, armature: { ...value.armature, school: { kind: school, parameters: {} } } } : value;
};
const lump: Mass = {
  id: 'own/lump',
  name: 'second lump',
  region: 'own',
  at: [0.4, 0, 0.2],
  turn: [0, 0, 0],
  blend: 0,
  shape: { kind: 'ellipsoid', radii: [0.06, 0.06, 0.06] },
};
const withLump = (build: Build): Build => ({ ...build, form: { ...build.form, added: [lump] } });

describe('what hangs on nothing', () => {
  test('a lump beside its armature fails with its weight and place, and a wire into it holds it', () => {
    const build = withLump(begun('free'));
    const on = judged(build);
    const found = unsupported.judge(on);
    expect(found).toHaveLength(1);
    // Whether it holds is Load's to say: the shelf's mark and the worst of all follow from there.
    expect(found[0]).toMatchObject({ station: 'load', status: 'fails', place: 'second lump', measured: 99 });
    expect(worstOf(findingsOf(on))).toMatchObject({ status: 'fails', finding: found[0]!.id });
    expect(found[0]!.sentence).toMatch(/g at the second lump hang on nothing\.$/);
    const [wire] = unsupported.propose!(on, found[0]!);
    const after = judged(edited(build, wire!.edit));
    expect(unsupported.judge(after).map((f) => f.status)).toEqual(['sound']);
    // It hangs on the wire now: the new bone has its weight.
    expect(after.report.members.find((m) => m.id === 'own/member-1')!.carries).toBeGreaterThan(0.05);
  });
  test('foil alone under a bust in the air: all of it', () => {
    const found = unsupported.judge(judged(begun('bust', 'foil-only')));
    expect(found[0]).toMatchObject({ status: 'fails', measured: 99 });
  });
  test('an arm without a wire that reaches too far fails by its figure; a stouter one is sound', () => {
    const arm = (radius: number): Build => ({
      ...begun('free'),
      form: {
        ...begun('free').form,
        added: [
          {
            ...lump,
            at: [0, 0, 0.15],
            shape: { kind: 'round-cone', reach: [0.3, 0, 0], radiusFrom: radius, radiusTo: radius },
          },
        ],
      },
    });
    const thin = unsupported.judge(judged(arm(0.018)));
    expect(thin[0]).toMatchObject({ status: 'fails', place: 'second lump' });
    expect(thin[0]!.measured).toBeGreaterThan(1);
    expect(thin[0]!.measured).toBeLessThan(20);
    expect(thin[0]!.sentence).toContain('reach too far beyond what holds them');
    expect(unsupported.judge(judged(arm(0.09)))[0]).toMatchObject({ status: 'sound' });
  });
  test('a fresh bust is held, and that is said', () => {
    expect(unsupported.judge(judged(begun('bust')))).toEqual([
      expect.objectContaining({ status: 'sound', sentence: expect.stringContaining('held by a wire') }),
    ]);
  });
});

describe('cover, where there is none to speak of', () => {
  test('no member within the form is never sound; no member at all is for others to say', () => {
    const build = begun('free');
    const away = {
      ...build,
      form: { ...build.form, edits: { lump: { moved: [0.5, 0, 0] as [number, number, number] } } },
    };
    expect(cover.judge(judged(away))).toEqual([
      expect.objectContaining({ status: 'fails', sentence: 'No member lies within the form.' }),
    ]);
    expect(cover.judge(judged(begun('free', 'foil-only')))).toEqual([]);
    expect(cover.judge(judged(build))[0]).toMatchObject({ status: 'sound' });
  });
});

test('a horn that no joint runs through gets a wire along its own line, and so does its twin', () => {
  const made = startBuild('A dragon', '2026-12-01', 'bird-like', 0.75);
  if (!made.ok) throw new Error(made.message);
  const measures = findStartForm('bird-like')!.types!.find((t) => t.id === 'dragon')!.measures;
  const { form } = made.value;
  const build = { ...made.value, form: { ...form, start: { ...form.start, measures } } };
  const before = judged(build);
  const horn = unsupported.judge(before).find((f) => f.id.startsWith('unsupported/horn'))!;
  expect(horn.status).toBe('fails');
  const along = unsupported.propose!(before, horn).find((p) => p.id === 'wire-along-2mm')!;
  expect(along.edit.label).toBe('Run a 2 mm wire along the horn, part 1');
  const after = judged(edited(build, along.edit));
  expect(unsupported.judge(after).filter((f) => f.id.includes('horn') && f.status === 'fails')).toEqual([]);
  const added = after.piece.armature.members.filter((m) => m.id.startsWith('own/'));
  // Left and right, each bent along its three cones, and inside all the way.
  expect(added).toHaveLength(2);
  for (const m of added) {
    expect(m.path.length).toBeGreaterThan(3);
    const cover = after.piece.cover.find((c) => c.member === m.id);
    expect(cover === undefined || cover.least > 0).toBe(true);
  }
  const [left, right] = added.map((m) => m.path[m.path.length - 1]!);
  expect(left![0]).toBeCloseTo(-right![0], 3);
  expect(left![2]).toBeCloseTo(right![2], 3);
  // On a prop until the clay is hard; in clay that never is, for good.
  const stays = (clay: string) => {
    const on = judged({ ...build, brief: { ...build.brief, clay } });
    const propped = unsupported
      .judge(on)
      .filter((f) => f.id.startsWith('unsupported/'))
      .flatMap((f) => unsupported.propose!(on, f))
      .find((p) => p.id.endsWith('-propped'))!;
    const { props } = edited(on.piece.build, propped.edit).armature;
    return [propped.note, ...new Set(props.map((p) => p.until))];
  };
  expect(stays('paper-clay')).toEqual([expect.stringContaining('propped until it is dry'), 'through-dry']);
  expect(stays('water-based')).toEqual([expect.stringContaining('propped for good'), 'always']);
});
