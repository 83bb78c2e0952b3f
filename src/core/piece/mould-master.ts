import { isBare } from '../form';
import type { Master } from '../mould';
import type { Piece } from './piece';

/** Where a mould ends below: a piece that stands is left open where it stands, over its board or on a post; others are closed. */
export function boardOf({ build, extent }: Piece): number | null {
  return build.armature.mount.kind === 'stands' ? extent.low[2] : null;
}

/** A piece's master: with the share of its face that bears clay. A piece that bears none is moulded as it is. */
export function masterOf(piece: Piece): Master {
  const { field, extent, volumes, form } = piece;
  const area = (bare: boolean) =>
    volumes.perMass.reduce((sum, m, i) => sum + (isBare(form.masses[i]) === bare ? m.area : 0), 0);
  const clay = area(false);
  return { field, box: extent, board: boardOf(piece), clad: clay > 0 ? clay / (clay + area(true)) : 1 };
}
