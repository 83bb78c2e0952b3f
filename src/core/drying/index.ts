export * from './air';
export * from './through-thickness';
export * from './cracking';
