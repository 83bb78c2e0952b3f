export * from './builds';
export * from './log';
export * from './settings';
export * from './demo';
export * from './store';
export * from './sheet';
