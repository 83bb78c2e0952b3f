import { packOf } from '../clay';
import type { Build } from '../document';
import type { StockNeed } from '../plan';
import { success, type Result } from '../quantity';
import { asBriefed, type Evaluator } from '../evaluate';
import { sheetOf } from './sheet';

/** What a build takes from the shelf, in the shelf's units, a class set and its spares counted; what the build says it has is not taken off. */
export function needsOf(evaluator: Evaluator, id: string, build: Build): Result<StockNeed[]> {
  const copies = build.plan.classSet?.people ?? 1;
  const sheet = sheetOf(asBriefed(build), evaluator, { copies });
  if (!sheet.ok) return sheet;
  const s = sheet.value;
  const pack = packOf(build);
  const need = (
    item: string,
    name: string,
    unit: StockNeed['unit'],
    amount: number,
    price: number | null = null,
  ): StockNeed => ({ item, name, unit, build: id, buildName: build.name, amount, price });
  return success([
    ...(s.ingredients
      ? s.ingredients.map(({ what, unit, amount, by }) => ({
          ...need(`part/${slug(what)}`, what, unit === 'l' ? 'litres' : 'kg', amount),
          by,
        }))
      : [
          need(
            `clay/${build.brief.clay}`,
            s.clay.name,
            'kg',
            s.clay.needed,
            pack.mass > 0 ? pack.price / pack.mass : null,
          ),
        ]),
    ...s.stock.map((x) =>
      need(
        `stock/${x.key}`,
        x.name,
        'm',
        s.cuts.filter((c) => c.key === x.key).reduce((sum, c) => sum + c.cutLength * c.pieces, 0) *
          (s.copies + s.spares),
        x.pricePerMetre,
      ),
    ),
    ...(s.bulk ? [need(`bulk/${s.bulk.name.replaceAll(' ', '-')}`, s.bulk.name, 'kg', s.bulk.mass)] : []),
    ...(s.wrap ? [need(`wrap/${s.wrap.name.replaceAll(' ', '-')}`, s.wrap.name, 'm', s.wrap.length)] : []),
    ...s.putOn.map(({ name, mass, by }) => ({ ...need(`layer/${slug(name)}`, name, 'kg', mass), by })),
    ...s.hardware.map((h) => need(`hardware/${h.name.replaceAll(' ', '-')}`, h.name, 'pieces', h.count)),
  ]);
}

const slug = (name: string): string => name.toLowerCase().replace(/[^a-z0-9]+/g, '-');
