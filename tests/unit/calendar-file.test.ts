import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import ICAL from 'ical.js';
import { newBust } from '../../src/core/document';
import {
  addBuild,
  addToLog,
  calendarOfPlan,
  closeDatabase,
  demoBuildsFlag,
  keepStepList,
  learnedPaces,
  moveStock,
  openBuild,
  othersOnTheGo,
  planOf,
  readStepLists,
  readWorkshop,
  saveBuild,
  stockReport,
  tableOfPlan,
  writeFlag,
  writeWorkshop,
} from '../../src/server';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'sostegno-plan-'));
  process.env['SOSTEGNO_DATA'] = folder;
});
afterEach(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const at = (text: string) => Date.parse(text) / 1000;
const rome = {
  zone: 'Europe/Rome',
  people: [
    { id: 'ada', name: 'Ada', hours: [{ days: [0, 1, 2, 3, 4, 5, 6], from: 1140, until: 1290 }], away: [], other: [] },
  ],
};

async function planned(now: number) {
  await writeWorkshop(rome);
  const { id } = await addBuild(
    {
      ...newBust('The Lamplighter, "one; two"', '2027-03-25', 1),
      brief: { ...newBust('x', '2027-03-25').brief, deadline: '2027-04-30' },
    },
    'test',
  );
  const plan = await planOf(id, now);
  if (!plan.ok) throw new Error(plan.message);
  return { id, plan: plan.value.own, zone: plan.value.whole.zone };
}

describe('the plan as a calendar', () => {
  test('another reader finds every sitting at its moment, its steps inside, over a change of the clocks and the end of a month', async () => {
    const now = at('2027-03-24T17:00:00Z');
    const { plan } = await planned(now);
    const text = calendarOfPlan(plan, now);
    if (!text.ok) throw new Error(text.message);
    const calendar = new ICAL.Component(ICAL.parse(text.value) as unknown[]);
    const events = calendar.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
    // Every part of every step is told once, in the event of its hour; what follows on itself is one event.
    const parts = plan.steps.flatMap((s) => s.sittings.map((x, i) => ({ ...x, name: s.name, id: s.id, part: i + 1 })));
    const spans = events
      .map((e) => ({
        from: e.startDate.toJSDate().getTime() / 1000,
        until: e.endDate.toJSDate().getTime() / 1000,
        event: e,
      }))
      .sort((x, y) => x.from - y.from);
    expect(spans.length).toBeLessThan(parts.length);
    expect(spans.length).toBeGreaterThan(4);
    spans.slice(1).forEach((s, i) => expect(s.from - spans[i]!.until).toBeGreaterThan(20 * 60));
    let told = 0;
    for (const { from, until, event } of spans) {
      const own = parts.filter((p) => p.from >= from - 60 && p.until <= until + 60);
      told += own.length;
      expect(Math.min(...own.map((p) => p.from))).toBeCloseTo(from, -2);
      expect(Math.max(...own.map((p) => p.until))).toBeCloseTo(until, -2);
      if (own.length > 1) for (const p of own) expect(event.description).toContain(p.name);
      expect(event.summary).toContain(`(${plan.name})`);
    }
    expect(told).toBe(parts.length);
    // Evenings stay at seven on the wall: 18:00 UTC before the last Sunday of March, 17:00 after it.
    const starts = new Set(events.map((e) => e.startDate.toJSDate().toISOString().slice(5, 16)));
    expect([...starts].some((s) => s.startsWith('03-2') && s.endsWith('T18:00'))).toBe(true);
    expect([...starts].some((s) => s > '03-28' && s.endsWith('T17:00'))).toBe(true);
    expect([...starts].some((s) => s.startsWith('04-'))).toBe(true);
  });

  test('brought in again, an event is the same one: ids stay, the sequence rises', async () => {
    const now = at('2027-03-24T17:00:00Z');
    const { id, plan } = await planned(now);
    const ids = (text: string) =>
      new Map(
        new ICAL.Component(ICAL.parse(text) as unknown[])
          .getAllSubcomponents('vevent')
          .map((e) => [String(e.getFirstPropertyValue('uid')), Number(e.getFirstPropertyValue('sequence'))]),
      );
    const first = calendarOfPlan(plan, now);
    const again = await planOf(id, now + 3600);
    if (!first.ok || !again.ok) throw new Error('no plan');
    const second = calendarOfPlan(again.value.own, now + 3600);
    if (!second.ok) throw new Error(second.message);
    const [a, b] = [ids(first.value), ids(second.value)];
    expect(a.size).toBeGreaterThan(4);
    const same = [...a.keys()].filter((k) => b.has(k));
    expect(same.length).toBeGreaterThan(a.size * 0.8);
    for (const k of same) expect(b.get(k) ?? 0).toBeGreaterThan(a.get(k) ?? Infinity);
  });

  test('lines are no longer than the standard allows, and names with commas and semicolons come through', async () => {
    const now = at('2027-03-24T17:00:00Z');
    const text = calendarOfPlan((await planned(now)).plan, now);
    if (!text.ok) throw new Error(text.message);
    for (const line of text.value.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    expect(text.value).toContain('one\\; two');
  });

  test('as a table: a row a step, times on the wall, no formula', async () => {
    const { plan, zone } = await planned(at('2027-03-24T17:00:00Z'));
    const rows = tableOfPlan(
      { ...plan, steps: plan.steps.map((s, i) => (i === 0 ? { ...s, name: '=1+1' } : s)) },
      zone,
    ).split('\r\n');
    expect(rows).toHaveLength(plan.steps.length + 1);
    expect(rows[1]).toMatch(/^[^,]+,"'=1\+1",/);
    for (const sign of ['＝1+1', ' +1', '－2', '＠cell', '@cell'])
      expect(
        tableOfPlan({ ...plan, steps: plan.steps.map((s) => ({ ...s, name: sign })) }, zone).split('\r\n')[1],
      ).toContain(`"'${sign}"`);
    const torn = calendarOfPlan(
      { ...plan, name: 'Two\rlines\u2028and\u0000more', steps: plan.steps.map((s) => ({ ...s, name: 'a\rb' })) },
      0,
    );
    expect(torn.ok && torn.value.replaceAll('\r\n', '')).not.toMatch(/[\r\n\u0000\u2028]/);
    expect(torn.ok && torn.value).toContain('Two lines and more');
    expect(rows.some((r) => / 19:00,/.test(r))).toBe(true);
  });
});

describe('the workshop', () => {
  test('hours are kept and checked; a build on the go shares them, one put by does not', async () => {
    expect((await readWorkshop('Europe/Rome')).zone).toBe('Europe/Rome');
    expect(await writeWorkshop({ ...rome, zone: 'Nowhere/At_all' })).toMatchObject({
      ok: false,
      path: 'workshop.zone',
    });
    expect(await writeWorkshop(rome)).toMatchObject({ ok: true });
    expect((await readWorkshop('UTC')).zone).toBe('Europe/Rome');
    const one = await addBuild(newBust('One', '2026-12-01', 0.3), 'test'),
      two = await addBuild(
        { ...newBust('Two', '2026-12-01', 0.3), plan: { ...newBust('x', '2026-12-01').plan, active: true } },
        'test',
      );
    expect((await othersOnTheGo(one.id)).map((b) => b.name)).toEqual(['Two']);
    expect(await othersOnTheGo(two.id)).toEqual([]);
    const opened = await openBuild(two.id);
    if (!opened.ok) throw new Error(opened.message);
    await saveBuild(two.id, {
      revision: 1,
      document: { ...opened.value.build, plan: { ...opened.value.build.plan, active: false } },
      history: null,
      label: 'put by',
    });
    expect(await othersOnTheGo(one.id)).toEqual([]);
  });

  test('a piece of the demo data takes no evening from one of one’s own; they share theirs', async () => {
    const active = (name: string) => ({
      ...newBust(name, '2026-12-01', 0.3),
      plan: { ...newBust('x', '2026-12-01').plan, active: true },
    });
    const [shown, other, own] = [
      await addBuild(active('Shown'), 'test'),
      await addBuild(active('Shown too'), 'test'),
      await addBuild(active('Own'), 'test'),
    ];
    await writeFlag(demoBuildsFlag, [shown.id, other.id].join());
    const names = async (id: string) => (await othersOnTheGo(id)).map((b) => b.name).sort();
    expect(await names(own.id)).toEqual([]);
    expect(await names(shown.id)).toEqual(['Own', 'Shown too']);
  });

  test('pace is learned from every log; a step without hours, or struck, teaches nothing', async () => {
    const { id } = await addBuild(newBust('Slow', '2026-12-01', 0.3), 'test');
    const entry = (data: Record<string, unknown>, kind = 'step', corrects: string | null = null) => ({
      id: randomUUID() as string,
      kind,
      at: '2026-12-02T20:00:00+01:00',
      data,
      corrects,
    });
    const struck = entry({ step: 'sand/neck', name: 'Sand the neck', kind: 'sanding', usual: 1, took: 9 });
    for (const e of [
      entry({ step: 'sand/head', name: 'Sand the head', kind: 'sanding', usual: 1, took: 2 }),
      entry({ step: 'fit', name: 'Fit it', kind: 'fitting', usual: 1 }),
      struck,
    ])
      expect(await addToLog(id, e)).toMatchObject({ ok: true, value: { at: '2026-12-02T19:00:00.000Z' } });
    await addToLog(id, entry({}, 'void', struck.id));
    expect(await learnedPaces()).toEqual({
      sanding: { factor: expect.closeTo(1.592, 2), spread: expect.closeTo(0.287, 2), steps: 1 },
    });
    expect(await addToLog(id, entry({ step: '../x', name: 'x', kind: 'sanding' }))).toMatchObject({
      ok: false,
      path: 'data.step',
    });
    expect(await addToLog(id, entry({ clock: 'no' }, 'clock-stop'))).toMatchObject({ ok: false });
    expect(await addToLog(id, entry({ name: 'Batch', seconds: 1e9 }, 'clock'))).toMatchObject({
      ok: false,
      path: 'data.seconds',
    });
  });

  test('lists of steps are kept by name, taken away when empty, refused when broken', async () => {
    const step = {
      id: 'photo',
      name: 'Photograph',
      kind: 'own',
      hours: 1,
      whole: false,
      people: 1,
      needs: [],
      after: [],
      before: [],
      region: null,
    };
    await keepStepList({ name: 'Worn', steps: [step] });
    await keepStepList({ name: 'Worn', steps: [{ ...step, hours: 2 }] });
    expect((await readStepLists()).map((l) => [l.name, l.steps[0]?.hours])).toEqual([['Worn', 2]]);
    expect(await keepStepList({ name: 'Bad', steps: [{ ...step, hours: -1 }] })).toMatchObject({
      ok: false,
      path: 'list.steps[0].hours',
    });
    await keepStepList({ name: 'Worn', steps: [] });
    expect(await readStepLists()).toEqual([]);
  });

  test('stock: what builds need, what came, what the log used; the same move twice is one', async () => {
    const { id } = await addBuild(newBust('Needs clay', '2026-12-01', 0.5), 'test');
    const bought = {
      id: randomUUID(),
      item: 'clay/paper-clay',
      kind: 'bought',
      amount: 3,
      price: 12,
      at: '2026-12-01T10:00:00Z',
    };
    expect(await moveStock(bought)).toMatchObject({ ok: true });
    expect(await moveStock(bought)).toMatchObject({ ok: true });
    expect(await moveStock({ ...bought, id: randomUUID(), amount: -3 })).toMatchObject({
      ok: false,
      path: 'move.amount',
    });
    await addToLog(id, {
      id: randomUUID(),
      kind: 'used',
      at: '2026-12-02T10:00:00Z',
      data: { item: 'clay/paper-clay', name: 'paper clay', amount: 0.4, unit: 'kg' },
    });
    const report = await stockReport();
    const clay = report.lines.find((l) => l.item === 'clay/paper-clay');
    expect(clay).toMatchObject({ onShelf: 2.6, used: 0.4, price: 4 });
    expect((clay?.reserved[0]?.amount ?? 0) + 0.4).toBeGreaterThan(0.5);
    expect(report.costs[0]).toMatchObject({ name: 'Needs clay', soFar: expect.closeTo(1.6, 9) });
  });
});
