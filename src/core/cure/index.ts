/**
 * What sets: two-part clay, gauze, plaster, resin, rubber. In: how much, how warm. Out: batches that can be placed in time,
 * and when the last is hard.
 */
export * from './epoxy';
export * from './sitting';
export * from './mixes';
