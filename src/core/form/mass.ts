import type { Mass } from '../document';

export { massSchema, type Mass, type MassShape } from '../document';

/** Whether no clay lies on it: an object left bare, and what an opening lays bare. */
export function isBare(mass: Pick<Mass, 'role'> | undefined): boolean {
  return mass?.role === 'bare' || mass?.role === 'opening';
}
