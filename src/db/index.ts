export * from './open';
export * from './builds';
export * from './log';
export * from './dryings';
