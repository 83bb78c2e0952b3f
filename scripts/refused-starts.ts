/**
 * Starts that an old hand would turn down, written by hand: however such an armature is sized, the clay, the core or the
 * form stands against it. What `npm run starts` finds failing has to be among these.
 */
interface Refusal {
  readonly school: string;
  readonly clays: readonly string[];
  /** All forms it is offered for, where none is named. */
  readonly forms?: readonly string[];
  readonly why: string;
}

const shrinks = ['earthen-air-dry', 'paper-clay', 'foam-air-dry'];

export const refusals: readonly Refusal[] = [
  { school: 'undercoat', clays: shrinks, why: 'a hard undercoat holds a clay that shrinks, all over' },
  { school: 'dense', clays: shrinks, why: 'solid clay on bare loops shrinks on metal, and dries for weeks' },
  { school: 'head-form', clays: shrinks, why: 'plaster does not give as the clay on it shrinks' },
  { school: 'head-form', clays: ['oven-polymer'], why: 'a plaster head holds water and does not go into the oven' },
  { school: 'foil-only', clays: ['epoxy-clay'], why: 'epoxy clay is heavy, and nothing but foil would carry it' },
  { school: 'foil-only', clays: ['earthen-air-dry'], why: 'earthen clay splits on packed foil' },
  { school: 'foil-only', forms: ['worn-shell'], clays: shrinks, why: 'packed foil holds a shell that shrinks' },
  {
    school: 'foil-only',
    forms: ['worn-shell'],
    clays: ['water-based'],
    why: 'wet clay bends foil that stands on one foot',
  },
  { school: 'object-core', forms: ['found-object'], clays: ['earthen-air-dry'], why: 'a bottle does not give' },
  { school: 'object-core', forms: ['found-object'], clays: ['oven-polymer'], why: 'a plastic bottle melts' },
  {
    school: 'object-core',
    forms: ['head', 'relief', 'worn-shell'],
    clays: ['water-based', 'oil-medium', 'epoxy-clay'],
    why: 'carved foam on one post does not reach far enough out under a heavy clay',
  },
  {
    school: 'wire-figure',
    forms: ['bird-like'],
    clays: ['earthen-air-dry'],
    why: 'a shank is all wire and clay, and earthen clay splits on wire',
  },
  {
    school: 'steel-mesh-foam',
    forms: ['bird-like'],
    clays: shrinks,
    why: 'welded bar fills a shank: nothing is left that gives',
  },
  { school: 'jointed', forms: ['bird-like'], clays: shrinks, why: 'soft wire for a shank is as thick as the shank' },
];

/** Why a start is turned down by hand; null where it should stand. */
export function refusedByHand(form: string, school: string, clay: string): string | null {
  return (
    refusals.find((r) => r.school === school && r.clays.includes(clay) && (!r.forms || r.forms.includes(form)))?.why ??
    null
  );
}
