import { boxMesh } from '../../../tests/support/meshes';
import { newBust, type Mass } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { DistanceField, sampleSolid, samplesAlong, solidOfMesh, type Box } from '../form';
import { castKinds, clayToFit, leftOf, mouldFigures, mouldKinds, pullsUntilGone, seatFor, volumesWithin } from '.';

/** Moulds against what can be worked out by hand: Steiner's formula for a body that bulges everywhere. */
const cc = 1e-6;
const mass = (shape: Mass['shape'], at: readonly [number, number, number]): Mass =>
  ({ id: 'm', name: 'm', region: 'm', at: [...at], turn: [0, 0, 0], blend: 0, shape }) as Mass;
const cube = new DistanceField([mass({ kind: 'rounded-box', half: [0.05, 0.05, 0.05], rounding: 0 }, [0, 0, 0.05])]);
const cubeBox: Box = { low: [-0.05, -0.05, 0], high: [0.05, 0.05, 0.1] };
const ball = (r: number) => new DistanceField([mass({ kind: 'ellipsoid', radii: [r, r, r] }, [0, 0, 0.2])]);

test('a cube of 100 mm under 10 mm: 698.4 cc hanging free, 564.9 on its board', () => {
  const skin = (board: number | null) => {
    const [own, out] = volumesWithin({ field: cube, box: cubeBox, board, finest: 0.001 }, [0, 0.01]);
    return (out! - own!) / cc;
  };
  expect(skin(null) / 698.4).toBeCloseTo(1, 2);
  expect(skin(0) / 564.9).toBeCloseTo(1, 2);
});

test('over a mesh, whose samples end a little outside it: 10 and 30 mm over a cube within two hundredths', () => {
  const cubeMesh = boxMesh(0.1, 0.1, 0.1);
  const solid = solidOfMesh(cubeMesh, samplesAlong(cubeMesh), {});
  if (!solid.ok) throw new Error(solid.message);
  const field = new DistanceField([mass(sampleSolid(solid.value), [0, 0, 0.05])]);
  const found = volumesWithin({ field, box: cubeBox, board: null, finest: 0.001 }, [0, 0.01, 0.03]);
  const exact = [0, 0.01, 0.03].map(
    (t) => 0.1 ** 3 + 6 * 0.01 * t + 0.3 * Math.PI * t * t + (4 / 3) * Math.PI * t ** 3,
  );
  found.forEach((v, i) => expect(Math.abs(v / exact[i]! - 1)).toBeLessThan(0.01));
  expect(Math.abs((found[1]! - found[0]!) / (exact[1]! - exact[0]!) - 1)).toBeLessThan(0.02);
  expect(Math.abs((found[2]! - found[1]!) / (exact[2]! - exact[1]!) - 1)).toBeLessThan(0.02);
});

test.each([
  [0.06, 0.002, 0.012],
  [0.09, 0.01, 0.012],
  [0.2, 0.0025, 0.005],
])('a ball of %d m: skin, shell and wall within a hundredth', (r, t, shell) => {
  const box: Box = { low: [-r, -r, 0.2 - r], high: [r, r, 0.2 + r] };
  const all = volumesWithin({ field: ball(r), box, board: null, finest: t / 2 }, [0, t, t + shell, -t]);
  const exact = [r, r + t, r + t + shell, r - t].map((x) => (4 / 3) * Math.PI * x ** 3);
  const [v, v1, v2, w] = all as [number, number, number, number],
    [e, e1, e2, f] = exact as [number, number, number, number];
  expect((v1 - v) / (e1 - e)).toBeCloseTo(1, 2);
  expect((v2 - v1) / (e2 - e1)).toBeCloseTo(1, 2);
  expect((v - w) / (e - f)).toBeCloseTo(1, 2);
});

test('oversize by hand: 12.2 mm of clay on a form of the wearer’s own 90 mm, a wall of 2, a tenth lost', () => {
  expect(clayToFit(0.09, 0.09, 0, 0.002, leftOf([0.1]))).toBeCloseTo(0.0122, 4);
  expect(clayToFit(0.09, 0.09, 0, 0, 0.9)).toBeCloseTo(0.01, 6);
  expect(clayToFit(0.09, 0.09, 0, 0, 0.92)).toBeCloseTo(0.0078, 4);
  // A mould of a cast, and a cast of that; eyes of 24 mm in a skin that loses a tenth.
  expect(leftOf([0.004, 0.1, 0.004])).toBeCloseTo(0.996 * 0.9 * 0.996, 12);
  expect(seatFor(0.024, 0.9)).toBeCloseTo(0.02667, 5);
});

test('every kind takes casts there are, every cast goes in some mould, and each says what can hurt', () => {
  const casts = new Set(castKinds.map((c) => c.id));
  for (const k of mouldKinds) {
    expect(k.takes.length).toBeGreaterThan(0);
    for (const c of k.takes) expect(casts.has(c)).toBe(true);
    expect(k.cautions.length).toBeGreaterThan(0);
    expect(k.skin !== null || k.shell !== null || k.block !== null).toBe(true);
    expect([k.shrinkage, k.wear].every((r) => r.low <= r.nominal && r.nominal <= r.high)).toBe(true);
  }
  for (const c of castKinds) {
    expect(mouldKinds.some((k) => (k.takes as readonly string[]).includes(c.id))).toBe(true);
    expect(c.caution).not.toBe('');
    expect(c.density.low <= c.density.nominal && c.density.nominal <= c.density.high).toBe(true);
  }
});

describe('a mould of a ball of 90 mm', () => {
  const r = 0.09;
  const master = { field: ball(r), box: { low: [-r, -r, 0.2 - r], high: [r, r, 0.2 + r] } as Box, board: null };
  const of = (asked: Parameters<typeof mouldFigures>[1]) => {
    const found = mouldFigures(master, asked);
    if (!found.ok) throw new Error(found.message);
    return found.value;
  };
  const shellOf = (from: number, t: number) => (4 / 3) * Math.PI * ((r + from + t) ** 3 - (r + from) ** 3);
  test('rubber 10 mm with a shell of 12: kg on it, and powder to buy', () => {
    const { skin, shell, block } = of({ kind: 'rubber-skin' });
    expect(skin!.mass / (shellOf(0, 0.01) * 1150)).toBeCloseTo(1, 2);
    expect(shell!.mass / (shellOf(0.01, 0.012) * 1600)).toBeCloseTo(1, 2);
    expect(shell!.toBuy / (shellOf(0.01, 0.012) * 970 * 1.1)).toBeCloseTo(1, 2);
    expect(block).toBeNull();
  });
  test('a block: the box with its margins, less the ball', () => {
    const { block } = of({ kind: 'rubber-block', margin: 0.02 });
    expect(block!.volume / (0.22 ** 3 - (4 / 3) * Math.PI * r ** 3)).toBeCloseTo(1, 2);
  });
  test('a latex skin of 3 mm in plaster weighs its wall, and comes out a tenth smaller', () => {
    const { castMass, left } = of({ kind: 'plaster-parts', cast: 'latex-skin' });
    expect(left.nominal).toBeCloseTo(0.9 * 1.002, 9);
    const wall = (4 / 3) * Math.PI * (r ** 3 - (r - 0.003) ** 3);
    expect(castMass.nominal / (wall * left.nominal ** 2 * 950)).toBeCloseTo(1, 2);
    expect(castMass.low).toBeLessThan(castMass.nominal);
    expect(castMass.high).toBeGreaterThan(castMass.nominal);
  });
  test('solid resin weighs what it fills', () => {
    const { castMass } = of({ kind: 'rubber-block', cast: 'resin-solid' });
    expect(castMass.nominal / ((4 / 3) * Math.PI * r ** 3 * leftOf([0.004, 0.005]) ** 3 * 1060)).toBeCloseTo(1, 2);
  });
  test.each([
    [{ kind: 'jelly' }, 'kind'],
    [{ kind: 'rubber-block', cast: 'gold' }, 'cast'],
    [{ kind: 'plaster-parts', cast: 'resin-solid' }, 'cast'],
    [{ kind: 'rubber-skin', skin: 0 }, 'skin'],
    [{ kind: 'rubber-skin', shell: -1 }, 'shell'],
    [{ kind: 'rubber-block', margin: NaN }, 'margin'],
    [{ kind: 'rubber-block', margin: 4 }, 'margin'],
  ])('%j is refused at %s', (asked, path) => {
    expect(mouldFigures(master, asked)).toMatchObject({ ok: false, path });
  });
});

test('a shell of 15 mm of wet plaster over a life-size bust weighs about its face times its wall', () => {
  const piece = new Evaluator().piece(asBriefed(newBust('Bust', '2026-12-01')));
  if (!piece.ok) throw new Error(piece.message);
  const { field, extent, volumes } = piece.value;
  const made = mouldFigures({ field, box: extent, board: 0 }, { kind: 'plaster-parts', shell: 0.015 });
  if (!made.ok) throw new Error(made.message);
  const area = volumes.perMass.reduce((sum, m) => sum + m.area, 0);
  const { shell, piece: own } = made.value;
  expect(own / volumes.outerVolume).toBeCloseTo(1, 2);
  // Over what bulges it is more than face times wall, by the mean curvature; a fifth at most on a head and shoulders.
  expect(shell!.volume / (area * 0.015)).toBeGreaterThan(0.95);
  expect(shell!.volume / (area * 0.015)).toBeLessThan(1.25);
});

test('a groove of half a millimetre lasts some hundred resin casts in rubber, and a dozen or two in plaster', () => {
  const of = (id: string) => mouldKinds.find((k) => k.id === id)!.wear;
  const rubber = pullsUntilGone(0.0005, of('rubber-skin')),
    plaster = pullsUntilGone(0.0005, of('plaster-parts'));
  expect(rubber).toEqual({ low: expect.closeTo(50, 6), nominal: expect.closeTo(100, 6), high: expect.closeTo(250, 6) });
  expect(plaster.nominal).toBeCloseTo(16.7, 1);
  expect(plaster.low).toBeCloseTo(2.5, 6);
});
