import type { MakeWorker } from './client';

/** Where a browser's bundle finds each worker. */
const module = { type: 'module' } as const;

export const sessionWorker: MakeWorker = () => new Worker(new URL('./session.worker.ts', import.meta.url), module);
export const dryingWorker: MakeWorker = () => new Worker(new URL('./drying.worker.ts', import.meta.url), module);
export const compareWorker: MakeWorker = () => new Worker(new URL('./compare.worker.ts', import.meta.url), module);
export const meshWorker: MakeWorker = () => new Worker(new URL('./mesh.worker.ts', import.meta.url), module);
export const mouldWorker: MakeWorker = () => new Worker(new URL('./mould.worker.ts', import.meta.url), module);
