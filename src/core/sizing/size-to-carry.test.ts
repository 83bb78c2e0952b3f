import { refusedByHand } from '../../../scripts/refused-starts';
import { allStarts, firstStart, firstStarts, startIn } from '../../../scripts/starts';
import { stocks } from '../catalogue';
import { applyEdit, type Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { checkBase } from '../load';
import { makePiece, ResultCache, type MemberReport } from '../piece';
import { isMemberSetByHand, keepTheseSizes, sizeAllAgain, sizeMemberAgain, startBuild } from '../school';
import { posedStart } from '../../../tests/support/posed-starts';
import { begunToCarry } from './begin';
import { bundleOf, bundlesFor } from './bundles';
import { coreUnder } from './core-under-clay';
import { sizeToCarry } from './size-to-carry';
import { utilisationWanted, wantedOf } from './wanted';

const reportOf = (build: Build, options = {}) => {
  const report = new Evaluator().evaluate(asBriefed(build), options);
  if (!report.ok) throw new Error(`${report.path}: ${report.message}`);
  return report.value;
};
const pieceOf = (build: Build) => {
  const piece = new Evaluator().piece(asBriefed(build));
  if (!piece.ok) throw new Error(piece.message);
  return piece.value;
};
const edited = (build: Build, path: (string | number)[], value: unknown): Build => {
  const done = applyEdit(build, { label: 'set', changes: [{ path, value }] });
  if (!done.ok) throw new Error(done.message);
  return done.value;
};

describe('what a member may be cut from', () => {
  const bundle = (stock: string, size: string, strands: number) =>
    bundleOf(
      stocks.get(stock)!,
      stocks.get(stock)!.sizes.find((s) => s.id === size)!,
      strands,
      false,
    );

  test('bears its plastic moment and bends by its second moment, worked by hand', () => {
    // 250 MPa x 2^3/6 mm3; 200 GPa x pi 2^4/64 mm4.
    expect(bundle('steel-galvanised', '2mm', 1).bears).toBeCloseTo(0.3333, 3);
    expect(bundle('steel-galvanised', '2mm', 1).stiffness).toBeCloseTo(0.1571, 3);
    // A dowel is allowed a third of the 95 MPa it breaks at, at its face: 95/3 MPa x pi 25^3/32 mm3.
    expect(bundle('hardwood-dowel', '25mm', 1).bears).toBeCloseTo(48.6, 1);
    // Two of 3 mm side by side: twice one, no more.
    expect(bundle('aluminium-annealed', '3mm', 2).bears).toBeCloseTo(0.405, 3);
    expect(bundle('aluminium-annealed', '3mm', 2).whole).toBeCloseTo(0.006, 9);
  });

  test('is of its own stock first, what is thin for its height last, and bends by hand where it is to be bent', () => {
    const lists = bundlesFor({ size: '3mm', bonded: false }, 'aluminium-annealed', 0.6, 2, 'any', (id) =>
      stocks.get(id),
    );
    expect(lists.map((l) => l[0]?.stock.id)).toEqual([
      'aluminium-annealed',
      'steel-galvanised',
      'steel-hard',
      'mild-steel',
      'aluminium-annealed',
    ]);
    expect(Math.min(...lists[0]!.map((b) => b.strand))).toBeGreaterThanOrEqual(0.6 / 250);
    expect(Math.max(...lists.flat().map((b) => b.strand))).toBeLessThanOrEqual(0.012);
    const bent = bundlesFor({ size: '3mm', bonded: false }, 'aluminium-annealed', 0.6, 2, 'bends', (id) =>
      stocks.get(id),
    );
    expect(new Set(bent.flat().map((b) => b.stock.id))).toEqual(new Set(['aluminium-annealed', 'steel-galvanised']));
    const own = bundlesFor({ size: '3mm', bonded: false }, 'aluminium-annealed', 0.6, 2, 'none', (id) =>
      stocks.get(id),
    );
    expect(new Set(own.flat().map((b) => b.stock.id))).toEqual(new Set(['aluminium-annealed']));
  });
});

test('metal makes good what clay and filling leave over of the moment that is asked', () => {
  const piece = pieceOf(startIn('found-object', 'object-core', 'oil-medium'));
  const id = piece.armature.bones[0]!.id;
  const report = { id, capacity: 2, metalShare: 1.5, utilisation: 1.2, buckling: 0 } as MemberReport;
  expect(wantedOf(piece, [report], []).get(id)!.bears).toBeCloseTo(((2 * 1.2) / utilisationWanted - 0.5) / 1.5, 9);
  // What folds wants to be stiffer by as much as it is over.
  expect(wantedOf(piece, [{ ...report, utilisation: 1.9, buckling: 1.9 }], []).get(id)!.stiff).toBeCloseTo(
    1.9 / utilisationWanted,
    9,
  );
});

describe('an armature sized to carry', () => {
  const figure = startIn('figure', 'wire-figure', 'paper-clay');

  test('holds soundly, sags little and keeps every wire inside', () => {
    const report = reportOf(figure);
    expect(report.sizing.state).toBe('chosen');
    expect(report.sizing.cannot).toBeNull();
    expect(Math.max(...report.members.map((m) => m.utilisation))).toBeLessThan(0.6);
    expect(Math.max(...report.lifeStages.flatMap((s) => s.bones.map((b) => b.sagShare)))).toBeLessThan(0.01);
    expect(report.cover.every((c) => c.least > 0)).toBe(true);
    expect(report.stance.tipAngle).toBeGreaterThanOrEqual(figure.brief.limits.tipAngle);
  });

  test('is as strong as what hangs on it asks: more under three times the clay', () => {
    const under = (coat: number): Build => ({
      ...figure,
      regions: { ...figure.regions, own: {}, everywhere: { coats: [coat] } },
      brief: { ...figure.brief, clay: 'oil-medium' },
    });
    const legs = (b: Build) => {
      const { armature, stockOf } = pieceOf(b);
      const leg = armature.members.find((m) => m.id === 'limb/wire-hip-left')!;
      const stock = stockOf(leg.stock)!;
      return bundleOf(
        stock,
        stock.sizes.find((s) => s.id === leg.size)!,
        leg.strands,
        leg.bonded,
      ).bears;
    };
    expect(legs(under(0.015))).toBeGreaterThan(1.2 * legs(under(0.005)));
  });

  test('carries the wind it is to stand, and only then', () => {
    const indoors = { ...startIn('figure', 'steel-mesh-foam', 'epoxy-clay'), name: 'a figure' };
    const inGust = (gust: number) => edited(indoors, ['brief', 'outdoors'], { gust, held: 'guyed' });
    const evaluator = new Evaluator();
    const cut = (build: Build) => {
      const found = evaluator.evaluate(asBriefed(build));
      if (!found.ok) throw new Error(found.message);
      const { members, ledger } = found.value;
      const mass = ledger.items.filter((i) => i.kind === 'member').reduce((sum, i) => sum + i.dry, 0);
      return { mass, most: Math.max(...members.map((m) => m.utilisation)) };
    };
    // The same evaluator, one after the other: sizes of one are not those of another.
    const still = cut(indoors),
      gale = cut(inGust(25)),
      again = cut(indoors);
    expect(gale.mass).toBeGreaterThan(still.mass * 1.05);
    expect(gale.most).toBeLessThan(0.75);
    expect(again).toEqual(still);
  });

  test('is the same whatever was sized before', () => {
    const cache = new ResultCache();
    sizeToCarry(startIn('bird-like', 'wire-figure', 'oil-medium'), cache);
    expect(sizeToCarry(figure, cache)).toEqual(sizeToCarry(figure, new ResultCache()));
  });

  test('leaves what the maker set: of all wires, of one, and of the board', () => {
    const all = pieceOf(edited(figure, ['armature', 'school', 'parameters', 'wireSize'], '2mm'));
    expect(new Set(all.armature.members.map((m) => m.size))).toEqual(new Set(['2mm']));
    expect(new Set(all.armature.members.map((m) => m.stock))).toEqual(new Set(['aluminium-annealed']));
    const one = edited(figure, ['armature', 'edits', 'limb/wire-spine', 'size'], '1.5mm');
    expect(pieceOf(one).armature.members.find((m) => m.id === 'limb/wire-spine')!.size).toBe('1.5mm');
    // What the maker gave a size is not given another stock either, however little it bears.
    const heavy = edited(
      startIn('bird-like', 'wire-figure', 'paper-clay'),
      ['armature', 'edits', 'limb/wire-hip-left', 'size'],
      '1mm',
    );
    const legs = pieceOf(heavy).armature.members.filter((m) => m.id.startsWith('limb/wire-hip'));
    expect(legs[0]).toMatchObject({ id: 'limb/wire-hip-left', stock: 'aluminium-annealed', size: '1mm' });
    expect(legs[1]!.stock).not.toBe('aluminium-annealed');
    expect(isMemberSetByHand(one, 'limb/wire-spine')).toBe(true);
    const back = applyEdit(one, sizeMemberAgain(one, 'limb/wire-spine', 'neck wire'));
    expect(back.ok && back.value.armature).toEqual(figure.armature);
    const core = edited(
      startIn('figure', 'wire-figure', 'earthen-air-dry'),
      ['armature', 'school', 'parameters', 'bulk'],
      'foil-packed',
    );
    expect(pieceOf(core).armature).toMatchObject({ bulk: 'foil-packed', wrap: 'twine' });
    const board = edited(figure, ['armature', 'school', 'parameters', 'boardWidth'], 0.31);
    expect(pieceOf(board).armature.base.width).toBeCloseTo(0.31, 9);
  });

  test('stays as it is once it is kept, and is chosen again on demand', () => {
    const { sizing, summary } = reportOf(figure);
    const kept = applyEdit(figure, keepTheseSizes(figure, sizing.sizes, 'kept'));
    if (!kept.ok) throw new Error(kept.message);
    expect(kept.value.armature.sizing).toBe('kept');
    // The same wires along the same ways, ends, feet and board and all.
    expect(pieceOf(kept.value).armature).toEqual(pieceOf(figure).armature);
    for (const [school, clay] of [
      ['jointed', 'oil-medium'],
      ['steel-mesh-foam', 'paper-clay'],
    ] as const) {
      const bird = startIn('bird-like', school, clay);
      const same = applyEdit(bird, keepTheseSizes(bird, reportOf(bird).sizing.sizes, 'kept'));
      expect(same.ok && pieceOf(same.value).armature).toEqual(pieceOf(bird).armature);
    }
    const stock = (b: Build) => pieceOf(b).armature.members.map((m) => [m.id, m.stock, m.size, m.strands]);
    const larger = edited(kept.value, ['form', 'start', 'size'], figure.form.start.size * 1.3);
    expect(stock(larger)).toEqual(stock(figure));
    const again = applyEdit(kept.value, sizeAllAgain(kept.value));
    if (!again.ok) throw new Error(again.message);
    expect(reportOf(again.value).summary.utilisation).toBeCloseTo(summary.utilisation, 6);
  });

  test('is judged at sizes that are given, and what they say of parts that are gone is not lost by the maker', () => {
    const sizes = { parameters: {}, edits: { 'limb/wire-that-was': { size: '2mm' } } };
    const report = reportOf(figure, { sizes });
    expect(report.sizing.state).toBe('being-chosen');
    expect(report.findings.some((f) => f.id.startsWith('lost-edit'))).toBe(false);
    const own = edited(figure, ['armature', 'edits', 'limb/wire-that-was'], { size: '2mm' });
    expect(reportOf(own, { sizes }).findings.some((f) => f.id.startsWith('lost-edit'))).toBe(true);
  });

  test('a build of before is as it was set, whatever fails', () => {
    const begun = startBuild('Before', '2026-12-01', 'branching', 1);
    if (!begun.ok) throw new Error(begun.message);
    const report = reportOf(begun.value);
    expect(report.sizing).toEqual({ state: 'by-hand', sizes: { parameters: {}, edits: {} }, cannot: null });
    const plain = makePiece(begun.value, new ResultCache());
    expect(plain.ok && pieceOf(begun.value).armature).toEqual(plain.ok && plain.value.armature);
  });

  test('a plate and screws are chosen that hold by the rule the base is judged by', () => {
    const build = startIn('long-neck', 'steel-mesh-foam', 'oil-medium');
    const { sizing, base, lifeStages } = reportOf(build);
    expect(sizing.sizes.parameters['plateWidth']).toBeGreaterThan(0.16);
    expect(sizing.sizes.parameters['standing']).toBe('casters');
    const { armature } = pieceOf(build);
    const board = stocks.get(armature.base.stock)!;
    const moment = Math.max(...lifeStages.map((s) => s.footMoment));
    const own = checkBase(armature.base, moment, 1.5, board.density, board.strength.nominal * board.allowed);
    expect(own.screwUtilisation).toBeCloseTo(base.screwUtilisation, 6);
    expect(Math.max(base.screwUtilisation, base.boardUtilisation)).toBeLessThan(0.6);
  });
});

test('where no plate and no screws hold soundly, those that come nearest are taken', () => {
  for (const school of ['bent-pipe', 'steel-mesh-foam']) {
    const { base, sizing } = reportOf(startIn('long-neck', school, 'water-based'));
    expect(Math.max(base.screwUtilisation, base.boardUtilisation)).toBeLessThan(1);
    expect(sizing.sizes.parameters).toMatchObject({ plateWidth: 0.5, screwDiameter: 0.008, boardSize: '24mm' });
  }
});

test('what one wire was asked too much of is tried again by itself, the others as they were at their best', () => {
  // Thick wings that sag: stiffened all at once, its wires had no room in them, and the legs stayed as thin as before.
  const made = startBuild('Wings', '2026-12-01', 'bird-like', 0.73, 'dragon');
  if (!made.ok) throw new Error(made.message);
  const thick = ['wing-forearm', 'wing-hand', 'shank', 'foot'].map((id) => [
    `${id}-left`,
    { stretched: [1.5, 1.5, 1] },
  ]);
  const begun = begunToCarry(made.value);
  const build = {
    ...begun,
    form: { ...begun.form, edits: Object.fromEntries(thick) as Build['form']['edits'] },
  };
  const chosen = sizeToCarry(build, new ResultCache());
  const legs = ['left', 'right'].map((side) => `limb/wire-hip-${side}`);
  const strands = chosen.edits[legs[0]!]!.strands!;
  const withLegs = (n: number) => {
    const edits = Object.fromEntries(legs.map((id) => [id, { ...chosen.edits[id], strands: n }]));
    const report = reportOf(build, { sizes: { ...chosen, edits: { ...chosen.edits, ...edits } } });
    const bones = report.lifeStages.filter((l) => l.stage.startsWith('clay')).flatMap((l) => l.bones);
    return {
      sag: Math.max(...bones.map((b) => b.sagShare)),
      thin: report.cover.some((c) => c.least < c.wanted),
    };
  };
  expect(strands).toBeGreaterThan(1);
  const [own, fewer] = [withLegs(strands), withLegs(strands - 1)];
  expect(own.thin).toBe(false);
  expect(own.sag).toBeLessThan(fewer.sag - 1e-4);
});

test('what is under a clay suits it: gives under what splits, and stands the oven', () => {
  const core = (clay: string) => coreUnder(startIn('figure', 'wire-figure', clay));
  expect(core('earthen-air-dry')).toEqual({ bulk: 'paper-loose', wrap: 'twine' });
  expect(core('paper-clay')).toEqual({});
  expect(core('oven-polymer')).toEqual({ bulk: 'foil-firm', wrap: 'none' });
  expect(core('oil-medium')).toEqual({});
});

test('a new build lays no more on a thin limb than leaves a core in it', () => {
  const bird = firstStart('bird-like');
  const { limbs } = pieceOf(bird);
  const legs = Math.min(
    ...limbs()
      .filter((l) => /shank|thigh/.test(l.name))
      .map((l) => l.thinnest / 2),
  );
  expect(bird.regions.own['legs']!.coats[0]).toBeLessThanOrEqual(0.4 * legs + 0.0005);
  expect(firstStart('found-object').regions.own).toEqual({});
});

test('the forms a newcomer meets stand, at half, their own and half again of their size', () => {
  const failing = [...firstStarts()].flatMap((s) =>
    s.fails.filter((f) => !(s.size === 1.5 && f === 'door')).map((f) => `${s.form} ${s.size}: ${f}`),
  );
  expect(failing).toEqual([]);
}, 240_000);

test('of every ninth start each has nothing failing, or is turned down with its sentence as by hand', () => {
  const all = [...allStarts(9, 4)];
  expect(all.length).toBeGreaterThan(40);
  const unforeseen = all.filter((s) => s.fails.length > 0 && refusedByHand(s.form, s.school, s.clay) === null);
  expect(unforeseen.map((s) => `${s.form} ${s.school} ${s.clay}: ${s.fails.join()}`)).toEqual([]);
  for (const s of all) expect(s.cannot === null).toBe(s.fails.length === 0);
}, 240_000);

test('however a form is turned, nothing stands out of it', () => {
  // Among them a head turned on its post, muzzles with splints and pipes, a cage about a bent neck.
  for (const seed of [2, 135, 143, 229, 261, 11, 58, 102, 176, 240]) {
    const { cover } = pieceOf(posedStart(seed));
    expect(cover.filter((c) => c.least < 0).map((c) => `${seed}: ${c.name} ${c.least}`)).toEqual([]);
  }
}, 240_000);
