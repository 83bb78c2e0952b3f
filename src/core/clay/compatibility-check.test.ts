import { bulks, clays, stocks } from '../catalogue';
import { bulkPart, clayPart, conflictsIn, layerPartOf, newConflicts, processOf, stockPart, type Conflict } from '.';

interface Stack {
  readonly wire: string;
  readonly bulk?: string;
  readonly under?: readonly string[];
  readonly clay: string;
  readonly colours?: readonly ('own' | 'white' | 'dyed')[];
  readonly over?: readonly string[];
  readonly through?: readonly (string | readonly [string, number])[];
}

function conflicts(s: Stack): Conflict[] {
  const clay = clays.get(s.clay)!;
  return conflictsIn({
    armature:
      s.wire === 'none'
        ? [{ id: 'no-wire', name: 'foil without a wire', traits: ['no-wire'], standsTo: 600, seals: false }]
        : s.wire.split('+').map((w) => stockPart(stocks.get(w)!)),
    layers: [
      ...(s.bulk ? [bulkPart(bulks.get(s.bulk)!)] : []),
      ...(s.under ?? []).map((id) => layerPartOf(id)).filter((l) => l !== null),
      ...(s.colours ?? ['own' as const]).map((c) => clayPart(clay, c)),
      ...(s.over ?? []).map((id) => layerPartOf(id)).filter((l) => l !== null),
    ],
    processes: (s.through ?? [])
      .map((p) => (typeof p === 'string' ? processOf(p) : processOf(p[0], p[1])))
      .filter((p) => p !== null),
  });
}

/** Fifteen that get on. */
const good: readonly (readonly [string, Stack])[] = [
  [
    'a stuffed bust in paper clay',
    { wire: 'aluminium-annealed+steel-pipe', bulk: 'paper-loose', under: ['tape'], clay: 'paper-clay' },
  ],
  [
    'twine over foil under earthen clay',
    { wire: 'aluminium-annealed', bulk: 'foil-packed', under: ['twine'], clay: 'earthen-air-dry' },
  ],
  [
    'epoxy over taped foil on a wire',
    { wire: 'aluminium-annealed', bulk: 'foil-packed', under: ['tape'], clay: 'epoxy-clay' },
  ],
  [
    'polymer baked over foil',
    { wire: 'aluminium-annealed', bulk: 'foil-packed', under: ['undercoat'], clay: 'oven-polymer', through: ['bake'] },
  ],
  [
    'oil-based clay on taped foam, cast in condensation silicone',
    {
      wire: 'mild-steel',
      bulk: 'foam-sprayed',
      under: ['mesh'],
      clay: 'oil-medium',
      through: ['silicone-condensation'],
    },
  ],
  [
    'clay without sulphur under addition silicone',
    {
      wire: 'aluminium-annealed',
      bulk: 'foil-firm',
      under: ['tape'],
      clay: 'oil-firm',
      through: ['silicone-addition'],
    },
  ],
  [
    'water-based clay on taped foil, sealed before silicone',
    {
      wire: 'aluminium-annealed',
      bulk: 'foil-packed',
      under: ['tape'],
      clay: 'water-based',
      over: ['acrylic-seal'],
      through: ['silicone-condensation'],
    },
  ],
  [
    'cardboard primed before paper clay',
    { wire: 'aluminium-annealed', bulk: 'card-corrugated', under: ['sealing-primer'], clay: 'paper-clay' },
  ],
  [
    'foam head primed, water-based paint',
    {
      wire: 'aluminium-annealed',
      bulk: 'polystyrene-expanded',
      under: ['tape'],
      clay: 'foam-air-dry',
      over: ['acrylic-seal'],
    },
  ],
  [
    'white over white',
    {
      wire: 'aluminium-annealed',
      bulk: 'foil-packed',
      under: ['twine'],
      clay: 'paper-clay',
      colours: ['white', 'white'],
    },
  ],
  [
    'dyed clay, a neutral coat, white on top',
    {
      wire: 'aluminium-annealed',
      bulk: 'foil-packed',
      under: ['twine'],
      clay: 'paper-clay',
      colours: ['dyed', 'own', 'white'],
    },
  ],
  [
    'pipe in a plastic bag under wet clay',
    { wire: 'steel-pipe', bulk: 'twine-fill', under: ['plastic-film', 'tape'], clay: 'earthen-air-dry' },
  ],
  ['stainless rod in clay kept damp', { wire: 'stainless-rod', clay: 'water-based' }],
  [
    'cold porcelain on taped foil',
    { wire: 'aluminium-annealed', bulk: 'foil-packed', under: ['tape'], clay: 'cold-porcelain' },
  ],
  [
    'epoxy sealed before addition silicone',
    {
      wire: 'aluminium-annealed',
      bulk: 'foil-packed',
      under: ['tape'],
      clay: 'epoxy-clay',
      over: ['acrylic-seal'],
      through: ['silicone-addition'],
    },
  ],
];

/** Fifteen that do not, each with the rule that says so. */
const bad: readonly (readonly [string, Stack, string])[] = [
  ['black wire in solid wet clay', { wire: 'steel-black', clay: 'earthen-air-dry' }, 'steel-damp'],
  [
    'black wire under paper under wet clay',
    { wire: 'steel-black', bulk: 'paper-firm', clay: 'paper-clay' },
    'steel-damp',
  ],
  ['bare cardboard', { wire: 'aluminium-annealed', bulk: 'card-corrugated', clay: 'paper-clay' }, 'card-damp'],
  ['bare slick foil', { wire: 'aluminium-annealed', bulk: 'foil-packed', clay: 'paper-clay' }, 'slick-clay'],
  [
    'foil without a wire under epoxy',
    { wire: 'none', bulk: 'foil-packed', under: ['tape'], clay: 'epoxy-clay' },
    'foil-epoxy',
  ],
  [
    'foam baked',
    {
      wire: 'aluminium-annealed',
      bulk: 'polystyrene-extruded',
      under: ['tape'],
      clay: 'oven-polymer',
      through: ['bake'],
    },
    'heat',
  ],
  [
    'foam sprayed with solvent paint',
    {
      wire: 'aluminium-annealed',
      bulk: 'polystyrene-expanded',
      under: ['tape'],
      clay: 'foam-air-dry',
      through: ['spray-paint'],
    },
    'polystyrene-solvent',
  ],
  [
    'foam under solvent varnish',
    {
      wire: 'aluminium-annealed',
      bulk: 'polystyrene-expanded',
      under: ['tape'],
      clay: 'foam-air-dry',
      over: ['solvent-varnish'],
    },
    'solvent-on-polystyrene',
  ],
  [
    'sulphur under addition silicone, sealed or not',
    {
      wire: 'aluminium-annealed',
      bulk: 'foil-firm',
      under: ['tape'],
      clay: 'oil-medium-sulphur',
      over: ['acrylic-seal'],
      through: ['silicone-addition'],
    },
    'sulphur-silicone',
  ],
  [
    'wet clay under silicone',
    { wire: 'stainless-rod', clay: 'water-based', through: ['silicone-condensation'] },
    'damp-silicone',
  ],
  [
    'white over dyed',
    {
      wire: 'aluminium-annealed',
      bulk: 'foil-packed',
      under: ['twine'],
      clay: 'paper-clay',
      colours: ['dyed', 'white'],
    },
    'dyed-white',
  ],
  [
    'oil-based clay in a hot van',
    { wire: 'mild-steel', bulk: 'foam-sprayed', under: ['mesh'], clay: 'oil-soft', through: [['hot-van', 55]] },
    'heat',
  ],
  [
    'earthen clay outdoors',
    {
      wire: 'aluminium-annealed',
      bulk: 'foil-packed',
      under: ['twine'],
      clay: 'earthen-air-dry',
      through: ['outdoors'],
    },
    'goes-back-rain',
  ],
  [
    'aluminium in a cement pour',
    { wire: 'aluminium-annealed', clay: 'earthen-air-dry', through: ['cement-pour'] },
    'aluminium-cement',
  ],
  [
    'plaster moulded off plaster filler',
    {
      wire: 'aluminium-annealed',
      bulk: 'foil-packed',
      under: ['twine'],
      clay: 'paper-clay',
      over: ['filler-skin'],
      through: ['plaster-mould'],
    },
    'plaster-plaster',
  ],
];

test.each(good)('gets on: %s', (_, stack) => expect(conflicts(stack)).toEqual([]));
test.each(bad)('does not: %s', (_, stack, rule) => {
  const found = conflicts(stack);
  expect(found.map((c) => c.rule)).toContain(rule);
  for (const c of found) {
    expect(c.why.length).toBeGreaterThan(10);
    expect(c.instead.length).toBeGreaterThan(5);
  }
});

test('a seal shuts damp out from all that lies under it, and not from itself', () => {
  const shut = conflicts({
    wire: 'steel-black',
    bulk: 'card-corrugated',
    under: ['foil-barrier', 'tape'],
    clay: 'paper-clay',
  });
  expect(shut.map((c) => c.rule)).not.toContain('steel-damp');
  expect(shut.map((c) => c.rule)).not.toContain('card-damp');
});

test('a change of clay says what is new, and only that', () => {
  const before = conflicts({ wire: 'steel-black', bulk: 'foil-packed', clay: 'oil-medium' });
  const after = conflicts({ wire: 'steel-black', bulk: 'foil-packed', clay: 'earthen-air-dry', through: ['outdoors'] });
  const fresh = newConflicts(before, after);
  expect(fresh.map((c) => c.rule)).toEqual(expect.arrayContaining(['goes-back-rain']));
  expect(newConflicts(after, after)).toEqual([]);
  // The same two materials met before: it is told by the clay's own name, which changed.
  expect(fresh.every((c) => !before.some((b) => b.id === c.id))).toBe(true);
});

test('solvent reaches what lies under it, not what lies over it', () => {
  const [foam, varnish] = [bulkPart(bulks.get('polystyrene-expanded')!), layerPartOf('solvent-varnish')!];
  const found = (layers: (typeof foam)[]) =>
    conflictsIn({ armature: [], layers, processes: [] }).filter((c) => c.rule === 'solvent-on-polystyrene');
  expect(found([foam, varnish])).toMatchObject([{ left: foam.name, right: varnish.name, status: 'fails' }]);
  expect(found([varnish, foam])).toEqual([]);
});
