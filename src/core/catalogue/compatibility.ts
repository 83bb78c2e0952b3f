import type { Trait } from './traits';

/**
 * Materials that do not get on: what `left` is, what `right` is, and how they have to meet for it to matter.
 * - touching: next to each other in the stack
 * - reached: damp comes from `right` to `left` through whatever lies between, unless something there shuts it out
 * - under: `left` anywhere further in than `right`
 * - process: the piece goes through a process that is `right`
 * - face: the outermost layer is `left` and the piece goes through a process that is `right`
 */
export interface CompatibilityRule {
  readonly id: string;
  readonly left: readonly Trait[];
  readonly right: readonly Trait[];
  readonly how: 'touching' | 'reached' | 'under' | 'process' | 'face';
  readonly status: 'watch' | 'fails';
  readonly why: string;
  readonly instead: string;
}

type Row = readonly [id: string, left: Trait | readonly Trait[], how: CompatibilityRule['how'], right: Trait | readonly Trait[], status: 'watch' | 'fails', why: string, instead: string];

const rows: readonly Row[] = [
  ['steel-damp', 'rusts', 'reached', 'damp', 'watch', 'it rusts while the clay is wet, and the rust stains through', 'galvanised or aluminium wire, or tape or a plastic bag over the steel'],
  ['zinc-kept-damp', 'zinc', 'reached', 'kept-damp', 'watch', 'zinc holds for some weeks; where it is cut it rusts at once', 'tape over the cut ends, or aluminium'],
  ['copper-damp', 'copper', 'reached', 'damp', 'watch', 'it turns green and bleeds into the clay', 'aluminium, or varnish on the copper'],
  ['copper-salt', 'copper', 'process', 'salt', 'watch', 'salt turns it green', 'aluminium, or varnish on the copper'],
  ['card-damp', 'card', 'reached', 'damp', 'fails', 'it drinks the water, swells and goes soft', 'seal it with primer or wrap it in tape first'],
  ['paper-damp', 'paper', 'reached', 'damp', 'watch', 'it drinks water out of the clay and gives way under it', 'tape over the paper'],
  ['wood-damp', 'wood', 'reached', 'damp', 'watch', 'it swells as it takes up water, and splits thin clay round it', 'varnish or tape on the wood'],
  ['aluminium-plaster', 'aluminium', 'touching', 'fresh-plaster', 'watch', 'wet plaster and lime work on bare aluminium', 'tape or varnish between them, or let the plaster dry fast'],
  ['aluminium-cement', 'aluminium', 'process', 'cement', 'fails', 'the alkali eats it', 'steel, or varnish on the aluminium'],
  ['aluminium-cement-core', 'aluminium', 'touching', 'cement', 'fails', 'the alkali eats it', 'steel, or varnish on the aluminium'],
  ['dyed-white', 'dyed', 'touching', 'white', 'fails', 'the colour bleeds through', 'a neutral coat between them'],
  ['slick-clay', 'slick', 'touching', ['damp', 'epoxy', 'oil', 'raw-polymer'], 'watch', 'soft clay slides on it', 'tape, twine or a primer over it; or scuff it and use glue'],
  ['foil-epoxy', 'no-wire', 'process', 'epoxy', 'fails', 'nothing but foil carries it, and epoxy clay is heavy', 'a wire in every limb'],
  ['rigid-kept-damp', 'rigid', 'touching', 'kept-damp', 'watch', 'the clay shrinks a little as it stiffens and tears over what does not give', 'keep it deeper, wrapped, and the clay damp'],
  ['polystyrene-solvent', 'polystyrene', 'process', 'solvent', 'fails', 'solvent melts it from under the clay, with fumes', 'a water-based primer all over, water-based paints; or another foam'],
  ['polystyrene-styrene', 'polystyrene', 'process', 'styrene', 'fails', 'the resin dissolves it', 'epoxy resin, or seal the foam'],
  ['polystyrene-polymer', 'polystyrene', 'touching', 'raw-polymer', 'watch', 'the softener in raw polymer clay eats into it', 'foil between them'],
  ['solvent-on-polystyrene', 'polystyrene', 'under', 'solvent', 'fails', 'the solvent in the varnish reaches and melts it', 'an acrylic seal'],
  ['hot-glue-warm', 'hot-glue', 'process', ['warm', 'heat'], 'fails', 'it lets go when it is warm', 'epoxy, wire or screws'],
  ['oil-solvent', 'oil', 'process', 'solvent', 'fails', 'the face goes soft and runs', 'an acrylic seal first, and water-based paint'],
  ['oil-under-seal', 'oil', 'touching', 'solvent', 'fails', 'the solvent softens the face and never dries on it', 'an acrylic seal'],
  ['sulphur-silicone', 'sulphur', 'process', 'addition-silicone', 'fails', 'its sulphur keeps the silicone from setting', 'clay without sulphur, or condensation silicone; a test patch first'],
  ['amine-silicone', 'amine', 'face', 'addition-silicone', 'fails', 'what is left of its hardener keeps the silicone from setting', 'a week of cure and an acrylic seal; a test patch first'],
  ['latex-silicone', 'latex', 'face', 'addition-silicone', 'fails', 'latex keeps the silicone from setting', 'condensation silicone, or a seal and a test patch'],
  ['damp-silicone', 'kept-damp', 'face', 'silicone', 'fails', 'moisture spoils the face of the mould', 'an acrylic seal over the clay'],
  ['plaster-plaster', 'plaster', 'face', 'fresh-plaster', 'fails', 'plaster bonds to plaster', 'soap or petroleum jelly over the face'],
  ['damp-plaster', 'water-borne', 'face', 'fresh-plaster', 'watch', 'dried clay drinks from the plaster and lets go of its face', 'an acrylic seal, then soap'],
  ['goes-back-rain', 'goes-back', 'face', 'rain', 'fails', 'rain turns it back to mud or pulp', 'seal it, and keep it in all the same'],
  ['rain', 'goes-back', 'process', 'rain', 'watch', 'a seal lets water in somewhere, sooner or later', 'show it under a roof'],
  ['water-bake', 'water-borne', 'process', 'heat', 'watch', 'water left in it turns to steam and splits it', 'dry through first, and no hotter than it needs'],
  ['release-under', 'release', 'touching', ['damp', 'epoxy', 'raw-polymer'], 'watch', 'nothing holds on it: the clay comes away as a shell', 'leave it out, unless the clay is to come off'],
  ['latex-latex', 'latex', 'process', 'wet-latex', 'watch', 'latex faces stick to each other for good', 'powder both before they touch'],
  ['raw-under-damp', 'raw-polymer', 'touching', 'damp', 'watch', 'water-borne clay does not hold on raw polymer clay', 'bake it first, and scuff it'],
];

const list = (t: Trait | readonly Trait[]): readonly Trait[] => (typeof t === 'string' ? [t] : t);
export const compatibilityRules: readonly CompatibilityRule[] = rows.map(([id, left, how, right, status, why, instead]) => ({ id, left: list(left), how, right: list(right), status, why, instead }));
