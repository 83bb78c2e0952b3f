/**
 * What every room speaks in. In: figures as people write them. Out: results with their errors, ranges, units and dates in
 * words, vectors, files of zipped parts. Knows nothing of clay.
 */
export * from './result';
export * from './range';
export * from './gauge';
export * from './parse';
export * from './format';
export * from './date';
export * from './vector';
export * from './hull';
export * from './gravity';
export * from './seeded';
export * from './json';
