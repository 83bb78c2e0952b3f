import fc from 'fast-check';
import { applyEdit, readBuild, type Build, type BuildEdit } from '../document';
import type { Vec3 } from '../quantity';
import {
  addMass,
  changeJoint,
  changeMass,
  compose,
  copyMass,
  jointChanges,
  mirrorOwn,
  moveMass,
  poseJoint,
  removeMass,
  resolveForm,
  rotationOf,
  setApart,
  setJointApart,
  stretchMass,
  turnMass,
  turnOf,
  unpose,
  type ResolvedForm,
  type Rotation,
} from '.';

const start = (kind: string, measures: Build['form']['start']['measures'] = {}, size = 0.5): Build => {
  const read = readBuild({
    schemaVersion: 3,
    name: 'b',
    brief: { startDate: '2026-12-01' },
    form: { start: { kind, size, measures } },
    armature: { school: { kind: 'wire-figure', parameters: {} } },
  });
  if (!read.ok) throw new Error(read.message);
  return read.value;
};
const formOf = (b: Build): ResolvedForm => {
  const form = resolveForm(b);
  if (!form.ok) throw new Error(`${form.path}: ${form.message}`);
  return form.value;
};
const after = (b: Build, edit: BuildEdit | null): Build => {
  if (!edit) throw new Error('no edit');
  const done = applyEdit(b, edit);
  if (!done.ok) throw new Error(`${done.path}: ${done.message}`);
  return done.value;
};
const massOf = (b: Build, id: string) => {
  const m = formOf(b).masses.find((x) => x.id === id);
  if (!m) throw new Error(`no mass ${id}`);
  return m;
};
const jointOf = (b: Build, id: string) => {
  const j = formOf(b).skeleton.joints.find((x) => x.id === id);
  if (!j) throw new Error(`no joint ${id}`);
  return j;
};
const close = (a: readonly number[], b: readonly number[], digits = 9) =>
  a.forEach((v, i) => expect(v).toBeCloseTo(b[i] ?? NaN, digits));
const turns = fc.tuple(
  fc.double({ min: -179, max: 179, noNaN: true }),
  fc.double({ min: -89, max: 89, noNaN: true }),
  fc.double({ min: -179, max: 179, noNaN: true }),
);

test('a turn goes to a rotation and back', () => {
  fc.assert(
    fc.property(turns, (t) => close(rotationOf(turnOf(rotationOf(t))), rotationOf(t), 9)),
    { seed: 3 },
  );
  close(rotationOf(turnOf(rotationOf([30, 90, 50]))), rotationOf([30, 90, 50]), 9);
});

describe('moving by hand', () => {
  const by: Vec3 = [0.011, -0.02, 0.007];
  test.each(['skull', 'hand-left', 'hand-right'])('the %s goes where the hand takes it, in a pose too', (id) => {
    const b = start('figure', { stance: 'reaching' });
    const before = massOf(b, id);
    const next = after(b, moveMass(b, formOf(b), before, by));
    close(
      massOf(next, id).at,
      before.at.map((v, k) => v + by[k]!),
      9,
    );
    // Pairs move together: what was done to one is reflected in the other.
    if (id !== 'skull')
      close(
        massOf(next, 'hand-right').at,
        [-massOf(next, 'hand-left').at[0], massOf(next, 'hand-left').at[1], massOf(next, 'hand-left').at[2]],
        9,
      );
  });
  test('turned to where the hand turned it, twice over', () => {
    fc.assert(
      fc.property(turns, turns, (one, two) => {
        let b = start('figure', { stance: 'reaching' });
        for (const t of [one, two]) {
          const wanted = compose(rotationOf(t), rotationOf(massOf(b, 'foot-left').turn)) as Rotation;
          b = after(b, turnMass(b, formOf(b), massOf(b, 'foot-left'), wanted));
          close(rotationOf(massOf(b, 'foot-left').turn), wanted, 7);
        }
      }),
      { seed: 5, numRuns: 20 },
    );
  });
  test('stretched twice is stretched by both, and put back leaves no trace', () => {
    const b = start('bust');
    const once = after(b, stretchMass(b, formOf(b), massOf(b, 'skull'), [1.2, 1, 1]));
    const twice = after(once, stretchMass(once, formOf(once), massOf(once, 'skull'), [1 / 1.2, 1, 1]));
    expect(twice.form.edits).toEqual({});
  });
  test('a change of size and of measures keeps what was shaped', () => {
    const b = start('bust');
    const moved = after(b, changeMass(b, formOf(b), 'face', 'Move the face', { moved: [0, -0.02, 0.01] }));
    const larger = {
      ...moved,
      form: { ...moved.form, start: { ...moved.form.start, size: 1, measures: { headHeight: 0.26 } } },
    };
    const plain = { ...larger, form: { ...larger.form, edits: {} } };
    close(
      massOf(larger, 'face').at,
      massOf(plain, 'face').at.map((v, k) => v + [0, -0.02, 0.01][k]!),
      9,
    );
  });
});

describe('posing', () => {
  test('a turned shoulder takes the arm along and leaves the rest; lengths stay', () => {
    const b = start('figure');
    const next = after(b, changeJoint(b, jointOf(b, 'shoulder-left'), { turned: [0, -60, 0] }));
    const span = (x: Build, a: string, c: string) =>
      Math.hypot(...jointOf(x, a).at.map((v, k) => v - jointOf(x, c).at[k]!));
    expect(span(next, 'elbow-left', 'wrist-left')).toBeCloseTo(span(b, 'elbow-left', 'wrist-left'), 9);
    expect(jointOf(next, 'wrist-left').at[2]).toBeGreaterThan(jointOf(b, 'wrist-left').at[2] + 0.1);
    close(massOf(next, 'skull').at, massOf(b, 'skull').at, 9);
    close(
      jointOf(next, 'wrist-right').at,
      [-jointOf(next, 'wrist-left').at[0], jointOf(next, 'wrist-left').at[1], jointOf(next, 'wrist-left').at[2]],
      9,
    );
  });
  test('sides set apart go their own ways, and follow again', () => {
    const b = start('figure');
    const apart = after(b, setJointApart(b, formOf(b), jointOf(b, 'shoulder-right'), true));
    const one = after(apart, changeJoint(apart, jointOf(apart, 'shoulder-right'), { turned: [0, 70, 0], apart: true }));
    close(jointOf(one, 'wrist-left').at, jointOf(b, 'wrist-left').at, 9);
    expect(jointOf(one, 'wrist-right').at[2]).toBeGreaterThan(jointOf(b, 'wrist-right').at[2] + 0.05);
    const again = after(one, setJointApart(one, formOf(one), jointOf(one, 'shoulder-right'), false));
    close(jointOf(again, 'wrist-right').at, jointOf(b, 'wrist-right').at, 9);
  });
  test('a joint that stays put stands as it stood while the rest moves', () => {
    const b = start('figure');
    const planted = { ...b, form: { ...b.form, planted: 'sole-left' } };
    const bent = after(planted, changeJoint(planted, jointOf(planted, 'knee-left'), { turned: [-40, 0, 0] }));
    close(jointOf(bent, 'sole-left').at, jointOf(b, 'sole-left').at, 9);
    close(jointOf(bent, 'sole-left').rotation, rotationOf([0, 0, 0]), 9);
    close(jointOf(bent, 'sole-right').at, jointOf(b, 'sole-right').at, 9);
    expect(jointOf(bent, 'pelvis').at[2]).toBeLessThan(jointOf(b, 'pelvis').at[2]);
  });
  test('by hand in the view: the joint ends as the hand left it', () => {
    const b = start('figure', { stance: 'striding' });
    const joint = jointOf(b, 'elbow-right');
    const to = compose(joint.rotation, rotationOf([10, 20, -15]));
    const next = after(b, poseJoint(b, formOf(b), joint, joint.rotation, to));
    close(jointOf(next, 'elbow-right').rotation, to, 7);
    expect(after(next, unpose()).form.pose).toEqual({});
    expect(jointChanges(next, joint).turned).toBeDefined();
  });
  test('any pose at all keeps every figure finite', () => {
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.constantFrom('hip-left', 'knee-left', 'spine', 'neck', 'elbow-right', 'nobody'),
          fc.record({ turned: turns, apart: fc.boolean() }),
        ),
        fc.option(fc.constantFrom('sole-left', 'crown', 'nobody')),
        (pose, planted) => {
          const b = start('figure');
          const form = formOf({ ...b, form: { ...b.form, pose: pose as Build['form']['pose'], planted } });
          for (const m of form.masses) for (const v of [...m.at, ...m.turn]) expect(Number.isFinite(v)).toBe(true);
          expect(form.lostEdits.includes('nobody')).toBe('nobody' in pose);
        },
      ),
      { seed: 11, numRuns: 60 },
    );
  });
});

describe('masses of one’s own', () => {
  test('added beside another, mirrored, copied, taken away', () => {
    const b = start('figure');
    const made = addMass(b, formOf(b), 'ellipsoid', 'hand-left');
    const added = after(b, made.edit);
    expect(massOf(added, made.id)).toMatchObject({ region: 'hands', joint: 'wrist-left' });
    const pair = after(added, mirrorOwn(added, made.id, true));
    expect(massOf(pair, `${made.id}-right`).joint).toBe('wrist-right');
    close(
      massOf(pair, `${made.id}-right`).at,
      [-massOf(pair, made.id).at[0], massOf(pair, made.id).at[1], massOf(pair, made.id).at[2]],
      9,
    );
    const copy = copyMass(pair, formOf(pair), 'thigh-left');
    const copied = after(pair, copy?.edit ?? null);
    expect(massOf(copied, copy?.id ?? '').at[2]).toBeLessThan(massOf(copied, 'thigh-left').at[2]);
    const gone = after(copied, removeMass(copied, formOf(copied), copy?.id ?? ''));
    expect(gone.form.added).toHaveLength(1);
  });
  test('one the form makes is hidden, not lost; the last one stays', () => {
    const b = start('free');
    expect(resolveForm(after(b, removeMass(b, formOf(b), 'lump')))).toMatchObject({ ok: false, code: 'no-masses' });
    const f = start('figure');
    const hidden = after(f, removeMass(f, formOf(f), 'hand-left'));
    expect(formOf(hidden).hidden.map((h) => h.id)).toEqual(['hand-left']);
    expect(formOf(hidden).masses.some((m) => m.id === 'hand-left')).toBe(false);
  });
  test('a pair set apart keeps the shapes it had', () => {
    const b = start('figure');
    const long = after(
      b,
      changeMass(b, formOf(b), 'hand-right', 'x', { stretched: [1, 1, 1.5], moved: [-0.03, 0, 0] }),
    );
    const apart = after(long, setApart(long, formOf(long), 'hand-right', true));
    for (const id of ['hand-left', 'hand-right']) close(massOf(apart, id).at, massOf(long, id).at, 9);
    const own = after(apart, changeMass(apart, formOf(apart), 'hand-right', 'x', { moved: [0, 0, 0.05] }));
    close(massOf(own, 'hand-left').at, massOf(long, 'hand-left').at, 9);
  });
  test('a mass on a joint that is not there is refused by name', () => {
    const b = start('free');
    const lost = { ...b, form: { ...b.form, added: [{ ...massOf(b, 'lump'), id: 'own/x-1', joint: 'tail' }] } };
    expect(resolveForm(lost)).toMatchObject({
      ok: false,
      code: 'unknown-joint',
      message: expect.stringContaining('tail'),
    });
  });
});
