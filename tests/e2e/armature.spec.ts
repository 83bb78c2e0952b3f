import { expect, test } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { beam, copyDemo, figure, openDemo, openLamplighter, saved, settled } from './support';

test('schools side by side; taking one keeps the form, and undo brings the old one back', async ({ page }) => {
  await openLamplighter(page, 'armature');
  const wet = figure(await beam(page, 'Weight, wet').textContent());
  await page.getByRole('button', { name: /Compare schools/ }).click();
  const table = page.getByRole('table', { name: 'Schools side by side' });
  await expect(table).toHaveAttribute('aria-busy', 'false');
  const clay = table.getByRole('row', { name: /Clay that goes on/ }).getByRole('cell');
  await expect(clay).toHaveCount(4);
  const kilograms = (await clay.allTextContents()).map(figure);
  // Solid clay on two loops takes several times what a stuffed frame does.
  expect(kilograms[1]! / kilograms[0]!).toBeGreaterThan(3);
  await page.getByRole('button', { name: 'Take it: two loops on a pipe, solid clay' }).click();
  await expect(page.getByLabel('School', { exact: true })).toHaveValue('dense');
  await expect.poll(async () => figure(await beam(page, 'Weight, wet').textContent())).toBeGreaterThan(1.8 * wet);
  await page.getByRole('button', { name: /^Undo: School/ }).click();
  await expect(page.getByLabel('School', { exact: true })).toHaveValue('stuffed');
  await expect.poll(async () => figure(await beam(page, 'Weight, wet').textContent())).toBeCloseTo(wet, 1);
});

test('stock as it is written; nonsense says why and the last one stays', async ({ page }) => {
  await openLamplighter(page, 'armature');
  const cell = page.getByLabel('Stock of the head loop, ear to ear');
  await cell.fill('3/16 in annealed aluminium x3, splinted with nails');
  await cell.press('Enter');
  await expect(cell).toHaveValue(/x3 aluminium wire, annealed, splinted/);
  await cell.fill('8 gauge string');
  await cell.press('Enter');
  await expect(page.locator('.wrong')).toContainText(/Which stock|AWG or SWG/);
  await cell.press('Escape');
  await expect(cell).toHaveValue(/x3 .*splinted/);
  await saved(page);
  await page.reload();
  await settled(page);
  await expect(page.getByLabel('Stock of the head loop, ear to ear')).toHaveValue(/x3 .*splinted/);
});

test('the thinnest that still holds is one press, both sides at once, and one step back', async ({ page }) => {
  await openLamplighter(page, 'armature');
  const stock = (side: string) => page.getByLabel(`Stock of the ${side} shoulder wire`);
  const before = await stock('left').inputValue();
  await page.getByRole('button', { name: 'Thinnest that holds: left shoulder wire' }).click();
  await expect(stock('left')).not.toHaveValue(before);
  const after = await stock('left').inputValue();
  await expect(stock('right')).toHaveValue(after);
  await settled(page);
  await expect(page.getByRole('button', { name: 'Thinnest that holds: left shoulder wire' })).toBeEnabled();
  await page.getByRole('button', { name: 'Thinnest that holds: left shoulder wire' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'nothing thinner holds' })).toBeVisible();
  await page.getByRole('button', { name: /^Undo: left shoulder wire/ }).click();
  await expect(stock('left')).toHaveValue(before);
  await expect(stock('right')).toHaveValue(before);
});

test('driven standing up it is lashed: said, and mended by one press', async ({ page }) => {
  await openLamplighter(page, 'move');
  await page.getByLabel('Vehicle').selectOption({ index: 1 });
  const found = page.getByText(/Not lashed, it goes over on the road: braking is enough/);
  await expect(found).toBeVisible();
  await page.getByLabel('Lashed down on the way').check();
  await expect(page.getByText(/Lashed, it stands on the road/)).toBeVisible();
  await expect(found).toHaveCount(0);
});

test('a joint moved by a number, a bone cut in two, a tie added, a member taken away: each one step back', async ({
  page,
}) => {
  await openLamplighter(page, 'armature');
  await page.getByLabel('Joint', { exact: true }).selectOption('stuffed/shoulder-left');
  const across = page.getByLabel('Left of the middle');
  const before = figure(await across.inputValue());
  await across.fill(`${before - 20} mm`);
  await across.press('Enter');
  await expect.poll(async () => figure(await across.inputValue())).toBe(before - 20);
  await page.getByRole('button', { name: 'Cut the left shoulder wire in two' }).click();
  await expect(
    page.getByLabel('Joint', { exact: true }).getByRole('option', { name: 'shoulder left, cut 1' }),
  ).toHaveCount(1);
  await page.getByText('Add a member or a tie').click();
  await page.getByLabel('From the joint').selectOption('stuffed/shoulder-left/cut-1');
  await page.getByLabel('To the joint').selectOption('stuffed/skull');
  await page.getByLabel('Stock and strands', { exact: true }).fill('1 mm galvanised steel');
  await page.getByRole('button', { name: 'Add a tie' }).click();
  const members = page.getByRole('table', { name: 'Members' });
  await expect(members).toContainText('tie 1 of your own');
  await page.getByRole('button', { name: 'Take away the head loop, brow to nape' }).click();
  await expect(members).not.toContainText('brow to nape');
  await expect(page.getByText('1 part is taken away.')).toBeVisible();
  for (const what of [/Taken away/, /A tie added/, /Cut in two/, /Joint moved/])
    await page.getByRole('button', { name: new RegExp(`^Undo: ${what.source}`) }).click();
  await expect(members).toContainText('brow to nape');
  await expect(members).not.toContainText('of your own');
});

test('a joint with nothing to hold it is told by its name', async ({ page }) => {
  await openDemo(page, 'Acrobats', 'armature');
  await page.getByLabel('Joint', { exact: true }).selectOption('limb/spine');
  await page.getByRole('button', { name: 'Take away, with what meets there' }).click();
  await expect(page.getByText('This cannot be worked out.')).toBeVisible();
  await expect(page.locator('.cautions').first()).toContainText(/joint "limb\/[a-z-]+" is free to/);
  await page.getByRole('button', { name: /^Undo: Taken away/ }).click();
  await expect(page.getByText('This cannot be worked out.')).toHaveCount(0);
});

test('the net that failed: the smallest change is found, shown, taken, and makes all of Load sound', async ({
  page,
}) => {
  await openDemo(page, 'The net that failed', 'load');
  await expect(page.locator('.worst')).toContainText('Worst of all');
  await page.getByRole('button', { name: 'Find the smallest change' }).click();
  await expect(page.getByText(/make it hold; no smaller one does/)).toBeVisible();
  await expect(page.locator('.proposal')).toContainText('wire through the arm, both sides');
  await page.getByLabel('In order of').selectOption('weight');
  await expect(page.getByRole('table', { name: 'Sets of changes that hold' }).getByRole('row')).not.toHaveCount(1);
  await page.locator('.proposal').getByRole('button', { name: /Do/ }).click();
  await expect(page.getByText('Everything here is sound: there is nothing to strengthen.')).toBeVisible();
  expect(figure(await beam(page, 'Weakest member').textContent())).toBeLessThan(0.6);
});

test('moving: a narrow door fails, straps share, a pauldron on the head is too heavy', async ({ page }) => {
  await openDemo(page, 'Whelk pauldron', 'move');
  await expect(page.getByRole('table', { name: 'Straps' }).getByRole('row')).toHaveCount(4);
  await page.getByLabel('Door, wide').fill('100 mm');
  await page.getByLabel('Door, wide').press('Enter');
  await expect(page.locator('.wrong')).toContainText('at least');
  await page.getByLabel('Too much from').fill('500 g');
  await page.getByLabel('Too much from').press('Enter');
  await expect(page.getByRole('heading', { level: 2, name: /too much to wear for long/ })).toBeVisible();
  await page.getByLabel('Finished, it').selectOption('hangs');
  await expect(page.getByText(/It hangs/).first()).toBeVisible();
});

test('cut list for a class, laid into lengths; templates at full size with a ruler', async ({ page }) => {
  const id = await copyDemo(page.request, 'Acrobats');
  await page.goto(`/build/${id}/print`);
  await page.getByLabel('Pieces in the set').fill('24');
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.getByText('For 24 and 2 spare.')).toBeVisible();
  await expect(page.getByRole('heading', { name: /Out of what length, all 26/ })).toBeVisible();
  await expect(page.getByText(/lengths of .*left\./).first()).toBeVisible();
  await page.goto(`/build/${id}/print/templates`);
  const sheet = page.locator('svg.template').first();
  await expect(sheet).toContainText('100 mm: measure this');
  // A millimetre on the drawing is a millimetre on paper: 96 dots to the inch.
  const ruler = await sheet.locator('rect[width="100"]').boundingBox();
  expect(ruler?.width).toBeGreaterThan((100 / 25.4) * 96 - 2);
  expect(ruler?.width).toBeLessThan((100 / 25.4) * 96 + 2);
});

test('a new build sizes itself, leaves what is set by hand, and takes it back on demand', async ({ page }) => {
  const made = await page.request.post('/api/builds', {
    data: { name: 'A runner', startDate: '2026-12-01', form: 'figure', size: 0.3 },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/build/${id}?station=armature`);
  await settled(page);
  const sizes = page.getByRole('region', { name: 'Sizes' });
  await expect(sizes).toContainText('Sized to carry');
  await expect(beam(page, 'Weakest member')).toHaveText(/^0\.[0-5]/);
  const legs = page.getByLabel('Stock of the left leg wire');
  const chosen = await legs.inputValue();
  await legs.fill('1 mm annealed aluminium');
  await legs.press('Enter');
  await settled(page);
  await expect(legs).toHaveValue(/^1 mm/);
  // The other leg is sized to bear what this one no longer does; this one stays.
  await page.getByRole('button', { name: 'Size it again: left leg wire' }).click();
  await settled(page);
  await expect(legs).toHaveValue(chosen);
  await sizes.getByRole('button', { name: 'Keep these sizes' }).click();
  await settled(page);
  await expect(sizes).toContainText('Every size is as it was set.');
  await expect(legs).toHaveValue(chosen);
  await sizes.getByRole('button', { name: 'Size it to carry' }).click();
  await settled(page);
  await expect(sizes).toContainText('Sized to carry');
  // What cannot be made in this clay says so before it is taken.
  await expect(page.getByText(/ways? of building cannot do this/i)).toBeVisible({ timeout: 60_000 });
  await page.getByText(/ways? of building cannot do this/i).click();
  await expect(page.getByText(/foil under a baked undercoat.*: Cracks/)).toBeVisible();
});

test('what the log says is cut keeps its sizes, whatever is changed then', async ({ page }) => {
  const made = await page.request.post('/api/builds', {
    data: { name: 'A walker', startDate: '2026-12-01', form: 'figure', size: 0.25 },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/build/${id}?station=armature`);
  await settled(page);
  const legs = page.getByLabel('Stock of the left leg wire');
  const cut = await legs.inputValue();
  const told = await page.request.post(`/api/builds/${id}/log`, {
    data: {
      id: randomUUID(),
      at: '2026-12-01T10:00:00Z',
      kind: 'step',
      data: { step: 'armature', name: 'Make the armature', kind: 'armature', usual: 1 },
    },
  });
  expect(told.ok(), await told.text()).toBe(true);
  await page.reload();
  await settled(page);
  const sizes = page.getByRole('region', { name: 'Sizes' });
  await expect(sizes).toContainText('The log says it is cut');
  await expect(page.getByRole('button', { name: /^Undo: Sizes kept/ })).toBeVisible();
  // Ten times the weight inside: nothing is cut anew for it.
  await page.getByLabel('Filled with').selectOption('plaster-set');
  await settled(page);
  await expect(legs).toHaveValue(cut);
});
