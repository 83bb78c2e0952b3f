import { asBriefed, Evaluator } from '../evaluate';
import type { Build } from '../document';
import { startBuild } from '../school';
import type { Piece } from '.';
import { knockOf, usualKnock, type Knock } from './knock';

/** What sticks out of a coral and of a bust, knocked: by the handbook's beam, and by what runs in it. */
const buildOf = (form: string): Build => {
  const made = startBuild('x', '2026-12-01', form, 1);
  if (!made.ok) throw new Error(made.message);
  return made.value;
};
const pieceOf = (build: Build): Piece => {
  const piece = new Evaluator().piece(asBriefed(build));
  if (!piece.ok) throw new Error(piece.message);
  return piece.value;
};
const inClay = (build: Build, clay: string): Build => ({ ...build, brief: { ...build.brief, clay } });
const knocked = (piece: Piece, force?: number): Knock => {
  const found = knockOf(piece, force);
  if (!found.ok) throw new Error(found.message);
  return found.value;
};
const coral = buildOf('branching');
const piece = pieceOf(inClay(coral, 'paper-clay'));
const found = knocked(piece);

test('branches stick out, worst first, each by its own name', () => {
  expect(found.force).toBe(usualKnock);
  expect(found.parts.length).toBeGreaterThan(4);
  const asked = found.parts.map((p) => p.asked.nominal);
  expect([...asked].sort((a, b) => b - a)).toEqual(asked);
  for (const p of found.parts) expect(p.name).not.toBe('form');
});

test('a round branch of solid clay bears what a round beam bears', () => {
  // Without a core: everything is clay.
  const solid = knocked({ ...piece, coreDepths: piece.coreDepths.map(() => Infinity) });
  const branch = solid.parts.filter((p) => p.arm > 3 * p.across);
  expect(branch.length).toBeGreaterThan(2);
  for (const p of branch) {
    const beam = (usualKnock * p.arm) / (solid.strength.nominal * (Math.PI / 32) * p.across ** 3);
    expect(p.asked.nominal / beam).toBeGreaterThan(0.75);
    expect(p.asked.nominal / beam).toBeLessThan(1.2);
  }
  // A skin over a core bears what a tube does.
  const skin = knocked({ ...piece, coreDepths: piece.coreDepths.map(() => 0.002) });
  for (const p of skin.parts.filter((b) => b.arm > 3 * b.across)) {
    const share = 1 - (1 - 0.002 / (p.across / 2)) ** 4;
    const tube = (usualKnock * p.arm) / (skin.strength.nominal * (Math.PI / 32) * p.across ** 3 * share);
    expect(p.asked.nominal / tube).toBeGreaterThan(0.75);
    expect(p.asked.nominal / tube).toBeLessThan(1.25);
  }
});

test('twice the knock asks twice as much; half the strength is its high side; a stronger clay bears more', () => {
  const twice = knocked(piece, 2 * usualKnock);
  const same = twice.parts.find((p) => p.name === found.parts[0]!.name)!;
  expect(same.asked.nominal / found.parts[0]!.asked.nominal).toBeCloseTo(2, 6);
  const { asked } = found.parts[0]!;
  expect(asked.high / asked.nominal).toBeCloseTo(2, 6);
  expect(asked.low / asked.nominal).toBeCloseTo(2 / 3, 6);
  const epoxy = knocked({ ...piece, clay: { ...piece.clay, id: 'epoxy-clay' } });
  expect(epoxy.parts[0]!.asked.nominal / asked.nominal).toBeCloseTo(5 / 30, 3);
});

test('a wire thick enough keeps it on: it cracks, and does not come off', () => {
  const worst = found.parts[0]!;
  expect(worst.status).toBe('fails');
  expect(worst.wire).not.toBeNull();
  // By hand: one strand, fully bent.
  const stock = (id: string) => {
    const own = piece.stockOf(id)!;
    return { ...own, strength: { low: 1e11, nominal: 1e11, high: 1e11 } };
  };
  const held = knocked({ ...piece, stockOf: stock }).parts.find((p) => p.name === worst.name)!;
  expect(held.wire!.asked).toBeLessThan(1);
  expect(held.asked.nominal).toBeGreaterThan(1);
  expect(held.status).toBe('watch');
  const none = knocked({ ...piece, armature: { ...piece.armature, members: [] } }).parts.find(
    (p) => p.name === worst.name,
  )!;
  expect(none.wire).toBeNull();
  // As high, and a metre aside: it runs in none of them.
  const aside = piece.armature.members.map((m) => ({ ...m, path: m.path.map(([x, y, z]) => [x + 1, y, z] as const) }));
  const far = knocked({ ...piece, armature: { ...piece.armature, members: aside } });
  expect(far.parts.every((p) => p.wire === null)).toBe(true);
  expect(none.status).toBe('fails');
});

test('what would help does: as thick as it says in clay alone, and a wire that bears it by itself', () => {
  const worst = found.parts.find((p) => p.wants !== null)!;
  const beam = (usualKnock * worst.arm) / (found.strength.low * (Math.PI / 32) * worst.thicker! ** 3);
  expect(beam).toBeGreaterThan(0.75);
  expect(beam).toBeLessThan(1.1);
  const across = Number(/([\d.]+) mm/.exec(worst.wants!)![1]) / 1000;
  expect((250e6 * across ** 3) / 6).toBeGreaterThanOrEqual(usualKnock * worst.arm);
});

test('a bust has nothing that snaps off; what stays soft, a clay nobody knows, and a knock that is none are told', () => {
  const bust = buildOf('bust');
  expect(knocked(pieceOf(inClay(bust, 'paper-clay'))).parts).toEqual([]);
  expect(knockOf({ ...piece, clay: { ...piece.clay, id: 'oil-based', setting: 'never' } })).toMatchObject({
    ok: false,
    message: expect.stringContaining('stays soft'),
  });
  expect(knockOf({ ...piece, clay: { ...piece.clay, id: 'my-own' } })).toMatchObject({
    ok: false,
    message: expect.stringContaining('not known'),
  });
  for (const force of [NaN, 0, -5, 1e6]) expect(knockOf(piece, force)).toMatchObject({ ok: false, code: 'bad-force' });
});
