import { standing, type ReadEntry } from '../log';

/** The workshop's shelf: what came, what was counted, what builds used, what they are still going to need. */
export const stockUnits = ['kg', 'm', 'pieces', 'm2', 'litres'] as const;
export type StockUnit = (typeof stockUnits)[number];

export interface StockMove {
  readonly item: string;
  /** Bought and reclaimed add, used and scrapped take away, counted says how much there is. */
  readonly kind: 'bought' | 'reclaimed' | 'used' | 'scrapped' | 'counted';
  readonly amount: number;
  /** Of the whole of a purchase. */
  readonly price: number | null;
  readonly build: string | null;
  /** ISO, UTC. */
  readonly at: string;
}

/** What a build needs of an item, all of it, and what has been used of that. */
export interface StockNeed {
  readonly item: string;
  readonly name: string;
  readonly unit: StockUnit;
  readonly build: string;
  readonly buildName: string;
  readonly amount: number;
  /** Price of a unit, as the build has it; null where it has none. */
  readonly price: number | null;
  /** What its steps use of it, where it is not used up in one. */
  readonly by?: readonly { readonly step: string; readonly amount: number }[];
}

export interface StockLine {
  readonly item: string;
  readonly name: string;
  readonly unit: StockUnit;
  readonly onShelf: number;
  /** Still to be used, by build. */
  readonly reserved: readonly { readonly build: string; readonly name: string; readonly amount: number }[];
  readonly used: number;
  readonly toBuy: number;
  /** Last paid for a unit, or what builds reckon with. */
  readonly price: number | null;
}

/** On the shelf after everything in its order; never less than nothing, since what was used was there. */
export function onShelf(moves: readonly StockMove[]): number {
  let at = 0;
  for (const m of [...moves].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))) {
    if (m.kind === 'counted') at = m.amount;
    else if (m.kind === 'bought' || m.kind === 'reclaimed') at += m.amount;
    else at = Math.max(0, at - m.amount);
  }
  return at;
}

const unitOfKind: Readonly<Record<string, StockUnit>> = {
  clay: 'kg',
  stock: 'm',
  bulk: 'kg',
  wrap: 'm',
  hardware: 'pieces',
  layer: 'kg',
  part: 'kg',
};
/** The step that uses an item up, by the item's kind. */
const usedIn: Readonly<Record<string, string>> = {
  stock: 'armature',
  hardware: 'armature',
  bulk: 'bulk',
  wrap: 'bulk',
};

/**
 * What a build's log says was used: amounts that were told, and for what was not, all that its done steps need (the clay
 * as it was laid).
 */
export function usedByLog(build: string, entries: readonly ReadEntry[], needs: readonly StockNeed[]): StockMove[] {
  const told = standing(entries, 'used').map(({ at, data }): StockMove => ({
    item: data.item,
    kind: 'used',
    amount: data.amount,
    price: null,
    build,
    at,
  }));
  const done = new Map(standing(entries, 'step').map((e) => [e.data.step, e]));
  const out = [...told];
  for (const n of needs) {
    if (n.build !== build) continue;
    const kind = n.item.split('/')[0] ?? '';
    const said = told.filter((m) => m.item === n.item);
    const back = (amount: number, at: string) =>
      out.push({ item: n.item, kind: 'reclaimed', amount, price: null, build, at });
    // Taken apart, wire and pipe go back to the shelf; picked clean, so does the clay.
    const apart = kind === 'stock' ? done.get('take-apart') : undefined;
    if (apart) back(said.length > 0 ? said.reduce((sum, m) => sum + m.amount, 0) : n.amount, apart.at);
    if (kind === 'clay')
      for (const { at, data } of done.values()) if (data.returned !== undefined) back(data.returned, at);
    if (said.length > 0) continue;
    for (const { step, amount } of n.by ?? []) {
      const at = done.get(step)?.at;
      if (at !== undefined) out.push({ item: n.item, kind: 'used', amount, price: null, build, at });
    }
    const step = done.get(usedIn[kind] ?? '');
    if (step) out.push({ item: n.item, kind: 'used', amount: n.amount, price: null, build, at: step.at });
    if (kind === 'clay')
      for (const e of done.values())
        if (e.data.clay !== undefined)
          out.push({ item: n.item, kind: 'used', amount: e.data.clay, price: null, build, at: e.at });
    // A step that is done says all it laid; of one that is not, what was laid so far.
    if (kind === 'clay')
      for (const { at, data } of standing(entries, 'part'))
        if (data.clay !== undefined && !done.has(data.step))
          out.push({ item: n.item, kind: 'used', amount: data.clay, price: null, build, at });
  }
  return out;
}

export function stockLines(moves: readonly StockMove[], needs: readonly StockNeed[]): StockLine[] {
  const items = [...new Set([...needs.map((n) => n.item), ...moves.map((m) => m.item)])];
  return items
    .map((item): StockLine => {
      const own = moves.filter((m) => m.item === item),
        wanted = needs.filter((n) => n.item === item);
      const usedBy = (build: string) =>
        own.filter((m) => m.kind === 'used' && m.build === build).reduce((sum, m) => sum + m.amount, 0);
      const reserved = wanted
        .map((n) => ({ build: n.build, name: n.buildName, amount: Math.max(0, n.amount - usedBy(n.build)) }))
        .filter((r) => r.amount > 1e-9);
      const there = onShelf(own);
      const paid = own
        .filter((m) => m.kind === 'bought' && m.price !== null && m.amount > 0)
        .sort((a, b) => (a.at < b.at ? 1 : -1))[0];
      const first = wanted[0];
      return {
        item,
        name: first?.name ?? item.split('/').slice(1).join(' ').replaceAll('-', ' '),
        unit: first?.unit ?? unitOfKind[item.split('/')[0] ?? ''] ?? 'pieces',
        onShelf: there,
        reserved,
        used: own.filter((m) => m.kind === 'used').reduce((sum, m) => sum + m.amount, 0),
        toBuy: Math.max(0, reserved.reduce((sum, r) => sum + r.amount, 0) - there),
        price:
          paid?.price !== undefined && paid.price !== null
            ? paid.price / paid.amount
            : (wanted.find((n) => n.price !== null)?.price ?? null),
      };
    })
    .sort((a, b) => (a.item < b.item ? -1 : 1));
}

export interface BuildCost {
  readonly planned: number;
  /** What was used at what was paid, and what is still to be used at what it is reckoned. */
  readonly soFar: number;
  readonly expected: number;
  /** Items without any price. */
  readonly unpriced: readonly string[];
}

export function costOfBuild(
  build: string,
  needs: readonly StockNeed[],
  moves: readonly StockMove[],
  lines: readonly StockLine[],
): BuildCost {
  const priceOf = new Map(lines.map((l) => [l.item, l.price]));
  const own = needs.filter((n) => n.build === build);
  const used = moves.filter((m) => m.kind === 'used' && m.build === build);
  const at = (item: string, amount: number) => amount * (priceOf.get(item) ?? 0);
  const soFar = used.reduce((sum, m) => sum + at(m.item, m.amount), 0);
  const rest = own.reduce(
    (sum, n) =>
      sum + at(n.item, Math.max(0, n.amount - used.filter((m) => m.item === n.item).reduce((s, m) => s + m.amount, 0))),
    0,
  );
  return {
    planned: own.reduce((sum, n) => sum + n.amount * (n.price ?? priceOf.get(n.item) ?? 0), 0),
    soFar,
    expected: soFar + rest,
    unpriced: own.filter((n) => (n.price ?? priceOf.get(n.item) ?? null) === null).map((n) => n.name),
  };
}
