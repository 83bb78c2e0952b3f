export * from './ledger';
export * from './hang';
export * from './moments';
export * from './check';
export * from './standing';
