export * from './triangle-mesh';
export * from './read-mesh';
export * from './write-mesh';
export * from './topology';
export * from './measure-mesh';
export * from './repair';
export * from './sampled';
export * from './place';
