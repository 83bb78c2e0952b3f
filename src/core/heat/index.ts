export * from './warming';
export * from './baking';
