import { expect, test } from '@playwright/test';
import { openDemo, openLamplighter, saved, setField, settled } from './support';

test.describe.configure({ timeout: 120_000 });

test('a mould from none to one that is compared, taken, sealed for, opened; the plan follows', async ({ page }) => {
  const id = await openLamplighter(page, 'mould');
  await expect(page.getByText('Say which mould is taken of it')).toBeVisible();
  await page.getByRole('button', { name: 'Compare every kind of mould …' }).click();
  const kinds = page.getByRole('table', { name: 'Kinds of mould' });
  await expect(kinds.getByRole('row')).toHaveCount(9);
  await kinds.getByRole('button', { name: 'Take plaster in two or more parts' }).click();
  await settled(page);

  // Dried paper clay drinks; what is offered puts it right.
  await expect(page.getByRole('heading', { name: /Nothing seals the clay/ })).toBeVisible();
  await page.getByRole('button', { name: 'Do it: Seal it with shellac' }).click();
  await expect(page.getByRole('heading', { name: /It is fit for its mould: plaster/ })).toBeVisible();

  const takes = page.getByRole('table', { name: 'What the mould takes' });
  const walls = takes.getByRole('row', { name: /^Walls/ });
  await expect(walls).toContainText('25 mm');
  const weight = async () => Number((await walls.getByRole('cell').nth(3).textContent())!.replace(/[^\d.]/g, ''));
  const thick = await weight();
  await setField(page, 'Wall, thick', '15');
  await expect(walls).toContainText('15 mm');
  const thin = await weight();
  expect(thin / thick).toBeGreaterThan(0.5);
  expect(thin / thick).toBeLessThan(0.62);
  await setField(page, 'Wall, thick', '900');
  await expect(page.locator('.wrong')).toBeVisible();
  await setField(page, 'Wall, thick', '15');

  const parts = page.getByRole('table', { name: 'Parts of the mould' });
  await expect(parts).toBeVisible();
  const front = parts.getByRole('row', { name: /forward/ }).first();
  await expect(front).toBeVisible();
  await expect(parts.getByRole('row', { name: /back/ }).first()).toBeVisible();
  await page.getByLabel('Parts', { exact: true }).selectOption('2');
  await expect(parts.getByRole('row')).toHaveCount(3);
  await page.getByLabel('Open it').fill('0.6');
  await expect(page.getByLabel('Open it')).toHaveAttribute('aria-valuetext', '60 % of the way');
  await saved(page);

  await page.goto(`/build/${id}?station=plan`);
  await settled(page);
  await expect(page.getByText('Lay up the plaster on the first half').first()).toBeVisible();
});

test('the finding of a parting can be stopped and begun again', async ({ page }) => {
  await openDemo(page, 'Otter mask', 'mould');
  const table = page.getByRole('table', { name: 'Parts of the mould' });
  await expect(table).toBeVisible();
  await page.getByLabel('Parts', { exact: true }).selectOption('3');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Find how it parts' })).toBeVisible();
  await page.getByRole('button', { name: 'Find how it parts' }).click();
  await expect(table.getByRole('row')).toHaveCount(4);
  // Soft clay under plaster, latex in it: what holds is dug out, and is no fault.
  await expect(page.getByText(/what holds is dug out of the mould/)).toBeVisible();
});
