import { changed } from '../../../tests/support/judged';
import { newBust } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { mouldKinds, mouldMaterials } from '../mould';
import { compareMoulds } from '.';

const rowsOf = (...changes: Parameters<typeof changed>[1][]) => {
  const question = asBriefed(changed(newBust('Test', '2026-12-01', 0.4), ...changes));
  const rows = compareMoulds(question, new Evaluator(), {});
  if (!rows.ok) throw new Error(rows.message);
  return rows.value;
};
const plain = rowsOf();

test('every kind has its row; none is the chosen one where no mould is taken', () => {
  expect(plain.map((r) => r.figures.kind.id)).toEqual(mouldKinds.map((k) => k.id));
  expect(plain.some((r) => r.chosen)).toBe(false);
  for (const r of plain) {
    expect(r.hours).toBeGreaterThan(0.5);
    expect(r.ready).toMatch(/^\d{4}-\d{2}-\d{2}$/);
    expect(r.pulls.low).toBeLessThan(r.pulls.high);
    expect(r.box !== null).toBe(r.figures.block !== null);
  }
});

test('what it costs is what is bought of each material, at its price', () => {
  for (const { figures, cost } of plain) {
    const parts = [figures.skin, figures.shell, figures.block].flatMap((p) => (p ? [p] : []));
    const sum = parts.reduce((all, p) => all + p.toBuy * mouldMaterials[p.material].price.nominal, 0);
    expect(cost.nominal).toBeCloseTo(sum, 9);
    expect(cost.low).toBeLessThan(cost.nominal);
    expect(cost.high).toBeGreaterThan(cost.nominal);
  }
});

test('walls and cast of one’s own are those of the kind that is taken, and of no other', () => {
  const rows = rowsOf(
    { path: ['finish', 'processes'], value: [{ kind: 'plaster-mould' }] },
    { path: ['mould', 'shell'], value: 0.04 },
    { path: ['mould', 'cast'], value: 'wax' },
  );
  const row = (id: string) => rows.find((r) => r.figures.kind.id === id)!;
  expect(row('plaster-parts')).toMatchObject({ chosen: true });
  expect(row('plaster-parts').figures.shell!.thickness).toBe(0.04);
  expect(row('plaster-parts').figures.cast.id).toBe('wax');
  expect(row('plaster-open').figures.shell!.thickness).toBe(0.025);
  expect(row('latex-skin').figures.cast.id).toBe('plaster-solid');
  expect(rows.filter((r) => r.chosen)).toHaveLength(1);
});
