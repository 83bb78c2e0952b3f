import { findClay, type Build } from '../document';
import { recipes, usualPack, type Pack, type ClayFamily, type Recipe } from '../catalogue';
import type { MixedClay } from './water';

/** Clay to buy: what goes on plus waste, less what is on the shelf, in whole packs, less the water that is worked in. */
export interface ClayToBuy {
  /** kg on the piece, as laid. */
  readonly onPiece: number;
  /** kg as supplied, waste included. */
  readonly needed: number;
  /** kg of that there is already, and kg to buy. */
  readonly fromShelf: number;
  readonly toBuy: number;
  readonly packs: number;
  readonly packMass: number;
  readonly cost: number;
  /** kg of water to work in. */
  readonly water: number;
  /** kg that will be left over of what is bought and on the shelf. */
  readonly left: number;
  /** kg of offcuts and dust. */
  readonly waste: number;
  /** Whether what is to be bought is mixed by the maker. */
  readonly mixedHere: boolean;
}

/** The pack the build's clay is bought in: the maker's own, or the usual one. */
export function packOf(build: Build): Pack {
  const { clay } = build.brief;
  const found = findClay(build, clay);
  const own = build.materials.packs;
  const pack = Object.hasOwn(own, clay) ? own[clay] : undefined;
  return pack ?? usualPack(found.ok ? found.value : { setting: 'dries' });
}

/** Whether the maker mixes this clay: says so, and it is one that has a recipe. */
export function mixesOwn({ materials, brief }: Build, clay: ClayFamily | undefined): boolean {
  return materials.mixOwn && clay?.id === brief.clay && recipes.some((r) => r.id === clay.recipe);
}

export function clayToBuy(build: Build, mixed: MixedClay, volume: number): ClayToBuy {
  const { waste, waterWorkedIn, clayOnShelf } = build.materials;
  const pack = packOf(build);
  const onPiece = volume * mixed.wetDensity;
  const share = mixed.drying ? waterWorkedIn : 0;
  const needed = (onPiece / (1 + share)) * (1 + waste);
  const fromShelf = Math.min(clayOnShelf, needed);
  const toBuy = needed - fromShelf;
  const found = findClay(build, build.brief.clay);
  // Clay that is mixed is mixed as it is wanted; the price of a pack is then what so much of it costs to mix.
  const mixes = mixesOwn(build, found.ok ? found.value : undefined);
  const packs = Math.max(0, mixes ? toBuy / pack.mass : Math.ceil(toBuy / pack.mass - 1e-9));
  return {
    onPiece,
    needed,
    fromShelf,
    toBuy,
    packs,
    packMass: pack.mass,
    cost: packs * pack.price,
    water: needed * share,
    left: clayOnShelf - fromShelf + packs * pack.mass - toBuy,
    waste: needed - onPiece / (1 + share),
    mixedHere: mixes,
  };
}

/** Sheets to roll to one thickness: whole sheets of the board they are cut from, for the clay there is. */
export interface Sheets {
  readonly thickness: number;
  /** m2 covered, offcuts not counted. */
  readonly area: number;
  readonly count: number;
  /** kg of a whole one, and of all of them: the last is only as large as is wanted. */
  readonly each: number;
  readonly mass: number;
}

/** `volume` m3 of clay that is laid so thick. */
export function sheetsFor(build: Build, mixed: MixedClay, volume: number, thickness: number): Sheets {
  const { sheet, waste } = build.materials;
  const one = sheet.width * sheet.length;
  const area = volume / thickness,
    rolled = area * (1 + waste);
  return {
    thickness,
    area,
    count: Math.ceil(rolled / one - 1e-9),
    each: Math.min(one, rolled) * thickness * mixed.wetDensity,
    mass: rolled * thickness * mixed.wetDensity,
  };
}

/** A recipe scaled to the clay that is needed: litres where it is mixed by volume, kg where by weight. */
export interface ScaledRecipe {
  readonly recipe: Recipe;
  readonly unit: 'l' | 'kg';
  readonly parts: readonly { readonly what: string; readonly amount: number }[];
  /** m3 wet, and once dry. */
  readonly wet: number;
  readonly dry: number;
}

/** `batch` kg at a time; null when nobody mixes this clay. Volumes are taken to add up. */
export function recipeFor(clay: ClayFamily, mixed: MixedClay, batch: number): ScaledRecipe | null {
  const recipe = recipes.find((r) => r.id === clay.recipe);
  if (!recipe) return null;
  const wet = batch / mixed.wetDensity;
  const whole = recipe.parts.reduce((sum, p) => sum + p.parts, 0);
  const total = recipe.by === 'volume' ? wet * 1000 : batch;
  const shrinkage = mixed.drying?.shrinkage ?? 0;
  return {
    recipe,
    unit: recipe.by === 'volume' ? 'l' : 'kg',
    parts: recipe.parts.map((p) => ({ what: p.what, amount: (total * p.parts) / whole })),
    wet,
    dry: wet * (1 - shrinkage) ** 3,
  };
}

/** What can be had back of clay that is left over: kg of it, and kg of water to soak it with. */
export interface Reclaim {
  readonly back: number;
  readonly water: number;
  readonly how: string;
}

/** `dry` kg of dried offcuts; soft clay comes back as it is. */
export function reclaim(setting: string, mixed: MixedClay, offcuts: number): Reclaim {
  if (setting === 'never')
    return { back: offcuts, water: 0, how: 'All of it, for the next piece; pick wire and dust out of it.' };
  if (!mixed.drying)
    return {
      back: 0,
      water: 0,
      how: setting === 'sets' ? 'None: what is mixed sets.' : 'Raw offcuts only; what was baked stays as it is.',
    };
  const solids = offcuts * mixed.dryShare;
  return {
    back: offcuts,
    water: solids * mixed.drying.w0,
    how: 'Broken small, soaked some hours in distilled water, then kneaded.',
  };
}
