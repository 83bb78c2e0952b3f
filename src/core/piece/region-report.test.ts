import { changed, judged, parameter } from '../../../tests/support/judged';
import { lamplighter } from '../../server/demo-builds';
import { Evaluator, asBriefed } from '../evaluate';
import { startBuild } from '../school';
import { coatState, stepFor, usualAgainst, type PieceReport, type RegionReport } from '.';
import { standsUntil } from './lying';
import { shownAgainst } from './quick-against-full';

/** What is said of one region, and that its parts are one another's: thickness, weight, windows, cracks. */
const lamp = lamplighter('2026-12-01', null);
const bust = judged(lamp);
const two = judged(changed(lamp, { path: ['regions', 'own', 'head'], value: { coats: [0.006, 0.004] } }));
const region = (report: PieceReport, id: string): RegionReport => report.regions.find((r) => r.id === id)!;
const coated = (coats: readonly number[], ...more: Parameters<typeof changed>[1][]) =>
  judged(
    changed(
      lamp,
      { path: ['regions', 'everywhere', 'coats'], value: coats },
      { path: ['regions', 'own'], value: {} },
      ...more,
    ),
  );

describe('figures of a region', () => {
  test('as thick as its coats together, and weighing its clay', () => {
    const head = region(two.report, 'head');
    expect(head.thickness).toBeCloseTo(0.01, 12);
    expect(head.coats.map((c) => c.thickness)).toEqual([0.006, 0.004]);
    expect(head.clayWet).toBeCloseTo(head.clayVolume * two.piece.mixed.wetDensity, 9);
    expect(head.clayDry).toBeLessThan(head.clayWet);
    // A thin coat has its face's area times its thickness of clay, a little less where it bulges.
    expect(head.clayVolume / (head.area * head.thickness)).toBeGreaterThan(0.8);
    expect(head.clayVolume / (head.area * head.thickness)).toBeLessThan(1.02);
  });
  test('dry it keeps what the room’s air leaves in it', () => {
    const { room, brief } = lamp;
    const { w0, w_m } = bust.piece.mixed.drying!;
    expect(brief.clay).toBe('paper-clay');
    const left = -w_m * Math.log(1 - room.relativeHumidity);
    const head = region(bust.report, 'head');
    expect(head.clayDry / head.clayWet).toBeCloseTo((1 + left) / (1 + w0), 3);
  });
  test('where a member lies in the clay, its crack index is the one over the member', () => {
    // The wires of a small figure's hands and feet have nothing but clay over them.
    const figure = startBuild('f', '2026-12-01', 'figure', 0.45);
    if (!figure.ok) throw new Error(figure.message);
    const over = judged(figure.value).report.regions.filter((r) => r.coats.some((c) => c.overMember !== null));
    expect(over.length).toBeGreaterThan(0);
    for (const r of over) {
      const worst = Math.max(...r.coats.map((c) => c.overMember?.total ?? 0));
      expect(worst).toBeGreaterThan(1.2 * Math.max(...r.coats.map((c) => c.crack.total)));
      expect(r.crack).toBeCloseTo(worst * r.against.crack.nominal, 9);
      expect(Math.max(...r.crackPlaces.map((p) => p.crack))).toBeCloseTo(r.crack, 9);
    }
  });
  test('clay and bulk of all regions are the form’s', () => {
    const { regions, size, ledger } = bust.report;
    const sum = (pick: (r: RegionReport) => number) => regions.reduce((s, r) => s + pick(r), 0);
    expect(sum((r) => r.clayVolume + r.bulkVolume) / size.volume).toBeCloseTo(1, 2);
    expect(sum((r) => r.clayWet)).toBeCloseTo(ledger.clayWet, 6);
    expect(sum((r) => r.area)).toBeCloseTo(size.area, 6);
    expect(new Set(regions.flatMap((r) => r.masses)).size).toBe(bust.piece.form.masses.length);
  });
  test('what it is dried as decides how the whole piece is told from it', () => {
    expect([region(bust.report, 'head').as, region(two.report, 'head').as]).toEqual(['coat', 'further-coat']);
    const solid = judged(changed(lamp, parameter('bulk', 'none')));
    expect(region(solid.report, 'head')).toMatchObject({ as: 'solid', solid: true });
    for (const r of bust.report.regions) expect(r.against).toBe(usualAgainst[r.as]);
  });
});

describe('windows of a coat', () => {
  test('in their order: touch or leather first, through, then what is steady enough to seal', () => {
    for (const r of bust.report.regions) {
      const at = (w: keyof RegionReport['windows']) => r.windows[w].at!;
      expect(at('hold')).toBe(Math.max(at('touch'), at('leather')));
      expect(at('through')).toBeGreaterThan(at('hold'));
      expect(at('paint')).toBe(at('through'));
      expect(at('seal')).toBeGreaterThanOrEqual(at('through'));
      expect(at('mould')).toBe(at('seal'));
      expect([r.touchDry, r.leatherHard, r.throughDry]).toEqual([at('touch'), at('leather'), at('through')]);
    }
  });
  test('a dry skin over a soft inside is not held by: a hand waits for both', () => {
    const thick = coated(
      [0.03],
      { path: ['brief', 'clay'], value: 'earthen-air-dry' },
      { path: ['room', 'airSpeed'], value: 3 },
      { path: ['room', 'relativeHumidity'], value: 0.3 },
    );
    const early = thick.report.regions.filter((r) => r.windows.touch.at! < r.windows.leather.at!);
    expect(early.length).toBeGreaterThan(0);
    for (const r of early) expect(r.windows.hold.at).toBe(r.windows.leather.at);
  });
  test('a coat under another is corrected as first coats usually are, the last one as its region is', () => {
    const head = region(two.report, 'head');
    const [under, last] = head.coats;
    const own = under!.course.throughDry!;
    const { low, nominal, high } = usualAgainst.coat.through;
    expect(nominal).not.toBe(1);
    expect(coatState(head, under!, 'through')).toEqual({ low: own * low, nominal: own * nominal, high: own * high });
    expect(coatState(head, last!, 'through')!.nominal).toBeCloseTo(head.throughDry! - last!.start, 6);
  });
  test('it lies on its side until it is first turned off it', () => {
    const turned = (...turns: { at: number; lying: string }[]) =>
      standsUntil({ build: { ...lamp, stages: { ...lamp.stages, turns: turns as never } } });
    expect(turned()).toBe(Infinity);
    expect(turned({ at: 10, lying: 'stands' }, { at: 30, lying: 'back' }, { at: 20, lying: 'face' })).toBe(20 * 3600);
  });
  test('they count from the first clay: a later coat’s from when it goes on', () => {
    const head = region(two.report, 'head');
    expect(head.lastStart).toBeGreaterThan(24 * 3600);
    expect(head.windows.touch.at).toBeGreaterThan(head.lastStart);
    expect(head.coats[1]!.start).toBe(head.lastStart);
  });
  test('half as thick again it takes longer, and cracks more', () => {
    const [thin, thick] = [coated([0.008]), coated([0.012])];
    for (const id of ['head', 'neck']) {
      expect(region(thick.report, id).throughDry!).toBeGreaterThan(1.3 * region(thin.report, id).throughDry!);
      expect(region(thick.report, id).crack).toBeGreaterThan(region(thin.report, id).crack);
    }
  });
});

describe('cracks', () => {
  test('core and skin make the whole; the piece has that of its worst region', () => {
    for (const r of bust.report.regions)
      expect(r.crackParts.restrained + r.crackParts.differential).toBeCloseTo(r.crack, 9);
    const worst = Math.max(...bust.report.regions.map((r) => r.crack));
    expect(bust.report.summary.crack).toBe(worst);
    expect(bust.report.regions.find((r) => r.crack === worst)!.name).toBe(bust.report.summary.crackRegion);
  });
  test('a core that holds back more cracks it more, in the part that is the core’s alone', () => {
    const soft = judged(changed(lamp, parameter('bulk', 'paper-loose'))),
      hard = judged(changed(lamp, parameter('bulk', 'foil-packed')));
    for (const id of ['head', 'chest']) {
      const [a, b] = [region(soft.report, id), region(hard.report, id)];
      expect(b.crackParts.restrained).toBeGreaterThan(1.5 * a.crackParts.restrained);
    }
  });
  test('clay that sets or stays soft does not crack, and is never dry', () => {
    for (const clay of ['epoxy-clay', 'oil-medium']) {
      const on = judged(changed(lamp, { path: ['brief', 'clay'], value: clay }));
      expect([clay, on.report.summary.crack]).toEqual([clay, 0]);
      for (const r of on.report.regions) expect([clay, r.throughDry, r.coats.length]).toEqual([clay, null, 0]);
    }
  });
  test('with the ranges, each figure lies inside its own', () => {
    const told = new Evaluator().evaluate(asBriefed(lamp), { ranges: true });
    if (!told.ok) throw new Error(told.message);
    for (const r of told.value.regions) {
      expect(r.crackRange!.low).toBeLessThanOrEqual(r.crack);
      expect(r.crackRange!.high).toBeGreaterThanOrEqual(r.crack);
      for (const w of Object.values(r.windows)) {
        if (w.at === null || !w.range) continue;
        expect(w.range.low).toBeLessThanOrEqual(w.at);
        expect(w.range.high).toBeGreaterThanOrEqual(w.at);
        expect(w.range.low).toBeGreaterThanOrEqual(0);
      }
    }
  });
});

describe('what a whole drying has shown', () => {
  const usual = usualAgainst.coat;
  test('takes the usual factor’s place, within an eighth; where it shows nothing the usual one stands', () => {
    const shown = shownAgainst({ through: 1.4 }, usual);
    expect(shown.through).toEqual({ low: 1.4 * 0.88, nominal: 1.4, high: 1.4 * 1.12 });
    expect(shown.touch).toBe(usual.touch);
    for (const bad of [0, -1, NaN, Infinity]) expect(shownAgainst({ crack: bad }, usual).crack).toBe(usual.crack);
  });
  test('every usual factor lies inside its own range, and nothing is corrected to nothing', () => {
    for (const [as, against] of Object.entries(usualAgainst))
      for (const [key, f] of Object.entries(against))
        expect([as, key, f.low > 0, f.low < f.nominal && f.nominal < f.high]).toEqual([as, key, true, true]);
  });
});

describe('cells of a whole drying', () => {
  const across = 3.3;
  test('three and a third across the thinnest coat, as long as there is room for so many', () => {
    const small = (coat: number) => stepFor(coated([coat], { path: ['form', 'start', 'size'], value: 0.3 }).piece);
    expect(small(0.006)).toBeCloseTo(0.006 / across, 6);
    // Never finer than six tenths of a millimetre.
    expect(small(0.001)).toBeGreaterThanOrEqual(0.0006);
  });
  test('a large piece has no more cells than can be dried while one waits', () => {
    const { piece } = coated([0.01], { path: ['form', 'start', 'size'], value: 2 });
    const clay = piece.volumes.perMass.reduce((sum, m) => sum + m.clay, 0);
    expect(clay / stepFor(piece) ** 3).toBeLessThanOrEqual(260_000 * 1.0001);
    expect(stepFor(piece)).toBeGreaterThan(0.01 / across);
  });
});
