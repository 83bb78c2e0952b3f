/**
 * Moulds and casts. In: a piece as it is laid over. Out: what a mould of it takes, what comes out of it, how much larger
 * the master is made for that, and how many casts keep their detail.
 */
export * from './kind';
export * from './cast';
export * from './mould';
export * from './offset-volumes';
export * from './shrinkage';
export * from './wear';
export * from './chosen';
export * from './fit';
export * from './flange';
export * from './inserts';
export * from './laid-over';
export * from './box';
export * from './open-side';
export * from './packs';
export * from './plaster';
export * from './casts-wanted';
export * from './cast-by-place';
export * from './cast-in-use';
export * from './pulls';
