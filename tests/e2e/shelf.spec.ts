import { expect, test } from '@playwright/test';
import { beam, copyDemo, openLamplighter, saved, settled } from './support';

test('copy, put away, bring back, delete with undo', async ({ page }) => {
  await page.request.post('/api/builds', { data: { name: 'Shelf piece', startDate: '2026-12-01', size: 0.5 } });
  await page.goto('/');
  const card = (name: string) =>
    page.locator('.piece-card').filter({ has: page.getByRole('heading', { name, exact: true }) });
  await expect(card('Shelf piece').getByRole('img').first()).toBeVisible();
  await page.getByRole('button', { name: 'Copy Shelf piece' }).click();
  await expect(card('Shelf piece, copy')).toBeVisible();
  await page.getByRole('button', { name: 'Put away Shelf piece, copy' }).click();
  await expect(card('Shelf piece, copy')).toHaveCount(0);
  await page.getByRole('button', { name: /^Put away: / }).click();
  await page.getByRole('button', { name: 'Bring back Shelf piece, copy' }).click();
  await page.getByRole('button', { name: 'Back to the shelf' }).click();
  await page.getByRole('button', { name: 'Delete Shelf piece, copy' }).click();
  await expect(card('Shelf piece, copy')).toHaveCount(0);
  await page.locator('.tray').getByRole('button', { name: 'Undo' }).click();
  await expect(card('Shelf piece, copy')).toBeVisible();
});

test('a build goes out as a file and comes in again; a broken one names its part', async ({ page }) => {
  const id = await copyDemo(page.request, 'The Lamplighter');
  const text = await (await page.request.get(`/api/builds/${id}/export`)).text();
  await page.goto('/');
  const before = await page.locator('.piece-card').count();
  const give = (name: string, body: string) =>
    page.getByLabel('Build file').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(body) });
  await give('good.json', text.replace(/"name": "[^"]+"/, '"name": "Brought in"'));
  await expect(page.getByRole('heading', { name: 'Brought in' })).toBeVisible();
  for (const [name, body, reason] of [
    ['torn.json', text.slice(0, 200), /not JSON/],
    ['newer.json', text.replace(/"schemaVersion": \d+/, '"schemaVersion": 9'), /schemaVersion: made by a newer/],
    ['spoilt.json', text.replace('"temperature": 19', '"temperature": "warm"'), /room\.temperature/],
  ] as const) {
    await give(name, body);
    await expect(page.locator('.tray')).toHaveText(reason);
    await expect(page.locator('.tray')).toContainText('Nothing was changed');
  }
  await expect(page.locator('.piece-card')).toHaveCount(before + 1);
});

test('two tabs on one build lose nothing', async ({ page, context }) => {
  const id = await openLamplighter(page);
  const other = await context.newPage();
  await other.goto(`/build/${id}`);
  await settled(other);
  await page.getByLabel('Name', { exact: true }).fill('First tab');
  await page.getByLabel('Name', { exact: true }).press('Enter');
  await saved(page);
  await other.getByLabel('Name', { exact: true }).fill('Second tab');
  await other.getByLabel('Name', { exact: true }).press('Enter');
  await expect(other.locator('.tray')).toContainText('Yours is kept as “Second tab, other version of');
  await expect(other.getByRole('heading', { level: 1 })).toHaveText('First tab');
  await other.getByRole('button', { name: 'Open mine' }).click();
  await expect(other.getByRole('heading', { level: 1 })).toContainText('Second tab, other version');
  await settled(other);
  await expect(beam(other, 'Weight, wet')).toHaveText(/kg/);
});

test('writes from another site are turned away', async ({ request }) => {
  const body = { name: 'x', startDate: '2026-12-01', size: 1 };
  expect(
    (await request.post('/api/builds', { data: body, headers: { origin: 'http://elsewhere.example' } })).status(),
  ).toBe(403);
  expect((await request.post('/api/builds', { data: body, headers: { host: 'elsewhere.example' } })).status()).toBe(
    403,
  );
  expect(
    (
      await request.post('/api/builds', {
        data: Buffer.from('{"name":'),
        headers: { 'content-type': 'application/json' },
      })
    ).status(),
  ).toBe(400);
  expect((await request.post('/api/builds?file', { data: 'x'.repeat(9_000_000) })).status()).toBe(413);
});
