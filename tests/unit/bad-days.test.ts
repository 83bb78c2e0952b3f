import { randomBytes, randomUUID } from 'node:crypto';
import fs, {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  symlinkSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'kysely';
import sharp from 'sharp';
import { newBust } from '../../src/core/document';
import { contentHash, holdsWhatWasBackedUp, openAsItIs, openDatabase, snapshotTo } from '../../src/db';
import {
  addBuild,
  addPhoto,
  addToLog,
  backup,
  beginRestore,
  clearLeftovers,
  closeDatabase,
  database,
  diskFailure,
  keepDrying,
  keptDrying,
  lastFullFindings,
  loadDemo,
  markBuild,
  moveStock,
  notWriting,
  openBuild,
  packBuild,
  readLog,
  readPhoto,
  readSettings,
  readWorkshop,
  restore,
  saveBuild,
  setAsideSettings,
  shelf,
  stockReport,
  unpackBuild,
  Unusable,
  workFolder,
  workName,
  writeSettings,
} from '../../src/server';
import { readArchive, writeArchive } from '../../src/server/archive';

/** Days on which something breaks: each ends with a sentence, and with everything that was saved. */
let folder: string, elsewhere: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'sostegno-bad-'));
  elsewhere = mkdtempSync(path.join(tmpdir(), 'sostegno-away-'));
  process.env['SOSTEGNO_DATA'] = folder;
});
afterEach(async () => {
  jest.restoreAllMocks();
  await closeDatabase();
  for (const f of [folder, elsewhere]) rmSync(f, { recursive: true, force: true });
});

const databaseIn = (data: string) => path.join(data, 'sostegno.db');
/** Another file in the place of the database. */
function ruin(bytes: Uint8Array): void {
  for (const end of ['', '-wal', '-shm']) rmSync(databaseIn(folder) + end, { force: true });
  writeFileSync(databaseIn(folder), bytes);
}
const picture = (width: number) =>
  sharp({ create: { width, height: 20, channels: 3, background: '#a08060' } })
    .jpeg()
    .toBuffer();
const entry = (kind: string, data: unknown, more: object = {}) => ({
  id: randomUUID() as string,
  kind,
  at: '2026-12-01T18:00:00.000Z',
  data,
  corrects: null,
  ...more,
});

/** A piece with a weighing and two pictures. */
async function aShelf(name = 'Kept'): Promise<{ id: string; photos: string[] }> {
  const { id } = await addBuild(newBust(name, '2026-12-01'), 'test');
  const photos = [randomUUID(), randomUUID()];
  for (const [i, photoId] of photos.entries()) {
    await addPhoto(id, photoId, await picture(30 + i));
    await addToLog(id, entry('photo', { photoId, caption: `picture ${i}` }));
  }
  await addToLog(id, entry('weigh-in', { gross: 7.2, tare: 1 }));
  return { id, photos };
}

async function backupOf(file = path.join(elsewhere, `${randomUUID()}.tar.gz`)): Promise<string> {
  const made = await backup(file);
  if (!made.ok) throw new Error(made.message);
  return file;
}

const fileOf = (n: number) => {
  const names = readdirSync(path.join(folder, 'pictures')).sort();
  return path.join(folder, 'pictures', names[n]!);
};

describe('a backup is what can be put back', () => {
  test.each(['003', '004', '005'])('one made when the tables stood at step %s comes back whole', async (step) => {
    const back = await restore(path.join(__dirname, '..', 'fixtures', 'backups', `${step}.tar.gz`));
    expect(back).toMatchObject({ ok: true, value: { builds: 1, entries: 3, pictures: 1, lost: [] } });
    const [piece] = await shelf();
    expect(piece?.name).toBe('Kept long');
    const log = await readLog(piece!.id);
    expect(log.map((e) => e.kind)).toEqual(['weigh-in', 'photo', 'weigh-in']);
    expect(log[2]?.corrects).toBe(log[0]?.id);
    expect(await readPhoto(piece!.id, (log[1] as { data: { photoId: string } }).data.photoId)).toBeDefined();
    expect(await readSettings()).toMatchObject({ units: 'imperial', motion: false });
    // And once more, as it is kept today.
    expect(await restore(await backupOf())).toMatchObject({ ok: true, value: { builds: 1, entries: 3 } });
  });

  test('its hash is of what was backed up: a column that comes later changes nothing, a changed row does', async () => {
    await aShelf();
    const content = await contentHash(await database());
    await closeDatabase();
    const asItIs = openAsItIs(databaseIn(folder));
    expect(await holdsWhatWasBackedUp(asItIs, content)).toBe(true);
    await sql`alter table stock_moves add column shelf text`.execute(asItIs);
    expect(await holdsWhatWasBackedUp(asItIs, content)).toBe(true);
    await sql`update builds set name = 'Another'`.execute(asItIs);
    expect(await holdsWhatWasBackedUp(asItIs, content)).toBe(false);
    expect(await holdsWhatWasBackedUp(asItIs, 'zz9-unknown')).toBe(false);
    await asItIs.destroy();
  });

  test('a missing and a damaged picture are named, and the rest is backed up and comes back', async () => {
    const { id, photos } = await aShelf();
    const bytes = readFileSync(fileOf(0));
    bytes[bytes.length >> 1] = bytes[bytes.length >> 1]! ^ 1;
    writeFileSync(fileOf(0), bytes);
    const gone = fileOf(1);
    rmSync(gone);
    const file = path.join(elsewhere, 'rest.tar.gz');
    const made = await backup(file);
    if (!made.ok) throw new Error(made.message);
    expect(made.value.lost.map((l) => [l.build, l.why]).sort()).toEqual([
      ['Kept', 'damaged'],
      ['Kept', 'missing'],
    ]);
    expect(made.value.lost.map((l) => l.picture).sort()).toEqual([...photos].sort());
    process.env['SOSTEGNO_DATA'] = path.join(elsewhere, 'new');
    await closeDatabase();
    const back = await restore(file);
    expect(back).toMatchObject({ ok: true, value: { entries: 3, content: made.value.content } });
    if (back.ok) expect(back.value.lost).toHaveLength(2);
    expect(await readLog(id)).toHaveLength(3);
  });

  test('one that cannot be read back as it was written is not called done, and nothing of it stays', async () => {
    await aShelf();
    const real = fs.fsyncSync;
    jest.spyOn(fs, 'fsyncSync').mockImplementation((handle) => {
      writeSync(handle, Buffer.from([0x5a]), 0, 1, 1500);
      real(handle);
    });
    const file = path.join(elsewhere, 'flipped.tar.gz');
    expect(await backup(file)).toMatchObject({ ok: false, code: 'unproven' });
    expect(readdirSync(elsewhere)).toEqual([]);
    jest.restoreAllMocks();
    expect((await backup(file)).ok).toBe(true);
  });

  test('whole dryings stay out unless they are asked for; what they found comes back, so that no date moves', async () => {
    const { id } = await aShelf();
    const findings = JSON.stringify({ key: 'k1', regions: [], last: null, worst: null });
    const packed = Buffer.concat([Buffer.from([0x1f, 0x8b]), randomBytes(400_000)]);
    const head = Buffer.alloc(4);
    head.writeUInt32BE(0);
    head.writeUInt32LE(findings.length);
    expect(await keepDrying(id, 'k1', 1, Buffer.concat([head, Buffer.from(findings), packed]))).toMatchObject({
      ok: true,
    });
    const [small, large] = [path.join(elsewhere, 's.gz'), path.join(elsewhere, 'l.gz')];
    const [without, withAll] = [await backup(small), await backup(large, true)];
    if (!without.ok || !withAll.ok) throw new Error('no backup');
    expect(without.value.bytes).toBeLessThan(50_000);
    expect(withAll.value.bytes).toBeGreaterThan(300_000);
    expect(without.value.content).toBe(withAll.value.content);
    expect((await restore(small)).ok).toBe(true);
    expect(await lastFullFindings(id)).toMatchObject({ key: 'k1' });
    expect(await keptDrying(id, 'k1')).toBeNull();
    expect((await restore(large)).ok).toBe(true);
    expect((await keptDrying(id, 'k1'))?.length).toBe(packed.length);
  });
});

describe('a backup comes back when it matters', () => {
  const garbage = Buffer.from('This was a database once. '.repeat(400));

  test.each([
    ['is garbage', () => ruin(garbage)],
    [
      'was written by a later version',
      async () => {
        const later = await openDatabase(databaseIn(folder));
        await sql`insert into kysely_migration (name, timestamp) values ('999-later', '2027')`.execute(later);
        await sql`pragma wal_checkpoint(truncate)`.execute(later);
        await later.destroy();
      },
    ],
    [
      'is damaged in the middle',
      async () => {
        const whole = path.join(elsewhere, 'whole.db');
        await snapshotTo(await database(), whole);
        await closeDatabase();
        const bytes = readFileSync(whole);
        bytes.fill(0x37, 8192, bytes.length - 4096);
        ruin(bytes);
      },
    ],
  ])('where what is there %s, it is set aside as it is', async (_, spoil) => {
    const { id } = await aShelf();
    const file = await backupOf();
    await closeDatabase();
    await spoil();
    const spoilt = readFileSync(databaseIn(folder));
    const back = await restore(file);
    if (!back.ok) throw new Error(back.message);
    expect(await readLog(id)).toHaveLength(3);
    expect(readFileSync(databaseIn(back.value.before)).equals(spoilt)).toBe(true);
    expect(readdirSync(path.join(back.value.before, 'pictures'))).toHaveLength(2);
  });

  test('a page opened before one that was put in so overwrites nothing', async () => {
    const { id } = await aShelf();
    const file = await backupOf();
    const opened = await openBuild(id);
    if (!opened.ok) throw new Error(opened.message);
    await closeDatabase();
    ruin(garbage);
    expect((await restore(file)).ok).toBe(true);
    const { revision, generation } = opened.value;
    const late = { ...newBust('Kept', '2026-12-01'), name: 'Stale' };
    expect(
      await saveBuild(id, { revision, generation, document: late, history: null, label: 'late', aside: false }),
    ).toMatchObject({ ok: true, value: { saved: false } });
    expect((await openBuild(id)) as { value: { build: { name: string } } }).toMatchObject({
      value: { build: { name: 'Kept' } },
    });
  });

  test('a lost picture in what is there keeps nothing from being put back, and what was there can be had again', async () => {
    const { id } = await aShelf();
    const file = await backupOf();
    await addToLog(id, entry('note', { text: 'afterwards' }));
    rmSync(fileOf(0));
    const back = await restore(file);
    if (!back.ok) throw new Error(back.message);
    // It came back with the backup.
    expect(back.value.lost).toEqual([]);
    expect(readdirSync(path.join(folder, 'pictures'))).toHaveLength(2);
    expect(await readLog(id)).toHaveLength(3);
    expect(await restore(back.value.before)).toMatchObject({ ok: true, value: { entries: 4 } });
    expect((await readLog(id)).at(-1)).toMatchObject({ data: { text: 'afterwards' } });
    expect(await restore(folder)).toMatchObject({ ok: false, code: 'same' });
  });

  test('while one is put back nothing is taken, and two do not go on at once', async () => {
    const { id } = await aShelf();
    const file = await backupOf();
    const going = beginRestore();
    expect(await notWriting()).toMatchObject({ code: 'busy' });
    expect(await restore(file)).toMatchObject({ ok: false, code: 'busy' });
    expect(beginRestore()).toBeNull();
    going?.end();
    expect(readdirSync(folder).filter((n) => n.startsWith('restore-under-way'))).toEqual([]);
    expect(await notWriting()).toBeNull();
    // A process that died in one keeps nobody from the next.
    writeFileSync(path.join(folder, 'restore-under-way'), '999999999');
    expect(await notWriting()).toBeNull();
    expect((await restore(file)).ok).toBe(true);
    expect(await readLog(id)).toHaveLength(3);
    // Its lock is held from before the snapshot of what is there: somebody who writes all the same is not heard.
    let turned = '';
    const real = fs.existsSync;
    const seen = jest.spyOn(fs, 'existsSync').mockImplementation((name) => {
      if (String(name) === databaseIn(folder) && /db.backup/.test(new Error().stack ?? '') && turned === '') {
        turned = 'trying';
        const other = openAsItIs(databaseIn(folder));
        void sql`pragma busy_timeout = 0`
          .execute(other)
          .then(() => sql`update builds set name = 'Between'`.execute(other))
          .then(
            () => (turned = 'written'),
            (error: Error) => (turned = error.message),
          );
      }
      return real(name);
    });
    expect((await restore(file)).ok).toBe(true);
    seen.mockRestore();
    expect(turned).toMatch(/locked/);
  });
});

test('another database in the place of the one that is open is the one that is written to from then on', async () => {
  const { id } = await aShelf();
  const file = await backupOf();
  await addToLog(id, entry('note', { text: 'in the first' }));
  expect(await readLog(id)).toHaveLength(4);
  // As another process does it whose database was no good.
  const other = path.join(elsewhere, 'other');
  mkdirSync(other);
  process.env['SOSTEGNO_DATA'] = other;
  const held = globalThis as unknown as { sostegnoOpen?: unknown };
  const mine = held.sostegnoOpen;
  delete held.sostegnoOpen;
  expect((await restore(file)).ok).toBe(true);
  const fresh = path.join(elsewhere, 'fresh.db');
  await snapshotTo(await database(), fresh);
  await closeDatabase();
  held.sostegnoOpen = mine;
  process.env['SOSTEGNO_DATA'] = folder;
  expect(await readLog(id)).toHaveLength(4);
  for (const end of ['-wal', '-shm']) rmSync(databaseIn(folder) + end, { force: true });
  renameSync(fresh, databaseIn(folder));
  expect(await readLog(id)).toHaveLength(3);
  expect(await addToLog(id, entry('note', { text: 'in the second' }))).toMatchObject({ ok: true });
  const asItIs = openAsItIs(databaseIn(folder));
  expect((await sql<{ n: number }>`select count(*) as n from log_entries`.execute(asItIs)).rows[0]?.n).toBe(4);
  await asItIs.destroy();
});

test('a build that is brought in half is not brought in', async () => {
  const { id } = await aShelf();
  const packed = await packBuild(id);
  if (!packed.ok) throw new Error(packed.message);
  const unpacked = path.join(elsewhere, 'parts');
  mkdirSync(unpacked);
  const whole = path.join(elsewhere, 'whole.tar.gz');
  writeFileSync(whole, packed.value.bytes);
  expect((await readArchive(whole, unpacked, 'build')).ok).toBe(true);
  const log = JSON.parse(readFileSync(path.join(unpacked, 'log.json'), 'utf8')) as { kind: string; data: object }[];
  log.push({ ...log[2]!, data: { gross: 'much' }, ...{ id: randomUUID() } });
  const spoilt = path.join(elsewhere, 'spoilt.tar.gz');
  const pictures = readdirSync(path.join(unpacked, 'pictures'));
  await writeArchive(
    spoilt,
    'build',
    '',
    [
      { name: 'build.json', from: path.join(unpacked, 'build.json') },
      { name: 'log.json', from: Buffer.from(JSON.stringify(log)) },
      ...pictures.map((p) => ({ name: `pictures/${p}`, from: path.join(unpacked, 'pictures', p) })),
    ],
    'now',
  );
  expect(await unpackBuild(spoilt)).toMatchObject({ ok: false, path: expect.stringMatching(/^log.json/) });
  expect(await shelf()).toHaveLength(1);
  expect(await unpackBuild(whole)).toMatchObject({ ok: true });
  expect(await shelf()).toHaveLength(2);
});

describe('a full disk, and a folder that can only be read', () => {
  const full = (free: number) =>
    jest.spyOn(fs, 'statfsSync').mockReturnValue({ bavail: free / 4096, bsize: 4096 } as unknown as fs.StatsFs);

  test('a backup says what is full and how much is wanted; nothing of it stays', async () => {
    await aShelf();
    full(1e6);
    expect(await backup(path.join(elsewhere, 'b.tar.gz'))).toMatchObject({
      ok: false,
      code: 'disk-full',
      message: expect.stringMatching(/^the disk is full: \d+ MB are wanted there and 1 MB are free/),
    });
    expect(readdirSync(elsewhere)).toEqual([]);
  });

  test('pictures wait, entries of the log still go in', async () => {
    const { id } = await aShelf();
    full(5e6);
    expect(await addPhoto(id, randomUUID(), await picture(50))).toMatchObject({ ok: false, code: 'disk-full' });
    expect(await addToLog(id, entry('note', { text: 'still here' }))).toMatchObject({ ok: true });
    expect(await restore(path.join(__dirname, '..', 'fixtures', 'backups', '005.tar.gz'))).toMatchObject({
      ok: false,
      code: 'disk-full',
    });
    expect(await readLog(id)).toHaveLength(4);
  });

  test('a good backup is never called damaged for want of room', async () => {
    const file = path.join(__dirname, '..', 'fixtures', 'backups', '005.tar.gz');
    symlinkSync('/dev/full', path.join(elsewhere, 'sostegno.db'));
    expect(await readArchive(file, elsewhere, 'backup')).toMatchObject({ ok: false, code: 'disk-full' });
  });

  test.each([
    ['ENOSPC', 'disk-full', /disk is full/],
    ['SQLITE_FULL', 'disk-full', /disk is full/],
    ['EROFS', 'read-only', /cannot be written/],
    ['SQLITE_READONLY', 'read-only', /cannot be written/],
    ['SQLITE_CORRUPT', 'damaged', /which backup to take/],
    ['SQLITE_BUSY', 'busy', /try again/],
  ])('%s is told as a sentence', (code, kind, says) => {
    const told = diskFailure(Object.assign(new Error('x'), { code }), '/somewhere');
    expect(told).toMatchObject({ code: kind, path: '/somewhere', message: expect.stringMatching(says) });
    expect(diskFailure(new Error('a mistake of ours'), '/somewhere')).toBeNull();
  });

  test('what processes that died had begun is cleared at the next start, what is being done is not', async () => {
    await aShelf();
    await closeDatabase();
    const dead = workName('backup').replace(String(process.pid), '999999999');
    for (const where of [folder, elsewhere]) mkdirSync(path.join(where, `${dead}x`));
    writeFileSync(path.join(folder, `${dead}x.note`), path.join(elsewhere, `${dead}x`));
    writeFileSync(path.join(folder, 'pictures', 'abc.jpg.part'), 'half');
    writeFileSync(path.join(folder, 'pictures', `${dead}y`), 'half');
    mkdirSync(path.join(folder, `restore-${randomUUID()}`));
    const going = workFolder(elsewhere, 'backup', folder);
    // A note that points at something that is no work of ours removes nothing.
    const dear = path.join(elsewhere, 'dear');
    mkdirSync(dear);
    writeFileSync(path.join(folder, `${dead}z.note`), dear);
    clearLeftovers(folder);
    expect(readdirSync(elsewhere).sort()).toEqual(['dear', path.basename(going.folder)]);
    expect(readdirSync(path.join(folder, 'pictures'))).toHaveLength(2);
    going.end();
    expect(readdirSync(folder).filter((n) => !n.startsWith('sostegno.db'))).toEqual(['pictures']);
  });

  test('opens for reading, says so, and leaves the folder as it is', async () => {
    const { id } = await aShelf();
    await closeDatabase();
    const before = readFileSync(databaseIn(folder));
    const real = fs.accessSync;
    jest.spyOn(fs, 'accessSync').mockImplementation((name, mode) => {
      if (String(name).startsWith(folder) && mode === fs.constants.W_OK)
        throw Object.assign(new Error('read-only file system'), { code: 'EROFS' });
      real(name, mode);
    });
    expect(await notWriting()).toMatchObject({
      code: 'read-only',
      path: folder,
      message: expect.stringMatching(/nothing can be saved/),
    });
    expect((await openBuild(id)).ok).toBe(true);
    expect(await readLog(id)).toHaveLength(3);
    expect((await shelf()).map((p) => p.name)).toEqual(['Kept']);
    await closeDatabase();
    expect(readFileSync(databaseIn(folder)).equals(before)).toBe(true);
  });
});

describe('one thing that is broken keeps nothing else from working', () => {
  const spoil = async (text: ReturnType<typeof sql>) => {
    await text.execute(await database());
  };

  test('a document: it says so, and its last good version can be taken back', async () => {
    const { id } = await aShelf();
    const other = await addBuild(newBust('Whole', '2026-12-01'), 'test');
    await saveBuild(id, { revision: 1, document: newBust('Kept', '2026-12-01', 0.5), history: null, label: 'size' });
    await spoil(sql`update builds set document = '{"broken' where id = ${id}`);
    await spoil(sql`update revisions set document = '' where build_id = ${id} and revision = 2`);
    expect((await shelf()).map((p) => p.name).sort()).toEqual(['Kept', 'Whole']);
    expect(await openBuild(id)).toMatchObject({ ok: false });
    expect((await openBuild(other.id)).ok).toBe(true);
    expect(await markBuild(other.id, 'take-back')).toMatchObject({ ok: false, code: 'readable' });
    expect(await markBuild(id, 'take-back')).toMatchObject({ ok: true });
    expect(await openBuild(id)).toMatchObject({
      ok: true,
      value: { revision: 3, build: { form: { start: { size: 1 } } } },
    });
    expect(await readLog(id)).toHaveLength(3);
  });

  test('a card, and steps to take back', async () => {
    const { id } = await aShelf();
    await spoil(sql`update builds set card = '{"half', history = 'not json' where id = ${id}`);
    expect((await shelf())[0]).toMatchObject({ name: 'Kept', fresh: false });
    expect(await openBuild(id)).toMatchObject({ ok: true, value: { history: { past: [], future: [] } } });
    // One that an earlier version kept had no picture yet.
    await spoil(sql`update builds set card = '{"problem":"of old"}' where id = ${id}`);
    expect((await shelf())[0]?.card).toMatchObject({ problem: 'of old', picture: null, verdicts: {} });
  });

  test('an entry of the log stands as a note that says so, at its hour, and goes out and in again', async () => {
    const { id } = await aShelf();
    await spoil(sql`drop trigger log_is_kept`);
    await spoil(sql`update log_entries set data = '{"gross":' where kind = 'weigh-in'`);
    const log = await readLog(id);
    expect(log).toHaveLength(3);
    expect(log[2]).toMatchObject({ kind: 'note', at: '2026-12-01T18:00:00.000Z' });
    expect((log[2]?.data as { text: string }).text).toMatch(/cannot be read.*kept as it is, under /);
    const packed = await packBuild(id);
    if (!packed.ok) throw new Error(packed.message);
    const file = path.join(elsewhere, 'b.tar.gz');
    writeFileSync(file, packed.value.bytes);
    expect(await unpackBuild(file)).toMatchObject({ ok: true, value: { entries: 3 } });
  });

  test('settings: the usual stands, what was kept is set aside and told', async () => {
    await aShelf();
    await writeSettings({ units: 'imperial', theme: 'day', motion: true });
    await spoil(sql`update settings set value = '{{' where key = 'ways'`);
    await spoil(sql`insert into settings (key, value) values ('workshop', '[')`);
    const said = jest.spyOn(process.stderr, 'write').mockReturnValue(true);
    expect(await readSettings()).toMatchObject({ units: 'metric' });
    expect((await readWorkshop()).people).toEqual([]);
    expect(said).toHaveBeenCalledTimes(2);
    expect((await setAsideSettings()).map((s) => s.name).sort()).toEqual(['Units and colours', 'Who works when']);
    await writeSettings({ units: 'imperial', theme: 'day', motion: true });
    expect(await readSettings()).toMatchObject({ units: 'imperial' });
    // What is set again is nobody's worry any more.
    expect((await setAsideSettings()).map((s) => s.name)).toEqual(['Who works when']);
  });

  test('a database that is none any more says which backup to take', async () => {
    await aShelf();
    const [old, newest] = [await backupOf(), await backupOf()];
    await closeDatabase();
    ruin(Buffer.from('garbage '.repeat(2000)));
    const sentence = () =>
      database().then(
        () => '',
        (error: Unusable) => error.message,
      );
    expect(await sentence()).toMatch(new RegExp(`is damaged .*restore ${newest} puts it in`));
    rmSync(newest);
    expect(await sentence()).toContain(`restore ${old} puts it in`);
    rmSync(old);
    expect(await sentence()).toMatch(/No backup made here is to be found/);
    expect(existsSync(databaseIn(folder))).toBe(true);
  });

  test('demo data is loaded whole or not at all', async () => {
    await database();
    const real = fs.openSync;
    jest.spyOn(fs, 'openSync').mockImplementation((name, ...rest) => {
      if (String(name).includes('picture')) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
      return real(name, ...rest);
    });
    await expect(loadDemo(1_795_000_000)).rejects.toThrow('full');
    expect(await shelf()).toEqual([]);
    jest.restoreAllMocks();
    expect(await loadDemo(1_795_000_000)).toBe(true);
    const once = (await shelf()).length;
    expect(once).toBeGreaterThan(5);
    expect(await loadDemo(1_795_000_000)).toBe(false);
    expect(await shelf()).toHaveLength(once);
  }, 60_000);
});

test('stock is told from what is kept: what one piece needs is worked out once a save, and again by another reckoning', async () => {
  const { id } = await aShelf();
  const first = await stockReport({ wait: false });
  expect(first).toMatchObject({ lines: [], waiting: 1 });
  const whole = await stockReport();
  expect(whole.waiting).toBe(0);
  expect(whole.lines.length).toBeGreaterThan(2);
  // From now on without looking at the document.
  await sql`update builds set document = '{"broken' where id = ${id}`.execute(await database());
  expect(await stockReport({ wait: false })).toEqual(whole);
  await sql`update builds set needs_of = 'another reckoning'`.execute(await database());
  expect(await stockReport({ wait: false })).toMatchObject({ waiting: 1 });
  expect((await stockReport()).costs).toEqual([]);
});

describe('the log is in the order in which it was written', () => {
  test('a correction at an earlier hour, and a clock that jumped: out and in again they read the same', async () => {
    const { id } = await addBuild(newBust('Jumped', '2026-12-01'), 'test');
    const first = entry('weigh-in', { gross: 7, tare: 1 }, { at: '2026-12-03T10:00:00.000Z' });
    const right = entry(
      'weigh-in',
      { gross: 6, tare: 1 },
      { at: '2026-12-01T10:00:00.000Z', corrects: first.id, ownTime: true },
    );
    const clock = entry('clock', { name: 'kettle', seconds: 60 }, { at: '2031-01-01T00:00:00.000Z' });
    const stop = entry('clock-stop', { clock: clock.id }, { at: '2026-12-03T11:00:00.000Z' });
    for (const e of [first, right, clock, stop]) expect(await addToLog(id, e)).toMatchObject({ ok: true });
    expect((await readLog(id)).map((e) => e.id)).toEqual([first.id, right.id, clock.id, stop.id]);
    const packed = await packBuild(id);
    if (!packed.ok) throw new Error(packed.message);
    const file = path.join(elsewhere, 'jumped.tar.gz');
    writeFileSync(file, packed.value.bytes);
    const back = await unpackBuild(file);
    if (!back.ok) throw new Error(back.message);
    const read = await readLog(back.value.id);
    expect(read.map((e) => [e.kind, e.at])).toEqual((await readLog(id)).map((e) => [e.kind, e.at]));
    expect(read[1]?.corrects).toBe(read[0]?.id);
  });

  test('an id stands for one thing: sent twice it is taken once, with other content or in another log it is refused', async () => {
    const { id } = await aShelf();
    const { id: other } = await aShelf('Other');
    const e = entry('weigh-in', { gross: 7, tare: 1 });
    expect(await addToLog(id, e)).toMatchObject({ ok: true });
    expect(await addToLog(id, e)).toMatchObject({ ok: true, value: { data: { gross: 7 } } });
    expect(await addToLog(id, { ...e, data: { gross: 8, tare: 1 } })).toMatchObject({ ok: false, code: 'id-taken' });
    expect(await addToLog(id, { ...e, at: '2026-12-02T18:00:00.000Z' })).toMatchObject({ code: 'id-taken' });
    expect(await addToLog(other, e)).toMatchObject({ code: 'id-taken', message: expect.stringMatching(/another log/) });
    expect(await readLog(id)).toHaveLength(4);
    const move = {
      id: randomUUID(),
      item: 'clay/paper-clay',
      kind: 'bought',
      amount: 1,
      price: null,
      buildId: null,
      note: '',
      at: '2026-12-01T18:00:00.000Z',
    };
    expect(await moveStock(move)).toMatchObject({ ok: true });
    expect(await moveStock(move)).toMatchObject({ ok: true });
    expect(await moveStock({ ...move, amount: 2 })).toMatchObject({ code: 'id-taken' });
    const save = {
      revision: 1,
      saveId: randomUUID(),
      document: newBust('Kept', '2026-12-01', 0.5),
      history: null,
      label: 's',
    };
    expect(await saveBuild(id, save)).toMatchObject({ ok: true, value: { saved: true, revision: 2 } });
    expect(await saveBuild(id, save)).toMatchObject({ ok: true, value: { saved: true, revision: 2 } });
    expect(await saveBuild(id, { ...save, document: newBust('Kept', '2026-12-01', 0.6) })).toMatchObject({
      code: 'id-taken',
    });
  });
});
