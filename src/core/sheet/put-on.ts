import { mixesOwn, recipeFor } from '../clay';
import type { Piece } from '../piece';
import type { Step } from '../plan';

/** What a step uses of something. */
export interface Portion {
  readonly step: string;
  readonly amount: number;
}

/** What goes into clay that the maker mixes: litres or kg of it, used as it is mixed. */
export interface Ingredient {
  readonly what: string;
  readonly unit: 'l' | 'kg';
  readonly amount: number;
  readonly by: readonly Portion[];
}

/** `needed` kg of clay; null where it is bought, or nobody mixes it. */
export function ingredientsOf(piece: Piece, needed: number, steps: readonly Step[]): Ingredient[] | null {
  const scaled = mixesOwn(piece.build, piece.clay) ? recipeFor(piece.clay, piece.mixed, needed) : null;
  if (!scaled) return null;
  const mixing = steps.flatMap(({ id, material }) => (id.startsWith('mix/') && material ? [{ id, material }] : []));
  const all = mixing.reduce((sum, s) => sum + s.material.mass, 0);
  return scaled.parts.map(({ what, amount }) => ({
    what,
    unit: scaled.unit,
    amount,
    by: all > 0 ? mixing.map((s) => ({ step: s.id, amount: (amount * s.material.mass) / all })) : [],
  }));
}

export interface PutOn {
  readonly name: string;
  readonly mass: number;
  readonly by: readonly Portion[];
}

/** Layers, resin, rubber and plaster, by name: what steps put on besides clay and what the way of building winds on. */
export function putOnOf(steps: readonly Step[], times: number): PutOn[] {
  const out = new Map<string, Portion[]>();
  for (const { id, material, kind } of steps)
    if (material && kind !== 'bulk' && kind !== 'tending')
      out.set(material.name, [...(out.get(material.name) ?? []), { step: id, amount: material.mass }]);
  return [...out].map(([name, by]) => ({ name, mass: times * by.reduce((sum, b) => sum + b.amount, 0), by }));
}
