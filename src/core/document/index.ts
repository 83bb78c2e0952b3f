/**
 * A build as it is written down: the schema of each part, its versions and how an old one becomes a new one, edits and
 * their undoing, keys by what is read. In: JSON and edits. Out: a build that is whole, or the path and reason why not.
 */
export * from './mass-limbs';
export * from './mass';
export * from './brief';
export * from './room';
export * from './form-part';
export * from './armature-part';
export * from './regions';
export * from './stages';
export * from './finish';
export * from './mould-part';
export * from './plan-part';
export * from './materials';
export * from './migrations';
export * from './document';
export * from './edit';
export * from './merge';
export * from './hash';
export * from './look-up';
export * from './new-build';
export * from './references';
