import { applyEdit, type Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { findStartForm } from '../form';
import { awayFromLine, keepTheseSizes, sizeAllAgain, startBuild } from '../school';
import { distance } from '../quantity';
import { begunToCarry } from './begin';

const begun = (kind: string, type: string, size = findStartForm(kind)!.usualSize): Build => {
  const made = startBuild('x', '2026-12-01', kind, size, type);
  if (!made.ok) throw new Error(made.message);
  return begunToCarry(made.value);
};
const judged = (build: Build) => {
  const answer = new Evaluator().judge(asBriefed(build), { ranges: false });
  if (!answer.ok) throw new Error(answer.message);
  return answer.value;
};
const failing = (build: Build) => judged(build).findings.filter((f) => f.status === 'fails' && f.station !== 'move');

describe('what no joint runs through and clay does not hold gets a wire of its own', () => {
  test.each([
    ['four-legged', 'stag'],
    ['four-legged', 'dragon'],
    ['bird-like', 'eagle'],
    ['head', 'beast'],
    ['bust', 'beast'],
  ])('%s, %s stands untouched', (kind, type) => {
    expect(failing(begun(kind, type)).map((f) => f.sentence)).toEqual([]);
  });

  test('a dragon in three clays, wings spread: fingers and tail get theirs where the clay asks for it', () => {
    const build = begun('bird-like', 'dragon', 0.73);
    for (const clay of ['paper-clay', 'epoxy-clay', 'oil-medium']) {
      const other = { ...build, brief: { ...build.brief, clay } };
      expect([clay, failing(other).map((f) => f.sentence)]).toEqual([clay, []]);
    }
    const heavy = judged({ ...build, brief: { ...build.brief, clay: 'earthen-air-dry' } }).judging.piece.armature;
    const fingers = heavy.members.filter((m) => m.id.startsWith('along/wire-wing-finger'));
    expect(fingers.length).toBeGreaterThanOrEqual(2);
    for (const m of fingers) expect(m.bones.length).toBe(1);
  });

  const stag = begun('four-legged', 'stag');
  const { piece } = judged(stag).judging;
  const own = piece.armature.members.filter((m) => m.id.startsWith('along/'));

  test('on both sides alike, bound on where it begins, inside all the way', () => {
    const place = (bone: string) => {
      const end = piece.armature.bones.find((b) => b.id === bone)!.to;
      return piece.armature.nodes.find((n) => n.id === end)!.at;
    };
    const lefts = own.filter((m) => m.id.endsWith('-left'));
    expect(own).toHaveLength(2 * lefts.length);
    for (const m of lefts) {
      const twin = own.find((o) => o.id === m.id.replace(/left$/, 'right'))!;
      expect([twin.stock, twin.size]).toEqual([m.stock, m.size]);
      // As set out they are each other's reflection; bent into the thick of it they are as near as bending goes.
      m.bones.forEach((bone, i) => {
        const [x, y, z] = place(bone);
        expect(distance([-x, y, z], place(twin.bones[i]!))).toBeLessThan(1e-6);
      });
      for (const [x, y, z] of m.path) expect(awayFromLine(twin.path, [-x, y, z])).toBeLessThan(0.004);
    }
    expect(own.map((m) => m.id)).toEqual(
      expect.arrayContaining(['along/wire-antler-1-left', 'along/wire-antler-1-right']),
    );
    for (const m of own) {
      expect(m.name).toMatch(/^wire in the (left|right) (antler|tine|ear|tip)/);
      expect(m.allowances[0]).toMatchObject({ what: 'bound along the other wire', at: 'start' });
      const first = piece.armature.bones.find((b) => b.id === m.bones[0])!;
      expect(
        piece.armature.bones.some((b) => b.id !== first.id && (b.to === first.from || b.from === first.from)),
      ).toBe(true);
      const cover = piece.cover.find((c) => c.member === m.id);
      expect(cover === undefined || cover.least > 0).toBe(true);
    }
  });

  test('carries what lies round it, so that nothing is carried twice or by nothing', () => {
    const { members, ledger } = judged(stag).judging.report;
    const horn = members.filter((m) => m.id.startsWith('along/'));
    expect(Math.max(...horn.map((m) => m.carries))).toBeGreaterThan(0.005);
    const hangs = ledger.items.filter((i) => i.kind !== 'base' && i.kind !== 'ballast' && i.kind !== 'hardware');
    expect(members.reduce((most, m) => Math.max(most, m.carries), 0)).toBeLessThan(
      hangs.reduce((s, i) => s + i.wet, 0),
    );
  });

  test('is kept with the sizes, taken out by hand for good, and chosen again on demand', () => {
    const sizes = new Evaluator().sizesOf(asBriefed(stag));
    expect(sizes.along!.length).toBe(own.length);
    const edit = (build: Build, e: ReturnType<typeof sizeAllAgain>): Build => {
      const done = applyEdit(build, e);
      if (!done.ok) throw new Error(done.message);
      return done.value;
    };
    const kept = edit(stag, keepTheseSizes(stag, sizes, 'kept'));
    expect(kept.armature.along).toEqual(sizes.along);
    expect(judged(kept).judging.piece.armature).toEqual(piece.armature);
    expect(edit(kept, sizeAllAgain(kept)).armature.along).toBeUndefined();
    const without = edit(stag, { label: 'none', changes: [{ path: ['armature', 'along'], value: [] }] });
    expect(judged(without).judging.piece.armature.members.some((m) => m.id.startsWith('along/'))).toBe(false);
    expect(failing(without).map((f) => f.id.split('/')[0])).toContain('unsupported');
  });
});

test('a build of before, whose sizes are as they were set, gets none', () => {
  const made = startBuild('x', '2026-12-01', 'four-legged', 0.5, 'stag');
  if (!made.ok) throw new Error(made.message);
  expect(judged(made.value).judging.piece.armature.members.some((m) => m.id.startsWith('along/'))).toBe(false);
});

test('a new build lays no more than lies over a wire that has room nowhere else', () => {
  for (const [kind, type] of [
    ['bird-like', 'eagle'],
    ['figure', 'puppet'],
  ] as const) {
    const { piece } = judged(begun(kind, type)).judging;
    expect(piece.thinOver.flatMap((places, r) => (places.length > 0 ? [piece.regions[r]] : []))).toEqual([]);
  }
});
