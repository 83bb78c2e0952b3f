import { memberMass, type Armature } from '../armature';
import type { Stock } from '../catalogue';
import { add, distance, mix, scale, type Vec3 } from '../quantity';

/** Every layer and part with its weight, wet and dry, and where it sits. */
export interface LedgerItem {
  readonly id: string;
  readonly name: string;
  readonly kind: 'clay' | 'bulk' | 'wrap' | 'member' | 'hardware' | 'base' | 'ballast';
  /** kg at its wettest, all coats on and wet. */
  readonly wet: number;
  readonly dry: number;
  readonly at: Vec3;
}

export interface Ledger {
  readonly items: readonly LedgerItem[];
  /** kg when the clay is all on and as wet as it gets. */
  readonly wet: number;
  readonly dry: number;
  readonly clayWet: number;
  readonly clayDry: number;
}

export function sumLedger(items: readonly LedgerItem[]): Ledger {
  const total = (pick: (i: LedgerItem) => number, only?: LedgerItem['kind']) =>
    items.reduce((sum, i) => (only === undefined || i.kind === only ? sum + pick(i) : sum), 0);
  return {
    items,
    wet: total((i) => i.wet),
    dry: total((i) => i.dry),
    clayWet: total((i) => i.wet, 'clay'),
    clayDry: total((i) => i.dry, 'clay'),
  };
}

/** Centre of gravity of weights and places; the origin when nothing weighs. */
export function centreOf(parts: readonly { readonly mass: number; readonly at: Vec3 }[]): { mass: number; at: Vec3 } {
  let mass = 0;
  let moment: Vec3 = [0, 0, 0];
  for (const p of parts) {
    mass += p.mass;
    moment = add(moment, scale(p.at, p.mass));
  }
  return { mass, at: mass > 0 ? scale(moment, 1 / mass) : [0, 0, 0] };
}

/** Middle of a bent wire, by length. */
export function pathCentre(path: readonly Vec3[]): Vec3 {
  const parts: { mass: number; at: Vec3 }[] = [];
  for (let i = 1; i < path.length; i++) {
    const a = path[i - 1]!,
      b = path[i]!;
    parts.push({ mass: distance(a, b), at: mix(a, b, 0.5) });
  }
  const centre = centreOf(parts);
  return centre.mass > 0 ? centre.at : path[0]!;
}

/** The armature's own items: members, hardware, the board and its ballast. */
export function armatureItems(armature: Armature, stockOf: (id: string) => Stock | undefined): LedgerItem[] {
  const items: LedgerItem[] = armature.members.map((m) => {
    const stock = stockOf(m.stock);
    if (!stock) throw new Error(`no stock ${m.stock}`);
    const mass = memberMass(m, stock);
    return { id: m.id, name: m.name, kind: 'member', wet: mass, dry: mass, at: pathCentre(m.path) };
  });
  for (const h of armature.hardware) {
    const mass = h.count * h.massEach;
    items.push({ id: h.id, name: h.name, kind: 'hardware', wet: mass, dry: mass, at: h.at });
  }
  const { base } = armature;
  const board = base.width * base.depth * base.thickness * (stockOf(base.stock)?.density ?? 640);
  const under: Vec3 = [base.at[0], base.at[1], -base.thickness / 2];
  if (base.standing === 'own') return items;
  items.push({ id: 'base/board', name: 'base board', kind: 'base', wet: board, dry: board, at: under });
  if (base.ballast > 0)
    items.push({
      id: 'base/ballast',
      name: 'ballast',
      kind: 'ballast',
      wet: base.ballast,
      dry: base.ballast,
      at: [base.ballastAt[0], base.ballastAt[1], -base.thickness / 2],
    });
  return items;
}
