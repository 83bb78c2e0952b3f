import { expect, test } from '@playwright/test';
import { beam, figure, openLamplighter, saved, setField, settled } from './support';

test('out of doors: a gust by words or typed, what it does to the piece, and what holds it', async ({ page }) => {
  const id = await openLamplighter(page);
  await page.getByLabel('It stands or hangs outdoors').check();
  await settled(page);
  await page.getByLabel('It must stand').selectOption({ label: 'a storm: 35 m/s' });
  await expect(page.getByLabel('Or a gust of')).toHaveValue('35 m/s');
  await setField(page, 'Or a gust of', '90');
  await expect(page.locator('.wrong')).toContainText('at most 60');
  await setField(page, 'Or a gust of', '38');
  await expect(page.getByLabel('It must stand').locator('option:checked')).toHaveText('a gust of 38 m/s');
  await saved(page);

  await page.goto(`/build/${id}?station=load`);
  await settled(page);
  await expect(page.getByRole('heading', { name: 'In a gust of 38 m/s' })).toBeVisible();
  const table = page.getByRole('table', { name: 'In the wind' });
  const row = (name: RegExp) => table.getByRole('row', { name }).getByRole('cell');
  // 1.3 x 0.625 v2 on its outline.
  const area = figure(await row(/^Outline/).textContent()),
    force = figure(await row(/^Presses/).textContent());
  expect(Math.abs(force / (0.8125 * 38 ** 2 * area) - 1)).toBeLessThan(0.03);
  await expect(
    page.getByText(/^A gust of 38\s?m\/s (from .+ tips it over|pushes it along the ground)\.$/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'in the wind' }).click();
  await expect(page.getByRole('table', { name: /Members, in the wind/ })).toBeVisible();
  await expect(page.getByText(/It stands outdoors, in wind and weather: a licensed engineer/)).toBeVisible();

  await page.getByRole('button', { name: 'Do it: Bolt its base down' }).click();
  await expect(page.getByText(/^Bolted down, it stands in a gust of 38\s?m\/s/)).toBeVisible();
  await page.goto(`/build/${id}?station=clay`);
  await settled(page);
  // Rain and sun are judged with it.
  await expect(page.getByText(/left out in rain and sun do not get on/).first()).toBeVisible();
  await expect(page.getByLabel('left out in rain and sun, as the brief says')).toBeChecked();
});

test('how fine it is to be moves the day; a pack’s own price is this clay’s alone, a metre’s this stock’s', async ({
  page,
}) => {
  const id = await openLamplighter(page);
  const ready = async () => (await beam(page, 'Ready').textContent()) ?? '';
  const usual = await ready();
  await page.getByLabel('How fine it is to be').selectOption({ index: 0 });
  await expect.poll(ready).not.toBe(usual);
  await page.goto(`/build/${id}?station=clay`);
  await settled(page);
  const cost = () =>
    page
      .getByRole('row', { name: /Cost of the clay/ })
      .getByRole('cell')
      .last();
  const before = figure(await cost().textContent());
  await setField(page, 'Price of a pack', '9');
  await expect.poll(async () => figure(await cost().textContent())).toBeCloseTo(2 * before, 1);
  await setField(page, 'Currency', 'GBP');
  await expect(cost()).toContainText('GBP');
  await page.getByRole('combobox', { name: 'Clay', exact: true }).selectOption('foam-air-dry');
  await expect(page.getByLabel('Price of a pack')).toHaveValue('6');
  await page.goto(`/build/${id}?station=armature`);
  await settled(page);
  await page.getByText('Sold in, what a metre costs, and what is there already').click();
  const price = page.getByRole('textbox', { name: /: price of a metre$/ }).first();
  await price.fill('-2');
  await price.press('Enter');
  await expect(page.locator('.wrong')).toContainText('nought or more');
  await price.fill('3.5');
  await price.press('Enter');
  await saved(page);
  await page.reload();
  await settled(page);
  await page.getByText('Sold in, what a metre costs, and what is there already').click();
  await expect(page.getByRole('textbox', { name: /: price of a metre$/ }).first()).toHaveValue('3.5');
});
