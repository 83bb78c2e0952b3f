import type { Mass } from '../../document';
import { add, scale, type Vec3 } from '../../quantity';
import { scaledShape, triple } from '../stretch';
import { compose, noTurn, rotate, rotationOf, turnOf } from '../turn';

/** Where a part made about its own origin goes on a form: as large as said, turned about that origin, moved to its place. */
export interface Setting {
  readonly at: Vec3;
  readonly size?: number;
  readonly turn?: Vec3;
}

export function setInPlace(p: Vec3, { at, size = 1, turn = noTurn }: Setting): Vec3 {
  return add(at, rotate(rotationOf(turn), scale(p, size)));
}

/** Masses of a part (a head, a foot) set in; `as` names the region and the joint they then have. */
export function setIn(
  masses: readonly Mass[],
  setting: Setting,
  as: { readonly region?: string; readonly joint?: string } = {},
): Mass[] {
  const { size = 1, turn = noTurn } = setting;
  const rotation = rotationOf(turn);
  return masses.map((m) => ({
    ...m,
    ...as,
    at: triple(setInPlace(m.at, setting)),
    turn: turn === noTurn ? m.turn : triple(turnOf(compose(rotation, rotationOf(m.turn)))),
    blend: m.blend * size,
    shape: scaledShape(m.shape, size),
  }));
}
