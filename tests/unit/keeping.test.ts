import { randomUUID } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { sql } from 'kysely';
import sharp from 'sharp';
import tar from 'tar-stream';
import { newBust } from '../../src/core/document';
import { pictureOf } from '../../src/core/log';
import { contentHash, openDatabase } from '../../src/db';
import {
  addBuild,
  addPhoto,
  addToLog,
  backup,
  closeDatabase,
  database,
  drawAnew,
  moveWholePhotosOut,
  openBuild,
  packBuild,
  pictureType,
  readLog,
  readPhoto,
  restore,
  saveBuild,
  shelf,
  stockReport,
  unpackBuild,
  writeSettings,
} from '../../src/server';

let folder: string, elsewhere: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'sostegno-keep-'));
  elsewhere = mkdtempSync(path.join(tmpdir(), 'sostegno-away-'));
  process.env['SOSTEGNO_DATA'] = folder;
});
afterEach(async () => {
  await closeDatabase();
  for (const f of [folder, elsewhere]) rmSync(f, { recursive: true, force: true });
});

const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#a08060' } });
const entry = (kind: string, data: unknown, at = '2026-12-01T18:00:00.000Z', corrects: string | null = null) => ({
  id: randomUUID() as string,
  kind,
  at,
  data,
  corrects,
});

describe('pictures', () => {
  test('no place, camera or time stays in what is kept; it stands the way it was held', async () => {
    const taken = await picture(640, 480)
      .withExif({
        IFD0: { Make: 'A camera', DateTime: '2026:11:20 10:00:00' },
        IFD3: {
          GPSLatitudeRef: 'N',
          GPSLatitude: '45/1 26/1 0/1',
          GPSLongitudeRef: 'E',
          GPSLongitude: '12/1 20/1 0/1',
        },
      })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect(taken.includes('Exif')).toBe(true);
    const drawn = await drawAnew(taken);
    if (!drawn.ok) throw new Error(drawn.message);
    const meta = await sharp(drawn.value.bytes).metadata();
    expect(meta.exif ?? meta.xmp ?? meta.iptc).toBeUndefined();
    for (const word of ['Exif', 'GPS', 'A camera', '2026:11']) expect(drawn.value.bytes.includes(word)).toBe(false);
    expect([drawn.value.width, drawn.value.height]).toEqual([480, 640]);
  });

  test('60 MB, 30 000 wide, one point: taken, and made small', async () => {
    const side = 4480;
    const heavy = await sharp(
      Buffer.from(Uint8Array.from({ length: side * side * 3 }, (_, i) => (i * 2654435761) >>> 24)),
      { raw: { width: side, height: side, channels: 3 } },
    )
      .png({ compressionLevel: 0 })
      .toBuffer();
    expect(heavy.length).toBeGreaterThan(60e6);
    const small = await drawAnew(heavy);
    expect(small.ok && [small.value.width, small.value.height]).toEqual([2000, 2000]);
    expect(small.ok && small.value.bytes.length).toBeLessThan(8e6);
    const wide = await drawAnew(await picture(30_000, 300).jpeg().toBuffer());
    expect(wide.ok && [wide.value.width, wide.value.height]).toEqual([2000, 20]);
    const point = await drawAnew(await picture(1, 1).png().toBuffer());
    expect(point.ok && [point.value.width, point.value.height]).toEqual([1, 1]);
  }, 60_000);

  test('what is damaged, renamed or no picture is refused in a sentence', async () => {
    const whole = await picture(900, 700).jpeg({ quality: 100 }).toBuffer();
    expect(await drawAnew(whole.subarray(0, Math.floor(whole.length / 2)))).toMatchObject({
      ok: false,
      code: 'not-a-picture',
      message: expect.stringMatching(/damaged or cut short/),
    });
    const heic = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic'), Buffer.alloc(400, 7)]);
    expect(pictureType(heic)).toBe('heic');
    expect(await drawAnew(heic)).toMatchObject({
      ok: false,
      message: expect.stringMatching(/HEIC picture, whatever its name/),
    });
    expect(await drawAnew(Buffer.from('<svg onload="alert(1)"></svg>'))).toMatchObject({
      ok: false,
      message: expect.stringMatching(/only JPEG, PNG and WebP/),
    });
    expect(await drawAnew(Buffer.alloc(0))).toMatchObject({ ok: false, message: 'the file is empty' });
    // A small file that says it is a huge picture is not unpacked.
    const bomb = Buffer.from(await picture(1, 1).png().toBuffer());
    bomb.writeUInt32BE(60_000, 16);
    bomb.writeUInt32BE(60_000, 20);
    expect((await drawAnew(bomb)).ok).toBe(false);
  });

  test('files stand beside the database; the same again changes nothing, another under its id is refused; those kept whole before are moved out', async () => {
    const { id } = await addBuild(newBust('Seen', '2026-12-01'), 'test');
    const photoId = randomUUID();
    expect(await addPhoto(id, photoId, await picture(30, 20).png().toBuffer())).toMatchObject({ ok: true });
    expect(await addPhoto(id, photoId, await picture(30, 20).png().toBuffer())).toMatchObject({ ok: true });
    expect(await addPhoto(id, photoId, await picture(31, 20).png().toBuffer())).toMatchObject({ code: 'id-taken' });
    const { id: elsewhereId } = await addBuild(newBust('Not this one', '2026-12-01'), 'test');
    expect(await addPhoto(elsewhereId, photoId, await picture(30, 20).png().toBuffer())).toMatchObject({
      code: 'id-taken',
      message: expect.stringMatching(/a picture of another log/),
    });
    expect((await sharp((await readPhoto(id, photoId))?.bytes).metadata()).width).toBe(30);
    const old = randomUUID(),
      broken = randomUUID();
    const store = await database();
    for (const [photo, bytes] of [
      [old, await picture(12, 9).jpeg().toBuffer()],
      [broken, Buffer.from([0xff, 0xd8, 0xff, 0, 1])],
    ] as const)
      await store.insertInto('photos').values({ id: photo, build_id: id, mime: 'image/jpeg', bytes }).execute();
    expect(await moveWholePhotosOut(store)).toBe(2);
    expect((await sharp((await readPhoto(id, old))?.bytes).metadata()).width).toBe(12);
    expect(await readPhoto(id, broken)).toBeUndefined();
    expect(readdirSync(path.join(folder, 'pictures')).every((n) => /^[0-9a-f]{64}\.jpg$/.test(n))).toBe(true);
  });
});

async function aShelf(): Promise<string> {
  const { id } = await addBuild(newBust('Kept', '2026-12-01'), 'test');
  const photoId = randomUUID();
  await addPhoto(id, photoId, await picture(64, 48).jpeg().toBuffer());
  const weighed = entry('weigh-in', { gross: 7.2, tare: 1 });
  await addToLog(id, weighed);
  await addToLog(id, entry('photo', { photoId, caption: 'the first evening' }, '2026-12-01T19:00:00.000Z'));
  await addToLog(id, entry('weigh-in', { gross: 6.2, tare: 1 }, '2026-12-02T18:00:00.000Z', weighed.id));
  await writeSettings({ units: 'imperial', theme: 'evening', motion: false });
  return id;
}

describe('backup', () => {
  test('made while others write, it comes back with the same content hash, pictures too; what was there is kept', async () => {
    const id = await aShelf();
    let going = true,
      written = 0;
    const load = (async () => {
      while (going) {
        await addToLog(id, entry('note', { text: `note ${written++}` }));
        await addPhoto(
          id,
          randomUUID(),
          await picture(20 + (written % 50), 20)
            .png()
            .toBuffer(),
        );
      }
    })();
    while (written < 5) await new Promise((r) => setTimeout(r, 10));
    // Until something was written while one was made, however busy the machine.
    let begun: number, file: string, made: Awaited<ReturnType<typeof backup>>;
    let tries = 0;
    do {
      begun = written;
      file = path.join(elsewhere, `all-${tries}.tar.gz`);
      made = await backup(file);
    } while (written === begun && ++tries < 20);
    going = false;
    await load;
    if (!made.ok) throw new Error(made.message);
    expect(written).toBeGreaterThan(begun);
    expect(made.value.entries).toBeGreaterThan(3);
    await closeDatabase();
    process.env['SOSTEGNO_DATA'] = path.join(elsewhere, 'new');
    const back = await restore(file);
    if (!back.ok) throw new Error(back.message);
    expect(back.value).toMatchObject({
      content: made.value.content,
      entries: made.value.entries,
      pictures: made.value.pictures,
      builds: 1,
    });
    expect(await contentHash(await database())).toBe(made.value.content);
    expect(existsSync(back.value.before)).toBe(true);
    const log = await readLog(id);
    for (const e of log.filter((x) => x.kind === 'photo'))
      expect(await readPhoto(id, String(e.data['photoId']))).toBeDefined();
    expect((await openBuild(id)).ok).toBe(true);
  }, 60_000);

  test('restoring puts everything back that has changed since, also under an open connection', async () => {
    const id = await aShelf();
    const before = await contentHash(await database());
    const file = path.join(elsewhere, 'b.tar.gz');
    expect(await backup(file)).toMatchObject({ ok: true, value: { content: before } });
    const other = await openDatabase(path.join(folder, 'sostegno.db'));
    await addToLog(id, entry('note', { text: 'afterwards' }));
    await addBuild(newBust('Later', '2026-12-01'), 'test');
    expect(await contentHash(await database())).not.toBe(before);
    const back = await restore(file);
    expect(back).toMatchObject({ ok: true, value: { content: before } });
    expect(await contentHash(other)).toBe(before);
    await other.destroy();
    expect((await shelf()).map((b) => b.name)).toEqual(['Kept']);
    // What was thrown out can be had again.
    if (back.ok) expect(await restore(back.value.before)).toMatchObject({ ok: true, value: { builds: 2 } });
  }, 60_000);

  test('what was reckoned before a restore is not told after it, though the revision is the same', async () => {
    const { id } = await addBuild(newBust('Two lives', '2026-12-01', 0.3), 'test');
    const size = async (share: number, revision: number) => {
      const build = newBust('Two lives', '2026-12-01', share);
      expect(await saveBuild(id, { revision, document: build, history: null, label: 'size' })).toMatchObject({
        ok: true,
        value: { saved: true },
      });
    };
    const clay = async () =>
      (await stockReport()).lines.find((l) => l.item === 'clay/paper-clay')?.reserved[0]?.amount ?? NaN;
    const [first, second] = [path.join(elsewhere, '1.gz'), path.join(elsewhere, '2.gz')];
    await backup(first);
    await size(0.6, 1);
    const large = await clay();
    await backup(second);
    expect((await restore(first)).ok).toBe(true);
    await size(0.2, 1);
    expect(await clay()).toBeLessThan(large / 4);
    expect((await restore(second)).ok).toBe(true);
    expect(await clay()).toBeCloseTo(large, 9);
  }, 60_000);

  test('a torn or altered backup is refused, and nothing is changed', async () => {
    await aShelf();
    const whole = path.join(elsewhere, 'whole.tar.gz');
    await backup(whole);
    const now = await contentHash(await database());
    const bytes = readFileSync(whole);
    for (const share of [0, 0.1, 0.5, 0.9, 0.999]) {
      const torn = path.join(elsewhere, `torn-${share}.tar.gz`);
      cpSync(whole, torn);
      truncateSync(torn, Math.floor(bytes.length * share));
      expect({ share, ...(await restore(torn)) }).toMatchObject({ ok: false, code: 'torn' });
    }
    for (let i = 0; i < 12; i++) {
      const bad = Buffer.from(bytes);
      const at = 20 + Math.floor(((bytes.length - 40) * i) / 12);
      bad[at] = bad[at]! ^ 0x55;
      const file = path.join(elsewhere, `bad-${i}.tar.gz`);
      writeFileSync(file, bad);
      expect({ at, ok: (await restore(file)).ok }).toEqual({ at, ok: false });
    }
    expect(await restore(path.join(elsewhere, 'nothing'))).toMatchObject({
      ok: false,
      message: 'there is no such file',
    });
    expect(await contentHash(await database())).toBe(now);
    expect(readdirSync(folder).filter((n) => /restore-under-way|work/.test(n))).toEqual([]);
    expect(await backup(whole)).toMatchObject({ ok: false, code: 'exists' });
    expect(await backup(path.join(elsewhere, 'no', 'such', 'folder.gz'))).toMatchObject({
      ok: false,
      code: 'unwritable',
    });
  }, 60_000);

  test('an archive that goes on after its list, or holds what is not ours, is refused', async () => {
    await aShelf();
    const pack = async (entries: readonly (readonly [string, string])[]) => {
      const made = tar.pack();
      for (const [name, text] of entries) made.entry({ name }, text);
      made.finalize();
      const parts: Buffer[] = [];
      for await (const chunk of made) parts.push(chunk as Buffer);
      const file = path.join(elsewhere, `${randomUUID()}.tar.gz`);
      writeFileSync(file, gzipSync(Buffer.concat(parts)));
      return file;
    };
    const list = JSON.stringify({ sostegno: 1, what: 'backup', made: '', content: '', files: [] });
    expect(
      await restore(
        await pack([
          ['list.json', list],
          ['sostegno.db', 'x'],
        ]),
      ),
    ).toMatchObject({ ok: false, message: 'it goes on after its list' });
    for (const name of ['../../etc/passwd', '/etc/passwd', 'pictures/a.jpg', 'sostegno.db/x'])
      expect(
        await restore(
          await pack([
            [name, 'x'],
            ['list.json', list],
          ]),
        ),
      ).toMatchObject({ ok: false, code: 'not-ours' });
    expect(await restore(await pack([['list.json', '{"sostegno":2}']]))).toMatchObject({ ok: false, code: 'torn' });
    expect(existsSync(path.join(elsewhere, 'etc'))).toBe(false);
  });

  test('a database that acts by itself is not taken', async () => {
    await aShelf();
    const store = await database();
    await sql`create trigger sly after insert on log_entries begin delete from builds; end`.execute(store);
    const file = path.join(elsewhere, 'sly.tar.gz');
    await backup(file);
    await sql`drop trigger sly`.execute(store);
    expect(await restore(file)).toMatchObject({ ok: false, code: 'not-ours', message: expect.stringMatching(/sly/) });
  });
});

describe('a whole build as one file', () => {
  test('log, corrections and pictures come along, under ids of their own', async () => {
    const id = await aShelf();
    const photoId = randomUUID();
    await addPhoto(id, photoId, await picture(32, 24).jpeg().toBuffer());
    await addToLog(id, entry('pull', { number: 1, detail: 'sharp', faults: '', photoId }));
    const packed = await packBuild(id);
    if (!packed.ok) throw new Error(packed.message);
    expect(packed.value.name).toBe('kept.sostegno.tar.gz');
    const file = path.join(elsewhere, packed.value.name);
    writeFileSync(file, packed.value.bytes);
    const brought = await unpackBuild(file);
    if (!brought.ok) throw new Error(`${brought.path} ${brought.message}`);
    const [a, b] = [await readLog(id), await readLog(brought.value.id)];
    expect(b.map((e) => [e.kind, e.at, e.corrects === null])).toEqual(
      a.map((e) => [e.kind, e.at, e.corrects === null]),
    );
    expect(b.some((e) => a.some((x) => x.id === e.id))).toBe(false);
    const fix = b.find((e) => e.corrects !== null);
    expect(b.some((e) => e.id === fix?.corrects)).toBe(true);
    const photo = b.find((e) => e.kind === 'photo');
    expect(
      (await sharp((await readPhoto(brought.value.id, String(photo?.data['photoId'])))?.bytes).metadata()).width,
    ).toBe(64);
    const cast = pictureOf(b.find((e) => e.kind === 'pull')!);
    expect(cast).not.toBe(photoId);
    expect((await sharp((await readPhoto(brought.value.id, String(cast)))?.bytes).metadata()).width).toBe(32);
    const [x, y] = [await openBuild(id), await openBuild(brought.value.id)];
    expect(x.ok && y.ok && JSON.stringify(x.value.build) === JSON.stringify(y.value.build)).toBe(true);
  });

  test('a backup is no build, a build no backup; neither is a torn one', async () => {
    const id = await aShelf();
    const packed = await packBuild(id),
      all = path.join(elsewhere, 'all.gz'),
      one = path.join(elsewhere, 'one.gz');
    if (!packed.ok) throw new Error(packed.message);
    await backup(all);
    writeFileSync(one, packed.value.bytes);
    expect(await unpackBuild(all)).toMatchObject({ ok: false, code: 'wrong-kind' });
    expect(await restore(one)).toMatchObject({ ok: false, code: 'wrong-kind' });
    writeFileSync(one, packed.value.bytes.subarray(0, 400));
    expect(await unpackBuild(one)).toMatchObject({ ok: false, code: 'torn' });
    expect((await shelf()).length).toBe(1);
  });
});
