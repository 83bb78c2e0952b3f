export * from './water';
export * from './stack';
export * from './quantities';
export * from './staying-put';
