import { onArmature, splitBone, worstOf } from '../../../tests/support/split-bone';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { straightStretches, type Bone } from '../armature';
import type { Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { startBuild } from '../school';

const begun = (form: string): Build => {
  const made = startBuild('A piece', '2026-12-01', form, 0.4);
  if (!made.ok) throw new Error(made.message);
  return made.value;
};
const evaluator = new Evaluator();

test.each(
  [
    ...[lamplighter('2026-11-22', null), ...otherDemoBuilds('2026-11-22', '2027-02-01')],
    begun('four-legged'),
    begun('figure'),
  ].map((b) => [`${b.name}, ${b.form.start.kind}`, b] as const),
)('%s: a joint in the middle of any bone changes what is asked of it and its sag by under a hundredth', (_, build) => {
  const made = evaluator.piece(asBriefed(build));
  if (!made.ok) throw new Error(made.message);
  const piece = made.value;
  const whole = worstOf(piece);
  expect(whole.utilisation).toBeGreaterThan(0);
  const bones = piece.armature.bones.filter((b) => !b.tie);
  const some = bones.filter((_b, i) => i % Math.ceil(bones.length / 7) === 0);
  for (const [i, bone] of some.entries()) {
    const split = worstOf(onArmature(piece, splitBone(piece.armature, bone.id, i % 2 === 0 ? 0.5 : 0.3)));
    expect(Math.abs(split.utilisation / whole.utilisation - 1)).toBeLessThan(0.01);
    expect(Math.abs(split.sag / whole.sag - 1)).toBeLessThan(0.01);
  }
});

test('bones that go straight on are one stretch; a bend, another join, other clay, a branch or the ground end it', () => {
  const nodes = [
    ['foot', 0, 0, 0, true],
    ['low', 0, 0, 1],
    ['middle', 0, 0, 2],
    ['high', 0, 0, 3],
    ['out', 1, 0, 3],
  ].map(([id, x, y, z, held]) => ({ id, at: [x, y, z], held: held === true }) as never);
  const bone = (from: string, to: string, more: Partial<Bone> = {}): Bone => ({
    id: `${from}-${to}`,
    name: '',
    from,
    to,
    masses: ['trunk'],
    joinFrom: 'welded',
    joinTo: 'welded',
    ...more,
  });
  const column = [bone('foot', 'low'), bone('low', 'middle'), bone('middle', 'high'), bone('high', 'out')];
  const of = (bones: Bone[]) => [...straightStretches(nodes, bones).of];
  expect(of(column)).toEqual([0, 0, 0, 1]);
  expect(straightStretches(nodes, column).ends[0]).toEqual([
    [0, 0, 0],
    [0, 0, 3],
  ]);
  // However its bones are turned.
  expect(of([column[0]!, { ...column[1]!, from: 'middle', to: 'low' }, column[2]!])).toEqual([0, 0, 0]);
  expect(of([column[0]!, { ...column[1]!, joinFrom: 'bound' }, column[2]!])).toEqual([0, 1, 1]);
  expect(of([column[0]!, { ...column[1]!, masses: ['head'] }, column[2]!])).toEqual([0, 1, 2]);
  expect(of([...column.slice(0, 3), bone('low', 'out')])).toEqual([0, 1, 1, 2]);
});
