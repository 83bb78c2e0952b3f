import type { Build } from '../build';
import type { MixedClay } from './water';

/** Clay to buy: what goes on plus waste, in whole packs, less the water that is worked in. */
export interface ClayToBuy {
  /** kg on the piece, as laid. */
  readonly onPiece: number;
  /** kg as supplied, waste included. */
  readonly toBuy: number;
  readonly packs: number;
  readonly packMass: number;
  readonly cost: number;
  /** kg of water to work in. */
  readonly water: number;
}

export function clayToBuy(build: Build, mixed: MixedClay, volume: number): ClayToBuy {
  const { waste, waterWorkedIn, pack } = build.materials;
  const onPiece = volume * mixed.wetDensity;
  const share = mixed.drying ? waterWorkedIn : 0;
  const toBuy = (onPiece / (1 + share)) * (1 + waste);
  const packs = Math.ceil(toBuy / pack.mass - 1e-9);
  return { onPiece, toBuy, packs, packMass: pack.mass, cost: packs * pack.price, water: toBuy * share };
}
