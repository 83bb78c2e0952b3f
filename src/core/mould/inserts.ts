import type { MouldPart } from '../document';
import { breadthOfGirth } from '../form';
import type { Range } from '../quantity';
import { seatFor } from './shrinkage';

/** Rigid things that are set into a cast: eyes, teeth, hinges. They keep their size while the cast loses some of its. */
export type Insert = MouldPart['inserts'][number];

/** What is sculpted for one in the master: its seat, and the way from one to its fellow; metres, by what may be left. */
export interface Seat {
  readonly size: Range;
  readonly apart: Range | null;
}

export function seatOf({ size, apart }: Pick<Insert, 'size' | 'apart'>, left: Range): Seat {
  const of = (length: number): Range => ({
    low: seatFor(length, left.high),
    nominal: seatFor(length, left.nominal),
    high: seatFor(length, left.low),
  });
  return { size: of(size), apart: apart === null ? null : of(apart) };
}

/** Metres from the middle of one eye to the other's, of a grown head: Gordon and others (2014), *2012 Anthropometric Survey*. */
const betweenPupils = 0.064;

/** So many times as deep as it is across sits what is pulled or levered: dowels and threads by the usual rule of the workshop. */
export const setDeep = 3;

/** What is often set in. A jaw turns about a line through both ears, as far apart as the head is broad there. */
export function usualInserts(girth: number | undefined): Insert[] {
  const breadth = girth === undefined ? 0.15 : Math.round(breadthOfGirth(girth).breadth * 1000) / 1000;
  return [
    { id: 'eyes', name: 'ball eyes', size: 0.024, apart: betweenPupils },
    { id: 'teeth', name: 'row of teeth', size: 0.05, apart: null },
    { id: 'jaw-hinge', name: 'pins of the jaw hinge, at the ears', size: 0.006, apart: breadth },
    { id: 'magnets', name: 'magnets', size: 0.01, apart: null },
    { id: 'socket', name: 'socket for an arm or a pole', size: 0.025, apart: null },
    { id: 'wires', name: 'wires it is bent by', size: 0.003, apart: null },
    { id: 'threads', name: 'threaded sleeves', size: 0.008, apart: null },
  ];
}
