import { expect, test } from '@playwright/test';
import { beam, copyDemo, figure, openLamplighter, saved, setField, settled } from './support';

test('from three answers to a verdict, and back after a reload', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByLabel('What do you call it?').fill('The Net-mender');
  await page.getByLabel('Size, % of life').fill('75');
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'The Net-mender' })).toBeVisible();
  await settled(page);
  expect(figure(await beam(page, 'Weight, wet').textContent())).toBeGreaterThan(2);
  await expect(beam(page, 'Ready')).toHaveText(/\w{3} \d+ \w{3}/);
  await page.getByRole('button', { name: /Load$/ }).click();
  await expect(page.getByRole('table', { name: /Members, clay on/ })).toContainText('head frame');
  await page.reload();
  await settled(page);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('The Net-mender');
});

test('a change of clay moves every figure, says what it was, and undo brings it back', async ({ page }) => {
  await openLamplighter(page);
  const before = await beam(page, 'Weight, wet').textContent();
  const crack = figure(await beam(page, 'Crack index').textContent());
  await page.getByLabel('Clay', { exact: true }).selectOption('earthen-air-dry');
  await expect(beam(page, 'Weight, wet')).not.toHaveText(before ?? '');
  expect(figure(await beam(page, 'Weight, wet').textContent()) / figure(before)).toBeGreaterThan(1.35);
  await expect.poll(async () => figure(await beam(page, 'Crack index').textContent())).toBeGreaterThan(crack * 2);
  await expect(page.locator('.beam')).toContainText(`was ${before?.trim()}`);
  await saved(page);
  await page.getByRole('button', { name: /^Undo: Clay/ }).click();
  await expect(beam(page, 'Weight, wet')).toHaveText(before ?? '');
  await saved(page);
  await page.reload();
  await settled(page);
  await expect(beam(page, 'Weight, wet')).toHaveText(before ?? '');
  // Undo and redo outlive the reload.
  await page.getByRole('button', { name: /^Do again: Clay/ }).click();
  await expect(beam(page, 'Weight, wet')).not.toHaveText(before ?? '');
});

test('a remedy does what it said, and one press of undo takes it back', async ({ page }) => {
  await openLamplighter(page, 'load');
  const first = page.locator('.remedies li').first();
  await expect(first).toBeVisible();
  const promised = /→\s*([\d.]+)/.exec((await first.textContent()) ?? '')?.[1];
  const before = await beam(page, 'Weakest member').textContent();
  await first.getByRole('button').click();
  const table = page.getByRole('table', { name: /Members, clay on/ });
  await expect(table).toContainText(promised ?? 'nothing promised');
  await page.keyboard.press('Control+z');
  await expect(beam(page, 'Weakest member')).toHaveText(before ?? '');
});

test('nonsense is refused where it is typed, with the reason, and the last good value stays', async ({ page }) => {
  await openLamplighter(page, 'clay');
  const field = page.getByLabel('Thickness', { exact: true }).first();
  const good = await field.inputValue();
  for (const [typed, reason] of [
    ['thick', /such as 12 mm/],
    ['8 gauge', /AWG or SWG/],
    ['9 m', /at most 300 mm/],
    ['-3', /at least/],
  ] as const) {
    await field.fill(typed);
    await field.press('Enter');
    await expect(page.locator('.wrong').first()).toHaveText(reason);
  }
  await field.press('Escape');
  await expect(field).toHaveValue(good);
  await field.fill('3/8 in');
  await field.press('Enter');
  await expect(field).toHaveValue('9.5 mm');
  await page.getByRole('button', { name: /Form$/ }).click();
  await setField(page, 'Head, chin to crown', '3 m');
  await expect(page.locator('.wrong').first()).toHaveText(/at most 400 mm\. Still 232 mm\./);
  await setField(page, 'Head, chin to crown', '232 mm');
  // Enter and on to the next field before the page has come round to drawn anything: what was typed is in force.
  const size = page.getByLabel('Size, of life', { exact: true });
  await size.fill('90 %');
  await size.evaluate(async (field) => {
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await Promise.resolve();
    (field as HTMLInputElement).blur();
  });
  await expect(page.getByRole('button', { name: /^Undo/ })).toHaveAccessibleName(/90 % of life/);
  await expect(size).toHaveValue('90 %');
});

test('inches and pounds everywhere, on one key', async ({ page }) => {
  await openLamplighter(page, 'form');
  await page.locator('.panel h2').click();
  await page.keyboard.press('u');
  await expect(beam(page, 'Weight, wet')).toHaveText(/lb/);
  await expect(page.getByLabel('Head, chin to crown')).toHaveValue(/ in$/);
  await page.keyboard.press('u');
  await expect(beam(page, 'Weight, wet')).toHaveText(/kg/);
});

test('limits of the brief become findings', async ({ page }) => {
  await openLamplighter(page);
  await setField(page, 'Finished, it may weigh', '3 kg');
  await expect(page.locator('.panel h2')).toContainText('over the 3 kg you allow');
  await expect(page.locator('.remedies').first()).toBeVisible();
});

test('every station has a judgement, a picture and keys; the moment switch changes the table', async ({ page }) => {
  await openLamplighter(page);
  const titles = ['Brief', 'Form', 'Armature', 'Load', 'Clay', 'Drying'];
  for (const [i, title] of titles.entries()) {
    await page.locator('.panel h2').first().click();
    await page.keyboard.press(String(i + 1));
    await expect(page.locator('.rail [aria-current="step"]')).toContainText(title);
    await expect(page.locator('.panel h2').first()).not.toBeEmpty();
    await expect(page.locator('.view canvas')).toBeVisible();
    await expect(page.getByText('How this is worked out')).toBeVisible();
  }
  await page.keyboard.press('4');
  await page.getByRole('button', { name: 'dry', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Members, dry' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('undo');
});

test('drying: the time slider and the chart', async ({ page }) => {
  await openLamplighter(page, 'drying');
  await expect(page.getByRole('table', { name: 'Drying by region' })).toContainText('head');
  await expect(page.locator('.recharts-line').first()).toBeVisible();
  const slider = page.getByRole('slider', { name: 'Time since the clay went on' });
  await slider.fill('0');
  await expect(page.locator('.key')).toContainText('0 min on');
});

test('a prop by hand shows what it takes, and goes away again', async ({ page }) => {
  await openLamplighter(page, 'load');
  await page.getByLabel('Joint to prop').selectOption('stuffed/shoulder-left');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const props = page.getByRole('table', { name: 'Props' });
  await expect(props).toContainText('shoulder left');
  await expect(props).toContainText(/\d+(\.\d+)? N/);
  await props.getByRole('button', { name: /Take away/ }).click();
  await expect(props).toHaveCount(0);
});

test('a clay of one’s own, and a corrected figure with its source', async ({ page }) => {
  await openLamplighter(page, 'clay');
  await page.getByText('Your own figures').click();
  await page.getByLabel('A clay of your own, starting from these').fill('Quay pulp');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByLabel('Clay', { exact: true }).last()).toHaveValue('quay-pulp');
  const before = await beam(page, 'Weight, wet').textContent();
  await setField(page, /Weight as laid/, '1300');
  await expect(beam(page, 'Weight, wet')).not.toHaveText(before ?? '');
});

test('the printed sheet: cuts with their allowances, shopping, in either unit', async ({ page }) => {
  const id = await copyDemo(page.request, 'The Lamplighter');
  await page.goto(`/build/${id}/print`);
  await expect(page.getByRole('heading', { name: 'Cut list' })).toBeVisible();
  await expect(page.locator('.sheet')).toContainText('hose clamps');
  await expect(page.locator('.sheet')).toContainText(/\d+ mm/);
  await page.getByRole('button', { name: 'In inches' }).click();
  await expect(page.locator('.sheet')).toContainText(/\d+ in/);
  await page.emulateMedia({ media: 'print' });
  await expect(page.locator('.sheet-bar')).toBeHidden();
});
