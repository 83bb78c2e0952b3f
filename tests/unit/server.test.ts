import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { hashOf, newBust, parseBuild, stableText, type Build } from '../../src/core/document';
import { effectiveLog } from '../../src/core/log';
import { openDatabase, listRevisions } from '../../src/db';
import {
  addBuild,
  addPhoto,
  addToLog,
  asKept,
  closeDatabase,
  copyBuild,
  createBuild,
  readDevices,
  exportBuild,
  importBuild,
  keepDrying,
  keptDrying,
  latestOfLog,
  loadDemo,
  lookedAt,
  markBuild,
  notesFor,
  setOnTheGo,
  openBuild,
  pictureType,
  readLearned,
  readLog,
  readPhoto,
  readSettings,
  reckon,
  readWorkshop,
  rememberLearned,
  saveBuild,
  openSheet,
  shelf,
  writeSettings,
} from '../../src/server';
import { revisionsToDrop } from '../../src/server/thinning';

let folder: string;
// A card is of its quarter of an hour: a test that begins at its very end stays in it.
const clock = Date.now;
beforeEach(() => {
  const end = (Math.floor(clock() / 900_000) + 1) * 900_000 - 1;
  jest.spyOn(Date, 'now').mockImplementation(() => Math.min(clock(), end));
  folder = mkdtempSync(path.join(tmpdir(), 'sostegno-test-'));
  process.env['SOSTEGNO_DATA'] = folder;
});
afterEach(async () => {
  jest.restoreAllMocks();
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const warmer = (b: Build, temperature: number): Build => ({ ...b, room: { ...b.room, temperature } });
const save = (id: string, revision: number, document: Build) =>
  saveBuild(id, { revision, document, history: { past: [], future: [] }, label: 'test' });

describe('builds', () => {
  test('created, opened, saved, saved again', async () => {
    const made = await createBuild('Harbour cat', '2026-12-01', 0.5);
    if (!made.ok) throw new Error(made.message);
    const opened = await openBuild(made.value.id);
    if (!opened.ok) throw new Error(opened.message);
    expect(opened.value.revision).toBe(1);
    expect(opened.value.build.materials.values.clays['paper-clay']).toBeDefined();
    const saved = await save(made.value.id, 1, warmer(opened.value.build, 25));
    expect(saved).toMatchObject({ ok: true, value: { saved: true, revision: 2 } });
    const again = await openBuild(made.value.id);
    expect(again.ok && again.value.build.room.temperature).toBe(25);
    await reckon(Date.now() / 1000);
    const [item] = await shelf();
    expect(item).toMatchObject({ fresh: true });
    expect(item?.card.summary?.wet).toBeGreaterThan(0.5);
    expect(item?.card.picture).toMatch(/^data:image\/webp;base64,.{1000}/);
  });

  test('a save works out its own card; the others wait until somebody looks at them', async () => {
    // A piece on the go takes hands from the others.
    const small = newBust('A', '2026-12-01', 0.3);
    const going = { ...small, plan: { ...small.plan, active: true } };
    const { id: a } = await addBuild(going, 'test');
    const { id: b } = await addBuild(newBust('B', '2026-12-01', 0.3), 'test');
    await reckon(Date.now() / 1000);
    const fresh = async () => Object.fromEntries((await shelf()).map((p) => [p.name, p.fresh]));
    expect(await fresh()).toEqual({ A: true, B: true });
    expect((await save(a, 1, warmer(going, 25))).ok).toBe(true);
    await reckon(Date.now() / 1000, a);
    // The shelf shows what is old as old.
    expect(await fresh()).toEqual({ A: true, B: false });
    await reckon(Date.now() / 1000, b);
    expect(await fresh()).toEqual({ A: true, B: true });
    // What is written of a piece that is not on the go is no news to the others, unless it says how fast hands are.
    const wrote = async (id: string, kind: string, data: object) => {
      const entry = { id: crypto.randomUUID(), kind, at: '2026-12-01T10:00:00.000Z', data, corrects: null };
      expect((await addToLog(id, entry)).ok).toBe(true);
      await reckon(Date.now() / 1000, id);
    };
    await wrote(b, 'note', { text: 'the cat sat on it' });
    expect(await fresh()).toEqual({ A: true, B: true });
    await wrote(b, 'step', { step: 'armature', name: 'Bend', kind: 'armature', usual: 2, took: 3 });
    expect(await fresh()).toEqual({ A: false, B: true });
    // Looked at, it is worked out.
    expect((await lookedAt([a])).map((p) => p.fresh)).toEqual([false]);
    await reckon(Date.now() / 1000);
    expect((await lookedAt([a])).map((p) => p.fresh)).toEqual([true]);
    await wrote(a, 'note', { text: 'this one is on the go' });
    expect(await fresh()).toEqual({ A: true, B: false });
  });

  test('a stale save is refused and kept beside, under a name of its own', async () => {
    const { id } = await addBuild(newBust('Two tabs', '2026-12-01'), 'test');
    const first = await openBuild(id);
    if (!first.ok) throw new Error(first.message);
    expect(await save(id, 1, warmer(first.value.build, 25))).toMatchObject({ value: { saved: true } });
    const late = await save(id, 1, warmer(first.value.build, 11));
    if (!late.ok || late.value.saved || !('siblingId' in late.value)) throw new Error('the late save was taken');
    const kept = await openBuild(late.value.siblingId);
    const winner = await openBuild(id);
    expect(kept.ok && kept.value.build.room.temperature).toBe(11);
    expect(winner.ok && winner.value.build.room.temperature).toBe(25);
    expect(late.value.siblingName).toMatch(/^Two tabs, other version of /);
  });

  test('the same save twice is no conflict', async () => {
    const { id } = await addBuild(newBust('Twice', '2026-12-01'), 'test');
    const opened = await openBuild(id);
    if (!opened.ok) throw new Error(opened.message);
    const next = warmer(opened.value.build, 22);
    await save(id, 1, next);
    expect(await save(id, 1, next)).toMatchObject({ ok: true, value: { saved: true, revision: 2 } });
    expect(await shelf()).toHaveLength(1);
  });

  test('a broken document is refused by its part and nothing changes', async () => {
    const { id } = await addBuild(newBust('Sound', '2026-12-01'), 'test');
    const bad = await saveBuild(id, {
      revision: 1,
      document: { ...newBust('Sound', '2026-12-01'), room: { temperature: 'hot' } },
      history: null,
      label: '',
    });
    expect(bad).toMatchObject({ ok: false, path: 'room.temperature' });
    expect(await openBuild(id)).toMatchObject({ ok: true, value: { revision: 1 } });
    expect(await save('nobody', 1, newBust('x', '2026-12-01'))).toMatchObject({ ok: false, code: 'no-such-build' });
  });

  test('out and in as one file, and the refusal of files that are not one', async () => {
    const { id } = await addBuild(newBust('Traveller', '2026-12-01'), 'test');
    const file = await exportBuild(id);
    if (!file.ok) throw new Error(file.message);
    expect(file.value.name).toBe('traveller.sostegno.json');
    const back = await importBuild(file.value.text);
    if (!back.ok) throw new Error(back.message);
    const [a, b] = [await openBuild(id), await openBuild(back.value.id)];
    expect(a.ok && b.ok && hashOf(a.value.build) === hashOf(b.value.build)).toBe(true);
    expect(await importBuild('{')).toMatchObject({ ok: false, code: 'not-json' });
    const broken = JSON.parse(file.value.text) as { form: { start: { measures: object } } };
    broken.form.start.measures = { headHeight: 7 };
    expect(await importBuild(JSON.stringify(broken))).toMatchObject({
      ok: false,
      path: 'form.start.measures.headHeight',
    });
    expect(await shelf()).toHaveLength(2);
  });

  test('copy, put away, delete, bring back', async () => {
    const { id } = await addBuild(newBust('Original', '2026-12-01'), 'test');
    expect((await copyBuild(id)).ok).toBe(true);
    expect((await shelf()).map((s) => s.name).sort()).toEqual(['Original', 'Original, copy']);
    await markBuild(id, 'archive');
    expect((await shelf()).find((s) => s.id === id)?.archived).toBe(true);
    await markBuild(id, 'delete');
    expect((await openBuild(id)).ok).toBe(false);
    await markBuild(id, 'restore');
    expect((await openBuild(id)).ok).toBe(true);
    expect(await markBuild('nobody', 'delete')).toMatchObject({ ok: false });
  });

  test('set aside from another plan and taken up again, each a step in its own history', async () => {
    const { id } = await addBuild(newBust('Going', '2026-12-01'), 'test');
    const plan = async () => {
      const open = await openBuild(id);
      if (!open.ok) throw new Error(open.message);
      return { active: open.value.build.plan.active, past: (open.value.history as { past: object[] }).past };
    };
    expect(await setOnTheGo(id, true)).toEqual({ ok: true, value: { active: true } });
    expect(await plan()).toMatchObject({ active: true });
    expect(await setOnTheGo(id, false)).toMatchObject({ ok: true });
    const { active, past } = await plan();
    expect(active).toBe(false);
    expect(past.slice(-1)).toEqual([
      {
        label: 'Set aside for another piece',
        patches: [{ op: 'replace', path: ['plan', 'active'], value: false }],
        inverse: [{ op: 'replace', path: ['plan', 'active'], value: true }],
      },
    ]);
    // Said twice, it is one step.
    await setOnTheGo(id, false);
    expect((await plan()).past).toHaveLength(past.length);
    expect(await setOnTheGo('nobody', true)).toMatchObject({ ok: false, code: 'no-such-build' });
  });

  test('bad beginnings', async () => {
    expect(await createBuild('  ', '2026-12-01', 1)).toMatchObject({ ok: false, path: 'name' });
    expect(await createBuild('x', 'tomorrow', 1)).toMatchObject({ ok: false, path: 'startDate' });
    expect(await createBuild('x', '2026-12-01', 40)).toMatchObject({ ok: false, path: 'size' });
  });

  test('the printed sheet holds every cut and what to buy', async () => {
    const { id } = await addBuild(newBust('Sheet', '2026-12-01'), 'test');
    const sheet = await openSheet(id);
    if (!sheet.ok) throw new Error(sheet.message);
    expect(sheet.value.cuts).toHaveLength(6);
    expect(sheet.value.wrap?.length).toBeGreaterThan(5);
    expect(sheet.value.cautions.length).toBeGreaterThan(0);
  });
});

describe('the bench log', () => {
  const entry = (kind: string, data: unknown, corrects: string | null = null) => ({
    id: randomUUID(),
    kind,
    at: '2026-12-02T09:00:00Z',
    data,
    corrects,
  });
  test('append-only: once each, corrections point at what they correct', async () => {
    const { id } = await addBuild(newBust('Logged', '2026-12-01'), 'test');
    const first = entry('weigh-in', { gross: 8, tare: 1 });
    expect((await addToLog(id, first)).ok).toBe(true);
    expect((await addToLog(id, first)).ok).toBe(true);
    expect((await addToLog(id, entry('weigh-in', { gross: 7.9, tare: 1 }, first.id))).ok).toBe(true);
    const log = await readLog(id);
    expect(log).toHaveLength(2);
    expect(log[1]?.corrects).toBe(first.id);
    await closeDatabase();
    const db = await openDatabase(path.join(folder, 'sostegno.db'));
    await expect(db.updateTable('log_entries').set({ data: '{}' }).execute()).rejects.toThrow(/append-only/);
    await db.destroy();
  });
  test.each([
    ['weigh-in', { gross: 1, tare: 2 }, 'data.gross'],
    ['weigh-in', { gross: 'heavy', tare: 0 }, 'data.gross'],
    ['shrink-mark', { laid: 0.1, now: 0.2 }, 'data.now'],
    ['note', { text: '  ' }, 'data.text'],
    ['song', {}, 'kind'],
  ])('%s %j is refused at %s', async (kind, data, at) => {
    const { id } = await addBuild(newBust('Logged', '2026-12-01'), 'test');
    expect(await addToLog(id, entry(kind, data))).toMatchObject({ ok: false, path: at });
  });
  test('the latest of it stand at their own hours, with what strikes them', async () => {
    const { id } = await addBuild(newBust('Logged', '2026-12-01'), 'test');
    const at = (hour: number) => new Date(Date.UTC(2026, 11, 2, hour)).toISOString();
    const notes = Array.from({ length: 30 }, (_, k) => ({ ...entry('note', { text: `note ${k}` }), at: at(k) }));
    for (const e of notes) expect((await addToLog(id, e)).ok).toBe(true);
    const right = (of: number, hour: number) => ({
      ...entry('note', { text: `note ${of}, put right` }, notes[of]!.id),
      at: at(hour),
    });
    // One of an old entry, whose hour only the whole log knows; one of a late entry, written with an early hour.
    for (const e of [right(2, 40), right(28, 1)]) expect((await addToLog(id, e)).ok).toBe(true);
    const { entries, count } = await latestOfLog(id);
    expect(count).toBe(32);
    const whole = effectiveLog(await readLog(id));
    const shown = effectiveLog(entries);
    expect(shown).toHaveLength(24);
    expect(shown).toEqual(whole.slice(-24));
    expect(shown.filter((e) => e.struck).map((e) => e.data)).toEqual([{ text: 'note 28' }]);
    expect(await latestOfLog(randomUUID())).toEqual({ entries: [], count: 0 });
  });
  test('a correction of nothing', async () => {
    const { id } = await addBuild(newBust('Logged', '2026-12-01'), 'test');
    expect(await addToLog(id, entry('note', { text: 'x' }, randomUUID()))).toMatchObject({
      ok: false,
      code: 'no-such-entry',
    });
  });
  test('pictures are known by their bytes', async () => {
    const { id } = await addBuild(newBust('Photo', '2026-12-01'), 'test');
    const png = await sharp({ create: { width: 3, height: 2, channels: 3, background: '#a08060' } })
      .png()
      .toBuffer();
    expect(pictureType(png)).toBe('png');
    expect((await addPhoto(id, randomUUID(), png)).ok).toBe(true);
    expect(await addPhoto(id, randomUUID(), new TextEncoder().encode('<svg onload=alert(1)>'))).toMatchObject({
      code: 'not-a-picture',
    });
    expect(await addPhoto(id, '../../x', png)).toMatchObject({ code: 'bad-id' });
  });
});

test('demo data loads once, and again only when asked', async () => {
  const now = Date.parse('2026-12-05T12:00:00Z') / 1000;
  expect(await loadDemo(now)).toBe(true);
  expect(await loadDemo(now)).toBe(false);
  expect(await shelf()).toHaveLength(9);
  await reckon(now);
  const [piece] = await shelf();
  expect((await shelf()).every((b) => b.card.problem === null && b.card.picture !== null)).toBe(true);
  expect(await loadDemo(now, true)).toBe(true);
  expect(await shelf()).toHaveLength(18);
  const log = await readLog(piece?.id ?? '');
  expect(log.length).toBeGreaterThan(16);
  const photo = log.find((e) => e.kind === 'photo');
  expect((await readPhoto(piece?.id ?? '', String(photo?.data['photoId'])))?.mime).toBe('image/jpeg');
  expect((await readWorkshop()).people.map((p) => p.id)).toEqual(['first-hand', 'second-hand']);
}, 60_000);

test('settings are kept; nonsense in the database falls back', async () => {
  expect(await readSettings()).toMatchObject({ units: 'metric' });
  await writeSettings({ units: 'imperial', theme: 'evening', motion: false });
  expect(await readSettings()).toEqual({ units: 'imperial', theme: 'evening', motion: false });
});

test('revisions thin with age: the last forty stay, older ones by hour, day and month', () => {
  const now = '2026-12-31T12:00:00.000Z';
  const list = Array.from({ length: 200 }, (_, i) => ({
    id: 1000 - i,
    savedAt: new Date(Date.parse(now) - i * 20 * 60e3).toISOString(),
  }));
  const dropped = new Set(revisionsToDrop(list, now));
  for (const r of list.slice(0, 40)) expect(dropped.has(r.id)).toBe(false);
  const kept = list.filter((r) => !dropped.has(r.id));
  expect(kept.length).toBeLessThan(110);
  expect(kept.length).toBeGreaterThan(60);
  expect(revisionsToDrop(kept, now)).toEqual([]);
});

test('many saves leave their revisions', async () => {
  const { id } = await addBuild(newBust('Many', '2026-12-01'), 'test');
  const opened = await openBuild(id);
  if (!opened.ok) throw new Error(opened.message);
  for (let i = 1; i <= 5; i++) await save(id, i, warmer(opened.value.build, 10 + i));
  await closeDatabase();
  const db = await openDatabase(path.join(folder, 'sostegno.db'));
  expect((await listRevisions(db, id)).map((r) => r.revision)).toEqual([6, 5, 4, 3, 2, 1]);
  await db.destroy();
});

test('a build is kept with the materials it uses, and its text is that of the whole', () => {
  const build = newBust('Kept', '2026-12-01');
  for (const b of [build, asKept(build).kept, { ...build, brief: { ...build.brief, clay: 'epoxy-clay', note: 'n' } }]) {
    const { kept, document } = asKept(b);
    expect(document).toBe(stableText(kept));
    expect(kept.materials.values.clays[b.brief.clay]).toBeDefined();
    expect(Object.keys(kept.materials.values.stocks).length).toBeGreaterThan(0);
  }
});

test('killed while saving as fast as it can: every save it reported is there, and the database is whole', async () => {
  const { id } = await addBuild(asKept(newBust('Killed', '2026-12-01')).kept, 'test');
  await closeDatabase();
  const child = spawn(
    process.execPath,
    [
      path.join(__dirname, '../../node_modules/tsx/dist/cli.mjs'),
      path.join(__dirname, '../support/save-forever.ts'),
      id,
    ],
    { env: { ...process.env, SOSTEGNO_DATA: folder }, detached: true },
  );
  let said = '';
  let errors = '';
  child.stderr.on('data', (d: Buffer) => {
    errors += d.toString();
  });
  await new Promise<void>((resolve, reject) => {
    child.on('exit', () => reject(new Error(`it stopped by itself: ${errors}`)));
    child.stdout.on('data', (d: Buffer) => {
      said += d.toString();
      if (said.split('\n').length > 25) resolve();
    });
  });
  child.removeAllListeners('exit');
  const gone = new Promise((resolve) => child.on('exit', resolve));
  process.kill(-child.pid!, 'SIGKILL');
  await gone;
  const reported = said
    .trim()
    .split('\n')
    .filter((l) => /^\d+ [\d.]+$/.test(l))
    .map((l) => l.split(' ').map(Number) as [number, number]);
  const [revision, temperature] = reported[reported.length - 1]!;
  const db = await openDatabase(path.join(folder, 'sostegno.db'));
  const row = await db
    .selectFrom('builds')
    .select(['revision', 'document'])
    .where('id', '=', id)
    .executeTakeFirstOrThrow();
  expect(row.revision).toBeGreaterThanOrEqual(revision);
  const kept = await db
    .selectFrom('revisions')
    .select('document')
    .where('build_id', '=', id)
    .where('revision', '=', revision)
    .executeTakeFirstOrThrow();
  const build = parseBuild(kept.document);
  expect(build.ok && build.value.room.temperature).toBeCloseTo(temperature, 9);
  expect(parseBuild(row.document).ok).toBe(true);
  await db.destroy();
}, 60_000);

describe('dryings and what was learned', () => {
  const packed = (n: number) => Buffer.concat([Buffer.from([0x1f, 0x8b]), Buffer.alloc(30, n)]);

  test('a drying is kept by its key, the last few of a build, and gone with the build', async () => {
    const { id } = await addBuild(newBust('Dried', '2026-12-01'), 'test');
    for (const [i, key] of ['one', 'two', 'three', 'four'].entries()) {
      expect(await keepDrying(id, key, 1, packed(i))).toMatchObject({ ok: true });
      await new Promise((r) => setTimeout(r, 5));
    }
    expect(await keptDrying(id, 'one')).toBeNull();
    expect((await keptDrying(id, 'four'))?.equals(packed(3))).toBe(true);
    expect(await keepDrying(id, 'four', 2, packed(9))).toMatchObject({ ok: true });
    expect((await keptDrying(id, 'four'))?.equals(packed(9))).toBe(true);
  });

  test('what is no drying is refused', async () => {
    const { id } = await addBuild(newBust('Dried', '2026-12-01'), 'test');
    expect(await keepDrying(id, 'key', 1, Buffer.from('not packed, only long enough'))).toMatchObject({
      ok: false,
      code: 'not-packed',
    });
    expect(await keepDrying(id, '../key', 1, packed(1))).toMatchObject({ ok: false, code: 'bad-key' });
    expect(await keepDrying(id, 'key', -1, packed(1))).toMatchObject({ ok: false, code: 'bad-revision' });
    expect(await keepDrying('nobody', 'key', 1, packed(1))).toMatchObject({ ok: false, code: 'no-such-build' });
    expect(await keptDrying(id, 'key; drop table')).toBeNull();
  });

  test('factors are remembered by name, the newest in the place of the one before; nonsense is refused', async () => {
    const loft = {
      name: 'loft',
      clay: 'paper-clay',
      evaporation: 0.8,
      diffusion: 1.1,
      spread: { evaporation: 0.03, diffusion: 0.1 },
    };
    expect(await readLearned()).toEqual([]);
    await rememberLearned(loft);
    await rememberLearned({ ...loft, name: 'cellar', evaporation: 0.6 });
    await rememberLearned({ ...loft, evaporation: 0.85 });
    expect((await readLearned()).map((l) => [l.name, l.evaporation])).toEqual([
      ['loft', 0.85],
      ['cellar', 0.6],
    ]);
    expect(await rememberLearned({ ...loft, evaporation: 900 })).toMatchObject({
      ok: false,
      path: 'learned.evaporation',
    });
  });

  test('devices stand on the bench of every build, and on none that is not there', async () => {
    const { id } = await addBuild(newBust('On the scale', '2026-11-01'), 'test');
    const all = await readDevices(id, Date.UTC(2026, 10, 3));
    expect(all.ok && all.value.map((d) => d.kind)).toEqual(['scale', 'hygrometer']);
    expect(await readDevices('nobody', 0)).toMatchObject({ ok: false, code: 'no-such-build' });
  });

  test('cracks and room readings are logged, and checked', async () => {
    const { id } = await addBuild(newBust('Cracked', '2026-12-01'), 'test');
    const entry = (kind: string, data: unknown) =>
      addToLog(id, { id: randomUUID(), kind, at: '2026-12-03T10:00:00Z', data, corrects: null });
    expect(await entry('crack', { where: 'left ear', width: 0.0005 })).toMatchObject({
      ok: true,
      value: { data: { through: false } },
    });
    expect(await entry('crack', { where: '', width: 0.0005 })).toMatchObject({ ok: false, path: 'data.where' });
    expect(await entry('room', { temperature: 19, relativeHumidity: 0.5 })).toMatchObject({ ok: true });
    expect(await entry('room', { temperature: 19, relativeHumidity: 50 })).toMatchObject({ ok: false });
  });
});

test('what was noted for the next piece is shown with others, the same clay first; struck and put right it follows', async () => {
  const named = async (name: string, clay: string) => {
    const bust = newBust(name, '2026-12-01');
    return (await addBuild({ ...bust, brief: { ...bust.brief, clay } }, 'made')).id;
  };
  const heron = await named('Heron', 'epoxy-clay'),
    otter = await named('Otter', 'paper-clay'),
    next = await named('Next', 'paper-clay');
  const write = async (build: string, at: string, data: object, more: object = {}) => {
    const id = randomUUID();
    const added = await addToLog(build, { id, kind: 'note', at, data, ...more });
    if (!added.ok) throw new Error(added.message);
    return id;
  };
  await write(heron, '2026-11-03T20:00:00Z', { text: 'Wax the board first.', forNext: true });
  const seam = await write(otter, '2026-11-01T20:00:00Z', { text: 'Score the sem.', forNext: true });
  await write(otter, '2026-11-02T20:00:00Z', { text: 'Phone the school.' });
  await write(next, '2026-11-04T20:00:00Z', { text: 'Its own.', forNext: true });
  const told = async () => (await notesFor(next)).map((n) => [n.name, n.text, n.sameClay]);
  expect(await told()).toEqual([
    ['Otter', 'Score the sem.', true],
    ['Heron', 'Wax the board first.', false],
  ]);
  const right = await write(
    otter,
    '2026-11-01T20:00:00Z',
    { text: 'Score the seam.', forNext: true },
    { corrects: seam },
  );
  expect(await told()).toContainEqual(['Otter', 'Score the seam.', true]);
  expect(await told()).toHaveLength(2);
  const struck = await addToLog(otter, {
    id: randomUUID(),
    kind: 'void',
    at: '2026-11-05T20:00:00Z',
    data: {},
    corrects: right,
  });
  expect(struck).toMatchObject({ ok: true });
  expect(await told()).toEqual([['Heron', 'Wax the board first.', false]]);
});
