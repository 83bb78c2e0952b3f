export * from './mass';
export * from './distance';
export * from './voxels';
export * from './volume';
export * from './surface';
export * from './bust';
export * from './resolve';
export * from './silhouette';
