import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Build, BuildEdit } from '../../core/document';
import { newConflicts, type Conflict } from '../../core/clay';
import type { WholeDrying } from '../../core/drying';
import { secondsOf, type Failure, type UnitSystem, type Vec3 } from '../../core/quantity';
import type { Report } from '../../core/evaluate';
import type { StationId } from '../../core/finding';
import type { Sooner, WayToHold } from '../../core/improve';
import type { LogEntry } from '../../core/log';
import type { FullFindings } from '../../core/piece';
import type { PlanSurroundings, Step } from '../../core/plan';
import { keepTheseSizes } from '../../core/school';
import { dryingClient, sessionClient, type DryingClient, type SessionClient } from '../../workers/clients';
import type { Asked, DryingAnswer, FaceCover, Picture, SessionAnswer } from '../../workers/protocol';
import { MouldWork } from './mould-work';
import { perform, readHistory, stepBack, stepForward, type History } from './history';
import { partsCheck } from './parts-check';
import type { LatestOfLog } from '../session/use-log';
import { Saving, type SavedBuild, type SaveLine } from './saving';

/** The bench's state and every action on it, outside React: editing, undo, saving, and the reckoning in the worker. */
export interface BenchState extends SaveLine {
  readonly build: Build;
  readonly history: History;
  readonly report: Report | null;
  /** Size of life the report was worked out at. */
  readonly reportedSize: number;
  readonly reckoning: 'nominal' | 'ranges' | 'remedies' | 'done';
  readonly failure: Failure | null;
  /** The figures before the last change, for a few seconds. */
  readonly before: Pick<Report, 'summary' | 'dates'> | null;
  readonly picture: Picture | null;
  readonly cover: FaceCover | null;
  readonly units: UnitSystem;
  readonly station: StationId;
  readonly lifeStage: string;
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
  readonly picking: 'probe' | 'paint' | 'damage' | 'no-seam' | null;
  /** Where a crack that is being logged lies; full-size metres. */
  readonly damageAt: Vec3 | null;
  readonly brush: { readonly radius: number; readonly by: number };
  /** Conflicts that came with the last change of clay or layers. */
  readonly newConflicts: readonly Conflict[];
  /** The log, with what still waits to be sent; null until it was read. */
  readonly log: readonly LogEntry[] | null;
  /** Who works when and what else is on the go; null until it is known. */
  readonly surroundings: PlanSurroundings | null;
  /** The moment the answer is for, seconds since the epoch. */
  readonly now: number;
  readonly sooner: SoonerState;
  /** What the last drying of the whole found, of this build or an earlier state of it. */
  readonly full: FullFindings | null;
  /** Of the build as it stands: the drying of the whole that belongs to it. */
  readonly dryingKey: string;
  /** The whole is dried by itself when the bench has been still. */
  readonly dryBySelf: boolean;
  /** The armature's joint that is picked, on Armature. */
  readonly pickedJoint: string | null;
}

/** What would make it ready sooner, as far as it has been tried. */
export interface SoonerState {
  readonly ways: readonly Sooner[];
  readonly done: boolean;
  /** Undefined until known; no steps where leaving out is not enough. */
  readonly leaveOut: { readonly steps: readonly Step[] | null; readonly finish: number } | undefined;
  /** Undefined until known. */
  readonly holding: readonly WayToHold[] | undefined;
}
const nothingTried: SoonerState = { ways: [], done: false, leaveOut: undefined, holding: undefined };

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

export interface OpenedBuild extends SavedBuild {
  /** What its last drying of the whole found. */
  readonly full: FullFindings | null;
  /** The last of its log, for the first look. */
  readonly latest: LatestOfLog;
}

const beforeShownFor = 6000;
/** Milliseconds of stillness after which the whole piece is dried. */
const stillFor = 4000;
/** Milliseconds for which what can wait makes room for the parting of a mould. */
const waitsForParting = 8000;
const bySelfKey = 'sostegno-dry-by-self';

function remembersBySelf(): boolean {
  try {
    return localStorage.getItem(bySelfKey) !== 'off';
  } catch {
    return true;
  }
}

export class BenchController {
  readonly store: StoreApi<BenchState>;
  readonly id: string;
  private readonly client: SessionClient;
  private beforeTimer: ReturnType<typeof setTimeout> | undefined;
  private readonly saving: Saving;
  private lastLabel = 'Changed';
  private reckoned: Build | null = null;
  private stillTimer: ReturnType<typeof setTimeout> | undefined;
  private waitTimer: ReturnType<typeof setTimeout> | undefined;
  private readonly drying: DryingClient;
  /** Long work on the mould, and what of it is shown. */
  readonly mould = new MouldWork();
  /** The key of what is being dried. */
  private dryingFor = '';

  constructor(opened: OpenedBuild, units: UnitSystem, station: StationId) {
    this.id = opened.id;
    this.store = createStore<BenchState>(() => ({
      build: opened.build,
      history: readHistory(opened.history),
      save: 'saved',
      savedAt: null,
      saveMessage: '',
      sibling: null,
      notice: null,
      report: null,
      reportedSize: opened.build.form.start.size,
      reckoning: 'nominal',
      failure: null,
      before: null,
      picture: null,
      cover: null,
      units,
      station,
      lifeStage: '',
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
      log: null,
      surroundings: null,
      now: Math.floor(Date.now() / 1000),
      sooner: nothingTried,
      full: opened.full,
      dryingKey: '',
      dryBySelf: true,
    }));
    this.saving = new Saving(opened.id, opened, {
      stands: () => ({ ...this.state, label: this.lastLabel }),
      show: (line) => this.store.setState(line),
      replace: (build, history, announcement) => {
        this.store.setState({ build, history, announcement });
        this.reckon();
      },
    });
    this.client = sessionClient((answer) => this.receive(answer));
    this.drying = dryingClient((answer) => this.receiveWhole(answer));
    this.mould.store.subscribe(({ status }, earlier) => {
      if ((status === 'working') !== (earlier.status === 'working')) this.makeRoom(status === 'working');
    });
  }

  /** Ranges, remedies and the drying of the whole wait a while for a parting that is looked at, which wants the same cores. */
  private makeRoom(wanted: boolean): void {
    clearTimeout(this.waitTimer);
    const tell = { kind: wanted ? 'pause' : 'go-on' } as const;
    this.client.tell(tell);
    if (this.state.whole.status === 'working') this.drying.tell(tell);
    if (wanted) this.waitTimer = setTimeout(() => this.makeRoom(false), waitsForParting);
  }

  get state(): BenchState {
    return this.store.getState();
  }

  start(): () => void {
    this.store.setState({ dryBySelf: remembersBySelf() });
    this.client.begin();
    this.reckon();
    void partsCheck();
    if (this.state.station === 'drying') void this.takeKeptWhole();
    void this.saving.start();
    const leaving = () => {
      if (document.visibilityState === 'hidden') void this.saving.now(true);
    };
    const warn = (event: BeforeUnloadEvent) => {
      if (this.state.save !== 'saved') {
        void this.saving.now(true);
        event.preventDefault();
      }
    };
    document.addEventListener('visibilitychange', leaving);
    window.addEventListener('beforeunload', warn);
    return () => {
      document.removeEventListener('visibilitychange', leaving);
      window.removeEventListener('beforeunload', warn);
      clearTimeout(this.beforeTimer);
      clearTimeout(this.stillTimer);
      clearTimeout(this.waitTimer);
      this.saving.stop();
      this.client.stop();
      this.drying.stop();
      this.mould.leave();
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
    const { report } = this.state;
    const before = report ? { summary: report.summary, dates: report.dates } : null;
    this.store.setState({ build, history, announcement: label, before: before ?? this.state.before });
    clearTimeout(this.beforeTimer);
    this.beforeTimer = setTimeout(() => this.store.setState({ before: null }), beforeShownFor);
    this.saving.changed();
    this.reckon();
  }

  /** What is asked of the build as it stands. */
  private asked(): Asked {
    const { build, log, now, units, surroundings, full } = this.state;
    return { id: this.id, build, log: log ?? [], now, units, surroundings, full };
  }

  /** The same for other builds: as this one is asked about. */
  askedOf(build: Build): Asked {
    return { ...this.asked(), build };
  }

  private reckon(): void {
    clearTimeout(this.stillTimer);
    const { log, surroundings, picture, station } = this.state;
    // A date without the log or without anybody's hours would be another date: both come within moments.
    if (log === null || surroundings === null) return;
    this.store.setState({ reckoning: 'nominal', sooner: nothingTried });
    this.client.ask({
      kind: 'evaluate',
      asked: this.asked(),
      pictureKey: picture?.key ?? '',
      remedies: true,
      ways: station === 'plan',
    });
  }

  /** The log as it is now; what it says is part of the answer. */
  setLog(log: readonly LogEntry[]): void {
    if (log === this.state.log) return;
    this.store.setState({ log });
    this.reckon();
  }

  setSurroundings(surroundings: PlanSurroundings): void {
    this.store.setState({ surroundings });
    this.reckon();
  }

  setNow(now: number): void {
    this.store.setState({ now });
    this.reckon();
  }

  private receive(answer: SessionAnswer): void {
    switch (answer.kind) {
      case 'refused':
        this.store.setState({ failure: answer.why, reckoning: 'done' });
        return;
      case 'nominal':
        this.receiveNominal(answer);
        return;
      case 'picture':
        this.store.setState({ picture: answer.picture });
        return;
      case 'ranges':
        this.store.setState({ report: answer.report, reckoning: 'remedies', cover: answer.cover });
        return;
      case 'complete':
        this.store.setState({ report: answer.report, reckoning: 'done' });
        this.dryWhenStill();
        return;
      case 'sooner':
        this.store.setState({ sooner: { ...this.state.sooner, ways: answer.ways, done: answer.done } });
        return;
      case 'holding':
        this.store.setState({ sooner: { ...this.state.sooner, holding: answer.ways } });
        return;
      case 'leave-out':
        this.store.setState({
          sooner: { ...this.state.sooner, leaveOut: { steps: answer.steps, finish: answer.finish } },
        });
        return;
      case 'done':
        return;
    }
  }

  private receiveNominal(answer: Extract<SessionAnswer, { kind: 'nominal' }>): void {
    const { report: known, build } = this.state;
    const came =
      known && this.reckoned && this.reckoned !== build ? newConflicts(known.conflicts, answer.report.conflicts) : null;
    this.reckoned = build;
    if (came) this.store.setState({ newConflicts: came });
    const lifeStage = answer.report.lifeStages.some((m) => m.stage === this.state.lifeStage)
      ? this.state.lifeStage
      : 'clay-1';
    this.store.setState({
      // The scale's curve comes with the ranges; until then the last one stands.
      report: { ...answer.report, scale: known?.scale ?? null },
      reportedSize: build.form.start.size,
      reckoning: 'ranges',
      failure: null,
      lifeStage,
      ...(answer.dryingKey === null ? {} : { dryingKey: answer.dryingKey }),
      ...(answer.picture ? { picture: answer.picture } : {}),
    });
    if (answer.dryingKey === null) return;
    // What is cut is not sized again.
    if (answer.report.sizing.state === 'chosen' && answer.report.logged.armatureIsMade)
      this.edit(keepTheseSizes(build, answer.report.sizing.sizes, 'Sizes kept: the log says it is cut'));
    // What is still drying belongs to what it was.
    if (this.state.whole.status === 'working' && this.dryingFor !== answer.dryingKey) this.stopWhole();
    if (this.state.station === 'drying') void this.takeKeptWhole();
  }

  /** Once the bench has been still for a while the full answer is worked out beside it, unless that is switched off. */
  private dryWhenStill(): void {
    clearTimeout(this.stillTimer);
    this.stillTimer = setTimeout(() => {
      const { dryBySelf, report, full, dryingKey, whole } = this.state;
      const dries = report?.regions.some((r) => r.coats.length > 0) && report.workableDays === null;
      if (!dryBySelf || !dries || full?.key === dryingKey) return;
      if (whole.status === 'working' || whole.status === 'paused' || document.visibilityState === 'hidden') return;
      this.dryWhole();
    }, stillFor);
  }

  setDryBySelf(dryBySelf: boolean): void {
    this.store.setState({ dryBySelf });
    try {
      localStorage.setItem(bySelfKey, dryBySelf ? 'on' : 'off');
    } catch {
      // It holds for this page then.
    }
    if (dryBySelf) this.dryWhenStill();
    else clearTimeout(this.stillTimer);
  }

  /** Dries the whole piece in the background; what was there stays until the new one has come. */
  dryWhole(): void {
    clearTimeout(this.stillTimer);
    this.dryingFor = this.state.dryingKey;
    this.store.setState({ whole: { ...this.state.whole, status: 'working', done: 0, left: NaN, message: '' } });
    this.drying.ask({ kind: 'whole', asked: this.asked() });
  }

  pauseWhole(): void {
    this.drying.tell({ kind: 'pause' });
    this.store.setState({ whole: { ...this.state.whole, status: 'paused' } });
  }

  goOnWhole(): void {
    this.drying.tell({ kind: 'go-on' });
    this.store.setState({ whole: { ...this.state.whole, status: 'working' } });
  }

  stopWhole(): void {
    this.drying.stop();
    const { whole } = this.state.whole;
    this.store.setState({ whole: { ...this.state.whole, status: whole ? 'ready' : 'none' } });
  }

  /** One that was kept with this build as it stands is taken from there. */
  async takeKeptWhole(): Promise<void> {
    const { dryingKey: key, whole } = this.state;
    if (key === '' || whole.key === key || !['none', 'ready'].includes(whole.status)) return;
    try {
      const answer = await fetch(`/api/builds/${this.id}/drying?key=${key}`);
      if (answer.status !== 200 || this.state.dryingKey !== key) return;
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
      if (!answer.found) return;
      this.store.setState({ full: answer.found });
      this.reckon();
      if (answer.packed) this.keepWhole(answer.key, answer.found, answer.packed);
    }
  }

  /** Four bytes of length, what it found, then the drying as it was packed. */
  private keepWhole(key: string, found: FullFindings, packed: Uint8Array<ArrayBuffer>): void {
    const text = new TextEncoder().encode(JSON.stringify(found));
    const length = new Uint8Array(4);
    new DataView(length.buffer).setUint32(0, text.length, true);
    void fetch(`/api/builds/${this.id}/drying?key=${key}&revision=${this.saving.known}`, {
      method: 'PUT',
      body: new Blob([length, text, packed]),
    }).catch(() => undefined);
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
    if (picking !== 'paint' && picking !== 'no-seam') return;
    const size = build.form.start.size;
    const spot = {
      at: at.map((v) => Math.round((v / size) * 1e4) / 1e4) as unknown as Vec3,
      radius: brush.radius / size,
    };
    const refused = this.edit(
      picking === 'no-seam'
        ? {
            label: 'No seam there',
            changes: [{ path: ['mould', 'keepFree', 'spots'], value: [...build.mould.keepFree.spots, spot] }],
          }
        : {
            label: brush.by > 0 ? 'Clay painted thicker' : 'Clay painted thinner',
            changes: [
              { path: ['regions', 'painted'], value: [...build.regions.painted, { ...spot, by: brush.by / size }] },
            ],
          },
    );
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
    const came = station !== this.state.station;
    this.store.setState({ station });
    if (station === 'drying') void this.takeKeptWhole();
    // What would make it sooner is tried for whoever looks at the plan.
    if (came && station === 'plan' && !this.state.sooner.done) this.reckon();
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

  showStage(lifeStage: string): void {
    this.store.setState({ lifeStage });
  }

  setDryTime(dryTime: number): void {
    this.store.setState({ dryTime });
  }

  announce(announcement: string): void {
    this.store.setState({ announcement });
  }

  dismissNotice(): void {
    this.store.setState({ notice: null });
  }

  dismissSibling(): void {
    this.store.setState({ sibling: null });
  }
}
