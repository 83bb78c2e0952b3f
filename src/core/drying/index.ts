/**
 * How water leaves. In: a clay, its thickness or its cells, the room hour by hour. Out: moisture over time, when it may be
 * touched, held and painted, crack indices; what weighings say of it all.
 */
export * from './room-hours';
export * from './air';
export * from './core-water';
export * from './through-thickness';
export * from './cracking';
export * from './clay-cells';
export * from './face-table';
export * from './clay-dryer';
export * from './neighbourhood';
export * from './whole-piece';
export * from './whole-result';
export * from './fitting';
export * from './hygrometer';
export * from './whole-file';
export * from './repair';
