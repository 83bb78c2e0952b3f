import { changed } from '../../../tests/support/judged';
import { classSetOf } from '../../../tests/support/class-set';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { asBriefed, Evaluator } from '../evaluate';
import type { Build } from '../document';
import { effectiveLog } from '../log';
import { usedByLog } from '../plan';
import { needsOf, sheetOf } from '.';

const evaluator = new Evaluator();
const acrobat = otherDemoBuilds('2026-12-01', '2026-12-24').find((b) => b.name === 'Acrobats')!;
const lamp = lamplighter('2026-12-01', null);
const sheet = (build: Build, copies = 1) => {
  const made = sheetOf(asBriefed(build), evaluator, { copies });
  if (!made.ok) throw new Error(made.message);
  return made.value;
};
const needs = (build: Build) => {
  const made = needsOf(evaluator, 'id', build);
  if (!made.ok) throw new Error(made.message);
  return new Map(made.value.map((n) => [n.item, n]));
};
const materials = (build: Build, more: Partial<Build['materials']>): Build =>
  changed(build, ...Object.entries(more).map(([k, value]) => ({ path: ['materials', k], value })));

test('two kilos on the shelf are there once, not once for each of a class', () => {
  const none = sheet(materials(acrobat, { clayOnShelf: 0 }), 24).clay,
    two = sheet(materials(acrobat, { clayOnShelf: 2 }), 24).clay;
  expect(none.toBuy).toBeGreaterThan(2);
  expect(two.toBuy).toBeCloseTo(none.toBuy - 2, 9);
  expect(two.fromShelf).toBe(2);
  expect(two.packs).toBe(Math.ceil(two.toBuy / two.packMass - 1e-9));
  expect(two.left).toBeCloseTo(two.packs * two.packMass - two.toBuy, 9);
  // One alone may need none at all.
  const alone = sheet(materials(acrobat, { clayOnShelf: 50 })).clay;
  expect(alone).toMatchObject({ toBuy: 0, packs: 0, cost: 0 });
});

test('for one piece the sheet says of the clay what the report says', () => {
  const report = evaluator.evaluate(asBriefed(lamp));
  if (!report.ok) throw new Error(report.message);
  const { name: _, ...clay } = sheet(lamp).clay;
  for (const [key, value] of Object.entries(report.value.clay))
    expect([key, clay[key as keyof typeof clay]]).toEqual([
      key,
      typeof value === 'number' ? expect.closeTo(value, 9) : value,
    ]);
});

test('what is needed from the shelf is clay as it is supplied: water that is worked in is not clay', () => {
  const dry = needs(lamp).get('clay/paper-clay')!.amount,
    wet = needs(materials(lamp, { waterWorkedIn: 0.1 })).get('clay/paper-clay')!.amount;
  const ofSheet = sheet(materials(lamp, { waterWorkedIn: 0.1 })).clay;
  expect(wet).toBeCloseTo(ofSheet.needed, 9);
  expect(ofSheet.water).toBeCloseTo(0.1 * wet, 9);
  expect(wet).toBeLessThan(dry);
});

test('wire by the metre, all strands; hardware by the piece; what the build says it has is not taken off', () => {
  const all = needs(lamp);
  const { cuts, hardware } = sheet(lamp);
  const wire = cuts.filter((c) => c.key === 'aluminium-annealed/4.8mm');
  expect(all.get('stock/aluminium-annealed/4.8mm')?.amount).toBeCloseTo(
    wire.reduce((sum, c) => sum + c.cutLength * c.pieces, 0),
    9,
  );
  expect(all.get('hardware/hose-clamps')).toMatchObject({ amount: 2, unit: 'pieces', buildName: lamp.name });
  expect(hardware.find((h) => h.name === 'wood screws')?.count).toBe(4);
  const stocked = needs(materials(lamp, { clayOnShelf: 9, onHand: { 'aluminium-annealed/4.8mm': [9] } }));
  for (const [item, n] of all) expect(stocked.get(item)?.amount).toBeCloseTo(n.amount, 9);
});

test('a class set counts its people and its spares', () => {
  const set = { ...acrobat, plan: { ...acrobat.plan, classSet: classSetOf({ people: 24 }) } };
  const alone = { ...acrobat, plan: { ...acrobat.plan, classSet: null } };
  const one = needs(alone),
    all = needs(set);
  for (const [item, n] of one) expect([item, all.get(item)!.amount / n.amount]).toEqual([item, expect.closeTo(26, 6)]);
});

test.each([
  [1, 0],
  [2, 1],
  [12, 1],
  [13, 2],
  [24, 2],
  [25, 3],
  [0, 0],
  [9999, 42],
])('%d copies take %d spares', (copies, spares) => {
  const made = sheet(acrobat, copies);
  expect(made.spares).toBe(spares);
  expect(made.copies).toBe(Math.min(500, Math.max(1, copies)));
});

test('a solid piece has neither bulk nor wrap on its sheet', () => {
  const solid = sheet(changed(lamp, { path: ['armature', 'school', 'parameters', 'bulk'], value: 'none' }));
  expect([solid.bulk, solid.wrap]).toEqual([null, null]);
  const full = sheet(lamp);
  expect(full.bulk!.litres).toBeGreaterThan(1);
  expect(full.wrap!.length).toBeGreaterThan(1);
});

test('on its own feet it takes no screws and no pilots', () => {
  const feet = sheet(changed(lamp, { path: ['armature', 'school', 'parameters', 'standing'], value: 'own' }));
  expect(feet.hardware.map((h) => h.name)).not.toContain('wood screws');
  expect(feet.holes.filter((h) => h.what.startsWith('pilots'))).toEqual([]);
});

test('tape by its width, laid with a lap of 15 %: metres for the face it covers', () => {
  const report = evaluator.evaluate(asBriefed(lamp));
  if (!report.ok) throw new Error(report.message);
  const wrapped = (wrap: string) =>
    sheet(changed(lamp, { path: ['armature', 'school', 'parameters', 'wrap'], value: wrap })).wrap!.length;
  const { area } = report.value.size;
  expect(wrapped('tape')).toBeCloseTo((area * 1.15) / 0.038, 6);
  expect(wrapped('cloth')).toBeCloseTo((area * 1.15) / 0.05, 6);
  expect(wrapped('twine')).toBeGreaterThan(6 * wrapped('tape'));
});

test('clay that is mixed is needed as what goes into it, used up as it is mixed', () => {
  const mixed = materials(lamp, { mixOwn: true });
  const all = needs(mixed);
  expect(all.has('clay/paper-clay')).toBe(false);
  const parts = ['wet-paper-pulp', 'earthen-air-dry-clay', 'white-wood-glue', 'filler'].map((p) =>
    all.get(`part/${p}`)!,
  );
  // 3 : 1.5 : 1 : 1 by volume, of all that is to be mixed at 1090 kg/m3.
  const litres = (sheet(mixed).clay.toBuy / 1090) * 1000;
  expect(parts.map((p) => p.amount / litres)).toEqual([3, 1.5, 1, 1].map((v) => expect.closeTo(v / 6.5, 3) as number));
  for (const p of parts) {
    expect(p.unit).toBe('litres');
    expect(p.by!.length).toBeGreaterThan(0);
    expect(p.by!.reduce((sum, b) => sum + b.amount, 0)).toBeCloseTo(p.amount, 9);
    expect(p.by!.every((b) => b.step.startsWith('mix/'))).toBe(true);
  }
  const done = (step: string) => ({
    id: '00000000-0000-4000-8000-000000000001',
    kind: 'step' as const,
    at: '2026-12-02T10:00:00Z',
    data: { step, name: step, kind: 'tending' as const },
    corrects: null,
  });
  const { step, amount } = parts[0]!.by![0]!;
  expect(usedByLog('id', effectiveLog([done(step)]), [...all.values()])).toContainEqual(
    expect.objectContaining({ item: 'part/wet-paper-pulp', kind: 'used', amount }),
  );
});

test('a clay nobody mixes is bought, whatever was said of another', () => {
  const oil = changed(materials(lamp, { mixOwn: true }), { path: ['brief', 'clay'], value: 'oil-medium' });
  expect(sheet(oil)).toMatchObject({ ingredients: null, clay: { mixedHere: false } });
  expect(Number.isInteger(sheet(oil).clay.packs)).toBe(true);
  expect(needs(oil).has('clay/oil-medium')).toBe(true);
  expect(sheet(materials(lamp, { mixOwn: true })).clay.mixedHere).toBe(true);
});

test('layers, rubber and plaster are needed by the kilo, as the steps put them on', () => {
  const gauze = changed(lamp, { path: ['regions', 'everywhere', 'under'], value: ['gauze'] });
  expect(needs(gauze).get('layer/plaster-gauze-two-layers')).toMatchObject({ unit: 'kg' });
  const moulded = changed(lamp, { path: ['finish', 'processes'], value: [{ kind: 'silicone-condensation' }] });
  const all = needs(moulded);
  const report = evaluator.evaluate(asBriefed(moulded));
  if (!report.ok) throw new Error(report.message);
  const { area, volume } = report.value.size;
  // Over what bulges there is more of each, over the rubber more still.
  const skin = 1 + 0.2 * (area / volume) * 0.01,
    shell = 1 + 0.2 * (area / volume) * (0.012 + 2 * 0.01);
  expect(all.get('layer/silicone')!.amount).toBeCloseTo(area * 0.01 * 1150 * 1.1 * skin, 6);
  expect(all.get('layer/silicone')!.by).toHaveLength(5);
  expect(all.get('layer/plaster-for-the-shell')!.amount).toBeCloseTo(area * 0.012 * 970 * 1.1 * shell, 6);
});
