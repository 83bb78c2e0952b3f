export * from './beam';
export * from './sparse';
export * from './frame';
export * from './section';
export * from './types';
export * from './cut-list';
export * from './cover';
export * from './tube';
