import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import { check, readCheckArguments } from '../../src/cli/check';
import type { Build } from '../../src/core/document';
import { Evaluator } from '../../src/core/evaluate';
import type { Finding } from '../../src/core/finding';
import { formatDate, formatMass, isoDateOf, sensible } from '../../src/core/quantity';
import { otherDemoBuilds, lamplighter } from '../../src/server/demo-builds';
import { weighings } from '../support/weighed-log';
import { seededPiece } from '../support/seeded-pieces';
import { beam, saved, setField, settled } from './support';

/** What the command line says of a build, told for the same moment, log and workshop. */
interface Told {
  readonly summary: { readonly wet: number; readonly utilisation: number; readonly crack: number };
  readonly dates: {
    readonly ready: { readonly likely: string } | null;
    readonly dryThrough: { readonly likely: string; readonly earliest: string; readonly latest: string } | null;
    readonly weighings: number;
  };
  readonly findings: readonly Pick<Finding, 'id' | 'station' | 'sentence'>[];
  readonly regions: readonly { readonly name: string; readonly crack: number }[];
}

async function checked(request: APIRequestContext, id: string, full: boolean): Promise<Told> {
  const folder = mkdtempSync(path.join(tmpdir(), 'sostegno-told-'));
  try {
    const put = async (name: string, from: string) => {
      writeFileSync(path.join(folder, name), await (await request.get(from)).text());
      return path.join(folder, name);
    };
    const build = await put('build.json', `/api/builds/${id}/export`);
    const log = await put('log.json', `/api/builds/${id}/log`);
    const workshop = await put('workshop.json', `/api/builds/${id}/plan?zone=UTC`);
    // As the command does it, without a process for each; that it prints this is tests/unit/command-line's.
    const asked = readCheckArguments([
      build,
      '--log',
      log,
      '--workshop',
      workshop,
      '--now',
      new Date().toISOString(),
      ...(full ? ['--full'] : []),
    ]);
    if (!asked.ok) throw new Error(asked.message);
    const said = check(readFileSync(asked.value.file, 'utf8'), asked.value.options);
    if (!said.ok) throw new Error(`${said.path}: ${said.message}`);
    // Connections that the server closed meanwhile are seen to be closed before the next request.
    await new Promise((done) => setTimeout(done, 100));
    return JSON.parse(JSON.stringify(said.value)) as Told;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const plain = (text: string) => text.replaceAll(/\s+/g, ' ');
const station = async (page: Page, name: string) => {
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('button', { name }).click();
};
const stations = {
  brief: 'Brief',
  form: 'Form',
  armature: 'Armature',
  load: 'Load',
  clay: 'Clay',
  drying: 'Drying',
  plan: 'Plan',
  move: 'Move',
} as const;
const pageText = async (page: Page) => plain((await page.locator('body').textContent()) ?? '');
const planSentence = ({ findings }: Told) => findings.find((f) => f.id === 'plan')!.sentence;

/** Each surface, and what it must show for what was told. Those on the bench come first: no page is loaded again for them. */
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
  ...Object.entries(stations).map(
    ([of, name]) =>
      [
        `every finding on ${name}`,
        async (page: Page, _id: string, { findings }: Told) => {
          await station(page, name);
          for (const f of findings.filter((x) => x.station === of))
            await expect.poll(() => pageText(page), `${f.id} on ${name}`).toContain(plain(f.sentence));
        },
      ] as const,
  ),
  [
    'drying, region by region',
    async (page, _id, { regions, dates }) => {
      if (!dates.dryThrough) return;
      await station(page, 'Drying');
      const table = page.getByRole('table', { name: 'Drying by region' });
      for (const r of regions.filter((x) => x.crack > 0)) {
        const row = table.getByRole('row', { name: new RegExp(`^${r.name} ?(quick|whole)`) });
        await expect(row).toContainText(sensible(r.crack, 2));
      }
    },
  ],
  [
    'the log',
    async (page, _id, { dates }) => {
      await station(page, 'Bench log');
      if (!dates.dryThrough || dates.weighings === 0) return;
      const said = page.getByTestId('log-dry-through');
      await expect(said).toContainText(`Dry through on ${formatDate(dates.dryThrough.likely)}`);
      await expect(said).toContainText(`${formatDate(dates.dryThrough.earliest)} at the earliest`);
      await expect(said).toContainText(`${formatDate(dates.dryThrough.latest)} at the latest`);
      await expect(said).toContainText(`by ${dates.weighings} weighing`);
    },
  ],
  [
    'the shelf',
    async (page, id, { summary, dates }) => {
      // As the shelf does: asked by name, which also works out what a new quarter of an hour has made old.
      const card = async () => {
        const list = (await (await page.request.get(`/api/cards?ids=${id}`)).json()) as {
          id: string;
          fresh: boolean;
          card: Pick<Told, 'summary' | 'dates'>;
        }[];
        return list.find((b) => b.id === id)!;
      };
      const now = async () => {
        const { fresh, card: shown } = await card();
        return fresh ? sensible(shown.summary.crack, 6) : 'being worked out';
      };
      await expect.poll(now, { timeout: 90_000 }).toBe(sensible(summary.crack, 6));
      const { card: shown } = await card();
      expect(shown.summary.wet).toBeCloseTo(summary.wet, 9);
      // Two dryings of the whole sum their cells in another order: seven digits agree.
      expect(shown.summary.crack / (summary.crack || 1)).toBeCloseTo(summary.crack ? 1 : 0, 6);
      expect(shown.summary.utilisation).toBeCloseTo(summary.utilisation, 9);
      expect(shown.dates.ready?.likely).toBe(dates.ready?.likely);
      expect(shown.dates.dryThrough?.likely.slice(0, 16)).toBe(dates.dryThrough?.likely.slice(0, 16));
    },
  ],
  [
    'the plan on paper',
    async (page, id, told) => {
      await page.goto(`/build/${id}/print/plan`);
      await expect.poll(() => pageText(page)).toContain(plain(planSentence(told)));
    },
  ],
  [
    'the bench card',
    async (page, id, told) => {
      await page.goto(`/build/${id}/tonight`);
      await expect.poll(() => pageText(page)).toContain(plain(planSentence(told)));
    },
  ],
];

async function onTheBench(page: Page, id: string): Promise<void> {
  await page.goto(`/build/${id}?station=drying`);
  await settled(page);
}

async function allSayTheSame(page: Page, id: string, when: string, full = false): Promise<void> {
  // Other pieces take hands: what they need is known when their cards are, and a page reads it when it opens.
  const fresh = async () =>
    ((await (await page.request.get(`/api/cards?ids=${id}`)).json()) as { fresh: boolean }[])[0]?.fresh;
  await expect.poll(fresh, { timeout: 120_000 }).toBe(true);
  await onTheBench(page, id);
  const told = await checked(page.request, id, full);
  for (const [surface, reads] of surfaces) await test.step(`${when}: ${surface}`, () => reads(page, id, told));
}

/** What is done to a piece, one after another; after each, every surface is read again. */
const changes: Readonly<Record<string, (page: Page, id: string) => Promise<boolean>>> = {
  'seven slow weighings': async (page, id) => {
    const build = (await (await page.request.get(`/api/builds/${id}/export`)).json()) as Build;
    for (const e of weighings(new Evaluator(), build, [0.2, 8, 20, 32, 44, 56, 68], 0.8)) {
      const answer = await page.request.post(`/api/builds/${id}/log`, { data: { ...e, id: randomUUID() } });
      expect(answer.ok(), await answer.text()).toBe(true);
    }
    return false;
  },
  'a fan': async (page, id) => {
    await onTheBench(page, id);
    await setField(page, 'Air over it', '1.5');
    await saved(page);
    return false;
  },
  'another clay': async (page, id) => {
    await onTheBench(page, id);
    await station(page, 'Brief');
    await page.getByLabel('Clay', { exact: true }).selectOption('earthen-air-dry');
    await saved(page);
    return false;
  },
  'the whole dried': async (page, id) => {
    await onTheBench(page, id);
    await page.getByRole('button', { name: 'Dry the whole piece' }).click();
    await expect(page.getByRole('button', { name: 'Draw the place wet longest and the worst crack' })).toBeVisible({
      timeout: 300_000,
    });
    return true;
  },
};

/** Begun four days ago: what is weighed lies in the past. */
const fourDaysAgo = () => isoDateOf(Date.now() / 1000 - 4 * 86400);
const own = (seed: number) => () => {
  const piece = seededPiece(seed);
  return { ...piece, name: `Own piece ${seed}`, room: { ...piece.room, airSpeed: 0.1 } };
};
const demo = (name: string) => () =>
  [lamplighter(fourDaysAgo(), '2027-03-01'), ...otherDemoBuilds(fourDaysAgo(), '2027-03-01')].find(
    (b) => b.name === name,
  )!;
/** All of them take half an hour and are read where asked for; three stand for them otherwise. */
const every = process.env['SOSTEGNO_EVERY_PIECE'] === 'yes';
const pieces: readonly (readonly [string, () => Build, readonly string[]])[] = every
  ? [
      ...[lamplighter('2026-12-01', '2027-03-01'), ...otherDemoBuilds('2026-12-01', '2027-03-01')].map(
        (b) => [b.name, demo(b.name), ['as it is', ...Object.keys(changes)]] as const,
      ),
      ...[901, 902, 903].map(
        (seed) => [`own piece ${seed}`, own(seed), ['as it is', ...Object.keys(changes)]] as const,
      ),
    ]
  : [
      ['The Lamplighter', demo('The Lamplighter'), ['as it is', 'seven slow weighings', 'a fan']],
      ['Whelk pauldron', demo('Whelk pauldron'), ['another clay']],
      ['Harbour master', demo('Harbour master'), ['the whole dried']],
    ];

/** What stays on the shelf takes hands from the pieces of other tests. */
const madeHere: string[] = [];
test.beforeAll(async ({ request }) => {
  const demos = new Set(
    [lamplighter('2026-12-01', null), ...otherDemoBuilds('2026-12-01', '2026-12-24')].map((b) => b.name),
  );
  const list = (await (await request.get('/api/builds')).json()) as { id: string; name: string }[];
  // Copies that other tests left: each would be worked out again after every save.
  for (const { id, name } of list)
    if (!demos.has(name)) await request.post(`/api/builds/${id}/mark`, { data: { mark: 'delete' } });
});
test.afterEach(async ({ request }) => {
  for (const id of madeHere.splice(0)) await request.post(`/api/builds/${id}/mark`, { data: { mark: 'delete' } });
});

for (const [name, make, then] of pieces) {
  test(`${name}: every surface says what the command line says: ${then.join(', ')}`, async ({ page }) => {
    test.setTimeout(every ? 1_800_000 : 240_000);
    const build = { ...make(), brief: { ...make().brief, startDate: fourDaysAgo() } };
    const made = await page.request.post('/api/builds?file', { data: JSON.stringify(build) });
    expect(made.ok(), await made.text()).toBe(true);
    const { id } = (await made.json()) as { id: string };
    madeHere.push(id);
    for (const change of then) {
      const full = (await changes[change]?.(page, id)) ?? false;
      await allSayTheSame(page, id, change, full);
    }
  });
}
