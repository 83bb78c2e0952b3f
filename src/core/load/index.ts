export * from './ledger';
export * from './hang';
export * from './moments';
export * from './check';
export * from './standing';
export * from './hanging';
export * from './worn';
export * from './handling';
