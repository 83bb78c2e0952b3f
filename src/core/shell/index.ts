/**
 * Thin shells: what a worn piece, a cast or a wall without an armature bears by itself. In: triangles, thickness,
 * material, what holds and what pulls. Out: how it moves, and the stress on both its faces.
 */
export * from './shell-element';
export * from './shell-solve';
export * from './handled';
