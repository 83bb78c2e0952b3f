/**
 * How a mould comes apart: what can be drawn along which direction, pieces and the lines between them, what holds the
 * piece fast, where air stays while it is filled. In: a closed face and what is asked. Out: pieces, lines, locks, vents.
 */
export * from './face';
export * from './parting';
export * from './master';
export * from './shim';
export * from './shells';
export { airTraps, pouredWith, type Pour, type Trap } from './pour';
export type { Cavity } from './cavities';
export type { Lock } from './locks';
export type { PartingLine } from './parting-line';
export { undrawnAllowed, mostPieces, type Working } from './search';
export { castInHand, type CastInHand } from './cast-in-hand';
export { readyToPart } from './rough-face';
export type { Stretch } from './stretch';
