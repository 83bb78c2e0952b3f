export * from './water';
export * from './stack';
export * from './quantities';
export * from './staying-put';
export * from './compatibility-check';
export * from './painted';
