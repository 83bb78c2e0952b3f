import type { ClayFamily } from '../catalogue';
import type { Fineness, Need, StepKind } from '../document';
import type { ProcessStep } from './mould-steps';

/**
 * The kinds of step a piece takes, with the hours they take ordinary hands until a maker's own are learned, what they
 * need, and how little the eye misses them. Rates are ours: hours to a square metre, to a kilogram, or each time.
 */
export interface StepRate {
  readonly name: string;
  /** Hours to a m2 of face, and each time. */
  readonly perArea: number;
  readonly each: number;
  /** How much it is missed when it is left out: 0 not at all, 1 the piece is not made. */
  readonly missed: number;
  readonly needs: readonly Need[];
}

/**
 * Hours to a m2 of face to refine it, by how fine it is to be: 8, 30 and 80 minutes a square decimetre. Fine detail takes
 * as much again where the eye rests. A life-size head comes to some 15 to 40 hours.
 */
export const refiningRates: Readonly<Record<Fineness, number>> = {
  rough: (8 / 60) * 100,
  finished: (30 / 60) * 100,
  portrait: (80 / 60) * 100,
};

export const stepRates: Readonly<Record<StepKind, StepRate>> = {
  'setting-out': { name: 'measuring and setting out', perArea: 0.6, each: 0.5, missed: 1, needs: [] },
  armature: { name: 'making the armature', perArea: 0, each: 0, missed: 1, needs: ['eye protection'] },
  bulk: { name: 'filling and wrapping', perArea: 0, each: 0.15, missed: 1, needs: [] },
  ground: { name: 'grounds under the clay', perArea: 1, each: 0.25, missed: 1, needs: [] },
  props: { name: 'propping', perArea: 0, each: 0.25, missed: 1, needs: ['props'] },
  clay: { name: 'laying clay', perArea: 0, each: 0.1, missed: 1, needs: [] },
  smoothing: { name: 'smoothing', perArea: 1.6, each: 0.1, missed: 0.7, needs: [] },
  tending: { name: 'covering, uncovering, turning', perArea: 0, each: 0.1, missed: 1, needs: [] },
  opening: { name: 'lifting, cutting, joining', perArea: 0.8, each: 0.5, missed: 1, needs: [] },
  mending: { name: 'mending cracks', perArea: 0.5, each: 0.25, missed: 0.8, needs: [] },
  refining: { name: 'carving and refining', perArea: 0, each: 0.25, missed: 0.6, needs: [] },
  detail: { name: 'fine detail and texture', perArea: 0, each: 0.25, missed: 0.3, needs: [] },
  sanding: { name: 'sanding', perArea: (4 / 60) * 100, each: 0.2, missed: 0.25, needs: ['respirator'] },
  sealing: { name: 'skins and seals', perArea: 0.8, each: 0.25, missed: 0.5, needs: ['fresh air'] },
  painting: { name: 'painting', perArea: 2, each: 0.4, missed: 0.6, needs: ['fresh air', 'respirator'] },
  moulding: { name: 'mould work', perArea: 3, each: 1, missed: 1, needs: ['gloves', 'fresh air'] },
  heat: { name: 'warming and baking', perArea: 0, each: 0.15, missed: 1, needs: [] },
  fitting: { name: 'fitting and packing', perArea: 0, each: 0.75, missed: 1, needs: [] },
  closing: { name: 'photographing, taking apart, reclaiming', perArea: 0, each: 0.25, missed: 0.4, needs: [] },
  own: { name: 'own steps', perArea: 0, each: 1, missed: 0.5, needs: [] },
};

/** Hours until what was put on may be worked over; the usual ones at 20 degrees. */
export const groundWaits: Readonly<Record<string, number>> = {
  tape: 0,
  twine: 0,
  cloth: 0,
  mesh: 0,
  gauze: 24,
  'gauze-four': 24,
  undercoat: 1,
  'plastic-film': 0,
  'foil-barrier': 0,
  'petroleum-jelly': 0,
  'sealing-primer': 24,
  'glue-wash': 0.5,
  varnish: 12,
  'paper-mache': 48,
  'smooth-skin': 24,
  'filler-skin': 12,
  'epoxy-skin': 24,
  'acrylic-seal': 3,
  shellac: 2,
  wax: 1,
  'solvent-varnish': 12,
};

/** Minutes in the oven of what is baked before the clay goes over it: three millimetres. */
export const ovenMinutes: Readonly<Record<string, number>> = { undercoat: 30 };

/** What smooths the face before its fine marks: a solvent, and hot air on clay that never hardens. Raw oven clay would set under it. */
export function smoothsTheFace(process: string, setting: ClayFamily['setting']): boolean {
  return process === 'solvent' || (process === 'heat-gun' && setting === 'never');
}

/** What the oven or the paint asks of the maker; a mould's are in `mould-steps.ts`: steps in order, each with the hours to wait after it. */
export const processSteps: Readonly<Record<string, readonly ProcessStep[]>> = {
  'spray-paint': [
    { id: 'prime', name: 'Prime it', kind: 'painting', wait: 4, share: 0.4, until: 'the primer is dry' },
    {
      id: 'base',
      name: 'Paint the ground colour',
      kind: 'painting',
      wait: 4,
      share: 0.6,
      until: 'the ground colour is dry',
    },
    { id: 'colour', name: 'Paint it', kind: 'painting', wait: 12, share: 1.4, until: 'the paint is dry' },
    { id: 'varnish', name: 'Varnish it', kind: 'painting', wait: 24, share: 0.5, until: 'the varnish is hard' },
  ],
  'heat-gun': [
    {
      id: 'heat-gun',
      name: 'Heat gun over it',
      kind: 'heat',
      wait: 1,
      share: 1,
      needs: ['fresh air', 'gloves'],
      until: 'it is cool',
    },
  ],
  solvent: [
    {
      id: 'solvent',
      name: 'Smooth it with solvent',
      kind: 'smoothing',
      wait: 12,
      share: 1,
      needs: ['fresh air', 'respirator', 'gloves'],
      until: 'the solvent has gone off',
    },
  ],
  'styrene-resin': [
    {
      id: 'resin',
      name: 'Coat it in resin, twice',
      kind: 'sealing',
      wait: 24,
      share: 1.5,
      until: 'the resin is hard',
      takes: { what: 'coating resin', perArea: 0.7, mix: 'coating-resin' },
    },
  ],
  'cement-pour': [
    { id: 'cement', name: 'Pour the cement', kind: 'moulding', wait: 168, share: 1, until: 'the cement is hard' },
  ],
};
