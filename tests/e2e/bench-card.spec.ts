import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { copyDemo } from './support';

test.use({ viewport: { width: 390, height: 844 } });

async function openCard(page: Page, name: string): Promise<string> {
  const id = await copyDemo(page.request, name);
  await page.goto(`/build/${id}/tonight`);
  await expect(page.getByTestId('next-step')).toBeVisible();
  return id;
}

test('one big next step, done with a press; nothing runs off a phone; fingers find the buttons', async ({ page }) => {
  const id = await openCard(page, 'Whelk pauldron');
  const next = page.getByTestId('next-step');
  await expect(next.getByRole('heading')).toHaveText(/^Measure, draw it/);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  for (const name of ['Done', 'Weigh', 'Write', /^Coat, 30/, 'Keep the screen on'])
    expect((await page.getByRole('button', { name }).boundingBox())?.height ?? 0).toBeGreaterThanOrEqual(48);
  await next.getByLabel('Hours it took').fill('0.5');
  await next.getByRole('button', { name: 'Done' }).click();
  await expect(next.getByRole('heading')).toHaveText(/^Cut, bend and join/);
  const log = (await (await page.request.get(`/api/builds/${id}/log`)).json()) as {
    kind: string;
    data: { step?: string; took?: number };
  }[];
  expect(log.filter((e) => e.kind === 'step').map((e) => [e.data.step, e.data.took])).toEqual([['set-out', 0.5]]);
});

test('two-part clay has its batches: how much, when, and when to mix no more', async ({ page }) => {
  await openCard(page, 'Whelk pauldron');
  const next = page.getByTestId('next-step');
  for (const step of [/^Measure/, /^Cut, bend/, /^Fill out|^Lay/]) {
    await expect(next.getByRole('heading')).toHaveText(step);
    if (/^Lay/.test((await next.getByRole('heading').textContent()) ?? '')) break;
    await next.getByRole('button', { name: 'Done' }).click();
  }
  await expect(next.getByRole('heading')).toHaveText(/^Lay the clay/);
  const batches = page.getByRole('region', { name: 'Batches' });
  await expect(batches).toContainText(/A batch works for .+; mix .+ at a time/);
  await expect(batches).toContainText(/Mix nothing after \d\d:\d\d/);
  const warm = await batches.textContent();
  await page.getByLabel('The room').fill('30');
  await expect(batches).not.toHaveText(warm ?? '');
  await page.getByRole('button', { name: /^Batch, / }).click();
  await expect(page.getByTestId('clock')).toContainText('Batch');
});

test('without a connection it opens, and what is logged is sent in order and once, after twelve cuts', async ({
  page,
  context,
}) => {
  const id = await openCard(page, 'The Lamplighter');
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
  await page.reload();
  await expect(page.getByTestId('next-step')).toBeVisible();
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  // Pages that are kept work as before: a worker that is asked for through the keeper starts.
  await page.goto(`/build/${id}?station=plan`);
  await expect(page.getByTestId('plan-verdict')).toBeVisible();
  await page.goto(`/build/${id}/tonight`);
  await expect(page.getByTestId('next-step')).toBeVisible();
  // Every third answer is lost on the way back: the server has the entry, the page does not know.
  let posts = 0;
  await context.route('**/api/builds/*/log', async (route) => {
    if (route.request().method() !== 'POST' || posts++ % 3 !== 1) return route.fallback();
    await route.fetch().catch(() => undefined);
    await route.abort('connectionreset');
  });
  const note = page.getByLabel('Note', { exact: true });
  for (let i = 0; i < 12; i++) {
    await context.setOffline(true);
    await note.fill(`cut ${i}`);
    await page.getByRole('button', { name: 'Write' }).click();
    await expect(note).toHaveValue('');
    if (i === 5) {
      await page.reload();
      await expect(page.getByRole('heading', { level: 1 })).toContainText('The Lamplighter');
      await expect(page.getByText(/No connection/)).toBeVisible();
      // The plan is made again, by its worker, from what this device kept.
      await expect(page.getByTestId('next-step')).toBeVisible();
    }
    await context.setOffline(false);
    if (i % 4 === 3) await page.waitForTimeout(300);
  }
  const notes = async () =>
    ((await (await page.request.get(`/api/builds/${id}/log`)).json()) as { kind: string; data: { text?: string } }[])
      .filter((e) => e.kind === 'note')
      .map((e) => e.data.text);
  // Each further cut, over as soon as it came, has what waits sent again.
  const afterACut = async () => {
    await context.setOffline(true);
    await expect(page.getByText(/No connection/)).toBeVisible();
    await context.setOffline(false);
    return notes();
  };
  await expect.poll(afterACut, { timeout: 60_000 }).toEqual(Array.from({ length: 12 }, (_, i) => `cut ${i}`));
  await expect(page.getByText(/waiting to be sent/)).toHaveCount(0);
});

test('a picture taken without a connection waits with its entry', async ({ page, context }) => {
  const id = await openCard(page, 'Whelk pauldron');
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==',
    'base64',
  );
  await context.setOffline(true);
  await page.locator('input[type=file]').setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer: png });
  await expect(page.getByText('1 waiting to be sent')).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText('1 waiting to be sent')).toBeHidden();
  const log = (await (await page.request.get(`/api/builds/${id}/log`)).json()) as {
    kind: string;
    data: { photoId: string };
  }[];
  const photo = log.find((e) => e.kind === 'photo');
  const kept = await page.request.get(`/api/builds/${id}/photos/${photo?.data.photoId ?? ''}`);
  expect([kept.status(), kept.headers()['content-type']]).toEqual([200, 'image/jpeg']);
});

test.describe('a server of its own', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'sostegno-clock-'));
  let server: ChildProcess | null = null;
  test.afterAll(() => {
    server?.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  });

  async function begin(port: number): Promise<void> {
    server = spawn(
      process.execPath,
      ['--import', 'tsx', 'src/cli/serve.ts', '--port', String(port), '--data', folder],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    );
    await new Promise<void>((resolve, reject) => {
      server?.stdout?.on('data', (chunk: Buffer) => {
        if (chunk.toString().includes('is open at')) resolve();
      });
      server?.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
    server.removeAllListeners('exit');
  }

  const shown = async (page: Page): Promise<number> => {
    const [m, s] = ((await page.getByRole('timer').textContent()) ?? '').split(':').map(Number);
    return (m ?? NaN) * 60 + (s ?? NaN);
  };

  test('a clock is right to a second after the server was killed and the page reloaded', async ({ page }) => {
    const port = 3293,
      base = `http://127.0.0.1:${port}`;
    await begin(port);
    const made = (await (
      await page.request.post(`${base}/api/builds`, { data: { name: 'Timed', startDate: '2026-12-01', size: 0.3 } })
    ).json()) as { id: string };
    await page.goto(`${base}/build/${made.id}/tonight`);
    await expect(page.getByTestId('next-step')).toBeVisible();
    await page.getByRole('button', { name: /^Coat, 30/ }).click();
    await expect(page.getByRole('timer')).toBeVisible();
    const entries = (await (await page.request.get(`${base}/api/builds/${made.id}/log`)).json()) as {
      kind: string;
      at: string;
    }[];
    const set = Date.parse(entries.find((e) => e.kind === 'clock')?.at ?? '');
    expect(Math.abs(set - Date.now())).toBeLessThan(30_000);
    server?.kill('SIGKILL');
    await page.waitForTimeout(2500);
    // It goes on without the server.
    expect(Math.abs((await shown(page)) - (1800 - (Date.now() - set) / 1000))).toBeLessThanOrEqual(1.3);
    await begin(port);
    await page.reload();
    await expect(page.getByRole('timer')).toBeVisible();
    expect(Math.abs((await shown(page)) - (1800 - (Date.now() - set) / 1000))).toBeLessThanOrEqual(1.3);
    await page.getByRole('button', { name: 'Stop the clock Coat' }).click();
    await expect(page.getByTestId('clock')).toHaveCount(0);
  });
});
