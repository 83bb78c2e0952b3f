import { createStore, type StoreApi } from 'zustand/vanilla';
import { dryingKey, type Build, type BuildEdit } from '../../core/build';
import { newConflicts, type Conflict } from '../../core/clay';
import type { WholeDrying } from '../../core/drying';
import { secondsOf, type Failure, type UnitSystem, type Vec3 } from '../../core/quantity';
import type { Report, StationId, Status, Summary } from '../../core/verdict';
import { EvaluateClient } from '../../workers/client';
import { DryingClient } from '../../workers/drying-client';
import type { DryingAnswer } from '../../workers/drying-protocol';
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
  /** The whole piece dried in three dimensions, as far as it is. */
  readonly whole: WholeState;
  /** The cut through it that is shown, 0..1 along its axis; null for none. */
  readonly section: { readonly axis: 0 | 1 | 2; readonly share: number } | null;
  /** What the face shows on Drying. */
  readonly dryFace: DryFace;
  /** Places whose drying is drawn as curves; full-size metres. */
  readonly probes: readonly Vec3[];
  /** What a touch on the piece is for, where it is not for shaping. */
  readonly picking: 'probe' | 'paint' | 'damage' | null;
  /** Where a crack that is being logged lies; full-size metres. */
  readonly damageAt: Vec3 | null;
  readonly brush: { readonly radius: number; readonly by: number };
  /** Conflicts that came with the last change of clay or layers. */
  readonly newConflicts: readonly Conflict[];
  /** What the plan was judged to be when it was last looked at. */
  readonly planStatus: Status;
  /** The armature's joint that is picked, on Armature. */
  readonly pickedJoint: string | null;
}

export type DryFace = 'moisture' | 'crack' | 'hold';

export interface WholeState {
  readonly status: 'none' | 'working' | 'paused' | 'ready' | 'refused';
  readonly done: number;
  /** Seconds left; NaN when it cannot be told. */
  readonly left: number;
  readonly whole: WholeDrying | null;
  /** Of what it was worked out from. */
  readonly key: string;
  readonly seconds: number;
  readonly message: string;
}
const noWhole: WholeState = { status: 'none', done: 0, left: NaN, whole: null, key: '', seconds: 0, message: '' };

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
  private reckoned: Build | null = null;
  private readonly drying: DryingClient;

  constructor(opened: OpenedBuild, units: UnitSystem) {
    this.id = opened.id;
    this.revision = opened.revision;
    this.store = createStore<BenchState>(() => ({
      build: opened.build,
      history: readHistory(opened.history),
      save: 'saved',
      savedAt: null,
      saveMessage: '',
      sibling: null,
      report: null,
      reportedSize: opened.build.form.start.size,
      reckoning: 'nominal',
      failure: null,
      before: null,
      picture: null,
      cover: null,
      units,
      station: 'brief',
      moment: '',
      // Drying opens on today, for a piece that is under way.
      dryTime: Math.max(
        0,
        Date.now() / 1000 - secondsOf(opened.build.brief.startDate) - opened.build.stages.startHour * 3600,
      ),
      announcement: '',
      selected: null,
      view: 'turn',
      pickedJoint: null,
      whole: noWhole,
      section: null,
      dryFace: 'moisture',
      probes: [],
      picking: null,
      damageAt: null,
      brush: { radius: 0.04, by: 0.003 },
      newConflicts: [],
      planStatus: 'unknown',
    }));
    this.client = new EvaluateClient((answer) => this.receive(answer));
    this.drying = new DryingClient((answer) => this.receiveWhole(answer));
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
      this.drying.stop();
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
      const known = this.state.report;
      const came =
        known && this.reckoned && this.reckoned !== this.state.build
          ? newConflicts(known.conflicts, answer.report.conflicts)
          : null;
      this.reckoned = this.state.build;
      if (came) this.store.setState({ newConflicts: came });
      const moment = answer.report.moments.some((m) => m.moment === this.state.moment) ? this.state.moment : 'clay-1';
      this.store.setState({
        report: answer.report,
        reportedSize: this.state.build.form.start.size,
        reckoning: 'ranges',
        failure: null,
        moment,
        ...(answer.picture ? { picture: answer.picture } : {}),
      });
    } else if (answer.kind === 'ranges')
      this.store.setState({ report: answer.report, reckoning: 'remedies', cover: answer.cover });
    else if (answer.kind === 'complete') this.store.setState({ report: answer.report, reckoning: 'done' });
  }

  /** Dries the whole piece in the background; what was there stays until the new one has come. */
  dryWhole(): void {
    this.store.setState({ whole: { ...this.state.whole, status: 'working', done: 0, left: NaN, message: '' } });
    this.drying.ask({ kind: 'whole', build: this.state.build });
  }

  pauseWhole(): void {
    this.drying.pause();
    this.store.setState({ whole: { ...this.state.whole, status: 'paused' } });
  }

  goOnWhole(): void {
    this.drying.goOn();
    this.store.setState({ whole: { ...this.state.whole, status: 'working' } });
  }

  stopWhole(): void {
    this.drying.stop();
    const { whole } = this.state.whole;
    this.store.setState({ whole: { ...this.state.whole, status: whole ? 'ready' : 'none' } });
  }

  /** One that was kept with this build as it stands is taken from there. */
  async takeKeptWhole(): Promise<void> {
    if (this.state.whole.status !== 'none') return;
    const key = dryingKey(this.state.build);
    try {
      const answer = await fetch(`/api/builds/${this.id}/drying?key=${key}`);
      if (answer.status !== 200 || this.state.whole.status !== 'none') return;
      const bytes = new Uint8Array(await answer.arrayBuffer());
      this.drying.ask({ kind: 'kept', bytes });
    } catch {
      // Without the server it is worked out again when asked for.
    }
  }

  private receiveWhole(answer: DryingAnswer): void {
    const { whole } = this.state;
    if (answer.kind === 'progress')
      this.store.setState({
        whole: {
          ...whole,
          status: whole.status === 'paused' ? 'paused' : 'working',
          done: answer.done,
          left: answer.left,
        },
      });
    else if (answer.kind === 'refused')
      this.store.setState({ whole: { ...whole, status: 'refused', message: answer.why.message } });
    else if (answer.kind === 'whole') {
      this.store.setState({
        whole: {
          status: 'ready',
          done: 1,
          left: 0,
          whole: answer.whole,
          key: answer.key,
          seconds: answer.seconds,
          message: '',
        },
        section: this.state.section ?? { axis: 1, share: 0.5 },
        announcement: 'The whole piece has been dried.',
      });
      if (answer.packed)
        void fetch(`/api/builds/${this.id}/drying?key=${answer.key}&revision=${this.revision}`, {
          method: 'PUT',
          body: answer.packed,
        }).catch(() => undefined);
    }
  }

  showSection(section: BenchState['section']): void {
    this.store.setState({ section });
  }

  showDryFace(dryFace: DryFace): void {
    this.store.setState({ dryFace });
  }

  pickFor(picking: BenchState['picking']): void {
    this.store.setState({ picking });
  }

  setBrush(brush: BenchState['brush']): void {
    this.store.setState({ brush });
  }

  setDamageAt(damageAt: Vec3 | null): void {
    this.store.setState({ damageAt });
  }

  setProbes(probes: readonly Vec3[]): void {
    this.store.setState({ probes: probes.slice(0, 4) });
  }

  /** A place on the face was touched, full-size metres. */
  touchPiece(at: Vec3): void {
    const { picking, probes, brush, build } = this.state;
    if (picking === 'probe') this.setProbes([...probes.slice(-3), at]);
    if (picking === 'damage') this.setDamageAt(at);
    if (picking !== 'paint') return;
    const size = build.form.start.size;
    const stroke = {
      at: at.map((v) => Math.round((v / size) * 1e4) / 1e4) as unknown as Vec3,
      radius: brush.radius / size,
      by: brush.by / size,
    };
    const refused = this.edit({
      label: brush.by > 0 ? 'Clay painted thicker' : 'Clay painted thinner',
      changes: [{ path: ['regions', 'painted'], value: [...build.regions.painted, stroke] }],
    });
    if (refused) this.announce(`Not done: ${refused.message}`);
  }

  dismissConflicts(): void {
    this.store.setState({ newConflicts: [] });
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

  setPlanStatus(planStatus: Status): void {
    this.store.setState({ planStatus });
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
    const answer = await call<Outcome>(
      'PUT',
      `/api/builds/${this.id}`,
      { revision: this.revision, document: build, history, label: this.lastLabel },
      keepalive,
    );
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
      build: fresh.value.build,
      history: readHistory(fresh.value.history) ?? emptyHistory,
      save: 'saved',
      sibling: { id, name },
      announcement: `Changed elsewhere meanwhile. Your version is kept as ${name}.`,
    });
    this.reckon();
  }

  dismissSibling(): void {
    this.store.setState({ sibling: null });
  }
}
