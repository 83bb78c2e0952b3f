/** What is printed and taken out: the sheet, what a build takes from the shelf, meshes. */
export * from './sheet';
export * from './needs';
export * from './export-mesh';
export * from './piece-picture';
export * from './mould-out';
