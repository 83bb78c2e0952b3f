import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { openDemo, openLamplighter, saved, setField, settled } from './support';

test.describe.configure({ timeout: 120_000 });

test('a mould from none to one that is compared, taken, sealed for, opened; the plan follows', async ({ page }) => {
  const id = await openLamplighter(page, 'mould');
  await expect(page.getByText('Say which mould is taken of it')).toBeVisible();
  await page.getByRole('button', { name: 'Compare every kind of mould …' }).click();
  const kinds = page.getByRole('table', { name: 'Kinds of mould' });
  await expect(kinds.getByRole('row')).toHaveCount(9);
  await kinds.getByRole('button', { name: 'Take it: plaster in two or more parts' }).click();
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

test('on paper and out: what to buy, coats with their times, the shim at full size; parts and seams as files', async ({
  page,
}) => {
  const id = await openDemo(page, 'Otter mask', 'mould');
  await page.getByLabel('Taken of it').selectOption('shim-halves');
  await settled(page);
  await expect(page.getByText(/^The shim runs/)).toBeVisible();
  const taken = async (button: string) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button }).click(),
    ]);
    return [file.suggestedFilename(), readFileSync(await file.path())] as const;
  };
  const [glbName, glb] = await taken('Parts and seams as GLB');
  expect(glbName).toMatch(/^otter-mask.*-mould\.glb$/);
  expect(glb.subarray(0, 4).toString()).toBe('glTF');
  const [, ply] = await taken('As PLY');
  expect(ply.subarray(0, 3).toString()).toBe('ply');
  const [svgName, svg] = await taken('As SVG, true size');
  expect(svgName).toMatch(/^otter-mask.*-seams-front\.svg$/);
  expect(svg.toString()).toContain('<polyline');
  await saved(page);

  await page.goto(`/build/${id}/print/mould`);
  await expect(page.getByRole('heading', { name: /^Otter mask.*: mould$/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Print' })).toBeEnabled({ timeout: 60_000 });
  await expect(page.getByRole('row', { name: /^plaster/ })).toBeVisible();
  await expect(page.getByText('Press in the shim along the parting line, release')).toBeVisible();
  await expect(page.locator('svg.template').first()).toBeVisible();
  await expect(page.getByText(/Never plaster on skin/)).toBeVisible();
});

test('made larger for the shrinkage, and back; a mask to its wearer’s girth', async ({ page }) => {
  await openDemo(page, 'Otter mask', 'mould');
  await expect(page.getByText(/lets the cast go on/)).toContainText('565 mm');
  await page.getByRole('button', { name: /^Make it 1\.109 times the size of the cast$/ }).click();
  await expect(page.getByText(/It is made 1\.109 times as large as the cast is to be/)).toBeVisible();
  await page.getByRole('button', { name: 'Back to the size of the cast' }).click();
  await expect(page.getByText(/comes out at 90\.2 % of that/)).toBeVisible();
});

test('a relief from its form to a printed order: open behind, cast twice', async ({ page }) => {
  const made = await page.request.post('/api/builds', {
    data: { name: 'Mermaid plaque', startDate: '2026-12-05', form: 'relief', size: 1, type: 'face' },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/build/${id}?station=mould`);
  await settled(page);
  await page.getByLabel('Taken of it').selectOption('plaster-open');
  await settled(page);
  const parts = page.getByRole('table', { name: 'Parts of the mould' });
  await expect(parts.getByRole('row', { name: /forward and up/ })).toBeVisible();
  await expect(parts.getByRole('row')).toHaveCount(2);
  await expect(page.getByText(/its rim is 1\.1\d m long: bed the piece up to there/)).toBeVisible();
  await setField(page, 'Casts wanted', '2');
  await expect(page.getByRole('table', { name: 'What the casts take' })).toContainText('For 2');
  await saved(page);

  await page.goto(`/build/${id}?station=plan`);
  await settled(page);
  await expect(page.getByText(/Cast 1 of 2: lay in the latex/).first()).toBeVisible();

  await page.goto(`/build/${id}/print/mould`);
  await expect(page.getByRole('button', { name: 'Print' })).toBeEnabled({ timeout: 60_000 });
  await expect(page.getByText(/Its rim is 1\.1\d m long; it is open behind/)).toBeVisible();
  await expect(page.getByRole('row', { name: /slip latex for 2 casts/ })).toContainText('2 of 1 kg');
  await expect(page.getByText(/Cast 2 of 2: powder it, peel it out/)).toBeVisible();
});

test('a pair has a left and a right cavity; its hard parts come out to print', async ({ page }) => {
  test.setTimeout(240_000);
  await openDemo(page, 'Otter paws', 'mould');
  await expect(page.getByText(/It has 2 cavities, left and right/)).toBeVisible();
  await expect(page.getByText(/Along it the walls turn out 25 mm/)).toBeVisible();
  await page.getByRole('button', { name: 'Hard parts to print …' }).click();
  const front = page.getByRole('button', { name: 'front as STL' });
  await expect(front).toBeVisible({ timeout: 200_000 });
  const [file] = await Promise.all([page.waitForEvent('download'), front.click()]);
  expect(file.suggestedFilename()).toMatch(/^otter-paws.*-mould-front\.stl$/);
  const stl = readFileSync(await file.path());
  expect(stl.length).toBe(84 + 50 * stl.readUInt32LE(80));
  expect(stl.readUInt32LE(80)).toBeGreaterThan(10_000);
});

test('eyes and a hinge are set in, with larger seats; a seam is painted away', async ({ page }) => {
  await openDemo(page, 'Otter mask', 'mould');
  await page.getByLabel('Eyes, teeth, hinges').selectOption('jaw-hinge');
  await page.getByRole('button', { name: 'Set it in' }).click();
  const set = page.getByRole('table', { name: 'What is set into the cast' });
  // Pins of 6 mm, a tenth and a little less larger; as far apart as the head is broad.
  await expect(set.getByRole('row').nth(1)).toContainText('6.7 mm');
  await set.getByRole('button', { name: /^Take away/ }).click();
  await expect(set).toHaveCount(0);

  await expect(page.getByRole('table', { name: 'Parts of the mould' })).toBeVisible();
  await page.getByRole('button', { name: 'Paint it on the piece' }).click();
  const canvas = page.locator('canvas').first();
  const box = (await canvas.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  await expect(page.getByRole('button', { name: 'Take off the spot' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Take off the spot' })).toHaveCount(0);
});

test('a helmet from its form to a printed order: to the wearer’s girths, banded, cast in resin', async ({ page }) => {
  test.setTimeout(240_000);
  await page.goto('/');
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByLabel('What do you call it?').fill('Lantern helmet');
  await page.getByLabel('What is it?').selectOption({ label: 'mask on a head form' });
  await page.getByLabel('To the measures of').selectOption({ label: 'a helmet' });
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await page.waitForURL(/\/build\//);
  await settled(page);
  await page.getByRole('button', { name: /Mould$/ }).click();
  await page.getByLabel('Taken of it').selectOption('rubber-skin');
  await page.getByLabel('Cast in it').selectOption('resin-hollow');
  await settled(page);

  await setField(page, /Wearer’s head, round above/, '600 mm');
  await setField(page, 'Room about the wearer', '10 mm');
  const girths = page.getByRole('table', { name: 'Clay round the wearer’s form' });
  const brow = girths.getByRole('row', { name: /^girth above the brows/ });
  // By hand: 93.8 mm, a wall of 4 and 10 of room, over 0.996 x 0.995.
  await expect(brow).toContainText(/(5[89]\d|60\d) mm/);
  await expect(brow.getByRole('cell').nth(2)).toContainText(/^1(4\.9|5|5\.\d) mm/);
  await expect(page.getByRole('table', { name: 'Parts of the mould' }).getByRole('row').nth(2)).toBeVisible();
  await expect(page.getByText(/^Where it closes round the head most narrowly/)).toContainText('it goes on');
  await page.getByRole('button', { name: 'Squeeze it, press it, drop it' }).click();
  const inHand = page.getByRole('table', { name: 'The cast in the hand' });
  await expect(inHand.getByRole('row', { name: /^Squeezed by two hands, side to side, 100 N/ })).toContainText(
    'holds',
    {
      timeout: 60_000,
    },
  );
  await expect(inHand.getByRole('row')).toHaveCount(5);
  await setField(page, 'Casts wanted', '2');
  await page.getByLabel('Eyes, teeth, hinges').selectOption('threads');
  await page.getByRole('button', { name: 'Set it in' }).click();
  await saved(page);
  const id = /build\/([^?]+)/.exec(page.url())![1]!;

  await page.goto(`/build/${id}?station=move`);
  await settled(page);
  await page.getByLabel('Finished, it').selectOption('worn');
  for (const n of [1, 2]) {
    await page.getByRole('button', { name: 'Add a strap or stitch point' }).click();
    await expect(page.getByRole('table', { name: 'Straps' }).getByRole('row')).toHaveCount(n + 1);
  }
  // From one side to the other, half of 600 mm and what is turned over.
  await expect(page.getByText(/Cut the band from strap 1 to strap 2/)).toContainText(/3\d\d mm/);

  await page.goto(`/build/${id}/print/mould`);
  await expect(page.getByRole('button', { name: 'Print' })).toBeEnabled({ timeout: 90_000 });
  await expect(page.getByRole('row', { name: /silicone/ }).first()).toContainText('kg');
  await expect(page.getByText(/Cast 2 of 2: set in, and glue: threaded sleeves/)).toBeVisible();
});

test('a hand from its form to a printed order: no seam over the nails, three casts of plaster', async ({ page }) => {
  test.setTimeout(240_000);
  await page.goto('/');
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByLabel('What do you call it?').fill('Diver’s hand');
  await page.getByLabel('What is it?').selectOption({ label: 'hand or paw' });
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await page.waitForURL(/\/build\//);
  await settled(page);
  await page.getByRole('button', { name: /Mould$/ }).click();
  await page.getByLabel('Taken of it').selectOption('rubber-in-two');
  await settled(page);
  await page.getByLabel('Cast in it').selectOption('plaster-solid');
  await expect(page.getByRole('table', { name: 'Boards of the box' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'Parts of the mould' }).getByRole('row')).toHaveCount(3);
  await expect(page.getByText(/^Pour it /)).toBeVisible();
  await setField(page, 'Casts wanted', '3');
  await expect(page.getByRole('table', { name: 'What the casts take' })).toContainText('For 3');
  await saved(page);
  const id = /build\/([^?]+)/.exec(page.url())![1]!;
  await page.goto(`/build/${id}/print/mould`);
  await expect(page.getByRole('button', { name: 'Print' })).toBeEnabled({ timeout: 90_000 });
  await expect(page.getByText(/Cast 3 of 3/).first()).toBeVisible();
  await expect(page.getByRole('row', { name: /plaster for 3 casts/ })).toContainText('kg');
});
