export * from './epoxy';
