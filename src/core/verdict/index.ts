export * from './report';
export * from './evaluate';
export * from './cautions';
export { resizeEdit } from './remedies';
export { clayMassAt } from './load-report';
export { dryShareInRoom } from './drying-report';
export type { Piece } from './piece';
export * from './card';
export * from './sheet';
