export * from './beam';
export * from './skyline';
export * from './frame';
export * from './section';
export * from './types';
export * from './cut-list';
