/**
 * What it has to bear. In: clay and armature as weights at places. Out: the stages of its life, what each member resists with
 * and how far it is used, tipping, hanging, wearing, carrying.
 */
export * from './ledger';
export * from './lumping';
export * from './life-stages';
export * from './buckling-check';
export { sagLimit, sagWatched, type BoneCheck, type StageCheck } from './bone-check';
export * from './check';
export * from './standing';
export * from './wind';
export * from './hanging';
export * from './worn';
export * from './handling';
export * from './head-band';
