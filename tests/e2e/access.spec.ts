import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { copyDemo } from './support';

const axe = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

async function serious(page: Page, only: readonly string[] = []): Promise<string[]> {
  await page.evaluate(axe);
  return page.evaluate(async (rules) => {
    const run = (
      window as unknown as {
        axe: {
          run: (
            options: object,
          ) => Promise<{ violations: { id: string; impact: string; nodes: { target: string[] }[] }[] }>;
        };
      }
    ).axe;
    const { violations } = await run.run(rules.length > 0 ? { runOnly: [...rules] } : {});
    return violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map(
        (v) =>
          `${v.id}: ${v.nodes
            .map((n) => n.target.join(' '))
            .slice(0, 4)
            .join(' | ')}`,
      );
  }, only);
}

const stations = ['brief', 'form', 'armature', 'load', 'clay', 'drying', 'plan', 'move', 'log'] as const;

/** What each page shows when it is there to be looked at, and what is pressed on it first. */
const pages: Readonly<Record<string, (page: Page, id: string) => Promise<unknown>>> = {
  ...Object.fromEntries(
    stations.map((station) => [
      station,
      async (page: Page, id: string) => {
        await page.goto(`/build/${id}?station=${station}`);
        await expect(page.getByTestId('beam-Weight, wet')).toHaveText(/\d/);
        await page.waitForTimeout(400);
      },
    ]),
  ),
  shelf: async (page) => {
    await page.goto('/');
    await expect(page.locator('.piece-card').first()).toBeVisible();
  },
  'bench card': async (page, id) => {
    await page.goto(`/build/${id}/tonight`);
    await expect(page.getByTestId('next-step')).toBeVisible();
    await page.getByRole('button', { name: /^Coat, 30/ }).click();
    await expect(page.getByTestId('clock')).toBeVisible();
  },
  stock: async (page) => {
    await page.goto('/stock');
    await expect(page.getByRole('heading', { name: 'Clay' })).toBeVisible();
  },
  'plan with a step chosen': async (page, id) => {
    await page.goto(`/build/${id}?station=plan`);
    await expect(page.locator('.slip').first()).toBeVisible();
    await page.locator('.slip').first().click();
  },
  'plan on paper': (page, id) => page.goto(`/build/${id}/print/plan`),
  print: (page, id) => page.goto(`/build/${id}/print`),
  templates: (page, id) => page.goto(`/build/${id}/print/templates`),
  'schools side by side': async (page, id) => {
    await page.goto(`/build/${id}?station=armature`);
    await page.getByRole('button', { name: /Compare schools/ }).click();
    await expect(page.getByRole('table', { name: 'Schools side by side' })).toHaveAttribute('aria-busy', 'false');
    await page.waitForTimeout(500);
  },
};

for (const [name, open] of Object.entries(pages)) {
  test(`nothing serious for a screen reader or low sight, by day and by evening: ${name}`, async ({ page }) => {
    const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
    await page.emulateMedia({ colorScheme: 'light' });
    const id = await copyDemo(page.request, 'The Lamplighter');
    await open(page, id);
    expect(await serious(page)).toEqual([]);
    const day = await ground();
    await page.emulateMedia({ colorScheme: 'dark' });
    // What is printed is on white paper at any hour.
    if (!page.url().includes('/print')) await expect.poll(ground).not.toBe(day);
    // All but the colours is the same page.
    expect(await serious(page, ['color-contrast'])).toEqual([]);
  });
}

test('first screen: its script before charts and the picture under 320 kB compressed', async ({ page }) => {
  const id = await copyDemo(page.request, 'The Lamplighter');
  await page.goto('/');
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Network.setCacheDisabled', { cacheDisabled: true });
  const sizes = new Map<string, number>();
  const names = new Map<string, string>();
  session.on('Network.responseReceived', (e) => names.set(e.requestId, e.response.url));
  session.on('Network.loadingFinished', (e) => sizes.set(names.get(e.requestId) ?? '', e.encodedDataLength));
  const html = await (await page.request.get(`/build/${id}`)).text();
  const initial = [...new Set([...html.matchAll(/src="([^"]+\.js[^"]*)"/g)].map((m) => m[1]!))];
  const began = Date.now();
  await page.goto(`/build/${id}`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const shown = Date.now() - began;
  await page.waitForLoadState('networkidle');
  const bytes = [...sizes]
    .filter(([url]) => initial.some((i) => url.endsWith(i)))
    .reduce((sum, [, size]) => sum + size, 0);
  process.stdout.write(
    `first screen in ${shown} ms; script before charts and picture ${Math.round(bytes / 1000)} kB compressed in ${initial.length} files\n`,
  );
  expect(bytes).toBeGreaterThan(50_000);
  expect(bytes).toBeLessThan(320_000);
});
