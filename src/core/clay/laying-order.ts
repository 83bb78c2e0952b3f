import { compared } from '../quantity';

/** Clay is laid from the base upward: what is below carries what comes. By how high the middle of each region's clay lies. */
export function fromTheBaseUp<T extends { readonly height: number }>(regions: readonly T[]): T[] {
  return [...regions].sort((a, b) => compared(a.height) - compared(b.height));
}
