import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import { formatDate, formatMass, sensible } from '../../src/core/quantity';
import { beam, openDemo, saved, settled } from './support';

/** What the command line says of a build, told for the same moment, log and workshop. */
interface Told {
  readonly summary: { readonly wet: number; readonly utilisation: number; readonly crack: number };
  readonly dates: {
    readonly ready: { readonly likely: string } | null;
    readonly dryThrough: { readonly likely: string } | null;
  };
  readonly findings: readonly { readonly id: string; readonly sentence: string }[];
  readonly regions: readonly { readonly name: string; readonly crack: number }[];
}

async function checked(request: APIRequestContext, id: string): Promise<Told> {
  const folder = mkdtempSync(path.join(tmpdir(), 'sostegno-told-'));
  try {
    const put = async (name: string, from: string) => {
      writeFileSync(path.join(folder, name), await (await request.get(from)).text());
      return path.join(folder, name);
    };
    const build = await put('build.json', `/api/builds/${id}/export`);
    const log = await put('log.json', `/api/builds/${id}/log`);
    const workshop = await put('workshop.json', `/api/builds/${id}/plan?zone=UTC`);
    const cli = [
      'node_modules/tsx/dist/cli.mjs',
      'src/cli/main.ts',
      'check',
      build,
      '--log',
      log,
      '--workshop',
      workshop,
    ];
    const run = spawnSync('node', [...cli, '--now', new Date().toISOString()], {
      encoding: 'utf8',
      maxBuffer: 64e6,
    });
    expect(run.status, run.stderr).toBe(0);
    return JSON.parse(run.stdout) as Told;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const shelfCard = async (page: Page, id: string) => {
  const list = (await (await page.request.get('/api/builds')).json()) as {
    id: string;
    fresh: boolean;
    card: Told;
  }[];
  return list.find((b) => b.id === id)!;
};

/** Each surface, and what it must show for what was told. */
const surfaces: readonly (readonly [string, (page: Page, id: string, told: Told) => Promise<void>])[] = [
  [
    'the beam',
    async (page, _id, { summary, dates }) => {
      await expect(beam(page, 'Weight, wet')).toHaveText(formatMass(summary.wet, 'metric'));
      await expect(beam(page, 'Weakest member')).toHaveText(`${sensible(summary.utilisation, 2)} ×`);
      await expect(beam(page, 'Ready')).toHaveText(dates.ready ? formatDate(dates.ready.likely) : 'never');
      if (dates.dryThrough) {
        await expect(beam(page, 'Crack index')).toHaveText(sensible(summary.crack, 2));
        await expect(page.locator('.beam')).toContainText(`dry through ${formatDate(dates.dryThrough.likely)}`);
      }
    },
  ],
  [
    'drying, region by region',
    async (page, id, { regions, dates }) => {
      if (!dates.dryThrough) return;
      await page.goto(`/build/${id}?station=drying`);
      await settled(page);
      const table = page.getByRole('table', { name: 'Drying by region' });
      for (const r of regions.filter((x) => x.crack > 0)) {
        const row = table.getByRole('row', { name: new RegExp(`^${r.name} ?(quick|whole)`) });
        await expect(row).toContainText(sensible(r.crack, 2));
      }
    },
  ],
  [
    'the plan',
    async (page, id, { findings, dates }) => {
      await page.goto(`/build/${id}?station=plan`);
      await settled(page);
      const said = findings.find((f) => f.id === 'plan')!.sentence;
      await expect(page.getByTestId('plan-verdict')).toHaveText(said);
      if (dates.ready) expect(said.toLowerCase()).toContain(formatDate(dates.ready.likely).toLowerCase());
    },
  ],
  [
    'the shelf',
    async (page, id, { summary, dates }) => {
      await expect.poll(async () => (await shelfCard(page, id)).fresh, { timeout: 60_000 }).toBe(true);
      const { card } = await shelfCard(page, id);
      expect(card.summary.wet).toBeCloseTo(summary.wet, 9);
      expect(card.summary.crack).toBeCloseTo(summary.crack, 9);
      expect(card.summary.utilisation).toBeCloseTo(summary.utilisation, 9);
      expect(card.dates.ready?.likely).toBe(dates.ready?.likely);
      expect(card.dates.dryThrough?.likely.slice(0, 16)).toBe(dates.dryThrough?.likely.slice(0, 16));
    },
  ],
];

async function allSayTheSame(page: Page, id: string, when: string): Promise<void> {
  const told = await checked(page.request, id);
  for (const [surface, reads] of surfaces) await test.step(`${when}: ${surface}`, () => reads(page, id, told));
}

for (const name of ['Harbour master']) {
  test(`${name}: every surface says what the command line says, as it is and after a change of clay`, async ({
    page,
  }) => {
    const id = await openDemo(page, name, 'brief');
    await allSayTheSame(page, id, 'as it is');
    await page.goto(`/build/${id}?station=brief`);
    await settled(page);
    await page.getByLabel('Clay', { exact: true }).selectOption('earthen-air-dry');
    await saved(page);
    await allSayTheSame(page, id, 'in another clay');
  });
}
