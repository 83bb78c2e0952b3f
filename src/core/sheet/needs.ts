import { mixClay, packOf, recipeFor } from '../clay';
import { findClay, type Build } from '../document';
import type { Step, StockNeed } from '../plan';
import { success, type Result } from '../quantity';
import { asBriefed, type Evaluator } from '../evaluate';
import { sheetOf } from './sheet';

/** What a build takes from the shelf, in the shelf's units, a class set and its spares counted; what the build says it has is not taken off. */
export function needsOf(evaluator: Evaluator, id: string, build: Build): Result<StockNeed[]> {
  const copies = build.plan.classSet?.people ?? 1;
  const sheet = sheetOf(asBriefed(build), evaluator, { copies });
  if (!sheet.ok) return sheet;
  const s = sheet.value;
  const times = s.copies + s.spares;
  const pack = packOf(build);
  const need = (
    item: string,
    name: string,
    unit: StockNeed['unit'],
    amount: number,
    price: number | null = null,
  ): StockNeed => ({ item, name, unit, build: id, buildName: build.name, amount, price });
  const planned = evaluator.toPlan(asBriefed(build), { ranges: false });
  if (!planned.ok) return planned;
  const { steps } = planned.value;
  return success([
    ...(ingredientsOf(build, s.clay.needed, steps)?.map((x) => ({
      ...need(x.item, x.what, x.unit, x.amount),
      by: x.by,
    })) ?? [
      need(`clay/${build.brief.clay}`, s.clay.name, 'kg', s.clay.needed, pack.mass > 0 ? pack.price / pack.mass : null),
    ]),
    ...s.stock.map((x) =>
      need(
        `stock/${x.key}`,
        x.name,
        'm',
        s.cuts.filter((c) => c.key === x.key).reduce((sum, c) => sum + c.cutLength * c.pieces, 0) * times,
        x.pricePerMetre,
      ),
    ),
    ...(s.bulk ? [need(`bulk/${s.bulk.name.replaceAll(' ', '-')}`, s.bulk.name, 'kg', s.bulk.mass)] : []),
    ...(s.wrap ? [need(`wrap/${s.wrap.name.replaceAll(' ', '-')}`, s.wrap.name, 'm', s.wrap.length)] : []),
    ...putOn(steps).map((x) => ({ ...need(x.item, x.name, 'kg', x.amount * times), by: x.by })),
    ...s.hardware.map((h) => need(`hardware/${h.name.replaceAll(' ', '-')}`, h.name, 'pieces', h.count)),
  ]);
}

interface Portion {
  readonly step: string;
  readonly amount: number;
}

/** What goes into clay that the maker mixes, used as it is mixed; null where it is bought. */
function ingredientsOf(build: Build, needed: number, steps: readonly Step[]) {
  const clay = findClay(build, build.brief.clay);
  if (!build.materials.mixOwn || !clay.ok) return null;
  const scaled = recipeFor(clay.value, mixClay(clay.value, 0), needed);
  if (!scaled) return null;
  const mixing = steps.filter((s) => s.id.startsWith('mix/') && s.material);
  const all = mixing.reduce((sum, s) => sum + s.material!.mass, 0);
  return scaled.parts.map(({ what, amount }) => ({
    item: `part/${what.replaceAll(' ', '-')}`,
    what,
    unit: scaled.unit === 'l' ? ('litres' as const) : ('kg' as const),
    amount,
    by: mixing.map((s): Portion => ({ step: s.id, amount: all > 0 ? (amount * s.material!.mass) / all : 0 })),
  }));
}

/** Layers, resin, rubber and plaster, by name: what steps put on besides clay and what the way of building winds on. */
function putOn(steps: readonly Step[]) {
  const out = new Map<string, Portion[]>();
  for (const { id, material, kind } of steps)
    if (material && kind !== 'bulk' && kind !== 'tending')
      out.set(material.name, [...(out.get(material.name) ?? []), { step: id, amount: material.mass }]);
  return [...out].map(([name, by]) => ({
    item: `layer/${name.replaceAll(' ', '-')}`,
    name,
    amount: by.reduce((sum, b) => sum + b.amount, 0),
    by,
  }));
}
