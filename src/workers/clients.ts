import { WorkerClient } from './client';
import { compareWorker, dryingWorker, meshWorker, mouldWorker, sessionWorker } from './makers';
import type {
  CompareAnswer,
  CompareRequest,
  DryingAnswer,
  DryingRequest,
  MeshAnswer,
  MeshRequest,
  MouldAnswer,
  MouldRequest,
  SessionAnswer,
  SessionRequest,
} from './protocol';

/** The clients there are: the session's own, and one each for long work on drying, beside the bench, on meshes and on moulds. */
export type SessionClient = WorkerClient<SessionRequest, SessionAnswer>;
export type DryingClient = WorkerClient<DryingRequest, DryingAnswer>;
export type CompareClient = WorkerClient<CompareRequest, CompareAnswer>;
export type MouldClient = WorkerClient<MouldRequest, MouldAnswer>;
export type MeshClient = WorkerClient<MeshRequest, MeshAnswer>;

export const sessionClient = (onAnswer: (a: SessionAnswer) => void): SessionClient =>
  new WorkerClient<SessionRequest, SessionAnswer>(sessionWorker, onAnswer, {
    what: 'the reckoning',
    patience: 30,
    retries: 2,
  });
export const dryingClient = (onAnswer: (a: DryingAnswer) => void): DryingClient =>
  new WorkerClient<DryingRequest, DryingAnswer>(dryingWorker, onAnswer, { what: 'the drying', replaces: true });
export const compareClient = (onAnswer: (a: CompareAnswer) => void): CompareClient =>
  new WorkerClient<CompareRequest, CompareAnswer>(compareWorker, onAnswer, { what: 'the build', replaces: true });
export const meshClient = (onAnswer: (a: MeshAnswer) => void): MeshClient =>
  new WorkerClient<MeshRequest, MeshAnswer>(meshWorker, onAnswer, { what: 'the mesh' });
export const mouldClient = (onAnswer: (a: MouldAnswer) => void): MouldClient =>
  new WorkerClient<MouldRequest, MouldAnswer>(mouldWorker, onAnswer, { what: 'the mould', replaces: true });
