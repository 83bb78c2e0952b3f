import type { JointEdit, Mass, MassShape } from '../document';
import type { Vec3 } from '../quantity';
import { fromBase64, toBase64 } from './mesh/base64';

/**
 * Left and right by reference: the left of a pair is made and changed, the right is its reflection, until it is set
 * apart. Ids and names of a pair differ in their side only.
 */
export function twinId(id: string): string {
  return id.endsWith('-left') ? `${id.slice(0, -'left'.length)}right` : `${id}-right`;
}

export function twinName(name: string): string {
  if (name.endsWith(', left')) return `${name.slice(0, -'left'.length)}right`;
  return name.startsWith('left ') ? `right ${name.slice('left '.length)}` : `${name}, right`;
}

export const mirrorPlace = (p: Vec3): [number, number, number] => [-p[0], p[1], p[2]];
/** Reflecting x keeps turns about x and reverses the other two. */
export const mirrorTurn = (t: Vec3): [number, number, number] => [t[0], -t[1], -t[2]];

function mirrorShape(shape: MassShape): MassShape {
  if (shape.kind === 'sampled') return mirrorSamples(shape);
  return shape.kind === 'round-cone' ? { ...shape, reach: mirrorPlace(shape.reach) } : shape;
}

/** Rows of samples read from the other end. */
function mirrorSamples(shape: Extract<MassShape, { kind: 'sampled' }>): MassShape {
  const [nx, ny, nz] = shape.cells;
  const bytes = fromBase64(shape.values);
  for (let row = 0; row < ny * nz; row++) bytes.subarray(row * nx, (row + 1) * nx).reverse();
  return {
    ...shape,
    from: [-(shape.from[0] + (nx - 1) * shape.step), shape.from[1], shape.from[2]],
    values: toBase64(bytes),
    ...(shape.limbs ? { limbs: shape.limbs.map((j) => ({ ...j, at: mirrorPlace(j.at) })) } : {}),
  };
}

export function mirrorMass(mass: Mass, jointTwin: (id: string) => string): Mass {
  const { mirrored: _, ...rest } = mass;
  return {
    ...rest,
    id: twinId(mass.id),
    name: twinName(mass.name),
    at: mirrorPlace(mass.at),
    turn: mirrorTurn(mass.turn),
    shape: mirrorShape(mass.shape),
    ...(mass.joint === undefined ? {} : { joint: jointTwin(mass.joint) }),
  };
}

export function mirrorJointEdit(edit: JointEdit): JointEdit {
  return {
    ...(edit.moved ? { moved: mirrorPlace(edit.moved) } : {}),
    ...(edit.turned ? { turned: mirrorTurn(edit.turned) } : {}),
  };
}
