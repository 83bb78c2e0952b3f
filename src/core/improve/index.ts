/**
 * Searches over edits. In: a question and its answer. Out: what each remedy does, the smallest set that makes it hold,
 * what makes it ready sooner, the same form under other schools. All of them judge copies by the one entry, with what the
 * log told frozen.
 */
export { evaluateWithRemedies, withRemedies, madeWorse } from './remedies';
export { strengthen, withChoices, type Strengthening, type StrengthenResult } from './strengthen';
export { waysToBeSooner, type Sooner } from './sooner';
export { waysToHold, type WayToHold } from './ways-to-hold';
export { compareSchool, schoolsFor, underSchool, type SchoolRow } from './compare-schools';
export { compareMoulds, detailDepth, type MouldRow } from './compare-moulds';
export * from './thinnest';
