export * from './air';
export * from './through-thickness';
export * from './cracking';
export * from './clay-cells';
export * from './face-table';
export * from './clay-dryer';
