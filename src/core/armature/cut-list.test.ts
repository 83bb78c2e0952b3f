import { stocks } from '../catalogue';
import { cutList, memberMass, pathLength, type Member } from '.';

/** 300 mm up, 400 mm across: half a metre as the crow flies, 700 mm along the bend. */
const bent = (more: Partial<Member> = {}): Member => ({
  id: 'arm-left',
  name: 'left arm',
  stock: 'aluminium-annealed',
  size: '4mm',
  strands: 1,
  bonded: false,
  path: [
    [0, 0, 0],
    [0, 0, 0.3],
    [0.4, 0, 0.3],
  ],
  bones: ['upper', 'lower'],
  allowances: [{ what: 'a twist', length: 0.05 }],
  ...more,
});
const aluminium = stocks.get('aluminium-annealed')!;
const cut = (m: Member) => cutList([m], stocks)[0]!;
/** kg of a metre of 4 mm round aluminium: 2700 x 12.57 mm2. */
const aMetre = 2700 * Math.PI * 0.002 ** 2;

test('a wire is as long as its bend', () => {
  expect(pathLength(bent().path)).toBeCloseTo(0.7, 12);
  expect(pathLength([[1, 2, 3]])).toBe(0);
});

test('what to cut is the bend, the allowances and a twentieth to trim; what it weighs is without the trim', () => {
  expect(cut(bent()).cutLength).toBeCloseTo(0.75 * 1.05, 12);
  expect(cut(bent()).netLength).toBeCloseTo(0.7, 12);
  expect(cut(bent()).allowances.map((a) => a.what)).toEqual(['a twist', 'trim']);
  expect(cut(bent()).allowances[1]!.length).toBeCloseTo(0.0375, 12);
  expect(memberMass(bent(), aluminium)).toBeCloseTo(0.75 * aMetre, 9);
  expect(cut(bent()).mass).toBe(memberMass(bent(), aluminium));
});

test('every strand is cut, and weighs', () => {
  const three = bent({ strands: 3 });
  expect(cut(three)).toMatchObject({ pieces: 3 });
  expect(cut(three).cutLength).toBe(cut(bent()).cutLength);
  expect(memberMass(three, aluminium)).toBeCloseTo(3 * 0.75 * aMetre, 9);
});

test('a pipe weighs its wall', () => {
  const pipe = [...stocks.values()].find((s) => s.sizes.some((z) => z.section.shape === 'tube'))!;
  const size = pipe.sizes.find((z) => z.section.shape === 'tube')!;
  if (size.section.shape !== 'tube') throw new Error('no tube');
  const { diameter, wall } = size.section;
  const area = (Math.PI / 4) * (diameter ** 2 - (diameter - 2 * wall) ** 2);
  const m = bent({ stock: pipe.id, size: size.id, allowances: [] });
  expect(memberMass(m, pipe)).toBeCloseTo(0.7 * area * pipe.density, 9);
});

test('which side of the sculpture a cut is for, where it is for one', () => {
  const side = (id: string) => cut(bent({ id })).side;
  expect(['figure/arm-left', 'left', 'leg-right-2', 'right/toe', 'leftover', 'upright', 'loop'].map(side)).toEqual([
    'left',
    'left',
    'right',
    'right',
    null,
    null,
    null,
  ]);
});

test('a stock or a size that there is not is named', () => {
  expect(() => cut(bent({ size: '5mm-square' }))).toThrow(/aluminium-annealed 5mm-square/);
  expect(() => memberMass(bent({ size: '77mm' }), aluminium)).toThrow(/77mm/);
});
