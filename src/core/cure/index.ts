export * from './epoxy';
export * from './sitting';
