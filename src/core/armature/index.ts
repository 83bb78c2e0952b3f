/**
 * What is inside. In: joints, bones and members cut from stock. Out: the space frame and what it solves to, cross-sections,
 * buckling, cover under the face, cut lists and templates.
 */
export * from './beam';
export * from './sparse';
export * from './frame';
export * from './cross-section';
export * from './types';
export * from './cut-list';
export * from './cover';
export * from './tube';
export * from './geometric-stiffness';
export * from './cut-members';
export * from './second-order';
export * from './buckling';
export * from './nest';
export * from './template';
export * from './sections';
export * from './bone-runs';
export * from './straight-stretches';
