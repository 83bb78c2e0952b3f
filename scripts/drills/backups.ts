import { spawnSync } from 'node:child_process';
import { copyFileSync, mkdirSync, readFileSync, readdirSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import sharp from 'sharp';
import { call, entry, existsSync, gone, mustStart, path, pause, randomUUID, root, Tally, temporary } from './support';

/** Runs the command line as a person would. */
function cli(...args: readonly string[]): { readonly code: number | null; readonly out: string; readonly err: string } {
  const done = spawnSync(path.join(root, 'bin', 'sostegno'), args, { cwd: root, encoding: 'utf8', timeout: 120_000 });
  return { code: done.status, out: done.stdout, err: done.stderr };
}

const bytesOf = (file: string) => readFileSync(file);

/** Damaged, older and newer backups, and what is in their way: each has one right answer. */
export async function backups(): Promise<void> {
  const tally = new Tally();
  const work = temporary('backups');
  const from = path.join(work, 'from');
  const whole = path.join(work, 'whole.tar.gz');
  try {
    const server = await mustStart(from);
    const { id } = (
      await call('POST', `${server.base}/api/builds`, {
        name: 'Kept',
        startDate: '2026-12-01',
        size: 0.3,
        form: 'bust',
      })
    ).json as { id: string };
    for (let i = 0; i < 6; i++) {
      const picture = await sharp({ create: { width: 60 + i, height: 40, channels: 3, background: '#a08060' } })
        .jpeg()
        .toBuffer();
      const photoId = randomUUID();
      await call('POST', `${server.base}/api/builds/${id}/photos/${photoId}`, picture);
      await call('POST', `${server.base}/api/builds/${id}/log`, {
        ...entry(''),
        kind: 'photo',
        data: { photoId, caption: `${i}` },
      });
    }
    await server.kill();
    const made = cli('backup', whole, '--data', from);
    tally.check(made.code === 0, `a backup: ${made.err}`);
    const size = bytesOf(whole).length;
    const refused = (name: string, spoil: (file: string) => void) => {
      const file = path.join(work, `${name}.tar.gz`),
        to = path.join(work, `to-${name}`);
      copyFileSync(whole, file);
      spoil(file);
      const done = cli('restore', file, '--data', to);
      tally.check(
        done.code === 2 && done.err.trim().split('\n').length === 1 && !/ENO|Error:|\n\s+at /.test(done.err),
        `${name}: ${done.code} ${done.err.slice(0, 200)}`,
      );
      tally.check(!existsSync(path.join(to, 'sostegno.db')), `${name}: something was put in`);
    };
    for (let i = 0; i < 10; i++) refused(`cut at ${i} tenths`, (f) => truncateSync(f, Math.floor((size * i) / 10)));
    for (let i = 0; i < 16; i++)
      refused(`flipped at ${i}`, (f) => {
        const b = bytesOf(f);
        const at = 30 + Math.floor(((size - 60) * i) / 16);
        b[at] = b[at]! ^ (1 << (i % 8));
        writeFileSync(f, b);
      });
    refused('something else', (f) => writeFileSync(f, 'not a backup at all'));
    refused('nothing', (f) => writeFileSync(f, ''));
    for (const old of readdirSync(path.join(root, 'tests/fixtures/backups'))) {
      const done = cli(
        'restore',
        path.join(root, 'tests/fixtures/backups', old),
        '--data',
        path.join(work, `old-${old}`),
      );
      tally.check(done.code === 0 && done.out.includes('"entries": 3'), `${old}: ${done.err}`);
    }
    // What stands in the way of a good one is set aside as it is.
    const inTheWay: Readonly<Record<string, (to: string) => void>> = {
      nothing: () => undefined,
      garbage: (to) => writeFileSync(path.join(to, 'sostegno.db'), 'garbage '.repeat(3000)),
      empty: (to) => writeFileSync(path.join(to, 'sostegno.db'), ''),
      'half a database': (to) => {
        const b = bytesOf(path.join(from, 'sostegno.db'));
        writeFileSync(path.join(to, 'sostegno.db'), b.subarray(0, Math.floor(b.length / 2)));
      },
      'a lost picture': (to) => {
        cli('restore', whole, '--data', to);
        const pictures = path.join(to, 'pictures');
        rmSync(path.join(pictures, readdirSync(pictures)[0]!));
      },
      'work of a process that died': (to) => mkdirSync(path.join(to, 'sostegno-work-999999999-restore-x')),
      'a mark of a restore that died': (to) => writeFileSync(path.join(to, 'restore-under-way'), '999999999'),
    };
    for (const [name, prepare] of Object.entries(inTheWay)) {
      const to = path.join(work, `way-${name}`);
      mkdirSync(to, { recursive: true });
      prepare(to);
      const done = cli('restore', whole, '--data', to);
      tally.check(
        done.code === 0 && done.out.includes('"pictures": 6') && done.out.includes('"lost": []'),
        `${name}: ${done.err}`,
      );
      const again = await mustStart(to);
      const log = (await call('GET', `${again.base}/api/builds/${id}/log`)).json as unknown[];
      tally.check(log.length === 6, `${name}: ${log.length} entries`);
      await again.kill();
    }
    // Pictures that are lost are named, and the rest is kept.
    const pictures = path.join(from, 'pictures');
    rmSync(path.join(pictures, readdirSync(pictures)[0]!));
    const rest = path.join(work, 'rest.tar.gz');
    const kept = cli('backup', rest, '--data', from);
    tally.check(kept.code === 0 && /is missing: it is not in it/.test(kept.err), `a lost picture: ${kept.err}`);
    tally.check(cli('restore', rest, '--data', path.join(work, 'rest')).code === 0, 'the rest comes back');
  } finally {
    gone(work);
  }
  tally.print('damaged, older and hindered backups');
}

/** Writers at full speed while a backup is put back: what is acknowledged is in what was set aside or in what there is. */
export async function restoreRace(times: number): Promise<void> {
  const tally = new Tally();
  const work = temporary('race');
  const data = path.join(work, 'data');
  let writes = 0;
  try {
    const server = await mustStart(data);
    const { id } = (
      await call('POST', `${server.base}/api/builds`, {
        name: 'Raced',
        startDate: '2026-12-01',
        size: 0.3,
        form: 'bust',
      })
    ).json as { id: string };
    const file = path.join(work, 'b.tar.gz');
    cli('backup', file, '--data', data);
    for (let round = 0; round < times; round++) {
      let over = false;
      const acked: string[] = [];
      const writers = Array.from({ length: 4 }, async () => {
        while (!over) {
          const e = entry(`round ${round}`);
          const answer = await call('POST', `${server.base}/api/builds/${id}/log`, e);
          if (answer.status === 200) acked.push(e.id);
          else tally.check(answer.status === 503, `round ${round}: a write was answered ${answer.status}`);
        }
      });
      await pause(300);
      const done = cli('restore', file, '--data', data);
      tally.check(done.code === 0, `round ${round}: ${done.err}`);
      await pause(300);
      over = true;
      await Promise.all(writers);
      writes += acked.length;
      const before = (JSON.parse(done.out) as { before: string }).before;
      const ids = async (base: string) =>
        new Set(((await call('GET', `${base}/api/builds/${id}/log`)).json as { id: string }[]).map((e) => e.id));
      const now = await ids(server.base);
      const copy = path.join(work, `aside-${round}`);
      cli('restore', before, '--data', copy);
      const aside = await mustStart(copy);
      const then = await ids(aside.base);
      await aside.kill();
      for (const e of acked)
        tally.check(now.has(e) || then.has(e), `round ${round}: ${e} was acknowledged and is nowhere`);
      gone(copy);
    }
    await server.kill();
  } finally {
    gone(work);
  }
  tally.print(`${times} restores while others write`, `${writes} writes acknowledged`);
}
