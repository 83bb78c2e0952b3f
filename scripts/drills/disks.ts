import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import sharp from 'sharp';
import { call, entry, gone, mustStart, path, randomUUID, root, start, Tally, temporary } from './support';

const mount = (...args: readonly string[]) => spawnSync('mount', args).status === 0;

/** A small disk of its own that fills up, and one that can only be read. Needs leave to mount; says so where there is none. */
export async function disks(): Promise<void> {
  const tally = new Tally();
  const work = temporary('disk');
  const disk = path.join(work, 'disk');
  mkdirSync(disk);
  if (!mount('-t', 'tmpfs', '-o', 'size=64m', 'tmpfs', disk)) {
    process.stdout.write('a full disk: not tried, no small disk may be mounted here\n');
    gone(work);
    return;
  }
  const data = path.join(disk, 'data');
  const backup = (file: string) =>
    spawnSync(path.join(root, 'bin', 'sostegno'), ['backup', file, '--data', data], { encoding: 'utf8' });
  try {
    const server = await mustStart(data);
    const { base } = server;
    const made = await call('POST', `${base}/api/builds`, {
      name: 'Full',
      startDate: '2026-12-01',
      size: 0.3,
      form: 'bust',
    });
    const { id } = made.json as { id: string };
    const picture = await sharp({ create: { width: 300, height: 300, channels: 3, background: '#a08060' } })
      .jpeg()
      .toBuffer();
    tally.check(
      (await call('POST', `${base}/api/builds/${id}/photos/${randomUUID()}`, picture)).status === 200,
      'a picture while there is room',
    );
    const fill = (leave: number) => {
      const free = statfsSync(disk);
      const bytes = free.bavail * free.bsize - leave;
      if (bytes > 0) writeFileSync(path.join(disk, `filler-${randomUUID()}`), randomBytes(bytes));
    };
    fill(3e6);
    const refused = await call('POST', `${base}/api/builds/${id}/photos/${randomUUID()}`, picture);
    tally.check(
      refused.status === 507 && JSON.stringify(refused.json).includes('the disk is full'),
      `a picture on a full disk: ${refused.status}`,
    );
    const small = await call('POST', `${base}/api/builds/${id}/log`, entry('still room for this'));
    tally.check(small.status === 200, `an entry while pictures wait: ${small.status}`);
    const kept = backup(path.join(disk, 'b.tar.gz'));
    tally.check(
      kept.status === 2 && /disk is full: \d+ MB are wanted/.test(kept.stderr),
      `a backup on a full disk: ${kept.stderr}`,
    );
    tally.check(!readdirSync(disk).some((n) => n.includes('work') || n.includes('b.tar')), 'nothing of it stays');
    fill(0);
    let last = 200;
    let taken = 0;
    for (let i = 0; i < 200 && last === 200; i++) {
      const answer = await call('POST', `${base}/api/builds/${id}/log`, entry(`${i} ${'x'.repeat(900)}`));
      last = answer.status;
      if (last === 200) taken++;
      else tally.check(last === 507, `an entry on a disk without a byte: ${last} ${JSON.stringify(answer.json)}`);
    }
    tally.check(last === 507, 'at some time it is full');
    tally.check((await call('GET', `${base}/api/builds/${id}`)).status === 200, 'reading goes on');
    for (const n of readdirSync(disk)) if (n.startsWith('filler')) rmSync(path.join(disk, n));
    const after = await call('POST', `${base}/api/builds/${id}/log`, entry('there is room again'));
    tally.check(after.status === 200, `an entry when there is room again: ${after.status}`);
    const log = (await call('GET', `${base}/api/builds/${id}/log`)).json as unknown[];
    tally.check(log.length === taken + 2, `${log.length} entries of ${taken + 2}`);
    tally.check(backup(path.join(disk, 'c.tar.gz')).status === 0, 'a backup when there is room again');
    await server.kill();
    fill(0);
    const none = await start(path.join(disk, 'another'));
    const said = none.said();
    tally.check(
      !('base' in none) && /disk is full/.test(said) && said.trim().split('\n').length === 1,
      `a start without room: ${said}`,
    );
    if ('base' in none) await none.kill();
    for (const n of readdirSync(disk)) if (n.startsWith('filler')) rmSync(path.join(disk, n));
    tally.check(mount('-o', 'remount,ro', disk), 'only to be read');
    const reader = await mustStart(data);
    tally.check(/can only be read/.test(reader.said()), 'it says so at the start');
    tally.check((await call('GET', `${reader.base}/api/builds/${id}`)).status === 200, 'a piece opens');
    tally.check((await call('GET', `${reader.base}/`)).status === 200, 'the shelf opens');
    const closed = await call('POST', `${reader.base}/api/builds/${id}/log`, entry('not taken'));
    tally.check(
      closed.status === 403 && JSON.stringify(closed.json).includes('can only be read'),
      `a write: ${closed.status}`,
    );
    await reader.kill();
    // Unusable folders: one sentence, at once.
    const file = path.join(work, 'a-file');
    writeFileSync(file, 'x');
    for (const [name, folder] of [
      ['a file in the place of the folder', file],
      ['garbage', path.join(work, 'garbage')],
    ] as const) {
      if (name === 'garbage') {
        mkdirSync(folder);
        writeFileSync(path.join(folder, 'sostegno.db'), 'garbage '.repeat(3000));
      }
      const up = await start(folder).catch((error: Error) => ({ said: () => error.message, code: null }));
      if ('base' in up) await up.kill();
      tally.check(!('base' in up) && up.said().trim().split('\n').length === 1, `${name}: ${up.said()}`);
    }
  } finally {
    spawnSync('umount', [disk]);
    gone(work);
  }
  tally.print('full, read-only and unusable disks');
}
