import { applyEdit, newBust, type Build, type BuildEdit } from '../document';
import { parseStock } from '../catalogue';
import { formFor, setOut, setOutWell, under } from '../../../tests/support/set-out';
import {
  branchOff,
  bringBack,
  holdJoint,
  joinJoints,
  jointName,
  moveJoint,
  putJointBack,
  removePart,
  setStock,
  splitBone,
} from '.';

const bust = () => newBust('b', '2026-12-01');
const after = (build: Build, edit: BuildEdit): Build => {
  const done = applyEdit(build, edit);
  if (!done.ok) throw new Error(`${done.path}: ${done.message}`);
  return done.value;
};
const stock = (text: string) => {
  const read = parseStock(text);
  if (!read.ok) throw new Error(read.message);
  return read.value;
};
const nodeAt = (build: Build, id: string) => setOutWell(build).armature.nodes.find((n) => n.id === id)?.at;

describe('joints', () => {
  test('moved twice adds up, takes its wires along, and goes back', () => {
    const build = bust();
    const before = nodeAt(build, 'stuffed/shoulder-left') as readonly [number, number, number];
    const once = after(build, moveJoint(build, 'stuffed/shoulder-left', 'left', [0.01, 0, 0]));
    const twice = after(once, moveJoint(once, 'stuffed/shoulder-left', 'left', [0, 0.02, 0.005]));
    const at = nodeAt(twice, 'stuffed/shoulder-left') as readonly [number, number, number];
    expect(at.map((v, k) => v - before[k]!)).toEqual([
      expect.closeTo(0.01, 9),
      expect.closeTo(0.02, 9),
      expect.closeTo(0.005, 9),
    ]);
    const wire = setOutWell(twice).armature.members.find((m) => m.id === 'stuffed/shoulder-left');
    expect(wire?.path[wire.path.length - 1]).toEqual(at);
    expect(nodeAt(after(twice, putJointBack('stuffed/shoulder-left', 'left')), 'stuffed/shoulder-left')).toEqual(
      before,
    );
  });
  test('a change stays when the form changes', () => {
    const build = after(bust(), moveJoint(bust(), 'stuffed/crown', 'crown', [0.01, 0, 0]));
    const taller = { ...build, form: { ...build.form, start: { ...build.form.start, size: 1.2 } } };
    expect((nodeAt(taller, 'stuffed/crown') as readonly number[])[0]).toBeCloseTo(0.01, 9);
    expect(setOutWell(taller).lostEdits).toEqual([]);
  });
  test('held and freed', () => {
    const build = after(bust(), holdJoint(bust(), 'stuffed/shoulder', 'shoulder', true));
    expect(setOutWell(build).armature.nodes.find((n) => n.id === 'stuffed/shoulder')?.held).toBe(true);
  });
  test('names are words', () => {
    expect(jointName('stuffed/pipe-top')).toBe('pipe top');
    expect(jointName('stuffed/upright-neck/cut-1')).toBe('upright neck, cut 1');
  });
});

describe('bones cut in two', () => {
  test('one cut, then the second half cut again: three bones end to end, the wire along all', () => {
    const build = bust();
    const boneOf = (b: Build, id: string) => setOutWell(b).armature.bones.find((x) => x.id === id) as never;
    const once = after(build, splitBone(build, boneOf(build, 'stuffed/upright-foot'), 0.5));
    const twice = after(once, splitBone(once, boneOf(once, 'stuffed/upright-foot/part-2'), 0.5));
    expect(twice.armature.splits['stuffed/upright-foot']).toEqual([0.5, 0.75]);
    const { armature } = setOutWell(twice);
    const parts = armature.bones.filter((b) => b.id.startsWith('stuffed/upright-foot'));
    expect(parts.map((p) => [p.from, p.to])).toEqual([
      ['stuffed/foot', 'stuffed/upright-foot/cut-1'],
      ['stuffed/upright-foot/cut-1', 'stuffed/upright-foot/cut-2'],
      ['stuffed/upright-foot/cut-2', 'stuffed/shoulder'],
    ]);
    expect(parts[0]?.joinFrom).toBe('threaded');
    expect(armature.members.find((m) => m.id === 'stuffed/pipe')?.bones.slice(0, 3)).toEqual(parts.map((p) => p.id));
  });
});

test('a cut bone is one piece where it is cut: its joins stay at its ends', () => {
  const build = under(formFor('board-foam-mesh', 'long-neck'), 'board-foam-mesh');
  const bone = setOutWell(build).armature.bones.find((b) => b.id.includes('spoke'))!;
  expect([bone.joinFrom, bone.joinTo]).toEqual(['bound-glued', 'bound']);
  const cut = setOutWell(after(build, splitBone(build, bone, 0.4))).armature.bones;
  const [first, second] = cut.filter((b) => b.id === bone.id || b.id === `${bone.id}/part-2`);
  expect([first?.joinFrom, first?.joinTo]).toEqual([bone.joinFrom, 'welded']);
  expect([second?.joinFrom, second?.joinTo]).toEqual(['welded', bone.joinTo]);
});

describe('members and ties of one’s own', () => {
  const first = bust();
  const { armature } = setOutWell(first);
  test('from joint to joint; a tie only pulls; ids never clash', () => {
    const one = after(
      first,
      joinJoints(
        first,
        armature,
        'stuffed/shoulder-left',
        'stuffed/skull',
        stock('3 mm aluminium x2, splinted'),
        false,
      ),
    );
    const made = setOutWell(one).armature;
    const two = after(
      one,
      joinJoints(one, made, 'stuffed/shoulder-right', 'stuffed/skull', stock('1 mm galvanised steel'), true),
    );
    const whole = setOutWell(two).armature;
    expect(whole.members.slice(-2).map((m) => [m.stock, m.strands, m.bonded, m.bare ?? false])).toEqual([
      ['aluminium-annealed', 2, true, false],
      ['steel-galvanised', 1, false, true],
    ]);
    expect(whole.bones.slice(-2).map((b) => b.tie ?? false)).toEqual([false, true]);
    expect(new Set(whole.bones.map((b) => b.id)).size).toBe(whole.bones.length);
  });
  test('branching off makes a joint; taking the joint away takes its member with it', () => {
    const one = after(
      first,
      branchOff(first, armature, 'stuffed/skull', [0.05, 0, 0.05], stock('2 mm aluminium'), ['skull']),
    );
    const made = setOutWell(one).armature;
    const own = made.nodes.find((n) => n.id.startsWith('own/')) as { id: string };
    const gone = after(one, removePart(one, made, own.id, 'joint'));
    expect(setOutWell(gone).armature.members).toHaveLength(armature.members.length);
    expect(gone.armature.removed).toEqual([]);
  });
  test('a made member taken away is told as removed, and comes back', () => {
    const gone = after(first, removePart(first, armature, 'stuffed/loop-side', 'member'));
    expect(setOutWell(gone).armature.members.some((m) => m.id === 'stuffed/loop-side')).toBe(false);
    expect(setOutWell(after(gone, bringBack())).armature.members).toHaveLength(armature.members.length);
  });
  test('stock as it was written, on made and own members alike', () => {
    const member = armature.members.find((m) => m.id === 'stuffed/loop-front') as never;
    const changed = after(first, setStock(first, member, stock('3/16 in annealed aluminium x3, splinted with nails')));
    expect(setOutWell(changed).armature.members.find((m) => m.id === 'stuffed/loop-front')).toMatchObject({
      strands: 3,
      bonded: true,
    });
    const own = after(
      first,
      joinJoints(first, armature, 'stuffed/shoulder-left', 'stuffed/skull', stock('3 mm aluminium'), false),
    );
    const mine = setOutWell(own).armature.members.at(-1) as never;
    expect(setOutWell(after(own, setStock(own, mine, stock('6 mm brass rod')))).armature.members.at(-1)).toMatchObject({
      stock: 'brass-rod',
      size: '6mm',
    });
  });
});

test('what names nothing is refused where it stands, or told as lost', () => {
  const build = bust();
  const bad = {
    ...build,
    armature: {
      ...build.armature,
      added: {
        ...build.armature.added,
        bones: [
          {
            id: 'own/b-1',
            name: 'b',
            from: 'stuffed/skull',
            to: 'nowhere',
            masses: [],
            joinFrom: 'welded' as const,
            joinTo: 'welded' as const,
          },
        ],
      },
    },
  };
  expect(setOut(bad).made).toMatchObject({ ok: false, code: 'unknown-node', path: 'armature.added.bones.[0].to' });
  const lost = {
    ...build,
    armature: {
      ...build.armature,
      removed: ['stuffed/gone'],
      nodes: { 'stuffed/also-gone': { held: true } },
      splits: { 'stuffed/and-this': [0.5] },
    },
  };
  expect([...setOutWell(lost).lostEdits].sort()).toEqual(['stuffed/also-gone', 'stuffed/and-this', 'stuffed/gone']);
});
