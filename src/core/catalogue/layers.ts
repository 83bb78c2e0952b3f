import { wrapList } from './bulks';
import type { Wrap } from './schema';

/**
 * What goes between the core and the clay, and over the clay: what each does to grip, water and shrinkage. Wraps may be
 * wound in the armature's school as well; here they can be chosen region by region, and put over each other.
 */
export type LayerRole = 'wrap' | 'barrier' | 'primer' | 'undercoat' | 'skin' | 'seal';

export interface LayerKind extends Wrap {
  readonly role: LayerRole;
  /** Share of the outer evaporation its own face lets through, where it takes the bulk's place. */
  readonly innerFace?: number;
  /** Highest temperature it stands, degrees C. */
  readonly standsTo: number;
  readonly note: string;
}

const wrapRole: Readonly<Record<string, LayerRole>> = {
  gauze: 'undercoat',
  'gauze-four': 'undercoat',
  undercoat: 'undercoat',
};
const wrapHeat: Readonly<Record<string, number>> = {
  tape: 120,
  twine: 120,
  cloth: 120,
  mesh: 400,
  gauze: 100,
  'gauze-four': 100,
  undercoat: 150,
};

const wraps: readonly LayerKind[] = wrapList
  .filter((w) => w.id !== 'none')
  .map((w) => ({ ...w, role: wrapRole[w.id] ?? 'wrap', standsTo: wrapHeat[w.id] ?? 100, note: '' }));

const between: readonly LayerKind[] = [
  {
    id: 'plastic-film',
    name: 'plastic film',
    role: 'barrier',
    restraintFactor: 0.5,
    grip: 0.2,
    seals: true,
    perArea: 0.03,
    standsTo: 80,
    note: 'Nothing sticks to it: clay over it has to hold on to itself.',
  },
  {
    id: 'foil-barrier',
    name: 'aluminium foil, one layer',
    role: 'barrier',
    restraintFactor: 0.9,
    grip: 0.4,
    seals: true,
    perArea: 0.05,
    standsTo: 600,
    note: 'Keeps the damp off what is under it; press it on firmly.',
  },
  {
    id: 'petroleum-jelly',
    name: 'petroleum jelly',
    role: 'barrier',
    restraintFactor: 0.5,
    grip: 0.2,
    seals: true,
    perArea: 0.05,
    standsTo: 60,
    note: 'A release, not a ground: paint does not take on it.',
  },
  {
    id: 'sealing-primer',
    name: 'plaster and glue primer',
    role: 'primer',
    restraintFactor: 1,
    grip: 1,
    seals: true,
    perArea: 1.2,
    standsTo: 80,
    note: 'Dry through before clay goes on.',
  },
  {
    id: 'glue-wash',
    name: 'thinned wood glue',
    role: 'primer',
    restraintFactor: 1,
    grip: 0.8,
    seals: false,
    perArea: 0.1,
    standsTo: 70,
    note: 'Clay laid on it while it is tacky holds best.',
  },
  {
    id: 'varnish',
    name: 'varnish on the core',
    role: 'primer',
    restraintFactor: 1,
    grip: 0.5,
    seals: true,
    perArea: 0.12,
    standsTo: 90,
    note: 'Scuff it, or clay slides.',
  },
  {
    id: 'paper-mache',
    name: 'paper strips and paste, dry',
    role: 'undercoat',
    restraintFactor: 1,
    restraint: 0.6,
    grip: 1,
    seals: false,
    innerFace: 0.4,
    drinks: 0.25,
    perArea: 1.1,
    standsTo: 150,
    note: 'Two or three layers, dry before the clay.',
  },
];

const over: readonly LayerKind[] = [
  {
    id: 'smooth-skin',
    name: 'thin skin of the same clay',
    role: 'skin',
    restraintFactor: 1,
    grip: null,
    seals: false,
    perArea: 1,
    standsTo: 150,
    note: 'A millimetre, with its binder in the water, over dry clay.',
  },
  {
    id: 'filler-skin',
    name: 'fine filler',
    role: 'skin',
    restraintFactor: 1,
    grip: null,
    seals: false,
    perArea: 0.8,
    standsTo: 100,
    note: 'For sanding: a respirator, and wet sanding where it stands it.',
  },
  {
    id: 'epoxy-skin',
    name: 'epoxy clay skin',
    role: 'skin',
    restraintFactor: 1,
    grip: null,
    seals: true,
    perArea: 1.7,
    standsTo: 120,
    note: 'Over clay that is dry through: what is wet under it stays wet.',
  },
  {
    id: 'acrylic-seal',
    name: 'acrylic seal',
    role: 'seal',
    restraintFactor: 1,
    grip: null,
    seals: true,
    perArea: 0.1,
    standsTo: 80,
    note: '',
  },
  {
    id: 'shellac',
    name: 'shellac',
    role: 'seal',
    restraintFactor: 1,
    grip: null,
    seals: true,
    perArea: 0.08,
    standsTo: 70,
    note: 'Alcohol: moving air, no flame.',
  },
  {
    id: 'wax',
    name: 'wax',
    role: 'seal',
    restraintFactor: 1,
    grip: null,
    seals: true,
    perArea: 0.1,
    standsTo: 50,
    note: 'Nothing takes on it afterwards.',
  },
  {
    id: 'solvent-varnish',
    name: 'solvent varnish',
    role: 'seal',
    restraintFactor: 1,
    grip: null,
    seals: true,
    perArea: 0.1,
    standsTo: 90,
    note: 'Solvent: respirator, moving air, no flame.',
  },
];

export const layerList: readonly LayerKind[] = [...wraps, ...between, ...over];
export const layers: ReadonlyMap<string, LayerKind> = new Map(layerList.map((l) => [l.id, l]));
export const layersUnder = layerList.filter((l) => l.role !== 'skin' && l.role !== 'seal');
export const layersOver = layerList.filter((l) => l.role === 'skin' || l.role === 'seal');
