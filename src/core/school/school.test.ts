import { cutList, memberMass, pathLength } from '../armature';
import { bulkList, stocks } from '../catalogue';
import { newBust, type Build } from '../document';
import { DistanceField } from '../form';
import { setOutWell as made } from '../../../tests/support/set-out';
import { stuffed } from './stuffed';

const withParameters = (parameters: Record<string, string | number>, size = 1): Build => {
  const b = newBust('b', '2026-12-01', size);
  return {
    ...b,
    armature: {
      ...b.armature,
      school: { kind: 'stuffed', parameters: { ...b.armature.school.parameters, ...parameters } },
    },
  };
};

describe('stuffed', () => {
  test.each([0.3, 0.75, 1, 1.5])('at %d of life: everything finite, joined, and inside the form', (size) => {
    const { armature, form } = made(withParameters({}, size));
    const ids = new Set(armature.nodes.map((n) => n.id));
    for (const b of armature.bones) expect(ids.has(b.from) && ids.has(b.to)).toBe(true);
    expect(armature.nodes.some((n) => n.held)).toBe(true);
    const field = new DistanceField(form.masses);
    for (const m of armature.members) {
      for (const p of m.path) {
        expect(p.every(Number.isFinite)).toBe(true);
        // Below the bust the upright stands bare; everywhere else wires stay under the surface.
        if (p[2] > (form.bust?.levels.bottom ?? 0) + 0.02 * size)
          expect(field.at(p[0], p[1], p[2], field.all())).toBeLessThan(0);
      }
    }
  });

  test.each(bulkList.map((b) => [b.id]))('filled with %s', (bulk) =>
    expect(made(withParameters({ bulk })).armature.bulk).toBe(bulk),
  );
});

test('the cut list adds up: bend, allowances, trim', () => {
  const { armature } = made(withParameters({}));
  for (const cut of cutList(armature.members, stocks)) {
    const member = armature.members.find((m) => m.id === cut.member);
    expect(cut.netLength).toBeCloseTo(pathLength(member?.path ?? []), 12);
    expect(cut.cutLength).toBeCloseTo(cut.netLength + cut.allowances.reduce((s, a) => s + a.length, 0), 9);
  }
  const pipe = armature.members.find((m) => m.id === 'stuffed/pipe');
  if (!pipe) throw new Error('no pipe');
  // 1.27 kg a metre of nominal half-inch pipe.
  expect(memberMass(pipe, stocks.get('steel-pipe') as never) / (pathLength(pipe.path) + 0.013)).toBeCloseTo(1.27, 1);
});

test('edits by hand survive another form and another school parameter', () => {
  const b = withParameters({ bulk: 'foil-firm' });
  const edited: Build = {
    ...b,
    armature: { ...b.armature, edits: { 'stuffed/loop-front': { strands: 2 }, gone: { strands: 2 } } },
  };
  const { armature, lostEdits } = made(edited);
  expect(armature.members.find((m) => m.id === 'stuffed/loop-front')?.strands).toBe(2);
  expect(lostEdits).toEqual(['gone']);
});

test('parameters outside their bounds are refused', () =>
  expect(stuffed.parameters.safeParse({ frameStrands: 99 }).success).toBe(false));
