import { bulks, layers, wraps } from '../catalogue';
import { newBust, type Build, type Layers } from '../document';
import { changed } from '../../../tests/support/judged';
import { clayOver, coatColours, coreFace, layersOf, layersOverClay, layersUnderClay, stagesOf } from '.';

/** What lies on the core, region by region. */
const laid = (everywhere: Layers, head?: Layers): Build =>
  changed(newBust('b', '2026-12-01'), {
    path: ['regions'],
    value: { painted: [], seams: [], everywhere, own: head ? { head } : {} },
  });
const idsOf = (list: readonly { id: string }[] | null) => list?.map((l) => l.id) ?? null;

test('a region has its own layers, or those of everywhere, layer by layer', () => {
  const build = laid({ coats: [0.01], under: ['tape'], over: ['wax'] }, { coats: [0.004], under: ['twine', 'tape'] });
  expect(layersOf(build, 'head').coats).toEqual([0.004]);
  expect(idsOf(layersUnderClay(build, 'head'))).toEqual(['twine', 'tape']);
  expect(idsOf(layersUnderClay(build, 'neck'))).toEqual(['tape']);
  // What the region does not say of itself is as everywhere.
  expect(idsOf(layersOverClay(build, 'head'))).toEqual(['wax']);
  expect(clayOver(laid({ coats: [0.01] }, { coats: [0.004, 0.003] }), 'head')).toBeCloseTo(0.007, 12);
});

test('where nothing is said the school’s own wrap stands; a region wrapped in nothing is so', () => {
  expect(layersUnderClay(laid({ coats: [0.01] }), 'head')).toBeNull();
  expect(idsOf(layersUnderClay(laid({ coats: [0.01] }, { coats: [0.01], under: [] }), 'head'))).toEqual([]);
  expect(layersOverClay(laid({ coats: [0.01] }), 'head')).toEqual([]);
});

test('stages from the first, one a coat, unless they were chosen; colours are the clay’s own', () => {
  expect(stagesOf(laid({ coats: [0.01, 0.005, 0.002] }), 'head')).toEqual([1, 2, 3]);
  expect(stagesOf(laid({ coats: [0.01, 0.005], stages: [2] }), 'head')).toEqual([2, 2]);
  expect(stagesOf(laid({ coats: [0.01, 0.005], stages: [3, 4] }), 'head')).toEqual([3, 4]);
  expect(coatColours(laid({ coats: [0.01, 0.005], colours: ['dyed'] }), 'head')).toEqual(['dyed', 'own']);
});

describe('the face the clay lies on', () => {
  const paper = bulks.get('paper-firm')!,
    wrap = (id: string) => wraps.get(id)!;
  const { restraint, innerFace, grip } = paper;
  test('wraps one over another: each gives some, the outermost is what the clay grips', () => {
    const both = coreFace(paper, wrap('cloth'), wrap('twine'));
    expect(both.restraint).toBeCloseTo(restraint * wrap('cloth').restraintFactor * wrap('twine').restraintFactor, 12);
    expect(both.grip).toBe(wrap('twine').grip);
    expect(both.innerFace).toBe(innerFace);
    expect(coreFace(paper)).toEqual({ restraint, innerFace, grip, drinks: { perArea: 0, perKg: 0.25 }, solid: false });
    // Cloth and twine take a fifth of their weight: 0.25 and 0.45 kg to a m2.
    expect(both.drinks.perArea).toBeCloseTo(0.14, 9);
  });
  test('what seals shuts the inner face, whatever lies over it', () => {
    expect(coreFace(paper, wrap('tape')).innerFace).toBe(0);
    expect(coreFace(paper, wrap('tape'), wrap('cloth')).innerFace).toBe(0);
    expect(coreFace(paper, wrap('cloth'), wrap('tape')).drinks).toEqual({ perArea: 0, perKg: 0 });
    const film = layers.get('plastic-film');
    expect(film && coreFace(paper, film as never).innerFace).toBe(0);
  });
  test('hard undercoat holds as itself, on any bulk', () => {
    const soft = coreFace(bulks.get('paper-loose')!, wrap('undercoat')),
      hard = coreFace(bulks.get('foil-packed')!, wrap('undercoat'));
    expect(soft.restraint).toBe(hard.restraint);
  });
  test('nothing holds back more than all of it; bare metal has no core to wrap', () => {
    expect(coreFace({ ...paper, restraint: 0.9 }, { ...wrap('cloth'), restraintFactor: 2 }).restraint).toBe(1);
    expect(coreFace(bulks.get('none')!, wrap('cloth'))).toEqual({
      restraint: bulks.get('none')!.restraint,
      innerFace: 0,
      drinks: { perArea: 0, perKg: 0 },
      grip: bulks.get('none')!.grip,
      solid: true,
    });
  });
});
