import type { BulkKind, Wrap } from './schema';

/**
 * What fills the inside so that less clay is needed: its weight, how it stands, how firmly it
 * holds the clay back from shrinking, and whether water leaves through it.
 * Stiffness and crushing are of the packed mass, not of the material it is made of.
 */
type Row = readonly [id: string, name: string, density: number, stiffnessMPa: number, crushingKPa: number,
  restraint: number, innerFace: number, grip: number, standsTo: number, damp: string, note: string];

const rows: readonly Row[] = [
  ['none', 'nothing: clay on the bare armature', 0.001, 0, 0, 0.9, 0, 0.3, 1000, 'as its metal', 'Solid clay, heavy and slow to dry; firm under the tool.'],
  ['foil-loose', 'aluminium foil, loose', 150, 0.3, 10, 0.25, 0, 0.4, 600, 'takes no harm', 'Gives a little as the clay shrinks.'],
  ['foil-firm', 'aluminium foil, firm', 350, 1, 30, 0.3, 0, 0.4, 600, 'takes no harm', ''],
  ['foil-packed', 'aluminium foil, packed tight', 600, 3, 60, 0.4, 0, 0.4, 600, 'takes no harm', 'Beaten hard with a stick, it holds a limb for a while.'],
  ['paper-loose', 'newspaper, crumpled loose', 80, 0.05, 3, 0.12, 0.3, 0.4, 150, 'softens', 'The gentlest core under a shrinking clay.'],
  ['paper-firm', 'newspaper, crumpled firm', 220, 0.5, 20, 0.2, 0.3, 0.4, 150, 'softens', ''],
  ['kraft-firm', 'kraft paper, firm', 180, 0.5, 20, 0.2, 0.3, 0.4, 150, 'softens', ''],
  ['polystyrene-expanded', 'expanded polystyrene', 20, 5, 100, 0.85, 0, 0.3, 70, 'takes no harm', 'Solvent, heat and some sprays melt it. Never cut it hot without moving air.'],
  ['polystyrene-extruded', 'extruded polystyrene', 34, 12, 250, 0.85, 0, 0.3, 75, 'takes no harm', 'Solvent, heat and some sprays melt it.'],
  ['foam-sprayed', 'sprayed polyurethane foam', 30, 4, 120, 0.7, 0, 0.7, 100, 'takes no harm', 'Gives off isocyanate while it cures: gloves, air, nobody else in the room.'],
  ['foam-camping', 'closed-cell camping foam', 40, 1, 40, 0.3, 0, 0.3, 80, 'takes no harm', 'Light and springy.'],
  ['foam-upholstery', 'soft upholstery foam', 25, 0.05, 3, 0.1, 0.3, 0.7, 100, 'holds water', ''],
  ['card-corrugated', 'corrugated cardboard', 130, 10, 100, 0.6, 0.4, 0.7, 150, 'goes soggy unless primed', ''],
  ['gauze-set', 'plaster gauze, set', 950, 1500, 2000, 0.9, 0.5, 1, 100, 'softens', ''],
  ['plaster-set', 'plaster, set', 1150, 3000, 3000, 0.9, 0.5, 1, 100, 'softens', ''],
  ['primer-plaster-glue', 'plaster, glue and water primer', 1250, 1500, 2000, 0.9, 0.5, 1, 80, 'takes no harm once dry', 'Seals cardboard.'],
  ['papier-mache-dry', 'papier-mâché, dry', 550, 300, 1000, 0.6, 0.4, 1, 150, 'softens', ''],
  ['undercoat-baked', 'lightweight oven clay, baked', 800, 800, 2000, 0.9, 0, 0.8, 150, 'takes no harm', 'An undercoat: bake it before the last clay goes on.'],
  ['glassfibre-skin', 'glass fibre and resin skin', 1600, 8000, 50000, 0.9, 0, 0.3, 80, 'takes no harm', 'Fibres and styrene: respirator, gloves, sleeves.'],
  ['bottle-plastic', 'plastic bottle', 60, 1, 20, 0.6, 0, 0.2, 70, 'takes no harm', 'Scuff it so clay grips.'],
  ['jar-glass', 'glass jar', 500, 1000, 1000, 0.9, 0, 0.2, 250, 'takes no harm', 'Tape it: broken glass in clay finds fingers.'],
  ['resin-cast', 'cast-resin object', 1150, 2000, 30000, 0.9, 0, 0.3, 80, 'takes no harm', ''],
  ['cement', 'cement', 2000, 20000, 15000, 0.9, 0.5, 1, 300, 'takes no harm', 'Attacks aluminium. Gloves: wet cement burns.'],
  ['twine-fill', 'yarn, cloth or twine', 300, 0.3, 10, 0.2, 0.6, 1.4, 120, 'wets', ''],
  ['hot-glue', 'hot-melt glue', 950, 50, 3000, 0.9, 0, 0.7, 70, 'takes no harm', 'Lets go when warm. The nozzle and the glue burn skin.'],
];

export const bulkList: readonly BulkKind[] = rows.map(
  ([id, name, density, stiffnessMPa, crushingKPa, restraint, innerFace, grip, standsTo, damp, note]) => ({
    id, name, density, stiffness: stiffnessMPa * 1e6, crushing: crushingKPa * 1e3, restraint, innerFace, grip, standsTo, damp, note,
  }),
);

export const bulks: ReadonlyMap<string, BulkKind> = new Map(bulkList.map((b) => [b.id, b]));

/**
 * What goes over the bulk before the clay: grip for the clay, a layer that lets it move, or a hard undercoat. Weight is
 * to the area it covers, laps included; a baked undercoat and set gauze carry too, until they break.
 */
export const wrapList: readonly Wrap[] = [
  { id: 'none', name: 'nothing', restraintFactor: 1, grip: null, seals: false, perArea: 0 },
  { id: 'tape', name: 'paper tape', restraintFactor: 0.8, grip: 0.7, seals: true, perArea: 0.15 },
  { id: 'twine', name: 'twine, wound', restraintFactor: 0.6, grip: 1.4, seals: false, perArea: 0.45 },
  { id: 'cloth', name: 'cloth strips', restraintFactor: 0.6, grip: 1.4, seals: false, perArea: 0.25 },
  { id: 'mesh', name: 'wire mesh', restraintFactor: 1, grip: 2.5, seals: false, perArea: 1.2 },
  {
    id: 'gauze', name: 'plaster gauze, two layers', restraintFactor: 1, restraint: 0.9, grip: 1, seals: false, perArea: 1.9,
    skin: { thickness: 0.002, youngs: 1.5e9, strength: 2e6 },
  },
  {
    id: 'undercoat', name: 'lightweight oven clay, baked', restraintFactor: 1, restraint: 0.9, grip: 0.8, seals: true, perArea: 2.4,
    skin: { thickness: 0.003, youngs: 0.8e9, strength: 4e6 },
  },
];
export const wraps: ReadonlyMap<string, Wrap> = new Map(wrapList.map((w) => [w.id, w]));
