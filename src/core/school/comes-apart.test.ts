import { buildWithScan, longEars, scanOf } from '../../../tests/support/scans';
import { setOutWell } from '../../../tests/support/set-out';
import { applyEdit, type Build, type BuildEdit } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { resolveForm } from '../form';
import { distance, type Vec3 } from '../quantity';
import { bonesFrom, letComeAway } from '.';

const after = (build: Build, edit: BuildEdit): Build => {
  const done = applyEdit(build, edit);
  if (!done.ok) throw new Error(`${done.path}: ${done.message}`);
  return done.value;
};
const lengthOf = (path: readonly Vec3[]) => path.slice(1).reduce((s, p, i) => s + distance(path[i]!, p), 0);
const judged = (build: Build) => {
  const answer = new Evaluator().judge(asBriefed(build));
  if (!answer.ok) throw new Error(answer.message);
  return answer.value.judging;
};

describe('an ear of a scan that comes away', () => {
  const build = buildWithScan(scanOf(longEars));
  const form = resolveForm(build);
  if (!form.ok) throw new Error(form.message);
  const root = form.value.skeleton.joints.find((j) => j.name === 'root of limb 2, left, top')!;
  const whole = setOutWell(build).armature;
  const away = after(build, letComeAway(whole, root.at, 'ear', 'socketed')!);
  const { armature, lostEdits } = setOutWell(away);
  const through = whole.members.find((m) => m.bones.some((b) => bonesFrom(whole, root.at).some((x) => x.id === b)))!;
  const near = armature.members.find((m) => m.id === through.id)!;
  const far = armature.members.find((m) => m.id === `${through.id}/apart-2`)!;

  test('has a wire of its own, which begins where the other ends, and nothing of either is lost', () => {
    expect(armature.members).toHaveLength(whole.members.length + 1);
    expect(near.path.at(-1)).toEqual(far.path[0]);
    expect(distance(far.path[0]!, root.at)).toBeLessThan(1e-9);
    expect(lengthOf(near.path) + lengthOf(far.path)).toBeCloseTo(lengthOf(through.path), 9);
    expect([...near.bones, ...far.bones]).toEqual(through.bones);
    expect(lostEdits).toEqual([]);
  });
  test('each end of the wire is allowed for once, what runs all along it by its share, and both go into the socket', () => {
    const words = (m: typeof near) => m.allowances.map((a) => a.what);
    expect(words(near)).toEqual(['bound along the other wire', 'twisting the strands', 'in the socket']);
    expect(words(far)).toEqual(['in the socket', 'end loop', 'twisting the strands']);
    const twist = (m: typeof near) => m.allowances.find((a) => a.what === 'twisting the strands')!.length;
    expect(twist(near) + twist(far)).toBeCloseTo(twist(through), 9);
    expect(far.allowances[0]!.length).toBeCloseTo(0.048, 3);
  });
  test('weighs what an ear weighs, and the rest the rest', () => {
    const { report } = judged(away);
    const [standing, ear] = report.handling.parts;
    expect(ear!.name).toContain('limb 2, left, top');
    const { items } = report.ledger;
    const carried = items
      .filter((i) => ['clay', 'bulk', 'member', 'wrap'].includes(i.kind))
      .reduce((k, i) => k + i.dry, 0);
    // What stands is carried on its board.
    const board = items.find((i) => i.kind === 'base')!.dry;
    expect([standing!.onBase, ear!.onBase]).toEqual([true, false]);
    expect((standing!.mass - board + ear!.mass) / carried).toBeCloseTo(1, 2);
    // A frustum of 22 to 17 mm radius, 162 mm long, a ball at its tip: what it holds, of all there is.
    const litres = (Math.PI * 0.162 * (0.022 ** 2 + 0.022 * 0.017 + 0.017 ** 2)) / 3 + (2 / 3) * Math.PI * 0.017 ** 3;
    const { perMass } = judged(build).piece.volumes;
    const all = perMass.reduce((s, m) => s + m.clay + m.bulk, 0);
    const share = ear!.mass / (standing!.mass - board + ear!.mass);
    expect(share).toBeGreaterThan((0.6 * litres) / all);
    expect(share).toBeLessThan((2 * litres) / all);
  });
  test('is one with the rest again, cut and carried as before', () => {
    const back = after(away, letComeAway(armature, root.at, 'ear', null)!);
    expect(setOutWell(back).armature.members).toEqual(whole.members);
    expect(judged(back).report.handling.parts).toEqual([]);
  });
  test('is of the wire that was set for the whole, until it is given another', () => {
    const edit: BuildEdit = {
      label: 'wire',
      changes: [{ path: ['armature', 'edits', near.id], value: { size: '4mm' } }],
    };
    const { armature: both } = setOutWell(after(away, edit));
    expect(both.members.flatMap((m) => (m.id.startsWith(near.id) ? [m.size] : []))).toEqual(['4mm', '4mm']);
  });
  test('can be of another wire than what it is pushed into', () => {
    const edit: BuildEdit = {
      label: 'thinner',
      changes: [{ path: ['armature', 'edits', far.id], value: { size: '3mm' } }],
    };
    const { armature: thinner, lostEdits: lost } = setOutWell(after(away, edit));
    expect(thinner.members.find((m) => m.id === far.id)!.size).toBe('3mm');
    expect(thinner.members.find((m) => m.id === near.id)!.size).toBe(near.size);
    expect(lost).toEqual([]);
  });
});

test('where no bone begins nothing comes away', () => {
  expect(letComeAway(setOutWell(buildWithScan(scanOf(longEars))).armature, [1, 1, 1], 'ear', 'socketed')).toBeNull();
});
