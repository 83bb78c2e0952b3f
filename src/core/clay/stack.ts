import type { Build, Layers } from '../document';
import { layers, type BulkKind, type LayerKind, type Wrap } from '../catalogue';

/** Coats over the core in one region, metres, in the order they go on. */
export function coatsOf(build: Build, region: string): readonly number[] {
  const own = build.regions.own;
  return (Object.hasOwn(own, region) ? own[region] : undefined)?.coats ?? build.regions.everywhere.coats;
}

export function layersOf(build: Build, region: string): Layers {
  const own = build.regions.own;
  return (Object.hasOwn(own, region) ? own[region] : undefined) ?? build.regions.everywhere;
}

/** Layers under the clay, from the core out; null where the school's own wrap stands. Unknown ones are passed over. */
export function layersUnderClay(build: Build, region: string): readonly LayerKind[] | null {
  const ids = layersOf(build, region).under ?? build.regions.everywhere.under;
  return ids ? ids.map((id) => layers.get(id)).filter((l) => l !== undefined) : null;
}

/** Skins and seals, from the clay out. */
export function layersOverClay(build: Build, region: string): readonly LayerKind[] {
  return (layersOf(build, region).over ?? build.regions.everywhere.over ?? [])
    .map((id) => layers.get(id))
    .filter((l) => l !== undefined);
}

export function coatColours(build: Build, region: string): readonly ('own' | 'white' | 'dyed')[] {
  const given = layersOf(build, region).colours ?? [];
  return coatsOf(build, region).map((_, k) => given[k] ?? 'own');
}

/** Stage each coat goes on in, from 1. */
export function stagesOf(build: Build, region: string): readonly number[] {
  const given = layersOf(build, region).stages ?? [];
  return coatsOf(build, region).map((_, k) => given[k] ?? k + 1);
}

export function clayOver(build: Build, region: string): number {
  return coatsOf(build, region).reduce((sum, t) => sum + t, 0);
}

/** The face the clay dries and shrinks on: the bulk and what is wrapped round it. */
export interface CoreFace {
  /** Share of the clay's shrinkage held back. */
  readonly restraint: number;
  /** Share of the outer evaporation let through. */
  readonly innerFace: number;
  /** kg of water to a m2 that the layers on it hold when they are full, and to a kg of the bulk the clay's water gets to. */
  readonly drinks: { readonly perArea: number; readonly perKg: number };
  /** Grip, as a share of half the yield stress. */
  readonly grip: number;
  readonly solid: boolean;
}

/** `under` from the core out. Wraps multiply what the bulk holds back; a hard undercoat takes the bulk's place. */
export function coreFace(bulk: BulkKind, ...under: readonly (Wrap & { readonly innerFace?: number })[]): CoreFace {
  const solid = bulk.id === 'none';
  let restraint = bulk.restraint,
    innerFace = bulk.innerFace,
    grip = bulk.grip,
    drinks = { perArea: 0, perKg: bulk.drinks };
  // Clay on the bare armature has no core to wrap.
  for (const layer of solid ? [] : under) {
    restraint = layer.restraint ?? restraint * layer.restraintFactor;
    innerFace = layer.seals ? 0 : (layer.innerFace ?? innerFace);
    grip = layer.grip ?? grip;
    drinks = layer.seals
      ? { perArea: 0, perKg: 0 }
      : { ...drinks, perArea: drinks.perArea + (layer.drinks ?? 0) * layer.perArea };
  }
  return { restraint: Math.min(1, restraint), innerFace, drinks, grip, solid };
}
