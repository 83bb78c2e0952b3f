import type { Piece } from './piece';

/** What lies on the board or the table hardly breathes there: which regions, how much is shut, and until when. */

/** Share of a face shut by what it lies on. */
export const restingShut = 0.9;

/** Area of a region that lies on the ground from which it counts, m2. */
const leastResting = 3e-4;

/** Held up by its armature it lies on nothing: its lowest place is further from the board than cells can err. */
export function standsClear(piece: Piece): boolean {
  return piece.extent.low[2] > Math.min(0.03, 1.5 * piece.grid.step);
}

/** Held so that no face lies on anything until it is laid down. */
export function heldClear(piece: Piece): boolean {
  return piece.build.armature.mount.kind === 'hangs' || standsClear(piece);
}

/**
 * By region: radius of the largest patch of its clay that lies on what the piece stands on, as a disc, m; 0 where too
 * little lies. A leg's foot lies by itself, so patches are told mass by mass.
 */
export function lyingRadii(piece: Piece): readonly number[] {
  const { parcels } = piece.volumes;
  const low = piece.extent.low[2];
  if (heldClear(piece)) return piece.regions.map(() => 0);
  const lying = new Float64Array(piece.form.masses.length);
  const thick = piece.coats.map((c) => c.reduce((sum, t) => sum + t, 0));
  for (let p = 0; p < parcels.count; p++) {
    const mass = parcels.mass[p]!;
    const over = thick[piece.regionOfMass[mass]!]!;
    if (over > 0 && parcels.clayCentre[p * 3 + 2]! < low + over) lying[mass]! += parcels.clayVolume[p]! / over;
  }
  return piece.regions.map((_, r) => {
    const patches = [...lying].filter((_a, m) => piece.regionOfMass[m] === r);
    const all = patches.reduce((sum, area) => sum + area, 0);
    return all > leastResting ? Math.sqrt(Math.max(...patches) / Math.PI) : 0;
  });
}

/** Seconds after the first clay at which it is turned off the side it stands on; Infinity where it is not. */
export function standsUntil(piece: Pick<Piece, 'build'>): number {
  const off = piece.build.stages.turns.filter((t) => t.lying !== 'stands').map((t) => t.at * 3600);
  return Math.min(Infinity, ...off);
}

/** Of one kind of clay all through with a face either side: a wall, not a coat over a core. */
export function isShell(piece: Pick<Piece, 'form' | 'regionOfMass'>, region: number): boolean {
  const kinds = piece.form.masses.filter((_, i) => piece.regionOfMass[i] === region).map((m) => m.shape.kind);
  return kinds.length > 0 && kinds.every((k) => k === 'shell');
}
