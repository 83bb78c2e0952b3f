import type { Mass as WrittenMass } from '../document';
import type { LimbedSolid } from './limbs/limbed-solid';

export { massSchema, type MassShape } from '../document';

/** A mass; of a mesh with limbs there is one for every joint, and all of them are one solid. */
export type Mass = WrittenMass & { readonly part?: LimbPart };

export interface LimbPart {
  readonly whole: LimbedSolid;
  /** Index of the joint that carries it. */
  readonly joint: number;
}

/** Whether no clay lies on it: an object left bare, and what an opening lays bare. */
export function isBare(mass: Pick<Mass, 'role'> | undefined): boolean {
  return mass?.role === 'bare' || mass?.role === 'opening';
}
