import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Build, BuildEdit } from '../../core/build';
import { secondsOf, type Failure, type UnitSystem } from '../../core/quantity';
import type { Report, StationId, Summary } from '../../core/verdict';
import { EvaluateClient } from '../../workers/client';
import type { Answer, FaceCover, Picture } from '../../workers/protocol';
import { call } from '../parts/http';
import { emptyHistory, perform, readHistory, stepBack, stepForward, type History } from './history';

/** The bench's state and every action on it, outside React: editing, undo, saving, and the reckoning in the worker. */
export type SaveState = 'saved' | 'waiting' | 'saving' | 'unreachable' | 'refused';

export interface BenchState {
  readonly build: Build;
  readonly history: History;
  readonly save: SaveState;
  readonly savedAt: string | null;
  readonly saveMessage: string;
  /** Set when a save came too late: where this version was put. */
  readonly sibling: { readonly id: string; readonly name: string } | null;
  readonly report: Report | null;
  /** Size of life the report was worked out at. */
  readonly reportedSize: number;
  readonly reckoning: 'nominal' | 'ranges' | 'remedies' | 'done';
  readonly failure: Failure | null;
  /** The figures before the last change, for a few seconds. */
  readonly before: Summary | null;
  readonly picture: Picture | null;
  readonly cover: FaceCover | null;
  readonly units: UnitSystem;
  readonly station: StationId;
  readonly moment: string;
  /** Seconds after the clay went on, on Drying. */
  readonly dryTime: number;
  readonly announcement: string;
  /** What is picked on the form. */
  readonly selected: Selected | null;
  readonly view: ViewFrom;
  /** The armature's joint that is picked, on Armature. */
  readonly pickedJoint: string | null;
}

export type ViewFrom = 'turn' | 'front' | 'side' | 'top';

export interface Selected {
  readonly kind: 'mass' | 'joint';
  readonly id: string;
}

export interface OpenedBuild {
  readonly id: string;
  readonly revision: number;
  readonly build: Build;
  readonly history: unknown;
}

const autosaveAfter = 1000;
const beforeShownFor = 6000;

export class BenchController {
  readonly store: StoreApi<BenchState>;
  readonly id: string;
  private revision: number;
  private readonly client: EvaluateClient;
  private saveTimer: ReturnType<typeof setTimeout> | undefined;
  private beforeTimer: ReturnType<typeof setTimeout> | undefined;
  private saving = false;
  private lastLabel = 'Changed';

  constructor(opened: OpenedBuild, units: UnitSystem) {
    this.id = opened.id;
    this.revision = opened.revision;
    this.store = createStore<BenchState>(() => ({
      build: opened.build, history: readHistory(opened.history), save: 'saved', savedAt: null, saveMessage: '', sibling: null,
      report: null, reportedSize: opened.build.form.start.size, reckoning: 'nominal', failure: null, before: null, picture: null, cover: null, units, station: 'brief', moment: '',
      // Drying opens on today, for a piece that is under way.
      dryTime: Math.max(0, Date.now() / 1000 - secondsOf(opened.build.brief.startDate)), announcement: '', selected: null, view: 'turn', pickedJoint: null,
    }));
    this.client = new EvaluateClient((answer) => this.receive(answer));
  }

  get state(): BenchState {
    return this.store.getState();
  }

  start(): () => void {
    this.reckon();
    const leaving = () => {
      if (document.visibilityState === 'hidden') void this.saveNow(true);
    };
    const warn = (event: BeforeUnloadEvent) => {
      if (this.state.save !== 'saved') {
        void this.saveNow(true);
        event.preventDefault();
      }
    };
    document.addEventListener('visibilitychange', leaving);
    window.addEventListener('beforeunload', warn);
    return () => {
      document.removeEventListener('visibilitychange', leaving);
      window.removeEventListener('beforeunload', warn);
      clearTimeout(this.saveTimer);
      clearTimeout(this.beforeTimer);
      if (this.state.save === 'waiting') void this.saveNow(true);
      this.client.stop();
    };
  }

  /** Applies an edit; the failure, if any, is for the field that asked. */
  edit(edit: BuildEdit): Failure | null {
    const { build, history } = this.state;
    const done = perform(build, history, edit);
    if (!done.ok) return done;
    if (done.value.build !== build) this.take(done.value.build, done.value.history, edit.label);
    return null;
  }

  undo(): void {
    const back = stepBack(this.state.build, this.state.history);
    if (back) this.take(back.build, back.history, `Undone: ${back.label}`);
  }

  redo(): void {
    const forward = stepForward(this.state.build, this.state.history);
    if (forward) this.take(forward.build, forward.history, `Done again: ${forward.label}`);
  }

  private take(build: Build, history: History, label: string): void {
    this.lastLabel = label;
    const before = this.state.report?.summary ?? null;
    this.store.setState({ build, history, save: 'waiting', announcement: label, before: before ?? this.state.before });
    clearTimeout(this.beforeTimer);
    this.beforeTimer = setTimeout(() => this.store.setState({ before: null }), beforeShownFor);
    clearTimeout(this.saveTimer);
    this.saveTimer = setTimeout(() => void this.saveNow(), autosaveAfter);
    this.reckon();
  }

  private reckon(): void {
    this.store.setState({ reckoning: 'nominal' });
    this.client.request(this.state.build, this.state.units, this.state.picture?.key ?? '');
  }

  private receive(answer: Answer): void {
    if (answer.kind === 'failed') this.store.setState({ failure: answer.why, reckoning: 'done' });
    else if (answer.kind === 'nominal') {
      const moment = answer.report.moments.some((m) => m.moment === this.state.moment) ? this.state.moment : 'clay-1';
      this.store.setState({ report: answer.report, reportedSize: this.state.build.form.start.size, reckoning: 'ranges', failure: null, moment, ...(answer.picture ? { picture: answer.picture } : {}) });
    } else if (answer.kind === 'ranges') this.store.setState({ report: answer.report, reckoning: 'remedies', cover: answer.cover });
    else if (answer.kind === 'complete') this.store.setState({ report: answer.report, reckoning: 'done' });
  }

  setUnits(units: UnitSystem): void {
    this.store.setState({ units });
    this.reckon();
  }

  go(station: StationId): void {
    this.store.setState({ station });
  }

  lookFrom(view: ViewFrom): void {
    this.store.setState({ view });
  }

  select(selected: Selected | null): void {
    this.store.setState({ selected });
  }

  pickJoint(pickedJoint: string | null): void {
    this.store.setState({ pickedJoint });
  }

  setMoment(moment: string): void {
    this.store.setState({ moment });
  }

  setDryTime(dryTime: number): void {
    this.store.setState({ dryTime });
  }

  announce(announcement: string): void {
    this.store.setState({ announcement });
  }

  async saveNow(keepalive = false): Promise<void> {
    clearTimeout(this.saveTimer);
    if (this.state.save === 'saved') return;
    if (this.saving) {
      this.saveTimer = setTimeout(() => void this.saveNow(), 300);
      return;
    }
    this.saving = true;
    const { build, history } = this.state;
    this.store.setState({ save: 'saving' });
    type Outcome = { saved: true; revision: number } | { saved: false; siblingId: string; siblingName: string };
    const answer = await call<Outcome>('PUT', `/api/builds/${this.id}`, { revision: this.revision, document: build, history, label: this.lastLabel }, keepalive);
    this.saving = false;
    if (!answer.ok) {
      this.store.setState({ save: answer.offline ? 'unreachable' : 'refused', saveMessage: answer.message });
      // Keep trying: the change is still here.
      this.saveTimer = setTimeout(() => void this.saveNow(), answer.offline ? 3000 : 15000);
      return;
    }
    if (!answer.value.saved) {
      await this.stepAside(answer.value.siblingId, answer.value.siblingName);
      return;
    }
    this.revision = answer.value.revision;
    const still = this.state.build === build;
    this.store.setState({ save: still ? 'saved' : 'waiting', savedAt: new Date().toISOString(), saveMessage: '' });
    if (!still) this.saveTimer = setTimeout(() => void this.saveNow(), autosaveAfter);
  }

  /** Another tab saved first: this version now stands beside it, and the bench shows the saved one. */
  private async stepAside(id: string, name: string): Promise<void> {
    const fresh = await call<OpenedBuild>('GET', `/api/builds/${this.id}`);
    if (!fresh.ok) {
      this.store.setState({ save: 'refused', saveMessage: fresh.message, sibling: { id, name } });
      return;
    }
    this.revision = fresh.value.revision;
    this.store.setState({
      build: fresh.value.build, history: readHistory(fresh.value.history) ?? emptyHistory, save: 'saved', sibling: { id, name },
      announcement: `Changed elsewhere meanwhile. Your version is kept as ${name}.`,
    });
    this.reckon();
  }

  dismissSibling(): void {
    this.store.setState({ sibling: null });
  }
}
