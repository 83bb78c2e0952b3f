/**
 * The piece worked out. In: a build, what its log knows of it, and what the last drying of the whole found. Out: form,
 * armature, clay and load looked up and measured (`Piece`), and everything that is judged of it (`PieceReport`).
 */
export * from './piece';
export { clampFactor } from './clamp-factor';
export * from './status';
export * from './report';
export * from './work-out';
export * from './result-cache';
export * from './full-findings';
export * from './full-drying';
export * from './fit-to-log';
export * from './quick-against-full';
export { coatState, dryShareInRoom, layingOf, regionName, regionShapes, factorPushes } from './quick-drying';
export { layClay, layingMasses, nominalPush, stateTime, type LaidCoat, type Laid } from './laying';
export { letGo, letGoWaitsFor, letGoWords } from './let-go';
export { lifeStagesOf } from './load-checks';
export { checkLoad, loadReport, type LoadReport } from './load-report';
export { wholeToCarry } from './carrying';
export type { LimbRoom } from './limb-room';
export type { Unsupported } from './unsupported';
export { cutsToFree } from './off-the-armature';
export { outsideEnvelopes } from './proportion';
export { stackOf, processesOf } from './clay-report';
export type { Hours } from './hours';
export { boardOf, castFrom, keptFreeOf, masterOf, ofBareMasses } from './mould-master';
export { mouldPerArea, turnedMass, underMould, underMouldName } from './under-mould';
export { giveUnderTool } from './give';
export { surfaceOf, surfaceWith, wantsFiner } from './piece-surface';
export { knockLimits, knockOf, usualKnock, type Knock, type KnockedPart } from './knock';
export { girthsOf, narrowestRound, type GirthOfForm, type Narrowest } from './girths';
