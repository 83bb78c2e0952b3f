import { spawn, type ChildProcess } from 'node:child_process';
import { randomInt, randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import os from 'node:os';
import path from 'node:path';

/** What every drill needs: a server of its own on this machine, callers, and a count of what was tried and what failed. */
export class Tally {
  tried = 0;
  readonly failed: string[] = [];

  check(ok: boolean, what: string): void {
    this.tried++;
    if (!ok) this.failed.push(what);
  }

  /** One line; what failed follows, the first ten. */
  print(what: string, more = ''): void {
    process.stdout.write(
      `${what.padEnd(52)} ${String(this.tried).padStart(6)} tried, ${this.failed.length} failed${more ? `  ${more}` : ''}\n`,
    );
    for (const f of this.failed.slice(0, 10)) process.stdout.write(`    ${f}\n`);
  }
}

export function temporary(what: string): string {
  return mkdtempSync(path.join(os.tmpdir(), `sostegno-drill-${what}-`));
}

export function gone(folder: string): void {
  rmSync(folder, { recursive: true, force: true });
}

async function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

export interface Running {
  readonly base: string;
  readonly said: () => string;
  /** As when the power goes. */
  kill(): Promise<void>;
}

const root = path.resolve(import.meta.dirname, '../..');

/** The real server, on 127.0.0.1 alone; undefined where it does not come up, with what it said. */
export async function start(
  data: string,
  more: readonly string[] = [],
): Promise<Running | { readonly said: () => string; readonly code: number | null }> {
  if (!existsSync(data)) mkdirSync(data, { recursive: true });
  const port = await freePort();
  const child: ChildProcess = spawn(
    process.execPath,
    ['--import', 'tsx', 'src/cli/serve.ts', '--port', String(port), '--data', data, ...more],
    { cwd: root, env: { ...process.env, SOSTEGNO_ROOT: root, NEXT_TELEMETRY_DISABLED: '1' } },
  );
  let said = '';
  child.stdout?.on('data', (c: Buffer) => (said += c.toString()));
  child.stderr?.on('data', (c: Buffer) => (said += c.toString()));
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  const open = await Promise.race([
    ended.then((code) => ({ code })),
    new Promise<null>((resolve, reject) => {
      const late = setTimeout(() => reject(new Error(`it did not come up: ${said}`)), 120_000);
      child.stdout?.on('data', () => {
        if (!said.includes('Sostegno is open')) return;
        clearTimeout(late);
        resolve(null);
      });
      void ended.then(() => clearTimeout(late));
    }),
  ]);
  if (open) return { said: () => said, code: open.code };
  return {
    base: `http://127.0.0.1:${port}`,
    said: () => said,
    kill: async () => {
      child.kill('SIGKILL');
      await ended;
    },
  };
}

export async function mustStart(data: string, more: readonly string[] = []): Promise<Running> {
  const up = await start(data, more);
  if (!('base' in up)) throw new Error(`the server did not come up: ${up.said()}`);
  return up;
}

export interface Answer {
  /** 0 where nothing answered. */
  readonly status: number;
  readonly json: unknown;
  readonly ms: number;
}

export async function call(method: string, url: string, body?: unknown): Promise<Answer> {
  const began = performance.now();
  try {
    const response = await fetch(url, {
      method,
      ...(body === undefined
        ? {}
        : body instanceof Uint8Array
          ? { body: body as unknown as BodyInit }
          : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
      signal: AbortSignal.timeout(60_000),
    });
    const text = await response.text();
    let json: unknown = null;
    try {
      json = JSON.parse(text) as unknown;
    } catch {
      // A page.
    }
    return { status: response.status, json, ms: performance.now() - began };
  } catch {
    return { status: 0, json: null, ms: performance.now() - began };
  }
}

export const entry = (text: string) => ({
  id: randomUUID() as string,
  kind: 'note',
  at: new Date().toISOString(),
  data: { text },
  corrects: null,
});

export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
}

export const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
export const chance = (n: number) => randomInt(0, n);
export { existsSync, path, randomUUID, root };
