import { newBust, type Build } from '../document';
import { setOutWell } from '../../../tests/support/set-out';
import { startBuild } from '.';

/** What makes each school the school it is. */
function made(
  form: string,
  school: string,
  parameters: Record<string, string | number | boolean> = {},
  size = 1,
  measures: Record<string, string | number> = {},
) {
  const start =
    form === 'bust'
      ? { ok: true as const, value: newBust('b', '2026-12-01', size) }
      : startBuild('x', '2026-12-01', form, size);
  if (!start.ok) throw new Error(start.message);
  const build: Build = {
    ...start.value,
    form: { ...start.value.form, start: { ...start.value.form.start, measures } },
    armature: { ...start.value.armature, school: { kind: school, parameters } },
  };
  return setOutWell(build);
}
const across = (points: readonly (readonly number[])[], k: number) =>
  Math.max(...points.map((p) => p[k]!)) - Math.min(...points.map((p) => p[k]!));

describe('dense', () => {
  test('no bulk, loops well inside those of a stuffed frame, crosses to hold the clay up', () => {
    const dense = made('bust', 'dense').armature,
      stuffed = made('bust', 'stuffed').armature;
    expect(dense.bulk).toBe('none');
    const wide = (a: typeof dense) => across(a.members.find((m) => m.id.endsWith('loop-front'))?.path ?? [], 0);
    expect(wide(dense)).toBeLessThan(0.85 * wide(stuffed));
    expect(dense.hardware.find((h) => h.id.endsWith('crosses'))?.count).toBe(3);
    expect(made('bust', 'dense', { crosses: 0 }).armature.hardware.some((h) => h.id.endsWith('crosses'))).toBe(false);
  });
});

describe('a head hung far forward', () => {
  test.each(['stuffed', 'dense'])('%s: the upright ends where the neck still covers it', (school) => {
    const pipe = (headForward: number) => {
      const { armature, depthAt } = made('bust', school, {}, 1, { headForward });
      const top = armature.members.find((m) => m.id.endsWith('/pipe'))!.path.at(-1)!;
      return { height: top[2], over: depthAt(top) - 0.0213 / 2 };
    };
    const upright = pipe(0);
    for (const headForward of [0.05, 0.07, 0.09, 0.12]) {
      const leant = pipe(headForward);
      if (headForward > 0.08) expect(leant.height).toBeLessThan(upright.height - 0.02);
      expect(leant.over).toBeGreaterThanOrEqual(0.016 - 1e-6);
    }
  });
});

describe('branching', () => {
  const { armature, form } = made('branching', 'branching');
  const wires = armature.members.filter((m) => m.id.includes('/wire-'));
  test('a wire for every tip, an odd number in the post, as many holes', () => {
    const inner = new Set(form.skeleton.joints.map((j) => j.parent));
    const tips = form.skeleton.joints.filter((j) => !inner.has(j.id));
    expect(wires.length).toBeGreaterThanOrEqual(tips.length);
    expect(wires.length % 2).toBe(1);
    expect(armature.holes?.find((h) => h.what.includes('top of the post'))?.count).toBe(wires.length);
    for (const t of tips) expect(wires.some((w) => w.bones.includes(`branching/${t.id}`))).toBe(true);
  });
  test('a branch is joined on where it leaves; the trunk runs through', () => {
    const bound = made('branching', 'branching', { join: 'bound' }).armature;
    const root = bound.nodes.find((n) => n.held)?.id;
    const starts = bound.bones.filter((b) => b.joinFrom === 'bound').map((b) => b.id);
    const leaves = new Map<string, number>();
    for (const b of bound.bones) leaves.set(b.from, (leaves.get(b.from) ?? 0) + 1);
    // At every fork one goes on and the others are bound to it.
    expect(starts).toHaveLength([...leaves.values()].reduce((sum, n) => sum + n - 1, 0));
    expect(bound.bones.filter((b) => b.from === root && b.joinFrom === 'bound')).toEqual([]);
  });
  test('the bundle thins as branches leave it, and every tip has one', () => {
    const along = (bone: string) => wires.filter((w) => w.bones.includes(bone)).length;
    const root = armature.nodes.find((n) => n.held)?.id;
    const trunk = armature.bones.find((b) => b.from === root)?.id ?? '';
    expect(along(trunk)).toBe(wires.length);
    for (const b of armature.bones) expect(along(b.id)).toBeGreaterThan(0);
    expect(Math.min(...armature.bones.map((b) => along(b.id)))).toBe(1);
  });
  test('dried in as many sections as asked, every mass in one', () => {
    for (const n of [2, 3, 4]) {
      const { armature: a, form: f } = made('branching', 'branching', { sections: n });
      expect(a.sections).toHaveLength(n);
      expect(a.sections?.flatMap((s) => s.masses).sort()).toEqual(f.masses.map((m) => m.id).sort());
      // A branch and its tips travel together, off the trunk.
      const of = (mass: string) => a.sections?.find((s) => s.masses.includes(mass))?.id;
      expect(of('trunk-1')).toBe('trunk');
      for (const b of [1, 2, 3, 4, 5])
        expect([of(`tip-${b}-1`), of(`tip-${b}-1`) === 'trunk']).toEqual([of(`branch-${b}`), false]);
    }
    expect(made('branching', 'branching', { sections: 1 }).armature.sections).toEqual([]);
  });
});

describe('jointed', () => {
  const { armature } = made('figure', 'jointed', {}, 0.3, { stance: 'standing' });
  test('splints along bones only: soft joints have the wire alone', () => {
    for (const b of armature.bones) {
      const here = armature.members.filter((m) => m.bones.includes(b.id));
      expect([b.id, here.length]).toEqual([b.id, b.id.includes('/soft-') ? 1 : 2]);
    }
    expect(armature.members.filter((m) => m.id.includes('splint')).every((m) => m.bonded)).toBe(true);
  });
  test('a nut in each foot and a hole under it, wherever the board lies', () => {
    expect(armature.hardware.filter((h) => h.name.startsWith('nut'))).toHaveLength(2);
    for (const { holes, nodes, base } of [armature, made('figure', 'jointed', { boardBack: 0.04 }).armature]) {
      const feet = nodes.filter((n) => n.held);
      expect(holes?.[0]?.at?.map(([x, y]) => [x + base.at[0], y + base.at[1]])).toEqual(
        feet.map((n) => [expect.closeTo(n.at[0], 9), expect.closeTo(n.at[1], 9)]),
      );
    }
  });
});

describe('stick, pipe, foil and object', () => {
  test('the stick goes straight up; what hangs before it is held by tape on foil', () => {
    const { armature } = made('head', 'dowel-and-ball', {}, 1, { headForward: 0.12 });
    const stick = armature.members[0];
    expect(across(stick?.path ?? [], 0) + across(stick?.path ?? [], 1)).toBeLessThan(1e-9);
    expect(armature.bones.find((b) => b.id === 'dowel/ball')).toMatchObject({ joinFrom: 'taped' });
    expect(armature.members.flatMap((m) => m.bones)).not.toContain('dowel/ball');
  });
  test('pipes are screwed end to end, an elbow at every turn, a tee for shoulders when wanted', () => {
    const { armature } = made('bust', 'bent-pipe');
    expect(armature.bones.every((b) => b.joinFrom === 'threaded')).toBe(true);
    const lengths = armature.members.filter((m) => m.id.includes('length-')).length;
    expect(armature.hardware.filter((h) => h.id.includes('elbow'))).toHaveLength(lengths - 1);
    expect(armature.members.filter((m) => m.id.includes('tee')).length).toBe(2);
    expect(made('bust', 'bent-pipe', { tee: false }).armature.members.some((m) => m.id.includes('tee'))).toBe(false);
  });
  test('foil alone is neither cut nor screwed', () => {
    const { armature } = made('figure', 'foil-only', {}, 0.15);
    expect(armature.members).toEqual([]);
    expect(armature.base.screws.count).toBe(0);
  });
  test('a shell’s form comes out, an object’s does not; an undercoat is a wrap that carries', () => {
    expect(made('worn-shell', 'shell').armature.comesOut).toBe('all');
    expect(made('found-object', 'object-core').armature.comesOut).toBeUndefined();
    expect(made('figure', 'undercoat', {}, 0.2).armature.wrap).toBe('undercoat');
  });
});

describe('cages', () => {
  test('timber frame: hoops and stringers as asked, under the clay, spokes on the beam, tusks with a bar of their own', () => {
    const { armature, depthAt } = made('long-neck', 'board-foam-mesh', { hoops: 6, around: 10 });
    const hoops = armature.members.filter((m) => /\/cage-hoop-\d+$/.test(m.id));
    expect(hoops).toHaveLength(6);
    // Bent right round: it ends where it began.
    for (const { path } of hoops) expect(path[path.length - 1]).toEqual(path[0]);
    const places = armature.nodes.filter((n) => /\/cage-h\d+-\d+$/.test(n.id));
    expect(places).toHaveLength(60);
    for (const n of places) expect(depthAt(n.at)).toBeGreaterThan(0.025);
    expect(armature.members.filter((m) => m.id.includes('spoke')).length).toBeGreaterThanOrEqual(18);
    expect(armature.nodes.filter((n) => n.held)).toHaveLength(2);
  });
  test('welded steel: limbs bolt to the trunk, each is a section, tube as thick as the piece is tall', () => {
    const large = made('figure', 'steel-mesh-foam', {}, 1.5).armature,
      small = made('figure', 'steel-mesh-foam', {}, 0.5).armature;
    expect(large.sections?.length).toBeGreaterThan(2);
    expect(new Set(large.bones.map((b) => b.joinFrom))).toContain('bolted');
    const size = (a: typeof large) => Number.parseInt(a.members.find((m) => m.id.includes('tube'))?.size ?? '0', 10);
    expect(size(large)).toBeGreaterThan(size(small));
    expect(large.members.some((m) => m.id.includes('hoop'))).toBe(true);
  });
});
