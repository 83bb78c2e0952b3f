/**
 * The bench log. In: entries as they were written. Out: what stands of them, what was done and weighed when, the room it
 * dried in, and the words of each. A kind of entry is one file (`weigh-in.ts`, `damage.ts`, ...) and its line in
 * `kinds.ts`; forms, server, timeline, archives and the reckoning read it from there.
 */
export * from './kind';
export * from './kinds';
export * from './log';
export * from './room-as-it-was';
export type { NoteForNext } from './note';
export { stepData } from './step-done';
export { partData } from './step-part';
export { finestOf, usualFinest } from './weigh-in';
export { sharpnesses } from './pull';
