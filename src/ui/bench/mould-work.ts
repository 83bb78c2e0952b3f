import { createStore, type StoreApi } from 'zustand/vanilla';
import type { MouldRow } from '../../core/improve';
import { mouldChosen } from '../../core/mould';
import type { CastInHand, Shells } from '../../core/parting';
import { mouldClient, type MouldClient } from '../../workers/clients';
import type { Asked, MouldAnswer, PartedPicture } from '../../workers/protocol';

/** What the Mould station has under way and shows: the parting, every kind side by side, how far it is opened. */
export interface MouldState {
  readonly status: 'none' | 'working' | 'ready' | 'stopped' | 'refused';
  readonly done: number;
  readonly parted: PartedPicture | null;
  /** What it is the parting of. */
  readonly of: string;
  readonly message: string;
  /** 0 closed, 1 all parts well away. */
  readonly open: number;
  readonly rows: readonly MouldRow[] | null;
  readonly rowsOf: string;
  readonly rowsMessage: string;
  /** The hard parts as bodies; how far they are, null while none are asked for. */
  readonly shells: Shells | null;
  readonly shellsDone: number | null;
  readonly shellsMessage: string;
  /** The cast taken in hand; how far that is, null while it is not asked for. */
  readonly inHand: CastInHand | null;
  readonly inHandDone: number | null;
  readonly inHandMessage: string;
}

const nothing: MouldState = {
  status: 'none',
  done: 0,
  parted: null,
  of: '',
  message: '',
  open: 0,
  rows: null,
  rowsOf: '',
  rowsMessage: '',
  shells: null,
  shellsDone: null,
  shellsMessage: '',
  inHand: null,
  inHandDone: null,
  inHandMessage: '',
};

/** What a parting depends on, in words: the face, and what was said of the mould. */
export function partingKey(build: Asked['build'], formKey: string): string {
  const { parts, keepFree } = build.mould;
  const { kind, cast } = mouldChosen(build) ?? {};
  return JSON.stringify([formKey, kind, cast, build.brief.clay, parts, keepFree, build.armature.mount.kind]);
}

export class MouldWork {
  readonly store: StoreApi<MouldState> = createStore(() => nothing);
  private readonly parting: MouldClient;
  private readonly kinds: MouldClient;
  private readonly bodies: MouldClient;
  private readonly hands: MouldClient;

  constructor() {
    this.parting = mouldClient((answer) => this.receive(answer));
    this.kinds = mouldClient((answer) => this.receiveKinds(answer));
    this.bodies = mouldClient((answer) => this.receiveShells(answer));
    this.hands = mouldClient((answer) => this.receiveInHand(answer));
  }

  /** So that the worker has read its scripts when the piece is there. */
  begin(): void {
    this.parting.begin();
  }

  part(asked: Asked, key: string): void {
    this.dropShells();
    this.store.setState({ status: 'working', done: 0, of: key, message: '' });
    this.parting.ask({ kind: 'part', asked });
  }

  compare(asked: Asked, key: string): void {
    this.store.setState({ rowsOf: key, rowsMessage: '' });
    this.kinds.ask({ kind: 'kinds', asked });
  }

  /** The hard parts of what is parted now. */
  shape(asked: Asked): void {
    const { parted } = this.store.getState();
    if (!parted) return;
    this.store.setState({ shells: null, shellsDone: 0, shellsMessage: '' });
    this.bodies.ask({ kind: 'shells', asked, parting: parted.parting });
  }

  dropShells(): void {
    this.bodies.stop();
    this.store.setState({ shells: null, shellsDone: null, shellsMessage: '' });
  }

  takeInHand(asked: Asked): void {
    this.store.setState({ inHand: null, inHandDone: 0, inHandMessage: '' });
    this.hands.ask({ kind: 'in-hand', asked });
  }

  dropInHand(): void {
    this.hands.stop();
    this.store.setState({ inHand: null, inHandDone: null, inHandMessage: '' });
  }

  stop(): void {
    this.parting.stop();
    this.store.setState({ status: 'stopped' });
  }

  /** The page is left: nothing goes on. */
  leave(): void {
    this.parting.stop();
    this.kinds.stop();
    this.dropShells();
    this.dropInHand();
    const { status, parted } = this.store.getState();
    if (status === 'working') this.store.setState({ status: parted ? 'ready' : 'none', of: '' });
  }

  setOpen(open: number): void {
    this.store.setState({ open });
  }

  private receive(answer: MouldAnswer): void {
    if (answer.kind === 'progress') this.store.setState({ done: answer.done });
    else if (answer.kind === 'parted') this.store.setState({ status: 'ready', parted: answer.parted, done: 1 });
    else if (answer.kind === 'refused')
      this.store.setState({ status: 'refused', parted: null, message: answer.why.message });
  }

  private receiveShells(answer: MouldAnswer): void {
    if (answer.kind === 'progress') this.store.setState({ shellsDone: answer.done });
    else if (answer.kind === 'shells') this.store.setState({ shells: answer.shells, shellsDone: null });
    else if (answer.kind === 'refused') this.store.setState({ shellsDone: null, shellsMessage: answer.why.message });
  }

  private receiveInHand(answer: MouldAnswer): void {
    if (answer.kind === 'progress') this.store.setState({ inHandDone: answer.done });
    else if (answer.kind === 'in-hand') this.store.setState({ inHand: answer.inHand, inHandDone: null });
    else if (answer.kind === 'refused') this.store.setState({ inHandDone: null, inHandMessage: answer.why.message });
  }

  private receiveKinds(answer: MouldAnswer): void {
    if (answer.kind === 'kinds') this.store.setState({ rows: answer.rows });
    else if (answer.kind === 'refused') this.store.setState({ rows: null, rowsMessage: answer.why.message });
  }
}
