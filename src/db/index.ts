export * from './open';
export * from './builds';
export * from './log';
export * from './dryings';
export * from './stock';
export * from './backup';
