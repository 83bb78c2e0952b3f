import { bulkList, clayList, clays, coverKinds, coverResistance, soldLength, stockList, stocks, wrapList } from '.';

/** Catalogue figures against handbooks and against each other: a slipped point or a swapped column shows here. */
const GPa = 1e9,
  MPa = 1e6;

describe('metals and timber', () => {
  // Ashby, *Materials Selection in Mechanical Design*, and the usual tables: Young's modulus in GPa, kg/m3, strength in MPa.
  test.each([
    [/^(mild-)?steel|steel-(galvanised|black|hard|pipe|square)/, [190, 215], [7700, 7900], [200, 1600]],
    [/^aluminium/, [66, 72], [2650, 2760], [25, 260]],
    [/^copper/, [105, 130], [8850, 9000], [30, 120]],
    [/^brass/, [95, 115], [8300, 8700], [90, 450]],
    [/^stainless/, [185, 205], [7800, 8100], [180, 700]],
    [/dowel|batten/, [7, 16], [380, 780], [35, 130]],
    [/plywood|mdf|chipboard/, [2, 11], [550, 850], [8, 60]],
  ] as const)('%s', (which, youngs, density, strength) => {
    const found = stockList.filter((s) => which.test(s.id));
    expect(found.length).toBeGreaterThan(0);
    for (const s of found) {
      expect([s.id, s.youngs / GPa >= youngs[0] && s.youngs / GPa <= youngs[1]]).toEqual([s.id, true]);
      expect([s.id, s.density >= density[0] && s.density <= density[1]]).toEqual([s.id, true]);
      expect([s.id, s.strength.low / MPa >= strength[0] * 0.8 && s.strength.high / MPa <= strength[1] * 1.3]).toEqual([
        s.id,
        true,
      ]);
    }
  });

  test('metal may be used to its yield; timber and plastic to a part of what they break at', () => {
    for (const s of stockList)
      expect([s.id, s.brittle || s.youngs < 5 * GPa ? s.allowed <= 0.5 : s.allowed === 1]).toEqual([s.id, true]);
  });

  test('hard wire is stronger than soft wire of the same metal, and as stiff', () => {
    const pairs = [
      ['aluminium-annealed', 'aluminium-half-hard'],
      ['steel-galvanised', 'steel-hard'],
    ] as const;
    for (const [soft, hard] of pairs) {
      const [a, b] = [stocks.get(soft), stocks.get(hard)];
      if (!a || !b) continue;
      expect(b.strength.nominal).toBeGreaterThan(1.3 * a.strength.nominal);
      expect(b.youngs / a.youngs).toBeCloseTo(1, 1);
    }
  });

  test('nominal half-inch pipe is 21.3 mm across with a wall of 2.77 mm; three eighths 17.1, three quarters 26.7', () => {
    const across = (id: string) => stocks.get('steel-pipe')!.sizes.find((s) => s.id === id)!.section;
    expect(across('1-2')).toEqual({
      shape: 'tube',
      diameter: expect.closeTo(0.0213, 6),
      wall: expect.closeTo(0.00277, 6),
    });
    expect(across('3-8')).toMatchObject({ diameter: expect.closeTo(0.0171, 6) as number });
    expect(across('3-4')).toMatchObject({ diameter: expect.closeTo(0.0267, 6) as number });
  });

  test('no wall is thicker than half its tube, and every label tells its millimetres', () => {
    for (const stock of stockList)
      for (const { id, label, section } of stock.sizes) {
        if (section.shape === 'tube') expect([id, section.wall < section.diameter / 2]).toEqual([id, true]);
        if (section.shape === 'square-tube') expect([id, section.wall < section.width / 2]).toEqual([id, true]);
        if (section.shape !== 'round' || !/mm/.test(label)) continue;
        const told = Number(/([\d.]+) mm/.exec(label)![1]);
        expect([label, Math.abs(told / (section.diameter * 1000) - 1) < 0.02]).toEqual([label, true]);
      }
  });

  test('thin wire comes on long coils, thick wire on short ones; rod and tube by the length', () => {
    const wire = stocks.get('aluminium-annealed')!;
    const sold = (mm: number) =>
      soldLength(wire, { id: 'x', label: 'x', section: { shape: 'round', diameter: mm / 1000 } });
    expect([1, 2, 3, 4.8, 6, 9.5].map(sold)).toEqual([20, 20, 10, 5, 5, 2]);
    for (const s of stockList) for (const size of s.sizes) expect(soldLength(s, size)).toBeGreaterThanOrEqual(1);
  });
});

describe('clays', () => {
  test('what dries has more water than its shrinkage limit, moves it slower when dry, and takes less strain then', () => {
    for (const c of clayList) {
      if (!c.drying) continue;
      const d = c.drying;
      expect([c.id, d.w0 > d.w_sl, d.w_sl > d.w_m, d.D_wet >= d.D_dry, d.capacityWet > d.capacityDry]).toEqual([
        c.id,
        true,
        true,
        true,
        true,
      ]);
      expect(c.shrinkageRange!.nominal).toBe(d.shrinkage);
      // Linear shrinkage is no more than a third of the water above the limit takes up, by volume.
      expect([c.id, 3 * d.shrinkage * 1000 <= (d.w0 - d.w_sl) * d.rho_dry * 1.35]).toEqual([c.id, true]);
    }
  });

  test('clay with sulphur is its twin without, but for the sulphur', () => {
    for (const firmness of ['soft', 'medium', 'firm']) {
      const [plain, sulphur] = [clays.get(`oil-${firmness}`)!, clays.get(`oil-${firmness}-sulphur`)!];
      expect(sulphur.traits.filter((t) => !plain.traits.includes(t))).toEqual(['sulphur']);
      expect([sulphur.yieldStress, sulphur.softens]).toEqual([plain.yieldStress, plain.softens]);
    }
  });

  test('soft, medium and firm are that, and warmth softens them all', () => {
    const yields = ['oil-soft', 'oil-medium', 'oil-firm'].map((id) => clays.get(id)!.yieldStress);
    expect([...yields].sort((a, b) => a - b)).toEqual(yields);
    for (const c of clayList) expect([c.id, c.softens !== null]).toEqual([c.id, c.setting === 'never']);
  });

  test('a usual coat is a range, thinner than a hand is wide; what is baked stands its oven', () => {
    for (const c of clayList) {
      const [least, most] = c.usualThickness;
      expect([c.id, least < most && most <= 0.1]).toEqual([c.id, true]);
      if (c.setting === 'bakes') expect([c.id, c.standsTo >= 135]).toEqual([c.id, true]);
    }
  });
});

describe('what fills and wraps it', () => {
  const bulk = (id: string) => bulkList.find((b) => b.id === id)!;
  test('packed tighter it weighs more, is stiffer, and holds the clay back more', () => {
    for (const row of [
      ['paper-loose', 'paper-firm'],
      ['foil-loose', 'foil-firm', 'foil-packed'],
    ])
      row.slice(1).forEach((id, i) => {
        const [less, more] = [bulk(row[i]!), bulk(id)];
        expect(more.density).toBeGreaterThan(less.density);
        expect(more.stiffness).toBeGreaterThan(less.stiffness);
        expect(more.crushing).toBeGreaterThan(less.crushing);
        expect(more.restraint).toBeGreaterThan(less.restraint);
      });
  });
  test('metal and what is rigid hold back nine tenths; nothing holds back all', () => {
    expect(bulk('none').restraint).toBe(0.9);
    for (const b of bulkList) expect([b.id, b.restraint <= 0.9]).toEqual([b.id, true]);
  });
  test('foams soften in heat that foil and gauze stand', () => {
    for (const b of bulkList.filter((x) => /polystyrene/.test(x.id)))
      expect([b.id, b.standsTo < 100]).toEqual([b.id, true]);
    expect(bulk('foil-firm').standsTo).toBeGreaterThan(400);
  });
  test('a wrap lets the clay move, or is hard and says what it holds', () => {
    for (const w of wrapList)
      expect([w.id, w.restraintFactor <= 1 && (w.restraint === undefined || w.restraint > 0)]).toEqual([w.id, true]);
  });
  test('covers slow it in the order a maker reaches for them', () => {
    const all = coverKinds.map((c) => coverResistance(c.id));
    expect([...all].sort((a, b) => a - b)).toEqual(all);
    expect(all[0]).toBe(0);
  });
});
