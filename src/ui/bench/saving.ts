import { mergeBuilds, parseBuild, stableText, type Build } from '../../core/document';
import { call } from '../parts/http';
import { newId } from '../parts/ids';
import { forgetUnsent, keepUnsent, leftBehind, stayAlive } from '../session/unsent';
import { asOneStep, readHistory, type History } from './history';
import { partsCheck } from './parts-check';

/** Saving a build while it is worked on: what is typed is kept first, then sent, and put together with what others saved. */
export type SaveState = 'saved' | 'waiting' | 'saving' | 'unreachable' | 'refused';

export interface SaveLine {
  readonly save: SaveState;
  readonly savedAt: string | null;
  readonly saveMessage: string;
  /** Set when a save came too late: where this version was put. */
  readonly sibling: { readonly id: string; readonly name: string } | null;
  /** What came of saving that is to be seen, until it is put away. */
  readonly notice: string | null;
}

const bothHere = 'This build was changed elsewhere meanwhile: both changes are here.';
const hereAgain = 'What was not saved when this build was last open is here again.';

/** What the server hands out of a build. */
export interface SavedBuild {
  readonly id: string;
  readonly revision: number;
  readonly generation: number;
  readonly build: Build;
  readonly history: unknown;
}

/** Whoever is worked on: what stands, how its saving is shown, and another version put in its place. */
export interface Saved {
  readonly stands: () => { readonly build: Build; readonly history: History; readonly label: string } & SaveLine;
  readonly show: (line: Partial<SaveLine>) => void;
  readonly replace: (build: Build, history: History, announcement: string) => void;
}

type Outcome =
  | { readonly saved: true; readonly revision: number }
  | { readonly saved: false; readonly siblingId: string; readonly siblingName: string }
  | { readonly saved: false; readonly theirs: SavedBuild };

/** Milliseconds: after the last change; while another save is under way; with no server; after a refusal. */
const waits = { still: 1000, busy: 300, unreachable: 3000, refused: 15_000 } as const;

export class Saving {
  private revision: number;
  private generation: number;
  /** What the server was last known to have: what both sides of a conflict started from. */
  private shared: Build;
  private readonly page = newId();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private busy = false;
  /** What stands unsaved, and the id it is sent under, however often; the ids of earlier states that were sent and not heard of. */
  private next: { readonly build: Build; readonly id: string; sent: boolean } | null = null;
  private unheard: string[] = [];
  /** The copy that what came too late is being put in, until all of it is there: it is gone on with, whatever fails meanwhile. */
  private beside: { id: string; name: string; there: Build; revision: number; theirs: SavedBuild | null } | null = null;
  private channel: BroadcastChannel | null = null;
  private keeping: Promise<void> = Promise.resolve();
  private stopped = false;

  constructor(
    private readonly id: string,
    opened: SavedBuild,
    private readonly on: Saved,
  ) {
    this.revision = opened.revision;
    this.generation = opened.generation;
    this.shared = opened.build;
  }

  /** The revision it knows of. */
  get known(): number {
    return this.revision;
  }

  /** Listens for other tabs, and takes up what a page that is gone left unsent. */
  async start(): Promise<void> {
    this.stopped = false;
    stayAlive(this.page);
    if (typeof BroadcastChannel !== 'undefined') {
      this.channel = new BroadcastChannel(`sostegno-saved-${this.id}`);
      this.channel.onmessage = () => void this.takeOver('Changed in another tab.');
    }
    await this.takeUp();
  }

  stop(): void {
    clearTimeout(this.timer);
    this.channel?.close();
    this.channel = null;
    this.stopped = true;
    if (this.on.stands().save === 'waiting') void this.now(true);
  }

  /** Something was changed: kept in the page's store at once, sent when hands rest. */
  changed(): void {
    this.on.show({ save: 'waiting' });
    this.prepare();
    this.again(waits.still);
  }

  /** Resolves when what stands is in the page's own store. */
  get kept(): Promise<void> {
    return this.keeping;
  }

  /** Gives what stands an id of its own, before it is sent: whoever finds it later knows whether it was taken. */
  private prepare(): { readonly build: Build; readonly id: string; sent: boolean } {
    if (this.next?.sent) this.unheard = [...this.unheard, this.next.id].slice(-100);
    this.next = { build: this.on.stands().build, id: newId(), sent: false };
    this.keep();
    return this.next;
  }

  private again(after: number): void {
    clearTimeout(this.timer);
    if (!this.stopped) this.timer = setTimeout(() => void this.now(), after);
  }

  /** Sends what is not saved yet. A page that is being left cannot put versions together: then they are kept apart. */
  async now(leaving = false): Promise<void> {
    clearTimeout(this.timer);
    if (this.on.stands().save === 'saved') return;
    if (this.busy) {
      this.again(waits.busy);
      return;
    }
    this.busy = true;
    try {
      await this.send(leaving);
    } finally {
      this.busy = false;
    }
  }

  private async send(leaving: boolean): Promise<void> {
    const { build } = this.on.stands();
    const next = this.next?.build === build ? this.next : this.prepare();
    this.on.show({ save: 'saving' });
    if (this.beside) return this.putBeside();
    next.sent = true;
    const answer = await this.put(next.id, leaving, leaving);
    if (!answer.ok) return this.notYet(answer);
    const outcome = answer.value;
    if (outcome.saved) this.heard(build, outcome.revision);
    else if ('theirs' in outcome) await this.together(outcome.theirs);
    else await this.keptBeside(outcome, build, null);
  }

  private put(saveId: string, aside: boolean, leaving = false) {
    const { build, history, label } = this.on.stands();
    const { revision, generation, unheard } = this;
    return call<Outcome>(
      'PUT',
      `/api/builds/${this.id}`,
      { revision, generation, document: build, history, label, saveId, mine: unheard, aside },
      leaving,
    );
  }

  private notYet(answer: { readonly offline: boolean; readonly status: number; readonly message: string }): void {
    this.on.show({ save: answer.offline ? 'unreachable' : 'refused', saveMessage: answer.message });
    // Keep trying: the change is still here.
    this.again(answer.offline ? waits.unreachable : waits.refused);
  }

  private heard(build: Build, revision: number): void {
    this.revision = revision;
    this.shared = build;
    this.unheard = [];
    const still = this.on.stands().build === build;
    if (still) this.next = null;
    this.on.show({ save: still ? 'saved' : 'waiting', savedAt: new Date().toISOString(), saveMessage: '' });
    if (still) this.forget();
    else {
      this.keep();
      this.again(waits.still);
    }
    this.channel?.postMessage(revision);
  }

  /** Somebody else saved meanwhile: both changes are kept, in one build where they are of different things, else in two. */
  private async together(theirs: SavedBuild): Promise<void> {
    const mine = this.on.stands();
    // After a restore what is there is no change of the build this page knows.
    const merged = theirs.generation === this.generation ? mergeBuilds(this.shared, mine.build, theirs.build) : null;
    const read = merged && parseBuild(JSON.stringify(merged));
    const whole = read?.ok ? (await partsCheck())(read.value) : null;
    if (read?.ok && whole?.ok) {
      this.startFrom(theirs);
      const { build, history } = asOneStep(theirs.build, readHistory(theirs.history), read.value, mine.label);
      this.on.replace(build, history, bothHere);
      this.on.show({ notice: bothHere });
      if (build === theirs.build) this.heard(build, theirs.revision);
      else {
        this.changed();
        this.again(0);
      }
      return;
    }
    const next = this.next?.build === mine.build ? this.next : this.prepare();
    next.sent = true;
    const answer = await this.put(next.id, true);
    if (!answer.ok) this.notYet(answer);
    else if (answer.value.saved) this.heard(mine.build, answer.value.revision);
    else if ('siblingId' in answer.value) await this.keptBeside(answer.value, mine.build, theirs);
  }

  /** This version now stands beside; what was typed since goes there too, and the bench shows what was saved first. */
  private async keptBeside(
    { siblingId, siblingName }: { readonly siblingId: string; readonly siblingName: string },
    kept: Build,
    theirs: SavedBuild | null,
  ): Promise<void> {
    this.beside = { id: siblingId, name: siblingName, there: kept, revision: 1, theirs };
    await this.putBeside();
  }

  private async putBeside(): Promise<void> {
    const beside = this.beside!;
    const sibling = { id: beside.id, name: beside.name };
    // Read first: after the last look at what stands nothing may be waited for, or what is typed meanwhile would go.
    const fresh = beside.theirs ?? (await this.read());
    if (!fresh) {
      this.on.show({ save: 'refused', saveMessage: 'The server could not be reached.', sibling });
      this.again(waits.refused);
      return;
    }
    while (this.on.stands().build !== beside.there) {
      const { build, history, label } = this.on.stands();
      const next = this.next?.build === build ? this.next : this.prepare();
      next.sent = true;
      const answer = await call<Outcome>('PUT', `/api/builds/${beside.id}`, {
        revision: beside.revision,
        document: { ...build, name: beside.name, plan: { ...build.plan, active: false } },
        history,
        label,
        saveId: next.id,
        mine: this.unheard,
      });
      if (!answer.ok) {
        // What stands in the way may be gone when it is tried again: so may be what was read.
        beside.theirs = null;
        return this.notYet(answer);
      }
      if (answer.value.saved) beside.revision = answer.value.revision;
      else if ('siblingId' in answer.value)
        Object.assign(beside, { id: answer.value.siblingId, name: answer.value.siblingName, revision: 1 });
      beside.there = build;
    }
    this.beside = null;
    this.startFrom(fresh);
    this.forget();
    this.on.replace(
      fresh.build,
      readHistory(fresh.history),
      `Changed elsewhere meanwhile. Your version is kept as ${beside.name}.`,
    );
    this.on.show({ save: 'saved', saveMessage: '', sibling: { id: beside.id, name: beside.name }, notice: null });
  }

  private startFrom({ revision, generation, build }: SavedBuild): void {
    this.revision = revision;
    this.generation = generation;
    this.shared = build;
    this.next = null;
    this.unheard = [];
  }

  private async read(): Promise<SavedBuild | null> {
    const fresh = await call<SavedBuild>('GET', `/api/builds/${this.id}`);
    return fresh.ok ? fresh.value : null;
  }

  /** What another tab saved is shown, where nothing here waits to be saved: that is put together when it is sent. */
  private async takeOver(announcement: string): Promise<void> {
    if (this.busy || this.on.stands().save !== 'saved') return;
    const { build } = this.on.stands();
    const fresh = await this.read();
    if (!fresh || this.busy || this.on.stands().build !== build) return;
    if (fresh.revision === this.revision && fresh.generation === this.generation) return;
    this.startFrom(fresh);
    if (stableText(fresh.build) !== stableText(build))
      this.on.replace(fresh.build, readHistory(fresh.history), announcement);
  }

  /** Goes on as the page that is gone would have: the server knows its saves by their ids. */
  private async takeUp(): Promise<void> {
    const left = await leftBehind(this.id, this.page).catch(() => null);
    // It may have been written by an earlier version.
    const read = left && parseBuild(JSON.stringify(left.build));
    if (!left || !read?.ok || this.on.stands().save !== 'saved') return;
    if (stableText(read.value) === stableText(this.shared)) {
      await forgetUnsent(left.page);
      return;
    }
    this.revision = left.revision;
    this.generation = left.generation;
    this.shared = left.shared;
    this.unheard = [...left.unheard];
    this.next = { build: read.value, id: left.saveId, sent: true };
    this.on.replace(read.value, left.history, hereAgain);
    this.on.show({ save: 'waiting', notice: hereAgain });
    this.keep();
    await this.keeping;
    await forgetUnsent(left.page);
    await this.now();
    // Should it have been saved after all, somebody may have gone on from there.
    await this.takeOver('Changed elsewhere meanwhile.');
  }

  private keep(): void {
    const { build, history, label } = this.on.stands();
    const { page, shared, revision, generation, unheard } = this;
    const saveId = this.next?.id ?? '';
    const unsent = { buildId: this.id, page, build, history, label, shared, revision, generation, saveId, unheard };
    // Without a store of its own a page still warns before it is left.
    this.keeping = this.keeping.then(() => keepUnsent(unsent)).catch(() => undefined);
  }

  private forget(): void {
    this.keeping = this.keeping.then(() => forgetUnsent(this.page)).catch(() => undefined);
  }
}
