import { asBriefed } from '../evaluate';
import { applyEdit, newBust, type Build, type Change } from '../document';
import { otherDemoBuilds } from '../../server/demo-builds';
import { Evaluator, type Report } from '../evaluate';
import { evaluateWithRemedies } from '../improve';
import { fitToLog, forecastOf, layClay, layingOf, nominalPush, ResultCache, stateTime } from '../piece';
import { startBuild } from '../school';

const bust = newBust('b', '2026-12-01');
const with_ = (changes: readonly Change[], from: Build = bust): Build => {
  const next = applyEdit(from, { label: 'test', changes });
  if (!next.ok) throw new Error(`${next.path} ${next.message}`);
  return next.value;
};
const evaluator = new Evaluator();
const report = (b: Build, ranges = false): Report => {
  const r = evaluator.evaluate(asBriefed(b), { ranges });
  if (!r.ok) throw new Error(r.message);
  return r.value;
};
const at = (r: Report, id: string) => r.regions.find((x) => x.id === id)!;
const hour = 3600;

test('stages: what is laid later starts when what was laid before has got as far as was asked', () => {
  const staged = report(
    with_([
      { path: ['regions', 'own', 'chest'], value: { coats: [0.01], stages: [1] } },
      { path: ['regions', 'own', 'neck'], value: { coats: [0.01], stages: [2] } },
      { path: ['regions', 'own', 'head'], value: { coats: [0.01], stages: [3] } },
      { path: ['stages', 'waits'], value: [{ until: 'leather-hard', hours: 2 }] },
    ]),
  );
  expect(staged.laying.starts.map((s) => s.stage)).toEqual([1, 2, 3]);
  const chest = at(staged, 'chest'),
    neck = at(staged, 'neck'),
    head = at(staged, 'head');
  expect(neck.coats[0]?.start).toBeCloseTo((chest.coats[0]?.course.leatherHard ?? 0) + 2 * hour, 3);
  // Nothing was said of the second wait: through-dry.
  expect(head.coats[0]?.start).toBeCloseTo((neck.coats[0]?.start ?? 0) + (neck.coats[0]?.course.throughDry ?? 0), 3);
});

test('windows come in their order, each within its range', () => {
  const r = report(bust, true);
  for (const region of r.regions) {
    const { smooth, leather, touch, hold, through, seal } = region.windows;
    expect(smooth.at).toBeLessThan(touch.at!);
    expect(hold.at).toBe(Math.max(touch.at!, leather.at!));
    expect(through.at).toBeLessThan(seal.at!);
    for (const w of [smooth, leather, touch, through, seal]) {
      expect(w.range?.low).toBeLessThan(w.at!);
      expect(w.range?.high).toBeGreaterThan(w.at!);
    }
  }
});

test('lifted off, the clay is let go: the sooner, the less it cracks', () => {
  const stiff = with_([
    { path: ['armature', 'school', 'parameters', 'bulk'], value: 'polystyrene-extruded' },
    { path: ['armature', 'school', 'parameters', 'wrap'], value: 'none' },
  ]);
  const cracks = [
    null,
    { when: 'touch-dry', hours: 0 },
    { when: 'leather-hard', hours: 0 },
    { when: 'hours', hours: 10 },
  ].map((lift) => report(with_([{ path: ['stages', 'lift'], value: lift }], stiff)).summary.crack);
  for (let i = 1; i < cracks.length; i++) expect(cracks[i]!).toBeLessThan(cracks[i - 1]!);
  const on = report(stiff),
    off = report(with_([{ path: ['stages', 'lift'], value: { when: 'leather-hard', hours: 0 } }], stiff));
  // Stages and lifting go by the quick answer itself.
  const later = report(with_([{ path: ['stages', 'lift'], value: { when: 'leather-hard', hours: 6 } }], stiff));
  expect(later.laying.lifted! - off.laying.lifted!).toBeCloseTo(6 * hour, 0);
  expect(off.laying.lifted).toBeCloseTo(Math.max(...on.regions.map((r) => r.quick.leather ?? 0)), 0);
  expect(at(off, 'head').throughDry).toBeLessThan(0.8 * at(on, 'head').throughDry!);
});

test('lifting off and drying apart are offered where they help, with what they bring', () => {
  const demo = otherDemoBuilds('2026-12-01', '2027-03-01');
  const remedies = (name: string, undone: readonly Change[], region: string) => {
    const r = evaluateWithRemedies(
      evaluator,
      asBriefed(
        with_(
          undone,
          demo.find((b) => b.name === name),
        ),
      ),
      { ranges: true },
    );
    if (!r.ok) throw new Error(r.message);
    return r.value.findings.find((f) => f.parts.some((p) => p.id === `crack/${region}`))?.remedies ?? [];
  };
  const lift = remedies('Harbour master', [{ path: ['stages', 'lift'], value: null }], 'head').find(
    (x) => x.id === 'lift',
  );
  expect(lift?.after).toBeLessThan(0.65 * (lift?.before ?? 0));
  const apart = remedies('Coral candelabrum', [{ path: ['stages', 'apart'], value: false }], 'trunk').find(
    (x) => x.id === 'apart',
  );
  expect(apart?.statusAfter).toBe('sound');
});

test('a cold night slows it, a heated day hastens it; a cover over one region slows that one', () => {
  const plain = at(report(bust), 'head').throughDry!;
  const cold = at(
    report(
      with_([
        {
          path: ['room', 'hours'],
          value: [{ name: 'Night', days: 'every', from: 20, until: 8, temperature: 8, relativeHumidity: 0.75 }],
        },
      ]),
    ),
    'head',
  ).throughDry!;
  const warm = at(
    report(
      with_([
        {
          path: ['room', 'hours'],
          value: [{ name: 'Heating', days: 'every', from: 8, until: 20, temperature: 28, relativeHumidity: 0.3 }],
        },
      ]),
    ),
    'head',
  ).throughDry!;
  expect(cold).toBeGreaterThan(plain * 1.2);
  expect(warm).toBeLessThan(plain * 0.9);
  const covered = report(
    with_([{ path: ['room', 'covers'], value: [{ kind: 'bagged', from: 0, until: 48, regions: ['head'] }] }]),
  );
  expect(at(covered, 'head').throughDry! - plain).toBeGreaterThan(40 * hour);
  expect(at(covered, 'neck').throughDry).toBeCloseTo(at(report(bust), 'neck').throughDry!, 3);
});

test('opened in halves, the core is out: it dries from inside too and is held no more', () => {
  const split = report(with_([{ path: ['stages', 'split'], value: { across: 'front-back', from: 24, until: 96 } }]));
  expect(at(split, 'head').throughDry).toBeLessThan(at(report(bust), 'head').throughDry!);
  expect(split.summary.crack).toBeLessThan(report(bust).summary.crack);
});

test('cut open it is let go at that hour, as what is lifted off its form then is', () => {
  const stiff = [
    { path: ['armature', 'school', 'parameters', 'bulk'], value: 'polystyrene-extruded' },
    { path: ['armature', 'school', 'parameters', 'wrap'], value: 'none' },
  ];
  const held = (stages: readonly Change[]) => {
    const { crackParts, throughDry } = at(report(with_([...stiff, ...stages])), 'head');
    return { restrained: crackParts.restrained, through: throughDry! };
  };
  const cut = (from: number) =>
    held([{ path: ['stages', 'split'], value: { across: 'front-back', from, until: 2000 } }]);
  const lifted = (hours: number) => held([{ path: ['stages', 'lift'], value: { when: 'hours', hours } }]);
  for (const hours of [12, 30]) {
    expect(cut(hours).restrained).toBeCloseTo(lifted(hours).restrained, 6);
    expect(cut(hours).through).toBeCloseTo(lifted(hours).through, 0);
  }
  expect(cut(12).restrained).toBeLessThan(0.8 * cut(30).restrained);
});

test('closed again, the hollow hardly breathes: between a core that is in and halves that stay open', () => {
  const halves = (until: number) =>
    at(report(with_([{ path: ['stages', 'split'], value: { across: 'front-back', from: 24, until } }])), 'head')
      .throughDry!;
  const whole = at(report(bust), 'head').throughDry!;
  const open = halves(2000),
    soon = halves(25);
  expect(open).toBeLessThan(0.62 * whole);
  // A tenth of the air inside helps a little, and far less than all of it.
  expect(soon).toBeLessThan(whole);
  expect(soon).toBeGreaterThan(open + 0.6 * (whole - open));
});

test('what the scale should show is the piece without its board and ballast: wet as laid, dry at last', () => {
  const heavy = with_([
    { path: ['armature', 'school', 'parameters', 'ballast'], value: 5 },
    { path: ['regions', 'everywhere', 'coats'], value: [0.008] },
  ]);
  const piece = evaluator.piece(asBriefed(heavy));
  if (!piece.ok) throw new Error(piece.message);
  const forecast = forecastOf(piece.value, new ResultCache())!;
  const { items, clayWet, clayDry } = report(heavy).ledger;
  const off = (kinds: readonly string[]) =>
    items.filter((i) => kinds.includes(i.kind)).reduce((sum, i) => sum + i.dry, 0);
  expect(off(['base', 'ballast'])).toBeGreaterThan(5.5);
  expect(forecast.rest).toBeCloseTo(off(['member', 'hardware', 'bulk', 'wrap']), 3);
  expect(forecast.mass({})(0) / (forecast.rest + clayWet)).toBeCloseTo(1, 9);
  // Dry it keeps what the room’s air leaves in it.
  expect(forecast.mass({})(90 * 86400) / (forecast.rest + clayDry)).toBeCloseTo(1, 1);
  expect((forecast.mass({}, 1.1)(0) - forecast.mass({})(0)) / (0.1 * clayWet)).toBeCloseTo(1, 9);
});

test('before the second coat goes on the scale shows the first alone', () => {
  const piece = evaluator.piece(
    asBriefed(with_([{ path: ['regions', 'everywhere', 'coats'], value: [0.003, 0.006] }])),
  );
  if (!piece.ok) throw new Error(piece.message);
  const cache = new ResultCache();
  const forecast = forecastOf(piece.value, cache)!;
  const clay = (time: number) => forecast.mass({})(time) - forecast.rest;
  const second = layClay(layingOf(piece.value)!, cache)
    .coats.flat()
    .filter((c) => c.thickness === 0.006);
  const start = Math.min(...second.map((c) => c.start));
  // What is too slight for a core is one lump, laid with the last coat: the rest goes on by thirds.
  const wet = clay(start + 1) - clay(start - 1);
  expect(clay(0) / (clay(0) + wet)).toBeGreaterThan(0.25);
  expect(clay(0) / (clay(0) + wet)).toBeLessThan(0.36);
});

test('how much the core holds back is pushed with the rest: it cracks so much more, and never more than if held whole', () => {
  const piece = evaluator.piece(asBriefed(bust));
  if (!piece.ok) throw new Error(piece.message);
  const first = (restraint: number) =>
    layClay(layingOf(piece.value)!, new ResultCache(), { ...nominalPush, restraint }).coats.map((c) => c[0]!);
  const [as, more, most] = [first(1), first(1.2), first(99)];
  as.forEach((c, r) => {
    expect(more[r]!.crack.restrained / c.crack.restrained).toBeCloseTo(1.2, 6);
    expect(most[r]!.crack.restrained).toBeCloseTo(c.crack.perRestraint, 6);
    expect(more[r]!.crack.differential).toBe(c.crack.differential);
  });
});

test('it is ready to be lifted when most of its face is: by the area, not by the number of regions', () => {
  const piece = evaluator.piece(asBriefed(with_([{ path: ['regions', 'own', 'head'], value: { coats: [0.02] } }])));
  if (!piece.ok) throw new Error(piece.message);
  const inputs = layingOf(piece.value)!;
  const on = layClay({ ...inputs, stages: { ...inputs.stages, lift: null } }, new ResultCache());
  const lifted = layClay(
    { ...inputs, stages: { ...inputs.stages, lift: { when: 'leather-hard', hours: 2 } } },
    new ResultCache(),
  ).lifted!;
  const faces = on.coats.map((c, r) => ({
    area: inputs.regions[r]!.area,
    at: stateTime(c[0]!.course, 'leather-hard'),
  }));
  const area = faces.reduce((sum, f) => sum + f.area, 0);
  expect(lifted).toBeCloseTo(faces.reduce((sum, f) => sum + f.area * f.at, 0) / area + 2 * hour, 3);
  expect(new Set(faces.map((f) => Math.round(f.at / 3600))).size).toBeGreaterThan(1);
});

test('a weight as laid that the maker corrected is what the scale begins with, and the water that leaves goes with it', () => {
  const own = evaluator.piece(asBriefed(bust));
  if (!own.ok) throw new Error(own.message);
  const heavier = with_([
    {
      path: ['materials', 'values', 'clays', own.value.clay.id],
      value: { ...own.value.clay, wetDensity: own.value.clay.wetDensity * 1.1 },
    },
  ]);
  const piece = evaluator.piece(asBriefed(heavier));
  if (!piece.ok) throw new Error(piece.message);
  const [before, after] = [own.value, piece.value].map((p) => forecastOf(p, new ResultCache())!.mass({}));
  const [was, is] = [report(bust), report(heavier)].map((r) => r.ledger);
  expect(is!.clayWet / was!.clayWet).toBeCloseTo(1.1, 9);
  expect(after!(0) - before!(0)).toBeCloseTo(is!.clayWet - was!.clayWet, 9);
  const lost = (mass: (t: number) => number) => mass(0) - mass(120 * 86400);
  // To where each is steady within two parts in a hundred.
  expect(lost(after!) / lost(before!)).toBeCloseTo(1.1, 1);
});

test('layers under the clay by region: grip, pores and restraint are those of the region', () => {
  const b = with_([
    { path: ['regions', 'own', 'head'], value: { coats: [0.01], under: ['twine'] } },
    { path: ['regions', 'own', 'neck'], value: { coats: [0.01], under: ['plastic-film'] } },
  ]);
  const piece = evaluator.piece(asBriefed(b));
  if (!piece.ok) throw new Error(piece.message);
  const face = (id: string) => piece.value.faces[piece.value.regions.indexOf(id)];
  // Loose paper: 0.12 held, 0.3 of its pores.
  expect(face('head')).toMatchObject({ restraint: 0.12 * 0.6, innerFace: 0.3, grip: 1.4 });
  expect(face('neck')).toMatchObject({ restraint: 0.12 * 0.5, innerFace: 0, grip: 0.2 });
  const r = report(b);
  const neck = r.staying.find((s) => s.region === 'neck');
  // 0.2 x 1250 Pa over 1090 kg/m3, a third off: 15.6 mm; ten stay.
  expect(neck?.hangs).toBeCloseTo(250 / (1090 * 9.81) / 1.5, 6);
  const thick = report(with_([{ path: ['regions', 'own', 'neck', 'coats'], value: [0.02] }], b)).staying.find(
    (s) => s.region === 'neck',
  );
  expect(thick?.slidesFrom).toBeCloseTo((Math.asin(250 / (1090 * 9.81) / 1.5 / 0.02) * 180) / Math.PI, 3);
  expect(thick?.steep).toBeGreaterThan(0.5);
  const item = r.ledger.items.find((i) => i.id === 'wrap/head');
  expect(item?.wet).toBeCloseTo(0.45 * at(r, 'head').area, 3);
});

test('oil-based clay softens with the room, and slides where it did not', () => {
  const oil = with_([
    { path: ['brief', 'clay'], value: 'oil-soft' },
    { path: ['regions', 'everywhere'], value: { coats: [0.05] } },
    { path: ['regions', 'own'], value: {} },
  ]);
  const hangs = (b: Build) => report(b).staying.find((s) => s.region === 'head')?.hangs ?? 0;
  const cool = hangs(oil),
    hot = hangs(with_([{ path: ['room', 'temperature'], value: 36 }], oil));
  expect(hot / cool).toBeCloseTo(Math.exp(-2), 6);
  expect(report(oil).heat.warming?.time).toBeGreaterThan(0);
});

test('a build in the oven: what cannot stand it is named as a finding', () => {
  const baked = report(
    with_([
      { path: ['brief', 'clay'], value: 'oven-polymer' },
      { path: ['armature', 'school', 'parameters', 'bulk'], value: 'polystyrene-expanded' },
    ]),
  );
  expect(baked.heat.baking?.cannot.map((c) => c.name)).toContain('expanded polystyrene');
  expect(baked.findings.find((f) => f.id === 'baking')?.status).toBe('fails');
});

test('a whole build fitted to its own weighings finds the room it dried in', () => {
  const piece = evaluator.piece(asBriefed(bust));
  if (!piece.ok) throw new Error(piece.message);
  const truth = { evaporation: 0.82, diffusion: 1.15, amount: 1.01 };
  const cache = new ResultCache(200);
  const forecast = forecastOf(piece.value, cache);
  const model =
    forecast?.mass({ transfer: truth.evaporation, diffusivity: truth.diffusion }, truth.amount) ?? (() => 0);
  const readings = Array.from({ length: 16 }, (_, i) => ({
    time: (i + 0.3) * 10 * hour,
    mass: Math.round(model((i + 0.3) * 10 * hour) * 1000) / 1000,
  }));
  const fit = fitToLog(piece.value, { readings, before: [], tare: 2, finest: 0.001 }, cache);
  expect(Math.abs((fit?.fit.factors.evaporation ?? 0) / truth.evaporation - 1)).toBeLessThan(0.04);
  expect(Math.abs((fit?.fit.factors.diffusion ?? 0) / truth.diffusion - 1)).toBeLessThan(0.1);
  expect(fit?.fitted.weighings).toBe(16);
  expect(fit?.fit.odd).toEqual([]);
});

test('what was learned of this clay in this room is used, and not for another clay', () => {
  const learned = {
    name: 'loft',
    clay: 'paper-clay',
    evaporation: 0.7,
    diffusion: 0.9,
    spread: { evaporation: 0.03, diffusion: 0.05 },
  };
  const taught = report(with_([{ path: ['room', 'learned'], value: learned }]), true),
    plain = report(bust, true);
  expect(at(taught, 'head').throughDry).toBeGreaterThan(at(plain, 'head').throughDry!);
  const width = (r: Report) => {
    const range = at(r, 'head').throughDryRange!;
    return (range.high - range.low) / range.nominal;
  };
  expect(width(taught)).toBeLessThan(width(plain));
  const other = report(with_([{ path: ['room', 'learned'], value: { ...learned, clay: 'earthen-air-dry' } }]));
  expect(at(other, 'head').throughDry).toBeCloseTo(at(plain, 'head').throughDry!, 3);
});

test('the side it stands on dries last: as slowly as in a tenth of the air, unless water gets out at its rim', () => {
  const quick = (size: number, changes: readonly Change[]) => {
    const made = startBuild('stone', '2026-12-01', 'found-object', size);
    if (!made.ok) throw new Error(made.message);
    const stands = with_([{ path: ['regions', 'everywhere', 'coats'], value: [0.004] }], made.value);
    return at(report(with_(changes, stands)), 'body');
  };
  const hanging: Change = { path: ['armature', 'mount'], value: { kind: 'hangs', points: [[0, 0, 0.1]] } };
  const ratio = (size: number, changes: readonly Change[] = []) =>
    quick(size, changes).quick.through! / quick(size, [hanging]).quick.through!;
  expect([quick(2, []).as, quick(2, [hanging]).as]).toEqual(['resting', 'coat']);
  // Thin clay gives off water as fast as the air takes it: ten times as slowly in a tenth of it.
  expect(ratio(2)).toBeGreaterThan(4);
  expect(ratio(5)).toBeGreaterThan(ratio(2));
  expect(ratio(5)).toBeLessThan(10.5);
  expect(ratio(0.3)).toBeGreaterThanOrEqual(1);
  expect(ratio(0.3)).toBeLessThan(ratio(0.6));
  expect(quick(2, []).quick.touch).toBeCloseTo(quick(2, [hanging]).quick.touch!, -1);
  // Turned over when the rest is dry, it has a tenth of its own behind it, and what has left at the rim.
  const open = quick(2, [hanging]).quick.through!;
  const turned = quick(2, [{ path: ['stages', 'turns'], value: [{ at: open / hour, lying: 'crown' }] }]);
  expect(turned.quick.through! / open).toBeGreaterThan(1.2);
  expect(turned.quick.through! / open).toBeLessThan(1.9);
});

test('a cover taken off before it is touch-dry leaves its skin further ahead than one that stays, and less so the later', () => {
  const room = (until: number | null) =>
    with_([
      { path: ['brief', 'clay'], value: 'earthen-air-dry' },
      {
        path: ['room', 'covers'],
        value: until === 0 ? [] : [{ kind: 'loose-plastic', from: 0, until, regions: [] }],
      },
    ]);
  const skin = (until: number | null) => at(report(room(until)), 'head').crackParts.differential;
  const bare = at(report(room(0)), 'head').touchDry! / hour;
  const stays = skin(null),
    never = skin(0);
  expect(never).toBeGreaterThan(stays * 1.3);
  // Still wet at the face it dries as if it had never been covered; as its skin sets under the cover, less and less.
  const [early, later, last, past] = [0.3, 3, 4, 6].map((x) => skin(x * bare)) as [number, number, number, number];
  expect(early / never).toBeCloseTo(1, 2);
  expect(later).toBeLessThan(early * 1.002);
  expect(last).toBeLessThan(later * 0.995);
  expect(past).toBeCloseTo(stays, 3);
});

test('what a core holds is its filling’s weight and the layers on it; tape shuts it off, an open form lets half of it breathe', () => {
  const of = (form: string, parameters: Record<string, string>) => {
    const made = startBuild('A piece', '2026-12-01', form, 1);
    if (!made.ok) throw new Error(made.message);
    const { value } = made;
    const school = { kind: form === 'bust' ? 'stuffed' : 'shell', parameters };
    const build = { ...value, brief: { ...value.brief, clay: 'paper-clay' }, armature: { ...value.armature, school } };
    const piece = evaluator.piece(asBriefed(build));
    if (!piece.ok) throw new Error(piece.message);
    return { regions: report(build).regions, laid: layingOf(piece.value)!.regions };
  };
  const bust = of('bust', { bulk: 'paper-loose', wrap: 'cloth' });
  bust.regions.forEach((r, i) => {
    const core = bust.laid[i]!.core;
    if (r.solid || r.clayVolume === 0) return;
    // Crumpled paper: 80 kg/m3 and a quarter of that in water. Cloth: a quarter of a kilo to a m2, a fifth of it.
    expect(core!.holds).toBeCloseTo((0.25 * 80 * r.bulkVolume) / r.area + 0.2 * 0.25, 9);
    expect(core!.breathes).toBe(0);
  });
  expect(of('bust', { bulk: 'paper-loose', wrap: 'tape' }).laid.every((r) => r.core === null)).toBe(true);
  const worn = of('worn-shell', { bulk: 'paper-loose', wrap: 'none' }).laid.filter((r) => r.core !== null);
  expect(worn.length).toBeGreaterThan(0);
  for (const r of worn) expect(r.core!.breathes).toBe(0.5);
});
