import {
  bendingStrengthOf,
  bulkKindSchema,
  bulkList,
  clayFamilySchema,
  clayList,
  clays,
  compatibilityRules,
  joinEfficiency,
  joinKinds,
  recipes,
  sizesLike,
  stockList,
  stockSchema,
  stocks,
  wrapList,
  wrapSchema,
} from '.';

const unique = (ids: readonly string[]) => expect(new Set(ids).size).toBe(ids.length);

test('every record is valid and has an id of its own', () => {
  for (const clay of clayList) expect(clayFamilySchema.safeParse(clay).error?.issues ?? []).toEqual([]);
  for (const bulk of bulkList) expect(bulkKindSchema.safeParse(bulk).error?.issues ?? []).toEqual([]);
  for (const stock of stockList) expect(stockSchema.safeParse(stock).error?.issues ?? []).toEqual([]);
  for (const wrap of wrapList) expect(wrapSchema.safeParse(wrap).error?.issues ?? []).toEqual([]);
  unique(clayList.map((c) => c.id));
  unique(bulkList.map((b) => b.id));
  unique(stockList.map((s) => s.id));
  unique(recipes.map((r) => r.id));
  unique(compatibilityRules.map((r) => r.id));
  for (const stock of stockList) unique(stock.sizes.map((s) => s.id));
});

test('the families makers use are all there', () => {
  for (const id of [
    'earthen-air-dry',
    'paper-clay',
    'paper-strips',
    'foam-air-dry',
    'cold-porcelain',
    'epoxy-clay',
    'oil-soft',
    'oil-medium',
    'oil-firm',
    'oil-medium-sulphur',
    'water-based',
    'oven-polymer',
    'oven-polymer-light',
  ])
    expect(clays.has(id)).toBe(true);
});

test('solids and water add up to the weight as laid', () => {
  for (const clay of clayList) {
    if (!clay.drying) continue;
    const wet = clay.drying.rho_dry * (1 + clay.drying.w0);
    expect(Math.abs(wet / clay.wetDensity - 1)).toBeLessThan(0.03);
  }
});

test('gauge and inch sizes agree with their millimetres', () => {
  const wire = stocks.get('aluminium-annealed');
  const size = (id: string) => wire?.sizes.find((s) => s.id === id)?.section;
  expect(size('awg-8')).toMatchObject({ shape: 'round' });
  expect((size('awg-8') as { diameter: number }).diameter).toBeCloseTo(0.003264, 6);
  expect((size('3-16in') as { diameter: number }).diameter).toBeCloseTo(0.0047625, 7);
});

test('joins fall from one piece to pushed in', () => {
  const all = joinKinds.map((j) => joinEfficiency(j.id));
  expect([...all].sort((a, b) => b - a)).toEqual(all);
  expect(all[0]).toBe(1);
});

test('a clay that dries must say how', () => {
  const paper = clays.get('paper-clay');
  expect(clayFamilySchema.safeParse({ ...paper, drying: null }).success).toBe(false);
  expect(clayFamilySchema.safeParse({ ...paper, drying: { ...paper?.drying, w_sl: 2 } }).success).toBe(false);
});

test('what is like a size is of its series and its shape: flat bar is no thinner rod', () => {
  const steel = stocks.get('mild-steel')!;
  const like = sizesLike(steel, '12mm');
  expect(like.length).toBeGreaterThan(2);
  expect(new Set(like.map((s) => s.section.shape))).toEqual(new Set(['round']));
  expect(like.every((s) => s.id.endsWith('mm'))).toBe(true);
  const flat = steel.sizes.find((s) => s.section.shape === 'flat')!;
  expect(sizesLike(steel, flat.id).every((s) => s.section.shape === 'flat')).toBe(true);
});

test('what dries, sets or is baked bears something as it is bent, and nothing else is said to', () => {
  for (const clay of clayList) {
    const strength = bendingStrengthOf(clay);
    const hard = ['dries', 'sets', 'bakes'].includes(clay.setting);
    expect([clay.id, strength !== null]).toEqual([clay.id, hard]);
    if (!strength) continue;
    expect(strength.low / strength.nominal).toBeCloseTo(0.5, 9);
    expect(strength.nominal).toBeGreaterThan(0.5e6);
    expect(strength.nominal).toBeLessThan(50e6);
  }
});
