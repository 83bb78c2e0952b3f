export * from './result';
export * from './range';
export * from './gauge';
export * from './parse';
export * from './format';
export * from './date';
export * from './vector';
