/**
 * What can be had. Each list is one file of rows: clays with their coefficients, stock, fillings, layers, joins, processes;
 * and the rules of what goes with what. Read by id; a build's own copies are laid over it.
 */
export * from './schema';
export * from './stock';
export * from './stock-words';
export * from './sold';
export * from './prices';
export * from './bulks';
export * from './clays';
export * from './hard';
export * from './joins';
export * from './recipes';
export * from './compatibility';
export * from './covers';
export * from './layers';
export * from './traits';
export * from './processes';
