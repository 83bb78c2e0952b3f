/**
 * The shape. In: a start form and what was done to it, or a mesh. Out: masses on a skeleton, signed distances, cells with
 * volumes and faces, outlines and surfaces to draw.
 */
export * from './mass';
export * from './distance';
export * from './voxels';
export * from './volume';
export * from './surface';
export * from './surface-net';
export * from './start';
export * from './skeleton';
export * from './measure';
export { twinId } from './mirror';
export * from './turn';
export * from './resolve';
export type { HeadSetting } from './head-setting';
export * from './shaded-picture';
export * from './shaping';
export * from './mesh';
export * from './limbs/change-limbs';
export { hasLimbs, limbJointId } from './limbs/mesh-parts';
export { headLimb } from './limbs/mesh-head';
export { limbPlaces } from './limbs/limb-places';
export * from './outline';
export * from './thickness';
export { stickingOut, type CutAcross, type StickingOut } from './sticking-out';
