/** What it is about a material that another may not stand. Several each; a material of the user's own has those of its setting. */
export type Trait =
  | 'rusts'
  | 'zinc'
  | 'aluminium'
  | 'copper'
  | 'card'
  | 'paper'
  | 'wood'
  | 'polystyrene'
  | 'hot-glue'
  | 'plaster'
  | 'cement'
  | 'slick'
  | 'foil'
  | 'rigid'
  | 'no-wire'
  | 'damp'
  | 'kept-damp'
  | 'water-borne'
  | 'goes-back'
  | 'oil'
  | 'sulphur'
  | 'amine'
  | 'latex'
  | 'raw-polymer'
  | 'epoxy'
  | 'white'
  | 'dyed'
  | 'tacky'
  | 'release'
  | 'heat'
  | 'warm'
  | 'solvent'
  | 'styrene'
  | 'rain'
  | 'salt'
  | 'silicone'
  | 'addition-silicone'
  | 'wet-latex'
  | 'fresh-plaster';

const byId: Readonly<Record<string, readonly Trait[]>> = {
  'steel-black': ['rusts'],
  'steel-hard': ['rusts'],
  'mild-steel': ['rusts'],
  'steel-pipe': ['rusts'],
  'threaded-rod': ['rusts'],
  'steel-square-tube': ['rusts'],
  'steel-galvanised': ['zinc'],
  'aluminium-annealed': ['aluminium'],
  'aluminium-half-hard': ['aluminium'],
  'copper-annealed': ['copper'],
  'brass-rod': ['copper'],
  'hardwood-dowel': ['wood'],
  bamboo: ['wood'],
  'softwood-batten': ['wood'],
  plywood: ['wood'],
  mdf: ['card'],
  chipboard: ['card'],
  'foil-loose': ['aluminium', 'foil', 'slick'],
  'foil-firm': ['aluminium', 'foil', 'slick'],
  'foil-packed': ['aluminium', 'foil', 'slick'],
  'paper-loose': ['paper'],
  'paper-firm': ['paper'],
  'kraft-firm': ['paper'],
  'papier-mache-dry': ['paper'],
  'card-corrugated': ['card'],
  'polystyrene-expanded': ['polystyrene', 'rigid'],
  'polystyrene-extruded': ['polystyrene', 'rigid', 'slick'],
  'foam-sprayed': ['rigid'],
  'gauze-set': ['plaster', 'rigid'],
  'plaster-set': ['plaster', 'rigid'],
  'primer-plaster-glue': ['plaster', 'rigid'],
  'undercoat-baked': ['rigid'],
  'glassfibre-skin': ['rigid', 'slick'],
  'bottle-plastic': ['slick'],
  'jar-glass': ['slick', 'rigid'],
  'resin-cast': ['slick', 'rigid'],
  cement: ['cement', 'rigid'],
  'hot-glue': ['hot-glue'],
  tape: ['paper'],
  twine: [],
  cloth: [],
  mesh: ['rusts'],
  gauze: ['plaster', 'rigid', 'fresh-plaster'],
  undercoat: ['rigid'],
  'plastic-film': ['slick'],
  'foil-barrier': ['aluminium', 'foil', 'slick'],
  'petroleum-jelly': ['slick', 'release'],
  'sealing-primer': ['plaster', 'rigid', 'fresh-plaster'],
  varnish: ['slick'],
  'paper-mache': ['paper', 'rigid'],
  'epoxy-skin': ['amine', 'epoxy'],
  'solvent-varnish': ['solvent'],
  wax: ['release'],
  'filler-skin': ['plaster'],
  'earthen-air-dry': ['damp', 'water-borne', 'goes-back'],
  'paper-clay': ['damp', 'water-borne', 'goes-back'],
  'paper-strips': ['damp', 'water-borne', 'goes-back'],
  'foam-air-dry': ['damp', 'water-borne'],
  'cold-porcelain': ['damp', 'water-borne'],
  'epoxy-clay': ['amine', 'epoxy'],
  'water-based': ['damp', 'kept-damp', 'water-borne', 'goes-back'],
  'oven-polymer': ['raw-polymer'],
  'oven-polymer-light': ['raw-polymer'],
  'oil-soft': ['oil'],
  'oil-medium': ['oil'],
  'oil-firm': ['oil'],
  'oil-soft-sulphur': ['oil', 'sulphur'],
  'oil-medium-sulphur': ['oil', 'sulphur'],
  'oil-firm-sulphur': ['oil', 'sulphur'],
};

const bySetting: Readonly<Record<string, readonly Trait[]>> = {
  dries: ['damp', 'water-borne', 'goes-back'],
  damp: ['damp', 'kept-damp', 'water-borne', 'goes-back'],
  sets: ['amine', 'epoxy'],
  never: ['oil'],
  bakes: ['raw-polymer'],
};

/** `setting` is for clays the table does not know. */
export function traitsOf(id: string, setting?: string): readonly Trait[] {
  return (Object.hasOwn(byId, id) ? byId[id] : undefined) ?? (setting ? (bySetting[setting] ?? []) : []);
}

/** Clays and stock that heat spoils before the core: degrees C they stand when finished. */
const standing: Readonly<Record<string, number>> = {
  'oil-soft': 40,
  'oil-medium': 45,
  'oil-firm': 50,
  'oil-soft-sulphur': 40,
  'oil-medium-sulphur': 45,
  'oil-firm-sulphur': 50,
  'foam-air-dry': 100,
  'cold-porcelain': 80,
  'epoxy-clay': 120,
  'oven-polymer': 150,
  'oven-polymer-light': 150,
  'pvc-pipe': 70,
};
export function clayStandsTo(id: string): number {
  return (Object.hasOwn(standing, id) ? standing[id] : undefined) ?? 150;
}
