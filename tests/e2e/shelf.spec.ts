import { expect, test, type Page } from '@playwright/test';
import { sql } from 'kysely';
import { openAsItIs } from '../../src/db';
import { beam, copyDemo, openLamplighter, saved, setField, settled } from './support';

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
    ['newer.json', text.replace(/"schemaVersion": \d+/, '"schemaVersion": 99'), /schemaVersion: made by a newer/],
    ['spoilt.json', text.replace('"temperature": 19', '"temperature": "warm"'), /room\.temperature/],
  ] as const) {
    await give(name, body);
    await expect(page.locator('.tray')).toHaveText(reason);
    await expect(page.locator('.tray')).toContainText('Nothing was changed');
  }
  await expect(page.locator('.piece-card')).toHaveCount(before + 1);
});

const callIt = async (page: Page, name: string) => {
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Name', { exact: true }).press('Enter');
};

test('two people on one build lose nothing: different things are put together, the same one is kept beside', async ({
  page,
  browser,
}) => {
  const id = await openLamplighter(page);
  const other = await (await browser.newContext()).newPage();
  await other.goto(`/build/${id}?station=brief`);
  await settled(other);
  await callIt(page, 'First');
  await saved(page);
  await setField(other, 'Size, of life', '90 %');
  await saved(other);
  await expect(other.getByRole('heading', { level: 1 })).toHaveText('First');
  await expect(other.locator('.bench-head')).toContainText('90 % of life');
  await expect(other.locator('.tray')).toContainText('both changes are here');
  await other.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(other.locator('.tray')).toHaveCount(0);
  // And back: who is on it still has the size from before.
  await callIt(other, 'Second');
  await saved(other);
  await callIt(page, 'First again');
  await expect(page.locator('.tray')).toContainText('Yours is kept as “First again, other version of');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Second');
  await expect(page.locator('.bench-head')).toContainText('90 % of life');
  await page.getByRole('button', { name: 'Open mine' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('First again, other version');
  await settled(page);
  await expect(beam(page, 'Weight, wet')).toHaveText(/kg/);
  await other.context().close();
});

test('another tab shows what was saved; what a closed page had not sent is there when it is opened again', async ({
  page,
  context,
}) => {
  const id = await openLamplighter(page);
  const other = await context.newPage();
  await other.goto(`/build/${id}?station=brief`);
  await settled(other);
  await callIt(page, 'From the first tab');
  await expect(other.getByRole('heading', { level: 1 })).toHaveText('From the first tab');
  await other.close();
  await context.setOffline(true);
  await callIt(page, 'Not sent yet');
  await expect(page.getByTestId('save')).toContainText('trying again');
  await page.close();
  await context.setOffline(false);
  const again = await context.newPage();
  await again.goto(`/build/${id}?station=brief`);
  await settled(again);
  await expect(again.getByRole('heading', { level: 1 })).toHaveText('Not sent yet');
  await expect(again.locator('.tray')).toContainText('is here again');
  await saved(again);
  await again.reload();
  await settled(again);
  await expect(again.getByRole('heading', { level: 1 })).toHaveText('Not sent yet');
});

test('a build that cannot be read says so on every page of it, and its last version comes back', async ({ page }) => {
  const id = await copyDemo(page.request, 'The Lamplighter');
  const database = openAsItIs('.state/browser-data/sostegno.db');
  await sql`update builds set document = '{"broken' where id = ${id}`.execute(database);
  await database.destroy();
  for (const at of ['', '/tonight', '/print', '/print/plan', '/print/templates']) {
    await page.goto(`/build/${id}${at}`);
    await expect(page.getByRole('heading', { name: 'This build cannot be read.' }), at).toBeVisible();
  }
  await page.goto(`/build/${id}`);
  await page.getByRole('button', { name: 'Take that version back' }).click();
  await settled(page);
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
