export * from './schema';
export * from './stock';
export * from './bulks';
export * from './clays';
export * from './joins';
export * from './recipes';
export * from './compatibility';
