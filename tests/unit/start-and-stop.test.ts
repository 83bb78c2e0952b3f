import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'kysely';
import { openDatabase } from '../../src/db';

/** What starting says where it cannot: one sentence, at once, with where and what to do. */
const root = path.join(__dirname, '..', '..');
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'sostegno-start-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function start(...args: readonly string[]): Promise<{ readonly code: number | null; readonly said: string }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'src/cli/serve.ts', ...args], {
    cwd: root,
    env: { ...process.env, SOSTEGNO_ROOT: root },
  });
  let said = '';
  child.stdout.on('data', (c: Buffer) => (said += c.toString()));
  child.stderr.on('data', (c: Buffer) => (said += c.toString()));
  return new Promise((resolve) => child.once('exit', (code) => resolve({ code, said: said.trim() })));
}

test('an address for everybody, a folder that is none, a damaged and a newer database, a wrong option', async () => {
  const data = (name: string) => path.join(folder, name);
  for (const name of ['damaged', 'newer']) mkdirSync(data(name));
  writeFileSync(data('file'), 'x');
  writeFileSync(path.join(data('damaged'), 'sostegno.db'), 'garbage '.repeat(1000));
  const later = await openDatabase(path.join(data('newer'), 'sostegno.db'));
  await sql`insert into kysely_migration (name, timestamp) values ('999-later', '2027')`.execute(later);
  await sql`pragma wal_checkpoint(truncate)`.execute(later);
  await later.destroy();
  const [wide, file, damaged, newer, wrong, local] = await Promise.all([
    start('--host', '0.0.0.0', '--only-options'),
    start('--data', data('file')),
    start('--data', data('damaged')),
    start('--data', data('newer')),
    start('--wrong'),
    start('--host', '::1', '--only-options'),
  ]);
  for (const { code, said } of [wide, file, damaged, newer, wrong]) {
    expect(code).toBe(2);
    expect(said.split('\n')).toHaveLength(1);
    expect(said).toMatch(/^sostegno: /);
  }
  expect(wide.said).toMatch(/nobody can sign in yet, so it listens on this machine alone/);
  expect(file.said).toContain(data('file'));
  expect(file.said).toMatch(/folder/);
  expect(damaged.said).toMatch(/damaged.*bin\/sostegno restore FILE/);
  expect(newer.said).toMatch(/written by a later version.*999-later.*restore a backup made by this one/);
  expect(wrong.said).toMatch(/no option "--wrong"/);
  expect(local.code).toBe(0);
}, 60_000);
