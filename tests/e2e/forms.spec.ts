import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { writeMesh } from '../../src/core/form';
import { ballMesh, together, without } from '../support/meshes';
import { longEars, meshOf } from '../support/scans';
import { beam, figure, openLamplighter, saved, setField, settled } from './support';

/** Starts a build of a form by keyboard and pointer, as a newcomer would, and opens its Form station. */
async function startForm(page: Page, form: string, size: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByLabel('What do you call it?').fill(`Trial ${form}`);
  await page.getByLabel('What is it?').selectOption({ label: form });
  await page.getByLabel('Size, % of life').fill(size);
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await page.waitForURL(/\/build\//);
  await settled(page);
  await page.getByRole('button', { name: /Form$/ }).click();
}

async function litres(page: Page): Promise<number> {
  const words = await page.locator('.panel h2').first().textContent();
  return Number(/encloses ([\d.]+)/.exec(words ?? '')?.[1] ?? NaN);
}

/** Measures set as a maker would, and what the piece must come to: litres of form and kg in all, from arithmetic on the measures beforehand. */
const pieces: readonly {
  form: string;
  size: string;
  measures: readonly (readonly [string, string])[];
  litres: readonly [number, number];
  kg: readonly [number, number];
}[] = [
  { form: 'bust', size: '75', measures: [['Head, chin to crown', '225 mm']], litres: [4.5, 9], kg: [2, 6] },
  { form: 'head', size: '100', measures: [['Neck showing', '100 mm']], litres: [4.5, 8], kg: [1.5, 5] },
  {
    form: 'mask on a head form',
    size: '100',
    measures: [['Wearer’s head, round above the brows', '580 mm']],
    litres: [5, 11],
    kg: [3, 14],
  },
  {
    form: 'person, standing or posed',
    size: '25',
    measures: [['Height, standing', '1.8 m']],
    litres: [0.8, 1.6],
    kg: [0.7, 4],
  },
  { form: 'creature on four legs', size: '30', measures: [['Tail', '500 mm']], litres: [0.6, 1.6], kg: [0.8, 5] },
  {
    form: 'creature on two legs, like a bird',
    size: '50',
    measures: [['Beak', '150 mm']],
    litres: [0.7, 2],
    kg: [0.5, 4],
  },
  { form: 'branching piece', size: '100', measures: [['Branches off the trunk', '7']], litres: [0.8, 5], kg: [1, 12] },
  {
    form: 'head on a long neck, or hung out from a wall or frame',
    size: '50',
    measures: [['Muzzle, of the head’s length', '450 mm']],
    litres: [14, 40],
    kg: [6, 60],
  },
  {
    form: 'shell worn on shoulder or chest',
    size: '100',
    measures: [['High', '140 mm']],
    litres: [1.5, 5],
    kg: [0.5, 4],
  },
  { form: 'relief on a tile', size: '100', measures: [['Tile, high', '360 mm']], litres: [4, 10], kg: [2, 9] },
  {
    form: 'ring with something sitting in it',
    size: '100',
    measures: [['Ring, across', '450 mm']],
    litres: [3, 14],
    kg: [2, 12],
  },
  { form: 'piece on a found object', size: '100', measures: [['High', '300 mm']], litres: [1.2, 2.2], kg: [0.4, 4] },
  { form: 'free start', size: '100', measures: [['Ball to begin with', '150 mm']], litres: [1.74, 1.8], kg: [0.5, 4] },
];

/** The bench's own way to another form: its usual armature, clay and thickness come with it. */
async function startAgain(page: Page, form: string, size: string): Promise<void> {
  const another = page.locator('details', { has: page.getByText('Start from another form') });
  if ((await another.getAttribute('open')) === null) await another.locator('summary').click();
  await page.getByLabel('Form', { exact: true }).selectOption({ label: form });
  await page.getByRole('button', { name: 'Start again' }).click();
  await expect(page.getByText(`${form}:`).first()).toBeVisible();
  await setField(page, 'Size, of life', `${size} %`);
}

for (const those of [pieces.slice(0, 4), pieces.slice(4, 8), pieces.slice(8)]) {
  test(`from their measures, inside their bounds: ${those.map((p) => p.form).join('; ')}`, async ({ page }) => {
    for (const [i, piece] of those.entries()) {
      await (i === 0 ? startForm : startAgain)(page, piece.form, piece.size);
      for (const [label, value] of piece.measures) await setField(page, label, value);
      await saved(page);
      await expect(page.locator('.wrong')).toHaveCount(0);
      await expect
        .poll(async () => {
          const found = await litres(page);
          return found > piece.litres[0] && found < piece.litres[1];
        }, piece.form)
        .toBe(true);
      const wet = (await beam(page, 'Weight, wet').textContent()) ?? '';
      const kg = figure(wet) / (/ g$/.test(wet) ? 1000 : 1);
      expect(kg, piece.form).toBeGreaterThan(piece.kg[0]);
      expect(kg, piece.form).toBeLessThan(piece.kg[1]);
      await expect(page.locator('.view canvas')).toBeVisible();
    }
  });
}

test('a head to the measures of a type, another, and back; one begun before is made as today, and back', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByLabel('What do you call it?').fill('Trial crone');
  await page.getByLabel('What is it?').selectOption({ label: 'head' });
  await page.getByLabel('To the measures of').selectOption({ label: 'a crone' });
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await page.waitForURL(/\/build\//);
  await settled(page);
  await page.getByRole('button', { name: /Form$/ }).click();
  const nose = page.getByLabel('Nose stands out');
  await expect(nose).toHaveValue('40 mm');
  const crone = await litres(page);
  await page.getByLabel('To the measures of').selectOption({ label: 'a brute' });
  await page.getByRole('button', { name: 'Take them' }).click();
  await expect(nose).toHaveValue('20 mm');
  await settled(page);
  expect(await litres(page)).toBeGreaterThan(crone * 1.5);
  await page.getByRole('button', { name: 'Undo: To the measures of a brute' }).click();
  await expect(nose).toHaveValue('40 mm');
  await saved(page);
  const kept = JSON.parse(readFileSync('tests/fixtures/forms/first-making.json', 'utf8')) as { build: object }[];
  const brought = await page.request.post('/api/builds?file', { data: kept[0]!.build });
  const { id } = (await brought.json()) as { id: string };
  await page.goto(`/build/${id}?station=form`);
  await settled(page);
  await expect(page.getByText('begun before the form was made anew')).toBeVisible();
  await expect(page.getByLabel('Nose, root to foot')).toHaveCount(0);
  const before = await litres(page);
  await page.getByRole('button', { name: 'Make it as today' }).click();
  await expect(page.getByLabel('Nose, root to foot')).toHaveValue('52 mm');
  await expect(page.getByText('begun before the form was made anew')).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo: The bust as it is made today/ }).click();
  await settled(page);
  expect(await litres(page)).toBe(before);
});

test('shaping: pick, move, mirror, add, pose, undo; a bad figure is refused', async ({ page }) => {
  await startForm(page, 'person, standing or posed', '25');
  const tree = page.getByRole('list', { name: 'Joints and masses' });
  await tree.getByRole('button', { name: 'forearm, right, mass', exact: true }).click();
  await expect(page.getByRole('group', { name: 'Shaping the forearm, right' })).toContainText('Reflects its left');
  await setField(page, 'long', '150 %');
  await saved(page);
  await tree.getByRole('button', { name: 'forearm, left, mass', exact: true }).click();
  await expect(page.getByLabel('long', { exact: true })).toHaveValue('150 %');
  await page.getByLabel('long', { exact: true }).fill('none');
  await page.getByLabel('long', { exact: true }).press('Enter');
  await expect(page.locator('.wrong').first()).toContainText('Still 150 %');
  await page.getByLabel('long', { exact: true }).press('Escape');
  const before = await litres(page);
  // Beside something large: on a forearm it would be a few drops.
  await tree.getByRole('button', { name: 'rib cage, mass', exact: true }).click();
  await page.getByRole('button', { name: 'Add a mass' }).click();
  await page.getByRole('button', { name: 'block', exact: true }).click();
  await expect(tree).toContainText('block 1');
  await page.getByRole('button', { name: 'Mirror', exact: true }).click();
  await expect(tree).toContainText('block 1, right');
  await expect.poll(() => litres(page)).toBeGreaterThan(before);
  await tree.getByRole('button', { name: 'shoulder, left, joint', exact: true }).click();
  await setField(page, 'lean', '-70°');
  await expect(page.getByRole('button', { name: 'Undo: Turn the shoulder, left' })).toBeVisible();
  await page.getByRole('button', { name: 'Back to the stance' }).click();
  for (let i = 0; i < 5; i++) await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
  await expect.poll(() => litres(page)).toBeCloseTo(before, 1);
});

test('the picture after an edit is drawn with the shaders there are', async ({ page }) => {
  // Making one takes longer than drawing with it, most of all where there is no graphics card.
  await page.addInitScript(() => {
    const counted = window as unknown as { shaders: number };
    counted.shaders = 0;
    const { prototype } = WebGL2RenderingContext;
    const link = Reflect.get(prototype, 'linkProgram') as (this: WebGL2RenderingContext, p: WebGLProgram) => void;
    prototype.linkProgram = function (program) {
      counted.shaders += 1;
      link.call(this, program);
    };
  });
  const shaders = () => page.evaluate(() => (window as unknown as { shaders: number }).shaders);
  await openLamplighter(page, 'form');
  await expect.poll(shaders).toBeGreaterThan(0);
  const high = page.getByRole('textbox', { name: 'Or by its height' });
  // The first edit may bring what had not been drawn before.
  for (const [i, height] of ['600 mm', '620 mm', '640 mm'].entries()) {
    const before = await shaders();
    const litresBefore = await litres(page);
    await high.fill(height);
    await high.press('Enter');
    await expect.poll(() => litres(page)).not.toBe(litresBefore);
    await saved(page);
    await page.waitForTimeout(1500);
    if (i > 0) expect(await shaders(), height).toBe(before);
  }
});

test('by hand on the piece: a click picks, arrows nudge, one gesture is one step', async ({ page }) => {
  await startForm(page, 'free start', '100');
  const canvas = page.locator('.view canvas');
  const box = await canvas.boundingBox();
  if (!box) throw new Error('no picture');
  await page.getByRole('button', { name: 'Front' }).click();
  await page.waitForTimeout(400);
  await canvas.click({ position: { x: box.width / 2 + 60, y: box.height * 0.46 } });
  await expect(page.getByRole('group', { name: 'Shaping the lump' })).toBeVisible();
  await canvas.focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByLabel('up', { exact: true })).not.toHaveValue('0 mm');
  await expect(page.getByRole('button', { name: 'Undo: Move the lump' })).toBeVisible();
});

test('a mesh comes in, to a height, and goes out; what is no mesh is refused and nothing changes', async ({ page }) => {
  await startForm(page, 'free start', '100');
  const give = (name: string, buffer: Buffer) =>
    page.getByLabel('Mesh file').setInputFiles({ name, mimeType: 'model/stl', buffer });
  const torn = Buffer.from(writeMesh('stl', [{ ...ballMesh(0.1, 24), name: 'ball' }]).subarray(0, 3000));
  await give('torn.stl', torn);
  await expect(page.getByRole('dialog')).toContainText(/the triangle count: it claims \d+ triangles and holds \d+/);
  await expect(page.getByRole('dialog')).toContainText('The build is as it was');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await give('ball.stl', Buffer.from(writeMesh('stl', [{ ...ballMesh(0.1, 48), name: 'ball' }])));
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('closed');
  await expect(dialog.getByLabel('Unit of the file')).toHaveValue('mm');
  await dialog.getByLabel('Scaled to a height of').fill('300 mm');
  await dialog.getByRole('button', { name: 'Put it on the turntable' }).click();
  await expect(dialog).toHaveCount(0, { timeout: 30_000 });
  // A ball of 300 mm across.
  await expect.poll(() => litres(page), { timeout: 15_000 }).toBeGreaterThan(13.9);
  expect(await litres(page)).toBeLessThan(14.3);
  await saved(page);
  await page.getByText('Take it out as a mesh').click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take out' }).click();
  expect((await download).suggestedFilename()).toMatch(/\.stl$/);
  await page.reload();
  await settled(page);
  await page.getByRole('button', { name: /Form$/ }).click();
  await expect.poll(() => litres(page)).toBeGreaterThan(13.9);
});

test('a broken scan is taken the right way up, turned by hand, and what was wrong with it is said', async ({
  page,
}) => {
  await startForm(page, 'free start', '100');
  const torn = without(ballMesh(0.1, 48), (f) => f % 11 === 3 || f > 8600);
  const crumb = ballMesh(0.004, 8, [0.2, 0, 0]);
  await page.getByLabel('Mesh file').setInputFiles({
    name: 'scan.stl',
    mimeType: 'model/stl',
    buffer: Buffer.from(writeMesh('stl', [{ ...together(torn, crumb), name: 'scan' }])),
  });
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText(/it holds 4[.\d]* l/, { timeout: 30_000 });
  await expect(dialog).toContainText(/open in \d+ places, the largest .* round: closed straight across/);
  await expect(dialog).toContainText('1 crumb beside it left out');
  await expect(dialog.getByRole('radio')).toHaveCount(3);
  await dialog.getByRole('button', { name: 'lean forward' }).click();
  await expect(dialog.getByRole('radio', { name: 'turned by hand' })).toBeChecked();
  await expect(dialog.getByRole('img')).toHaveAttribute(
    'aria-label',
    /this mesh 20\d mm, a hand 190 mm, the form now 25\d mm/,
  );
  await dialog.getByRole('button', { name: 'Put it on the turntable' }).click();
  await expect(dialog).toHaveCount(0, { timeout: 60_000 });
  await expect.poll(() => litres(page), { timeout: 15_000 }).toBeGreaterThan(4.05);
  expect(await litres(page)).toBeLessThan(4.25);
});

test('a mesh broken on purpose gets limbs and an armature, is posed, and comes out as a cut list, all of it sound', async ({
  page,
}) => {
  test.slow();
  await startForm(page, 'free start', '100');
  const whole = meshOf(longEars, 80);
  const broken = together(
    without(whole, (f) => f % 13 === 4),
    ballMesh(0.02, 12, [0, 0.02, 0.2]),
    ballMesh(0.003, 6, [0.3, 0, 0.1]),
  );
  await page.getByLabel('Mesh file').setInputFiles({
    name: 'long ears.stl',
    mimeType: 'model/stl',
    buffer: Buffer.from(writeMesh('stl', [{ ...broken, name: 'long ears' }])),
  });
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Which way is up?', { timeout: 60_000 });
  // Upright it is the tallest of the ways shown.
  const ways = dialog.locator('.way-up');
  const tall: number[] = [];
  for (let i = 0; i < (await ways.count()); i++) {
    await ways.nth(i).click();
    const words = await dialog.getByText(/: across, deep, high/).textContent();
    tall.push(Number(/× ([\d.]+) mm: across/.exec(words ?? '')?.[1]));
  }
  await ways.nth(tall.indexOf(Math.max(...tall))).click();
  await dialog.getByRole('button', { name: 'Put it on the turntable' }).click();
  await expect(dialog).toHaveCount(0, { timeout: 90_000 });
  const tree = page.getByRole('list', { name: 'Joints and masses' });
  await expect(tree.getByRole('button', { name: /^limb \d+, left, top, joint$/ })).toBeVisible();
  await expect(tree.getByRole('button', { name: /^limb \d+, right, top, joint$/ })).toBeVisible();
  await tree.getByRole('button', { name: /^root of limb \d+, left, top, joint$/ }).click();
  await page.getByLabel('The limb is called').fill('ear, left');
  await page.keyboard.press('Tab');
  await expect(tree.getByRole('button', { name: 'root of ear, left, joint' })).toBeVisible();
  await settled(page);
  const before = await litres(page);
  await page.getByRole('group', { name: 'Posing the root of ear, left' }).getByLabel('nod').fill('40');
  await page.keyboard.press('Tab');
  await settled(page);
  expect(Math.abs((await litres(page)) / before - 1)).toBeLessThan(0.03);
  await expect(page.getByRole('table', { name: 'Regions of the form' })).toContainText('ear left');
  // Its joint nudged by key on the piece, and put back; it comes away, with a wire and a weight of its own.
  await page.locator('.view canvas').focus();
  await page.keyboard.press('ArrowUp');
  await page.getByRole('button', { name: 'Undo: Move a joint of ear, left' }).click({ timeout: 20_000 });
  await page
    .getByLabel('Comes away here')
    .selectOption({ label: 'pushed into a close socket, comes out' }, { timeout: 20_000 });
  const station = (name: string) =>
    page.getByRole('navigation', { name: 'Stations' }).getByRole('button', { name: new RegExp(`${name}$`) });
  await station('Move').click();
  await expect(page.getByRole('main')).toContainText(/from the ear, left on/);
  // Each station's remedies are pressed until nothing is left.
  for (const name of ['Armature', 'Load', 'Drying']) {
    await station(name).click();
    const isSound = async () => /^\s*Sound/.test(await page.getByRole('main').innerText());
    const remedy = page.locator('.remedies li').first().getByRole('button');
    for (let press = 0; press < 5; press++) {
      await expect.poll(async () => (await isSound()) || (await remedy.count()) > 0).toBe(true);
      if (await isSound()) break;
      const worst = await page.locator('.panel h2').first().textContent();
      await remedy.click({ timeout: 30_000 });
      await expect(page.locator('.panel h2').first()).not.toHaveText(worst ?? '');
    }
    await expect.poll(isSound).toBe(true);
  }
  await station('Armature').click();
  await expect(page.getByRole('table', { name: 'Members' })).toContainText('wire in the ear, left, which comes away');
  await page.goto(`${page.url().split('?')[0]}/print`);
  await expect(page.getByRole('heading', { name: 'Cut list' })).toBeVisible();
  await expect(page.locator('body')).toContainText('ear, left');
});

test('cover: told by member, shown on the form, mended by a press', async ({ page }) => {
  await startForm(page, 'person, standing or posed', '20');
  await page.getByRole('button', { name: /Armature$/ }).click();
  await expect(page.getByRole('table', { name: 'Members' })).toContainText('Cover');
  // Left to itself it keeps its cover; a wire of the maker's own need not.
  const arm = page.getByLabel('Stock of the left arm wire');
  await arm.fill('6 mm annealed aluminium');
  await arm.press('Enter');
  await expect(page.locator('.panel h2').first()).toContainText(/only .* over (it|them)|stands out/);
  await page.getByRole('button', { name: 'Cover', exact: true }).click();
  await expect(page.locator('.key')).toContainText('From the face to the nearest member');
  const remedy = page.locator('.remedies li').first();
  await expect(remedy).toContainText(/mm → /);
  const sentence = await page.locator('.panel h2').first().textContent();
  await remedy.getByRole('button').click();
  await expect(page.locator('.panel h2').first()).not.toHaveText(sentence ?? '');
});

test('references: an outline scaled by two marks hangs behind the piece; one with a script is refused', async ({
  page,
}) => {
  await startForm(page, 'bust', '100');
  const give = (name: string, body: string, mimeType = 'image/svg+xml') =>
    page.getByLabel('Reference file').setInputFiles({ name, mimeType, buffer: Buffer.from(body) });
  const svg = (inside: string) => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 200">\n${inside}\n</svg>`;
  await give('bad.svg', svg('<script>document.title="x"</script>'));
  await expect(page.getByText('Not taken: line 2: it holds a script')).toBeVisible();
  await give('photo.png', 'not a picture at all', 'image/png');
  await expect(page.getByText(/Not taken: it is no picture/)).toBeVisible();
  await give('head.svg', svg('<g transform="translate(10 0)"><ellipse cx="40" cy="60" rx="30" ry="50"/></g>'));
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('They are apart').fill('nothing');
  await dialog.getByRole('button', { name: 'Hang it behind the piece' }).click();
  await expect(dialog).toContainText('Type how far apart');
  await dialog.getByLabel('They are apart').fill('230 mm');
  await dialog.getByLabel('Lower mark').focus();
  await page.keyboard.press('ArrowUp');
  await dialog.getByRole('button', { name: 'Hang it behind the piece' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByLabel('head.svg, front')).toBeChecked();
  await expect(page.getByRole('button', { name: 'Front', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await saved(page);
  await page.getByRole('button', { name: 'Take head.svg away' }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByLabel('head.svg, front')).toBeChecked();
});

test('size: what another would bring, by height, and set out from a study', async ({ page }) => {
  await startForm(page, 'bust', '100');
  await page.getByRole('button', { name: 'What would another size bring?' }).click();
  const table = page.getByRole('table', { name: 'At other sizes' });
  await expect(table.locator('tbody tr')).toHaveCount(5);
  await expect(table).not.toContainText('working it out', { timeout: 20_000 });
  await page.getByRole('button', { name: 'Make it 50 % of life' }).click();
  await expect(page.getByLabel('Size, of life')).toHaveValue('50 %');
  await setField(page, 'Or by its height', '400 mm');
  await expect.poll(async () => figure(await page.getByLabel('Or by its height').inputValue())).toBeGreaterThan(390);
  await page.getByRole('button', { name: 'Set it out from a small study' }).click();
  await setField(page, 'The study is high', '100 mm');
  await setField(page, 'reading 1', '12 mm');
  await expect(page.getByRole('table', { name: 'Readings on the study' })).toContainText(/4[78](\.\d)? mm/);
});
