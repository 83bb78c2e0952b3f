import { randomUUID } from 'node:crypto';
import { expect, test } from '@playwright/test';
import { copyDemo, openLamplighter } from './support';

test.use({ viewport: { width: 390, height: 844 } });

const png = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==',
  'base64',
);

test('weigh, correct, strike, note, shrinkage and photo on a phone', async ({ page }) => {
  await openLamplighter(page, 'log');
  await expect(page.getByText('Nothing yet.')).toBeVisible();
  await page.getByLabel('On the scale').fill('8.2');
  await page.getByRole('button', { name: 'Log the weight' }).click();
  const entries = page.locator('.entries');
  await expect(entries).toContainText('8.2 kg on the scale');
  await expect(page.getByText(/The last weighing is/)).toBeVisible();
  await page
    .getByRole('button', { name: /^Correct the entry/ })
    .first()
    .click();
  await page.getByLabel('On the scale').fill('7.2 kg');
  await page.getByRole('button', { name: 'Put it right' }).click();
  await expect(entries).toContainText('7.2 kg on the scale');
  await expect(entries.locator('.struck')).toContainText('8.2 kg');
  await page.getByLabel('On the scale').fill('0.2');
  await page.getByRole('button', { name: 'Log the weight' }).click();
  await expect(page.locator('.wrong')).toContainText('less than the tare');
  await page.getByRole('button', { name: 'Shrinkage' }).click();
  await page.getByLabel('Between the marks, as laid').fill('100 mm');
  await page.getByLabel('Now', { exact: true }).fill('96.5');
  await page.getByRole('button', { name: 'Log it' }).click();
  await expect(entries).toContainText('3.5 % shorter');
  await page.getByRole('button', { name: 'Note', exact: true }).click();
  await page.locator('#log-text').fill('Crack by the left ear, filled.');
  await page.getByRole('button', { name: 'Log it' }).click();
  await expect(entries).toContainText('Crack by the left ear');
  await page.getByRole('button', { name: 'Photo' }).click();
  await page.locator('#log-picture').setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer: png });
  await page.getByLabel('What it shows').fill('Left ear');
  await page.getByRole('button', { name: 'Log it' }).click();
  await expect(entries.locator('img')).toHaveJSProperty('naturalWidth', 1);
  await page
    .getByRole('button', { name: /^Strike out the entry/ })
    .first()
    .click();
  await expect(entries.locator('.struck')).toHaveCount(2);
});

test('a cast is logged with its picture, which stays when the entry is put right', async ({ page }) => {
  await openLamplighter(page, 'log');
  await page.getByRole('button', { name: 'A cast' }).click();
  await page.getByLabel('Which from this mould').fill('1');
  await page.getByLabel('Weighs').fill('0.42');
  await page.locator('#log-picture').setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer: png });
  await page.getByRole('button', { name: 'Log it' }).click();
  const entries = page.locator('.entries');
  await expect(entries.getByRole('img', { name: /^Cast 1, as sharp as the first/ })).toHaveJSProperty(
    'naturalWidth',
    1,
  );
  await expect(page.locator('#log-picture')).toHaveValue('');
  await page
    .getByRole('button', { name: /^Correct the entry/ })
    .first()
    .click();
  await expect(page.getByLabel('Which from this mould')).toBeFocused();
  await page.getByLabel('Weighs').fill('0.43');
  await page.getByRole('button', { name: 'Put it right' }).click();
  await expect(entries).toContainText('430 g');
  await expect(entries.getByRole('img')).toHaveCount(1);
  // The next has no picture but its own.
  await page.getByLabel('Which from this mould').fill('2');
  await page.getByRole('button', { name: 'Log it' }).click();
  await expect(entries).toContainText('Cast 2');
  await expect(entries.getByRole('img')).toHaveCount(1);
});

test('nothing runs off the side, and fingers find the buttons', async ({ page }) => {
  await openLamplighter(page, 'log');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  for (const name of ['Weigh', 'Shrinkage', 'Photo', 'Note', 'Log the weight']) {
    expect((await page.getByRole('button', { name, exact: true }).boundingBox())?.height ?? 0).toBeGreaterThanOrEqual(
      48,
    );
  }
});

test('what is logged without a connection waits, and is sent when it is back', async ({ page, context }) => {
  await openLamplighter(page, 'log');
  await context.setOffline(true);
  await page.getByLabel('On the scale').fill('7.9');
  await page.getByRole('button', { name: 'Log the weight' }).click();
  await expect(page.getByText('1 waiting for the connection')).toBeVisible();
  await expect(page.locator('.entries')).toContainText('7.9 kg');
  await context.setOffline(false);
  await expect(page.getByText('1 waiting for the connection')).toBeHidden();
  await page.reload();
  await expect(page.locator('.entries')).toContainText('7.9 kg');
});

test('a long log draws what is looked at; the rest comes by scrolling, and is found by its words', async ({ page }) => {
  const id = await copyDemo(page.request, 'Otter mask');
  const at = (n: number) => new Date(Date.UTC(2026, 10, 1) + n * 3_600_000).toISOString();
  for (let n = 0; n < 120; n++)
    await page.request.post(`/api/builds/${id}/log`, {
      data: { id: randomUUID(), kind: 'note', at: at(n), data: { text: `hour ${n} of it` }, corrects: null },
    });
  // The latest stand in the page as it comes; the rest is read by its scripts.
  const asItComes = await (await page.request.get(`/build/${id}?station=log`)).text();
  expect(asItComes).toContain('hour 119 of it');
  expect(asItComes).not.toContain('hour 20 of it');
  await page.goto(`/build/${id}?station=log`);
  const entries = page.locator('.entries li');
  await expect(page.getByText('hour 119 of it')).toBeVisible();
  expect(await entries.count()).toBeLessThan(60);
  await expect(entries.first()).toHaveAttribute('aria-setsize', '120');
  // Rows are measured as they are drawn: the end moves a little while one comes to it.
  await expect(async () => {
    await page.evaluate(() => window.scrollTo(0, document.documentElement.scrollHeight));
    await expect(page.getByText('hour 0 of it')).toBeVisible({ timeout: 500 });
  }).toPass();
  expect(await entries.count()).toBeLessThan(60);
  await page.getByLabel('Find in the log').fill('hour 50 ');
  await expect(page.getByText('hour 50 of it')).toBeVisible();
  expect(await entries.count()).toBe(1);
});
