/**
 * What is laid on. In: the build's coats, layers and clays. Out: how much, on what, whether it stays put fresh, what will not
 * go with what, how much to buy.
 */
export * from './water';
export * from './stack';
export * from './quantities';
export * from './laying-order';
export * from './softening';
export * from './staying-put';
export * from './compatibility-check';
export * from './painted';
