import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import sharp from 'sharp';
import { parseBuild } from '../../src/core/document';
import { readRoomRecord, readWhole } from '../../src/core/drying';
import { checkOutline, readMesh, reportOnMesh, writeMesh } from '../../src/core/form';
import { readLogFile } from '../../src/core/log';
import { readJson, seeded } from '../../src/core/quantity';
import { lamplighter } from '../../src/server/demo-builds';
import { drawAnew } from '../../src/server';
import { readArchive } from '../../src/server/archive';
import { ballMesh } from '../../tests/support/meshes';
import { gone, path, root, Tally, temporary } from './support';

/** Files changed at random, cut, doubled and spliced, over everything that reads one: an answer each time, and soon. */
type Reader = (bytes: Uint8Array) => unknown;
const longestMs = 2000;

export async function files(count: number): Promise<void> {
  const tally = new Tally();
  const work = temporary('files');
  const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
  const ball = [{ name: 'ball', ...ballMesh(0.1, 24) }];
  const mesh =
    (name: string): Reader =>
    (bytes) => {
      const read = readMesh(bytes, name);
      return read.ok ? reportOnMesh(read.value) : read;
    };
  const backups = path.join(root, 'tests/fixtures/backups');
  const archive = readFileSync(path.join(backups, readdirSync(backups)[0]!));
  const log = JSON.stringify([
    {
      id: '7b1f4a58-7c83-4b0e-8a0d-6b8d3e7b0001',
      kind: 'weigh-in',
      at: '2026-12-01T10:00:00Z',
      data: { gross: 7, tare: 1 },
      corrects: null,
    },
    {
      id: '7b1f4a58-7c83-4b0e-8a0d-6b8d3e7b0002',
      kind: 'note',
      at: '2026-12-02T10:00:00Z',
      data: { text: 'dry' },
      corrects: null,
    },
  ]);
  const readers: readonly (readonly [string, Uint8Array, Reader])[] = [
    ...(['stl', 'obj', 'ply', 'glb'] as const).map((f) => [f, writeMesh(f, ball), mesh(`a.${f}`)] as const),
    ['build', Buffer.from(JSON.stringify(lamplighter('2026-12-01', '2026-12-20'))), (b) => parseBuild(text(b))],
    [
      'log',
      Buffer.from(log),
      (b) => {
        const j = readJson(text(b));
        return j.ok ? readLogFile(j.value) : j;
      },
    ],
    [
      'hygrometer',
      Buffer.from(
        'time,temperature,humidity\n' +
          Array.from(
            { length: 48 },
            (_, i) => `2026-12-0${1 + (i > 23 ? 1 : 0)} ${String(i % 24).padStart(2, '0')}:00,19.${i % 10},55\n`,
          ).join(''),
      ),
      (b) =>
        readRoomRecord(
          text(b)
            .split('\n')
            .map((line, i) => ({ line: i + 1, fields: line.split(',') })),
        ),
    ],
    [
      'outline',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><!DOCTYPE x><path d="M0 0L9 9"/></svg>'),
      (b) => checkOutline(text(b)),
    ],
    [
      'picture',
      await sharp({ create: { width: 90, height: 60, channels: 3, background: '#a08060' } })
        .jpeg()
        .toBuffer(),
      drawAnew,
    ],
    ['drying', Buffer.from('{"version":1}\n0000'), readWhole],
    [
      'archive',
      archive,
      async (b) => {
        const file = path.join(work, 'a.tar.gz');
        writeFileSync(file, b);
        return readArchive(file, null, 'backup');
      },
    ],
  ];
  const random = seeded(20261129);
  const below = (n: number) => Math.floor(random() * n);
  const spoil = (whole: Uint8Array): Uint8Array => {
    let bytes = Uint8Array.from(whole);
    for (let n = 1 + below(6); n > 0; n--) {
      const at = below(bytes.length);
      switch (below(6)) {
        case 0:
          bytes[at] = below(256);
          break;
        case 1:
          bytes[at] = bytes[at]! ^ (1 << below(8));
          break;
        case 2:
          bytes = bytes.slice(0, Math.max(1, at));
          break;
        case 3: {
          const part = bytes.slice(at, at + 1 + below(64));
          bytes = Uint8Array.from([...bytes.slice(0, at), ...part, ...part, ...bytes.slice(at)]);
          break;
        }
        case 4:
          bytes = Uint8Array.from([...bytes.slice(0, at), ...bytes.slice(at + 1 + below(32))]);
          break;
        default:
          for (let k = 0; k < 4 && at + k < bytes.length; k++) bytes[at + k] = [0, 255, 127, 128][below(4)]!;
      }
      if (bytes.length === 0) bytes = new Uint8Array(1);
    }
    return bytes;
  };
  let slowest = 0;
  for (let i = 0; i < count; i++) {
    const [name, whole, read] = readers[i % readers.length]!;
    const began = performance.now();
    try {
      await read(spoil(whole));
    } catch (error) {
      tally.check(false, `${name} ${i}: ${(error as Error).message}`);
    }
    const took = performance.now() - began;
    slowest = Math.max(slowest, took);
    tally.check(took < longestMs, `${name} ${i}: ${took.toFixed(0)} ms`);
  }
  gone(work);
  tally.print('spoilt files over all readers', `slowest ${slowest.toFixed(0)} ms`);
}
