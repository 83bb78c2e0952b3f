/**
 * Judgements. In: the piece worked out, its plan and its dates. Out: findings, each with its figure, limit, reason and
 * what might be done about it. A rule of the craft is one file (`crack.ts`, `tip.ts`, ...) and its line in `rules.ts`;
 * what a remedy really does is found by doing it (`improve/`).
 */
export * from './finding';
export * from './dates';
export * from './findings';
export * from './cautions';
export * from './words';
export { allThinner, memberChanges, parameter, resizeEdit } from './edits';
export { crackStatus, crackWords } from './crack-words';
export { seamStrength } from './seam';
export { leverWords } from './worn';
export { isRolled } from './carried';
