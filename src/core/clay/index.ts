export * from './water';
export * from './stack';
export * from './quantities';
export * from './staying-put';
export * from './getting-on';
export * from './painted';
