import { changed } from '../../../tests/support/judged';
import { otherDemoBuilds } from '../../server/demo-builds';
import { newBust, type Build, type Change } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { ResultCache } from '.';
import { makePiece } from './piece';
import { overMember, restraintOfCoat, restraintOnCore, restraintsAt } from './restraint';

const bust = newBust('b', '2026-12-01');
const edited = (changes: readonly Change[], from: Build = bust): Build => changed(from, ...changes);
const evaluator = new Evaluator();
const regions = (b: Build) => {
  const r = evaluator.evaluate(asBriefed(b));
  if (!r.ok) throw new Error(r.message);
  return r.value.regions;
};
const pieceOf = (b: Build) => {
  const p = makePiece(b, new ResultCache());
  if (!p.ok) throw new Error(p.message);
  return p.value;
};
const demo = (kind: string) => otherDemoBuilds('2026-12-01', '2027-01-10').find((b) => b.form.start.kind === kind)!;

test('on film a form open on one side slips: half of what its core would hold back; one that closes on itself does not', () => {
  const cracks = (build: Build, film: boolean) =>
    regions(edited([{ path: ['stages', 'film'], value: film }], build)).map((r) => r.crackParts.restrained);
  const plain = edited([{ path: ['stages', 'lift'], value: null }], demo('mask'));
  const [held, slips] = [cracks(plain, false), cracks(plain, true)];
  expect(Math.max(...held)).toBeGreaterThan(0.1);
  // What lies over a member is held by that, film or not.
  const shares = held.flatMap((v, i) => (v > 0 ? [slips[i]! / v] : []));
  expect(Math.min(...shares)).toBeCloseTo(0.5, 2);
  expect(Math.max(...shares)).toBeLessThanOrEqual(1);
  expect(cracks(bust, true)).toEqual(cracks(bust, false));
});

test('a further coat is held back by the dry one under it 0.45 as much as by something rigid, and cracks for it alike', () => {
  for (const region of regions(edited([{ path: ['regions', 'everywhere', 'coats'], value: [0.008, 0.008] }]))) {
    expect(region.coats[1]!.restraint).toBeCloseTo(0.405, 9);
    const { restraint, crack } = region.coats[1]!;
    expect(crack.restrained / crack.perRestraint).toBeCloseTo(restraint, 9);
  }
  expect(restraintOfCoat(0.2, true)).toBeCloseTo(0.405, 9);
  expect(restraintOfCoat(0.2, false)).toBe(0.2);
});

test('sections clad by themselves slide at their ends: seven tenths, but only over a core that lets them', () => {
  const coral = (bulk: string, apart: boolean) => {
    const b = edited([{ path: ['stages', 'apart'], value: apart }], demo('branching'));
    const { school } = b.armature;
    const parameters = { ...school.parameters, bulk, wrap: 'none' };
    return restraintOnCore(pieceOf({ ...b, armature: { ...b.armature, school: { ...school, parameters } } }), 0);
  };
  expect(coral('paper-loose', true) / coral('paper-loose', false)).toBeCloseTo(0.7, 9);
  expect(coral('plaster-set', true)).toBe(coral('plaster-set', false));
  // A bust does not come apart.
  expect(restraintOnCore(pieceOf(edited([{ path: ['stages', 'apart'], value: true }])), 0)).toBe(
    restraintOnCore(pieceOf(bust), 0),
  );
});

test('over a member that lies close under the face clay is held wholly; beside it, and on a further coat, it is not', () => {
  expect(overMember(0.3)).toBe(0.9);
  expect(overMember(0.95)).toBe(0.95);
  const piece = pieceOf(demo('figure'));
  const near = piece.cover.find((c) => c.thinOver.length > 0)!;
  const core = restraintOnCore(piece, 0);
  const at = (places: readonly number[], clay: number, further = false) =>
    [...restraintsAt(piece, Float32Array.from(places), Uint8Array.from([0]), [clay], 0.002, () => further)][0]!;
  // Three millimetres off the wire's middle, on the side of the face: within what should cover it.
  const close = near.at.map((v, k) => v + (k === 1 ? -0.003 : 0));
  expect(at(close, 0.02)).toBeCloseTo(0.9, 6);
  expect(at([5, 5, 5], 0.02)).toBeCloseTo(core, 6);
  expect(at(close, 0.02, true)).toBeCloseTo(0.405, 6);
});

test('off its form from the first hour a coat is held back by a twenty-fifth: it lies on air and its own weight', () => {
  const lift = { when: 'hours' as const, hours: 0.01 };
  for (const { coats } of regions(edited([{ path: ['stages', 'lift'], value: lift }]))) {
    const { restrained, perRestraint } = coats[0]!.crack;
    expect(restrained / perRestraint).toBeCloseTo(0.04, 2);
  }
});
