import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { copyDemo, saved, settled } from './support';

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
  await expect(batches).toContainText(/A batch of two-part clay works for .+; make ready .+ at a time/);
  await expect(batches).toContainText(/Mix nothing after \d\d:\d\d/);
  const warm = await batches.textContent();
  await page.getByLabel('The room').fill('30');
  await expect(batches).not.toHaveText(warm ?? '');
  await page.getByRole('button', { name: /^Batch, / }).click();
  await expect(page.getByTestId('clock')).toContainText('Batch');
});

test('gauze is wetted a little at a time; a note for the next piece stands on its Brief', async ({ page }) => {
  const id = await copyDemo(page.request, 'The Lamplighter');
  const { revision, generation, build, history } = (await (await page.request.get(`/api/builds/${id}`)).json()) as {
    revision: number;
    generation: string;
    build: { regions: { everywhere: object } };
    history: object;
  };
  const everywhere = { ...build.regions.everywhere, under: ['gauze'] };
  const document = { ...build, regions: { ...build.regions, everywhere } };
  const put = { saveId: crypto.randomUUID(), revision, generation, document, history, label: 'gauze', notHeard: [] };
  expect((await page.request.put(`/api/builds/${id}`, { data: put })).ok()).toBe(true);
  await page.goto(`/build/${id}/tonight`);
  const next = page.getByTestId('next-step');
  for (const step of [/^Measure/, /^Cut, bend/, /^Fill out/]) {
    await expect(next.getByRole('heading')).toHaveText(step);
    await next.getByRole('button', { name: 'Done' }).click();
  }
  await expect(next.getByRole('heading')).toHaveText(/^Put on plaster gauze/);
  const batches = page.getByRole('region', { name: 'Batches' });
  await expect(batches).toContainText(/A batch of plaster gauze works for 6 min .+ make ready 120 g at a time/);
  await page.getByRole('button', { name: /^Batch 1, 120 g: wetted/ }).click();
  await expect(batches).toContainText(/One batch is wetted, 120 g in all/);
  await expect(page.getByRole('button', { name: /^Batch 2, / })).toBeVisible();
  await page.getByLabel('Note', { exact: true }).fill('Cut the strips before wetting the first.');
  await page.getByLabel('The note is for the next piece too').check();
  await page.getByRole('button', { name: 'Write' }).click();
  await expect(page.getByLabel('Note', { exact: true })).toHaveValue('');
  await expect(page.getByLabel('The note is for the next piece too')).not.toBeChecked();
  const other = await copyDemo(page.request, 'Whelk pauldron');
  await page.goto(`/build/${other}?station=brief`);
  await expect(page.getByTestId('notes-for-next')).toContainText(
    /Cut the strips before wetting the first\. ?The Lamplighter/,
  );
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

  /** Seconds by which the clock on the page is off: it was read at some moment while it was asked for. */
  const offBy = async (page: Page, set: number): Promise<number> => {
    const left = () => 1800 - (Date.now() - set) / 1000;
    const before = left();
    const [m, s] = ((await page.getByRole('timer').textContent()) ?? '').split(':').map(Number);
    const shown = (m ?? NaN) * 60 + (s ?? NaN);
    return Math.max(shown - before, left() - shown, 0);
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
    expect(await offBy(page, set)).toBeLessThanOrEqual(1.3);
    await begin(port);
    await page.reload();
    await expect(page.getByRole('timer')).toBeVisible();
    expect(await offBy(page, set)).toBeLessThanOrEqual(1.3);
    await page.getByRole('button', { name: 'Stop the clock Coat' }).click();
    await expect(page.getByTestId('clock')).toHaveCount(0);
  });

  test('a dragon in epoxy on Tuesdays and Thursdays, 19 to 22, followed on the card to its end', async ({ page }) => {
    test.setTimeout(600_000);
    const port = 3294,
      base = `http://127.0.0.1:${port}`;
    server?.kill('SIGKILL');
    await begin(port);
    const hours = [{ days: [1, 3], from: 19 * 60, until: 22 * 60 }];
    const people = [{ id: 'person-1', name: 'Me', hours, away: [], other: [] }];
    await page.request.put(`${base}/api/workshop`, { data: { zone: 'Europe/Oslo', people } });
    const made = (await (
      await page.request.post(`${base}/api/builds`, {
        data: { name: 'Dragon', startDate: '2026-12-01', form: 'four-legged', type: 'dragon', size: 0.25 },
      })
    ).json()) as { id: string };
    let now = Date.parse('2026-12-01T12:00:00+01:00');
    await page.clock.install({ time: now });
    await page.goto(`${base}/build/${made.id}?station=brief`);
    await settled(page);
    await page.getByLabel('Clay', { exact: true }).selectOption({ label: 'epoxy clay' });
    await page.getByLabel('How fine it is to be').selectOption({ index: 0 });
    const stations = page.getByRole('navigation', { name: 'Stations' });
    const station = (name: string) => stations.getByRole('button', { name: new RegExp(`${name}$`) }).click();
    await station('Load');
    await settled(page);
    await page.getByLabel('Joint to prop').selectOption({ label: 'tail tip' });
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await station('Plan');
    await page.getByLabel('Held while it is worked on by').selectOption({ label: 'hands alone' });
    await settled(page);
    await saved(page);

    await page.setViewportSize({ width: 390, height: 844 });
    const next = page.getByTestId('next-step');
    const done = page.getByRole('heading', { name: 'Every step is done.' });
    const open = async () => {
      await page.clock.setFixedTime(now);
      await page.goto(`${base}/build/${made.id}/tonight`);
      await expect(next.or(done)).toBeVisible();
    };
    const oslo = (text: string, day: string) => Date.parse(`${day}T${text}:00+01:00`);
    const dayOf = (t: number) => new Date(t + 3_600_000).toISOString().slice(0, 10);
    const laying: string[] = [];
    for (let steps = 0; steps < 120; steps++) {
      await open();
      if (await done.isVisible()) break;
      const begins = /^(?:now|\w+ (\d+) (\w+), (\d\d:\d\d))/.exec(await next.locator('.when').innerText());
      if (begins?.[3] !== undefined) {
        const year = /Dec/.test(begins[2] ?? '') ? 2026 : 2027;
        now = Date.parse(`${begins[1] ?? ''} ${begins[2] ?? ''} ${year} ${begins[3]} GMT+0100`);
        await open();
      }
      const name = (await next.getByRole('heading').textContent()) ?? '';
      const until = /until (\d\d:\d\d)/.exec(await next.locator('.when').innerText())?.[1] ?? '';
      const end = oslo(until, dayOf(now));
      if (/^Lay/.test(name)) laying.push(`${name}: ${(await next.textContent()) ?? ''}`);
      // Batch after batch, each placed before the next is mixed.
      const batch = page.getByRole('button', { name: /^Batch \d+, .*mixed/ });
      while (await batch.isVisible()) {
        const placed = /placed by (\d\d:\d\d)/.exec((await page.locator('.batch-list li').first().textContent()) ?? '');
        await batch.click();
        await expect(page.getByTestId('clock').last()).toContainText('Batch');
        now = oslo(placed?.[1] ?? '', dayOf(now));
        // A plan is of a quarter of an hour; the evening is over when it is over.
        expect(now).toBeLessThanOrEqual(Math.min(end + 900_000, oslo('22:00', dayOf(now))));
        await open();
      }
      const left = page.getByRole('region', { name: 'Batches' }).getByText(/is still to be laid/);
      const goesOn = (await left.isVisible()) || until === '22:00';
      now = Math.max(now, end);
      await page.clock.setFixedTime(now);
      if (goesOn) {
        await next.getByLabel('Hours it took').fill('1');
        await next.getByRole('button', { name: /^Stop here/ }).click();
      } else await next.getByRole('button', { name: 'Done' }).click();
      await expect(next.getByLabel('Hours it took').or(done).first()).toBeVisible();
      await expect(page.getByRole('button', { name: 'Weigh' })).toBeEnabled();
    }
    await expect(done).toBeVisible();

    const log = (await (await page.request.get(`${base}/api/builds/${made.id}/log`)).json()) as {
      kind: string;
      at: string;
      data: { step?: string; kind?: string; clay?: number; batch?: { step: string; mass: number } };
    }[];
    const wall = (at: string) => new Date(Date.parse(at) + 3_600_000);
    for (const { at } of log) {
      expect([2, 4]).toContain(wall(at).getUTCDay());
      expect(wall(at).toISOString().slice(11, 16) >= '19:00' && wall(at).toISOString().slice(11, 16) <= '22:00').toBe(
        true,
      );
    }
    // In what hands can knead, and no clay laid that was not mixed.
    const batches = log.flatMap((e) => (e.kind === 'clock' && e.data.batch ? [e.data.batch] : []));
    expect(batches.length).toBeGreaterThan(5);
    for (const b of batches) expect(b.mass).toBeLessThanOrEqual(0.2505);
    const steps = log.filter((e) => e.kind === 'step');
    for (const s of steps.filter((e) => e.data.kind === 'clay')) {
      const mixed = batches.filter((b) => b.step === s.data.step).reduce((sum, b) => sum + b.mass, 0);
      expect(mixed / (s.data.clay ?? NaN)).toBeCloseTo(1, 2);
    }
    // The prop stands before any clay, and goes when all of it has set for a day.
    const at = (step: string) => Date.parse(steps.find((e) => e.data.step === step)?.at ?? '');
    const laid = steps.filter((e) => e.data.kind === 'clay').map((e) => Date.parse(e.at));
    expect(at('props')).toBeLessThan(Math.min(...laid));
    expect(at('props-away') - Math.max(...laid)).toBeGreaterThan(24 * 3_600_000);
    // Every laying says where to hold it: by what is bare until its own clay, or has set.
    expect(laying.length).toBeGreaterThan(5);
    for (const text of laying) expect(text).toMatch(/Meanwhile hold it by the \w+/);
  });
});
