export * from './open';
export * from './builds';
export * from './log';
