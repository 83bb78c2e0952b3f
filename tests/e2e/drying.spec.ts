import { expect, test, type Page } from '@playwright/test';
import { openDemo, openLamplighter, saved, setField, settled } from './support';

const fullAnswer = (page: Page) => page.getByTestId('which-answer').getByText('Full answer');

test('the whole piece: started, held, taken up again, looked into, and still there after a reload', async ({
  page,
}) => {
  test.setTimeout(150_000);
  const id = await openDemo(page, 'Harbour master', 'drying');
  await expect(page.getByTestId('which-answer')).toContainText('Quick answer');
  await page.getByRole('button', { name: 'Dry the whole piece' }).click();
  await page.getByRole('button', { name: 'Hold', exact: true }).click();
  const progress = page.getByText(/% of the way dried/);
  await expect(progress).toContainText('Held');
  await page.waitForTimeout(600);
  const held = await progress.textContent();
  await page.waitForTimeout(900);
  expect(await progress.textContent()).toBe(held);
  await page.getByRole('button', { name: 'Go on', exact: true }).click();
  await expect(fullAnswer(page)).toBeVisible({ timeout: 100_000 });
  await expect(page.locator('.panel')).not.toContainText('over the limit');
  await expect(page.getByText('No place passes the limit')).toBeVisible();
  const head = page.getByRole('table', { name: 'Drying by region' }).locator('tr', { hasText: 'head' });
  await expect(head).toContainText('whole');
  for (const name of ['Side to side', 'Level', 'Front to back']) {
    await page.getByRole('button', { name, exact: true }).click();
    await expect(page.getByRole('button', { name, exact: true })).toHaveAttribute('aria-pressed', 'true');
  }
  await page.getByRole('button', { name: 'Where to hold' }).click();
  await page.getByRole('button', { name: 'Draw the place wet longest and the worst crack' }).click();
  await expect(
    page.getByRole('figure', { name: 'Water still to leave at the chosen places, against days' }),
  ).toContainText('place 2');
  // It was kept with the build: a fresh page has it without working it out.
  await expect.poll(async () => (await page.request.get(`/api/builds/${id}/drying?key=none`)).status()).toBe(204);
  await page.waitForTimeout(1500);
  await page.goto(`/build/${id}?station=drying`);
  await settled(page);
  await expect(fullAnswer(page)).toBeVisible({ timeout: 15_000 });
  // What is changed afterwards makes it an old one, and says so.
  await setField(page, 'Humidity', '62');
  await expect(page.getByTestId('which-answer')).toContainText('the build has changed since');
  await expect(head).toContainText('quick, corrected');
});

test('stopped half way, the quick answer stands and it can be started again', async ({ page }) => {
  await openLamplighter(page, 'drying');
  await page.getByRole('button', { name: 'Dry the whole piece' }).click();
  await expect(page.getByText(/% of the way dried/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByTestId('which-answer')).toContainText('Quick answer');
  await expect(page.getByRole('button', { name: 'Dry the whole piece' })).toBeVisible();
});

test('what if: four ways side by side, their differences, and one of them taken', async ({ page }) => {
  await openLamplighter(page, 'drying');
  await page.getByLabel('A fan on it').check();
  await expect(page.getByLabel('In earthen clay')).toBeDisabled();
  await page.getByRole('button', { name: 'Set them side by side' }).click();
  const table = page.getByRole('table', { name: 'Ways side by side' });
  await expect(table.locator('tbody tr')).toHaveCount(4);
  await expect(table).toContainText(/−[\d.]+ d/);
  const promised = await table.locator('tbody tr', { hasText: 'A fan on it' }).locator('td').nth(1).textContent();
  await page.getByRole('button', { name: 'Take it: A fan on it' }).click();
  await expect(page.getByLabel('Air over it')).toHaveValue('1.5 m/s');
  await expect(page.getByTestId('beam-Crack index')).toHaveText(
    /^[\d.]+/.exec(promised ?? '')?.[0] ?? 'nothing promised',
  );
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Air over it')).toHaveValue('0.1 m/s');
});

test('the room by the hour, covers, lifting and turning; all of it undone again', async ({ page }) => {
  await openLamplighter(page, 'drying');
  const through = page
    .getByRole('table', { name: 'When a hand may do what' })
    .locator('tr', { hasText: 'Dry through' })
    .first();
  await expect(through).toContainText(/ d to /);
  const before = await through.textContent();
  await page.getByRole('button', { name: 'Colder at night' }).click();
  await expect(through).not.toHaveText(before ?? '');
  await page.getByRole('button', { name: 'Add a cover' }).click();
  await setField(page, 'Cover comes off after', '100');
  await page.getByLabel('Lifted off its form').selectOption('leather-hard');
  await expect(page.getByRole('table', { name: 'When a hand may do what' })).toContainText('Off its form');
  await page.getByRole('button', { name: 'Turn it', exact: true }).click();
  await page.getByLabel('It lies').selectOption('face');
  await saved(page);
  await page.locator('.panel h2').first().click();
  for (let i = 0; i < 6; i++) await page.keyboard.press('Control+z');
  await expect(through).toHaveText(before ?? '');
});

test('a hygrometer record is read, told about, and refused with its line when it is something else', async ({
  page,
}) => {
  await openLamplighter(page, 'drying');
  const file = page.getByLabel('Record of a hygrometer (CSV)');
  const day = new Date(Date.now() - 3 * 86_400_000);
  const lines = ['time;RH;Temp'];
  for (let i = 0; i < 5000; i++)
    lines.push(
      `${new Date(day.getTime() + i * 120_000).toISOString().slice(0, 16)};${(66 + 4 * Math.sin(i / 100)).toFixed(1)};${(58 + 5 * Math.cos(i / 100)).toFixed(0)}`,
    );
  await file.setInputFiles({ name: 'loft.csv', mimeType: 'text/csv', buffer: Buffer.from(lines.join('\n')) });
  await expect(page.getByText(/5000 readings over/)).toBeVisible();
  await expect(page.getByText(/loft\.csv: \d+ hours/)).toBeVisible();
  await file.setInputFiles({ name: 'prices.csv', mimeType: 'text/csv', buffer: Buffer.from('what,price\nclay,4\n') });
  await expect(page.locator('.wrong')).toContainText(/line 2: no column reads as a date and time/);
  await page.getByRole('button', { name: 'Take it away' }).last().click();
  await expect(page.getByText(/loft\.csv: \d+ hours/)).toHaveCount(0);
});

test('the stack: layers, stages, what does not get on and what a change of clay brings', async ({ page }) => {
  await openLamplighter(page, 'clay');
  await expect(page.getByText('Nothing in it quarrels with its neighbours')).toBeVisible();
  await page.getByLabel('left out in rain and sun').check();
  await expect(page.getByRole('list', { name: 'What does not get on' })).toContainText('rain turns it back');
  await page.getByRole('button', { name: 'Seen' }).click();
  await page.getByRole('combobox', { name: 'Clay', exact: true }).selectOption('oil-medium-sulphur');
  await page.getByLabel('moulded in addition-cure silicone').check();
  await expect(page.getByText('New with the last change')).toBeVisible();
  await expect(page.getByRole('list', { name: 'What does not get on' })).toContainText(
    'keeps the silicone from setting',
  );
  await expect(page.getByRole('table', { name: 'Warming the clay' })).toContainText('Lumps to cut');
  await page.getByRole('combobox', { name: 'Clay', exact: true }).selectOption('paper-clay');
  await page.getByLabel('Under the clay: add').first().selectOption('plastic-film');
  await expect(page.locator('.region-stack').first()).toContainText('plastic film');
  await page.getByRole('button', { name: 'A stage for each, from the base' }).click();
  await expect(page.getByLabel('Goes on in stage').nth(1)).toHaveValue('2');
  await expect(page.getByRole('table', { name: 'Sheets to roll' })).toContainText('head');
  await expect(page.getByRole('table', { name: 'Recipe for what is needed' })).toContainText('wet paper pulp');
});

test('clay painted thicker on the piece itself', async ({ page }) => {
  await openLamplighter(page, 'clay');
  const weight = page.getByRole('table', { name: 'Clay to buy' }).locator('tr').first();
  const before = await weight.textContent();
  await page.getByRole('button', { name: 'Paint on the piece' }).click();
  await page.waitForTimeout(1200);
  const box = await page.locator('.view canvas').boundingBox();
  if (!box) throw new Error('no picture');
  // Across the shoulders: a few grams a stroke, and the table tells ten.
  for (const across of [0.38, 0.42, 0.46, 0.52, 0.56, 0.6])
    await page.mouse.click(box.x + box.width * across, box.y + box.height * 0.62);
  await expect(page.getByText(/\+3 mm within 40 mm/).first()).toBeVisible();
  await expect(weight).not.toHaveText(before ?? '');
  await page.getByRole('button', { name: 'Clear them' }).click();
  await expect(weight).toHaveText(before ?? '');
});

test.describe('at the bench, on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test('a weight and the room are taken from the simulated devices with one tap each', async ({ page }) => {
    await openLamplighter(page, 'log');
    const scale = page.getByTestId('device-scale');
    await expect(scale).toContainText('simulated');
    await expect(scale.locator('.display')).toContainText(/\d kg/);
    await expect(async () => {
      await page.getByRole('button', { name: 'Take this weight into the log' }).click({ timeout: 1500 });
    }).toPass({ timeout: 20_000 });
    await expect(page.locator('.entries')).toContainText('on the scale');
    await expect(async () => {
      await page.getByRole('button', { name: 'Take this reading into the log' }).click({ timeout: 1500 });
    }).toPass({ timeout: 20_000 });
    await expect(page.locator('.entries')).toContainText('the room');
  });

  test('weighings narrow the forecast, a slipped digit is called out, a crack gets its mending, what was learned is kept', async ({
    page,
  }) => {
    const id = await openLamplighter(page, 'log');
    const gross = [7.4, 7.26, 7.11, 6.97, 6.83, 6.7, 9.56, 6.45];
    for (const [i, g] of gross.entries()) {
      const at = new Date(Date.now() - (gross.length - i) * 8 * 3_600_000).toISOString();
      const answer = await page.request.post(`/api/builds/${id}/log`, {
        data: { id: crypto.randomUUID(), kind: 'weigh-in', at, data: { gross: g, tare: 1.06 }, corrects: null },
      });
      expect(answer.ok()).toBe(true);
    }
    await page.reload();
    await settled(page);
    const fit = page.getByTestId('fit');
    await expect(fit).toContainText('Not dry yet', { timeout: 30_000 });
    await expect(fit).toContainText('The weighing of 8.5 kg does not fit');
    await fit.getByLabel('Keep this as: this clay in this room').fill('loft in winter');
    await fit.getByRole('button', { name: 'Keep it' }).click();
    await expect(fit).toContainText('Kept as “loft in winter”');
    await page.getByRole('button', { name: 'Damage', exact: true }).click();
    await page.getByLabel('How wide').fill('1 mm');
    await page.getByLabel('Where on the piece').fill('head');
    await page.getByRole('button', { name: 'Log it' }).click();
    await expect(page.getByRole('region', { name: 'Mending the crack' })).toContainText('Undercut');
    await page.goto(`/build/${id}?station=drying`);
    await settled(page);
    await page.getByLabel('How fast it dries').selectOption('loft in winter');
    await expect(page.getByText(/Learned by weighing/)).toBeVisible();
  });
});
