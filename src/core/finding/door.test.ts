import { edited, judged } from '../../../tests/support/judged';
import type { Build } from '../document';
import { groundUnder } from '../load';
import { startBuild } from '../school';
import { begunToCarry } from '../sizing';
import { asBriefed, Evaluator } from '../evaluate';
import { door } from './door';

const dragon = (size = 0.73): Build => {
  const made = startBuild('A dragon', '2026-12-01', 'bird-like', size, 'dragon');
  if (!made.ok) throw new Error(made.message);
  return begunToCarry(made.value);
};
const sizedAndJudged = (build: Build) => {
  const found = new Evaluator().judge(asBriefed(build), { ranges: false });
  if (!found.ok) throw new Error(found.message);
  return found.value;
};

describe('a dragon with its wings spread', () => {
  const build = dragon();
  const before = sizedAndJudged(build);
  const [found] = door.judge(before.judging);
  const proposals = door.propose!(before.judging, found!);

  test('does not go through the door, and its wings are offered to come off', () => {
    expect(found!.status).toBe('fails');
    expect(proposals.map((p) => p.edit.label)).toEqual(
      expect.arrayContaining(['Let the wing come away', 'Let the tail come away']),
    );
    // Both sides in one press.
    expect(proposals.find((p) => p.edit.label === 'Let the wing come away')!.edit.changes).toHaveLength(2);
    // No leg that stands on the board is taken off it.
    expect(proposals.some((p) => /leg|hip|shank/.test(p.edit.label))).toBe(false);
  });
  test('goes through without them, and what stays is as large as it and its board together', () => {
    const off = proposals.find((p) => p.edit.label === 'Let the wing come away')!;
    const after = sizedAndJudged(edited(build, off.edit));
    expect(door.judge(after.judging)[0]!.status).toBe('sound');
    expect(after.findings.filter((f) => f.status === 'fails').map((f) => f.sentence)).toEqual([]);
    const { piece, report } = after.judging;
    const [rest, ...wings] = report.handling.parts;
    const { base } = piece.armature;
    expect(wings).toHaveLength(2);
    expect(rest).toMatchObject({ onBase: true, door: true });
    expect(rest!.size.width).toBeGreaterThanOrEqual(base.width - 1e-9);
    expect(rest!.size.height).toBeGreaterThan(0.5 - groundUnder(base));
    // A board as wide as the wings would stay in the door.
    const wide = sizedAndJudged(
      edited(edited(build, off.edit), {
        label: 'board',
        changes: ['boardWidth', 'boardDepth'].map((key) => ({
          path: ['armature', 'school', 'parameters', key],
          value: 1.2,
        })),
      }),
    );
    expect(door.judge(wide.judging)[0]).toMatchObject({
      status: 'fails',
      sentence: 'The part "what stays on the base" does not go through the door.',
    });
  });
  test('its board is cut to what the door takes where it stands by that, and no narrower than it stands by', () => {
    const { piece, report } = before.judging;
    const { base } = piece.armature;
    expect(Math.max(base.width, base.depth)).toBeLessThanOrEqual(build.brief.travel.doorWidth - 0.04 + 1e-9);
    expect(report.stance.tipAngle).toBeGreaterThanOrEqual(build.brief.limits.tipAngle);
    const wide = edited(build, { label: 'door', changes: [{ path: ['brief', 'travel', 'doorWidth'], value: 2 }] });
    expect(sizedAndJudged(wide).judging.piece.armature.base.width).toBeGreaterThan(base.width + 0.1);
    const steep = edited(build, { label: 'steep', changes: [{ path: ['brief', 'limits', 'tipAngle'], value: 40 }] });
    expect(sizedAndJudged(steep).judging.piece.armature.base.width).toBeGreaterThan(base.width + 0.1);
  });
});

test('what stands on the board stays on it: of a figure the arms are offered, never a leg', () => {
  const made = startBuild('A figure', '2026-12-01', 'figure', 1.4);
  if (!made.ok) throw new Error(made.message);
  const on = judged(made.value);
  const labels = door.propose!(on, door.judge(on)[0]!).map((p) => p.edit.label);
  expect(labels.some((l) => /arm/.test(l))).toBe(true);
  expect(labels.filter((l) => /leg|hip|thigh|shin|foot/.test(l))).toEqual([]);
});

test('what is held elsewhere too, a ring or a cage, is not offered to come off', () => {
  for (const [kind, size] of [
    ['ringed', 2],
    ['long-neck', 2],
  ] as const) {
    const made = startBuild('A ring', '2026-12-01', kind, size);
    if (!made.ok) throw new Error(made.message);
    const on = judged(made.value);
    const [found] = door.judge(on);
    for (const { edit } of door.propose!(on, found!)) expect(edit.label).not.toMatch(/ring|hoop|stringer/);
  }
});

test('what goes through the door is offered nothing', () => {
  const made = startBuild('A heron', '2026-12-01', 'bird-like', 0.5);
  if (!made.ok) throw new Error(made.message);
  expect(door.judge(judged(made.value))[0]!.status).toBe('sound');
});
