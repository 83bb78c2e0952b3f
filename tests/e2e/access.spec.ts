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

type Look = readonly [name: string, open: (page: Page) => Promise<unknown>];

const station = (name: string, then: (page: Page) => Promise<unknown> = async () => undefined): Look => [
  name,
  async (page) => {
    await page
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('button', { name: new RegExp(`${name}$`) })
      .click();
    await then(page);
    await page.waitForTimeout(400);
  },
];
const opened: Look = ['as it opens', async () => undefined];

/** What is opened, what it shows when it is there to be looked at, and what is looked at on it one after another. */
const pages: readonly {
  readonly at: (id: string) => string;
  readonly there: (page: Page) => Promise<unknown>;
  readonly looks: readonly Look[];
}[] = [
  ...[
    [station('Brief'), station('Form'), station('Load')],
    [
      station('Armature'),
      station('Move'),
      // A dialog over the page: nothing behind it is reached any more.
      station('Armature', async (page) => {
        await page.getByRole('button', { name: /Compare schools/ }).click();
        await expect(page.getByRole('table', { name: 'Schools side by side' })).toHaveAttribute('aria-busy', 'false');
      }),
    ],
    [station('Clay'), station('Drying'), station('Bench log')],
    [
      station('Mould', async (page) => {
        await page.getByLabel('Taken of it').selectOption('plaster-parts');
        await expect(page.getByRole('table', { name: 'Parts of the mould' })).toBeVisible();
        await expect(page.getByRole('table', { name: 'What the mould takes' })).toBeVisible();
      }),
      station('Mould', async (page) => {
        await page.getByRole('button', { name: 'Compare every kind of mould …' }).click();
        await expect(page.getByRole('table', { name: 'Kinds of mould' })).toBeVisible();
      }),
    ],
    [
      station('Plan', (page) => expect(page.locator('.slip').first()).toBeVisible()),
      station('Plan', (page) => page.locator('.slip').first().click()),
    ],
  ].map((looks) => ({
    at: (id: string) => `/build/${id}`,
    there: (page: Page) => expect(page.getByTestId('beam-Weight, wet')).toHaveText(/\d/),
    looks,
  })),
  { at: () => '/', there: (page) => expect(page.locator('.piece-card').first()).toBeVisible(), looks: [opened] },
  {
    at: (id) => `/build/${id}/tonight`,
    there: (page) => expect(page.getByTestId('next-step')).toBeVisible(),
    looks: [
      [
        'with a clock set',
        async (page) => {
          await page.getByRole('button', { name: /^Coat, 30/ }).click();
          await expect(page.getByTestId('clock')).toBeVisible();
        },
      ],
    ],
  },
  {
    at: () => '/stock',
    there: (page) => expect(page.getByRole('heading', { name: 'Clay' })).toBeVisible(),
    looks: [opened],
  },
  ...['print/plan', 'print', 'print/templates', 'print/mould'].map((sheet) => ({
    at: (id: string) => `/build/${id}/${sheet}`,
    there: (page: Page) => expect(page.locator('h1').first()).toBeVisible(),
    looks: [opened],
  })),
];

for (const { at, there, looks } of pages) {
  const names = looks.map(([name]) => name).join(', ');
  test(`nothing serious for a screen reader or low sight, by day and by evening: ${at('…')}, ${names}`, async ({
    page,
  }) => {
    const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
    await page.emulateMedia({ colorScheme: 'light' });
    await page.goto(at(await copyDemo(page.request, 'The Lamplighter')));
    await there(page);
    for (const [name, look] of looks) {
      await page.emulateMedia({ colorScheme: 'light' });
      await look(page);
      expect(await serious(page), name).toEqual([]);
      const day = await ground();
      await page.emulateMedia({ colorScheme: 'dark' });
      // What is printed is on white paper at any hour.
      if (!page.url().includes('/print')) await expect.poll(ground).not.toBe(day);
      // All but the colours is the same page.
      expect(await serious(page, ['color-contrast']), `${name}, by evening`).toEqual([]);
    }
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
