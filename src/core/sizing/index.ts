/**
 * What an armature is cut from, chosen until it carries. In: a build whose sizes are left open. Out: its sizes, to be laid
 * under whatever the maker has set.
 */
export { sizeToCarry } from './size-to-carry';
export { begunToCarry } from './begin';
