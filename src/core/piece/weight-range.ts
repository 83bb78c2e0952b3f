import type { Ledger } from '../load';
import { combineDepartures, type Range } from '../quantity';

/** What a piece weighs, as far as a hand lays clay to its thickness and packs what is inside alike. */
export interface WeightRange {
  readonly wet: Range;
  readonly dry: Range;
}

/** Of what is reckoned: clay laid over a core thicker or thinner; filling packed more or less. Our own measure of ordinary hands. */
const thickness = 0.15;
const packing = 0.25;

/** `cells`: what the grid may be off, kg. Clay all through is as thick as the form, and only that. */
export function weightRange(ledger: Ledger, cells: number, solid: boolean): WeightRange {
  const bulk = ledger.items.filter((i) => i.kind === 'bulk');
  const about = (whole: number, clay: number, filling: number): Range => {
    const parts = [cells, solid ? 0 : thickness * clay, packing * filling];
    return combineDepartures(
      whole,
      parts.flatMap((p) => [whole - p, whole + p]),
    );
  };
  return {
    wet: about(
      ledger.wet,
      ledger.clayWet,
      bulk.reduce((sum, i) => sum + i.wet, 0),
    ),
    dry: about(
      ledger.dry,
      ledger.clayDry,
      bulk.reduce((sum, i) => sum + i.dry, 0),
    ),
  };
}
