import 'fake-indexeddb/auto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { newBust, type Build, type Change } from '../../src/core/document';
import {
  addBuild,
  backup,
  closeDatabase,
  openBuild,
  restore,
  saveBuild,
  shelf,
  type SaveRequest,
} from '../../src/server';
import { emptyHistory, perform, readHistory, stepBack, type History } from '../../src/ui/bench/history';
import { Saving, type SaveLine } from '../../src/ui/bench/saving';
import { leftBehind } from '../../src/ui/session/unsent';

/** Pages that save to the real server over a line that can be slow, cut, or lose an answer on its way back. */
jest.setTimeout(60_000);
let folder: string;
const line = {
  away: false,
  losesAnswers: 0,
  before: null as (() => Promise<void>) | null,
  /** Done while the page reads the build again. */
  reading: null as (() => void) | null,
  saves: 0,
};
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'sostegno-saving-'));
  process.env['SOSTEGNO_DATA'] = folder;
  Object.assign(line, { away: false, losesAnswers: 0, before: null, reading: null, saves: 0 });
});
const pages: Page[] = [];
afterEach(async () => {
  for (const p of pages.splice(0)) p.die();
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

globalThis.fetch = (async (url: string, init?: RequestInit) => {
  if (line.away) throw new TypeError('network');
  const id = url.split('/').pop()!;
  if (init?.method === 'PUT') {
    line.saves += 1;
    const meanwhile = line.before;
    line.before = null;
    if (meanwhile) await meanwhile();
  }
  if (init?.method !== 'PUT') {
    line.reading?.();
    line.reading = null;
  }
  const answer =
    init?.method === 'PUT' ? await saveBuild(id, JSON.parse(String(init.body)) as SaveRequest) : await openBuild(id);
  if (init?.method === 'PUT' && line.losesAnswers-- > 0) throw new TypeError('reset');
  return answer.ok
    ? new Response(JSON.stringify(answer.value))
    : new Response(JSON.stringify({ error: { message: answer.message, path: answer.path } }), { status: 422 });
}) as typeof fetch;

class Page {
  build!: Build;
  history: History = emptyHistory;
  label = '';
  said = '';
  line: SaveLine = { save: 'saved', savedAt: null, saveMessage: '', sibling: null, notice: null };
  saving!: Saving;

  static async open(id: string): Promise<Page> {
    const opened = await openBuild(id);
    if (!opened.ok) throw new Error(opened.message);
    const page = new Page();
    page.build = opened.value.build;
    page.history = readHistory(opened.value.history);
    page.saving = new Saving(id, opened.value, {
      stands: () => ({ build: page.build, history: page.history, label: page.label, ...page.line }),
      show: (more) => (page.line = { ...page.line, ...more }),
      replace: (build, history, said) => Object.assign(page, { build, history, said }),
    });
    pages.push(page);
    return page;
  }

  edit(...changes: Change[]): void {
    const made = perform(this.build, this.history, { label: 'test', changes });
    if (!made.ok) throw new Error(made.message);
    Object.assign(this, made.value, { label: 'test' });
    this.saving.changed();
  }

  /** Until nothing waits any more, as the page's own clock would have it. */
  async settle(): Promise<void> {
    for (let i = 0; i < 6 && this.line.save !== 'saved'; i++) await this.saving.now();
  }

  /** Closed without a word: what it had in hand is never sent by it. */
  die(): void {
    this.line = { ...this.line, save: 'saved' };
    this.saving.stop();
  }
}

const called = (value: string): Change => ({ path: ['name'], value });
const warm = (value: number): Change => ({ path: ['room', 'temperature'], value });
const speed = (value: number): Change => ({ path: ['room', 'airSpeed'], value });
const start = async () => (await addBuild(newBust('Two hands', '2026-12-01', 0.3), 'test')).id;
const stored = async (id: string) => {
  const found = await openBuild(id);
  if (!found.ok) throw new Error(found.message);
  return found.value;
};

test('one after another two pages change different things: both changes stand, and no copy is made', async () => {
  const id = await start();
  const [a, b] = [await Page.open(id), await Page.open(id)];
  a.edit(called('By A'));
  await a.settle();
  b.edit(warm(25));
  await b.settle();
  expect(b.build).toMatchObject({ name: 'By A', room: { temperature: 25 } });
  expect((await stored(id)).build).toMatchObject({ name: 'By A', room: { temperature: 25 } });
  expect(await shelf()).toHaveLength(1);
  expect(b.said).toMatch(/both changes are here/);
  expect(b.line.notice).toBe(b.said);
  // What B did is one step that can be undone, and A's stays.
  expect(stepBack(b.build, b.history)?.build).toMatchObject({ name: 'By A', room: { temperature: 20 } });
});

test('what is typed while a save is under way that comes too late is kept with it: put together where it can be', async () => {
  const id = await start();
  const [a, b] = [await Page.open(id), await Page.open(id)];
  b.edit(warm(25));
  line.before = async () => {
    a.edit(called('By A'));
    await a.settle();
    b.edit(warm(26));
    b.edit(speed(0.8));
  };
  await b.settle();
  expect((await stored(id)).build).toMatchObject({ name: 'By A', room: { temperature: 26, airSpeed: 0.8 } });
  expect(await shelf()).toHaveLength(1);
});

test('else whole in a copy beside it, and the page shows what was saved first', async () => {
  const id = await start();
  const [a, b] = [await Page.open(id), await Page.open(id)];
  b.edit(called('By B'));
  line.before = async () => {
    a.edit(called('By A'));
    await a.settle();
    b.edit(called('By B, again'));
    b.edit(warm(26));
    // And once more, while the copy is being put beside.
    line.before = async () => {
      b.edit(speed(0.8));
      return Promise.resolve();
    };
  };
  await b.settle();
  expect(b.build.name).toBe('By A');
  expect(b.line.save).toBe('saved');
  const beside = await stored(b.line.sibling!.id);
  expect(beside.build).toMatchObject({
    name: expect.stringMatching(/^By B, again, other version of /) as string,
    room: { temperature: 26, airSpeed: 0.8 },
  });
  expect(await shelf()).toHaveLength(2);
});

test('the copy is gone on with when it cannot be reached for a while: no second one is made', async () => {
  for (const breaks of ['cut', 'answer lost']) {
    const before = (await shelf()).length;
    const id = await start();
    const [a, b] = [await Page.open(id), await Page.open(id)];
    a.edit(warm(25));
    await a.settle();
    b.edit(warm(11));
    // The copy is made; then b types on, and the line goes while that is put into the copy.
    line.before = async () => {
      line.before = async () => {
        b.edit(warm(12));
        line.before = async () => {
          if (breaks === 'answer lost') line.losesAnswers = 1;
          else {
            line.away = true;
            throw new TypeError('cut');
          }
        };
      };
    };
    await b.saving.now();
    expect(b.line.save).not.toBe('saved');
    if (line.away) await b.saving.now();
    line.away = false;
    b.edit(speed(0.7));
    await b.settle();
    expect(b.line.save).toBe('saved');
    const all = await shelf();
    expect(all).toHaveLength(before + 2);
    expect((await stored(id)).build.room.temperature).toBe(25);
    expect(b.build.room.temperature).toBe(25);
    const copy = await stored(b.line.sibling!.id);
    expect([copy.build.room.temperature, copy.build.room.airSpeed]).toEqual([12, 0.7]);
  }
});

test('an answer that is lost, and then another edit: the page’s own save is not taken for somebody else’s', async () => {
  const id = await start();
  const page = await Page.open(id);
  page.edit(called('One'));
  line.losesAnswers = 1;
  await page.saving.now();
  expect(page.line.save).toBe('unreachable');
  page.edit(called('Two'));
  await page.settle();
  expect((await stored(id)).build.name).toBe('Two');
  expect(await shelf()).toHaveLength(1);
  // Nothing typed since: sent again it is the same save.
  page.edit(called('Three'));
  line.losesAnswers = 1;
  await page.saving.now();
  const { revision } = await stored(id);
  await page.settle();
  expect((await stored(id)).revision).toBe(revision);
  expect(page.line.save).toBe('saved');
});

test('a page that was closed before its last edit was sent: the next one sends it, once', async () => {
  const id = await start();
  const gone = await Page.open(id);
  line.away = true;
  gone.edit(called('Not sent'));
  await gone.saving.now();
  gone.edit(warm(25));
  await gone.saving.kept;
  gone.die();
  line.away = false;
  const next = await Page.open(id);
  await next.saving.start();
  await next.settle();
  expect((await stored(id)).build).toMatchObject({ name: 'Not sent', room: { temperature: 25 } });
  expect(next.said).toMatch(/is here again/);
  expect(next.history.past).toHaveLength(2);
  await next.saving.kept;
  expect(await leftBehind(id, 'nobody')).toBeNull();
  const { saves } = line;
  const third = await Page.open(id);
  await third.saving.start();
  expect(line.saves).toBe(saves);
  expect(await shelf()).toHaveLength(1);
});

test('what it left had been saved after all, and others went on: their work stands, and it is not done twice', async () => {
  const id = await start();
  const gone = await Page.open(id);
  gone.edit(called('Saved unheard'));
  line.losesAnswers = 1;
  await gone.saving.now();
  await gone.saving.kept;
  gone.die();
  const other = await Page.open(id);
  other.edit(called('Went on'));
  await other.settle();
  const next = await Page.open(id);
  await next.saving.start();
  await next.settle();
  expect(next.build.name).toBe('Went on');
  expect((await stored(id)).build.name).toBe('Went on');
  expect(await shelf()).toHaveLength(1);
});

test('an edit made after a save that was taken unheard is no conflict with that save', async () => {
  const id = await start();
  const gone = await Page.open(id);
  gone.edit(called('One'));
  line.losesAnswers = 1;
  await gone.saving.now();
  line.away = true;
  gone.edit(called('Two'));
  await gone.saving.kept;
  gone.die();
  line.away = false;
  const next = await Page.open(id);
  expect(next.build.name).toBe('One');
  await next.saving.start();
  await next.settle();
  expect((await stored(id)).build.name).toBe('Two');
  expect(await shelf()).toHaveLength(1);
});

test('a page left while it loses keeps its version beside, and the next knows that it is there', async () => {
  const id = await start();
  const [a, b] = [await Page.open(id), await Page.open(id)];
  a.edit(called('By A'));
  await a.settle();
  b.edit(called('By B'));
  line.losesAnswers = 1;
  await b.saving.now(true);
  await b.saving.kept;
  b.die();
  expect(await shelf()).toHaveLength(2);
  const next = await Page.open(id);
  await next.saving.start();
  await next.settle();
  expect(next.build.name).toBe('By A');
  expect(next.line.sibling?.name).toMatch(/^By B, other version/);
  expect(await shelf()).toHaveLength(2);
});

test('who comes back to a page that lost while it was left, and types while it reads again, loses none of it', async () => {
  const id = await start();
  const [a, b] = [await Page.open(id), await Page.open(id)];
  a.edit(called('By A'));
  await a.settle();
  b.edit(called('By B'));
  line.reading = () => b.edit(speed(0.8));
  await b.saving.now(true);
  await b.settle();
  expect(b.build.name).toBe('By A');
  expect((await stored(b.line.sibling!.id)).build).toMatchObject({ room: { airSpeed: 0.8 } });
  expect(await shelf()).toHaveLength(2);
});

test('after a restore a page from before it overwrites nothing, though its revision is the same', async () => {
  const id = await start();
  const page = await Page.open(id);
  page.edit(called('Before the backup'));
  await page.settle();
  const file = path.join(folder, 'b.tar.gz');
  expect((await backup(file)).ok).toBe(true);
  page.edit(called('After it'));
  await page.settle();
  expect((await restore(file)).ok).toBe(true);
  const other = await Page.open(id);
  other.edit(called('On the restored one'));
  await other.settle();
  expect((await stored(id)).revision).toBe(page.saving.known);
  page.edit(warm(25));
  await page.settle();
  expect((await stored(id)).build).toMatchObject({ name: 'On the restored one', room: { temperature: 20 } });
  expect((await stored(page.line.sibling!.id)).build).toMatchObject({ room: { temperature: 25 } });
});

test('another tab that has nothing in hand shows what was saved; one that has keeps it', async () => {
  const id = await start();
  const [a, b, c] = [await Page.open(id), await Page.open(id), await Page.open(id)];
  for (const p of [a, b, c]) await p.saving.start();
  c.edit(speed(0.8));
  a.edit(called('By A'));
  await a.settle();
  for (let i = 0; i < 1000 && b.build.name !== 'By A'; i++) await new Promise((r) => setTimeout(r, 20));
  expect(b.build.name).toBe('By A');
  expect(b.line.save).toBe('saved');
  expect(c.build).toMatchObject({ name: 'Two hands', room: { airSpeed: 0.8 } });
  await c.settle();
  expect((await stored(id)).build).toMatchObject({ name: 'By A', room: { airSpeed: 0.8 } });
});
