import type { Limbs, MassEdit } from '../../document';
import { add, scale } from '../../quantity';
import type { Mass } from '../mass';
import type { SampledShape } from '../mesh/sampled';
import type { Joint, Skeleton } from '../skeleton';
import { scaledShape, triple } from '../stretch';
import { rotate, rotationOf } from '../turn';
import { LimbedSolid } from './limbed-solid';

/** A mesh that has been given limbs, as a part of a build: its joints pose the form, and its parts are what they carry. */
export type MeshWithLimbs = Mass & { readonly shape: SampledShape & { readonly limbs: Limbs } };

export function hasLimbs(mass: Mass): mass is MeshWithLimbs {
  return mass.shape.kind === 'sampled' && mass.shape.limbs !== undefined;
}

const slug = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

export const limbJointId = (mass: Pick<Mass, 'id'>, joint: string): string => `${slug(mass.id)}/${joint}`;
export const limbPartId = (mass: Pick<Mass, 'id'>, joint: string): string => `${mass.id}/${joint}`;

/** What dries as one, by the limb's name. */
export const limbRegion = (limb: string): string => slug(limb).slice(0, 60) || 'limb';

/** What a joint is called by what it is and the limb it is of. */
export function limbJointName(j: Limbs[number], all: Limbs): string {
  const like = all.filter((o) => o.limb === j.limb && o.kind === j.kind);
  const number = like.length > 1 ? ` ${like.indexOf(j) + 1}` : '';
  if (j.kind === 'tip' || (j.kind === 'foot' && j.parent !== null)) return j.limb;
  if (j.kind === 'foot') return 'foot';
  if (j.kind === 'narrow') return j.limb === 'head' ? 'neck' : `narrow place${number} in ${j.limb}`;
  const words = { body: `middle${number} of`, root: `root${number} of`, bend: `bend${number} in` } as const;
  return `${words[j.kind]} ${j.limb}`;
}

/** Life size, unposed, parents first. */
export function jointsOfMesh(mass: MeshWithLimbs): Joint[] {
  const { limbs } = mass.shape;
  const turn = rotationOf(mass.turn);
  return limbs.map((j): Joint => ({
    id: limbJointId(mass, j.id),
    name: limbJointName(j, limbs),
    limb: j.limb,
    parent: j.parent === null ? (mass.joint ?? null) : limbJointId(mass, j.parent),
    at: add(mass.at, rotate(turn, j.at)),
    ...(j.kind === 'foot' ? { ground: true } : {}),
    ...(j.twinOf === undefined ? {} : { twinOf: limbJointId(mass, j.twinOf) }),
  }));
}

/** A part for every joint that something runs on from, at full scale and posed. */
export function partsOfMesh(
  mass: MeshWithLimbs,
  edits: Readonly<Record<string, MassEdit>>,
  size: number,
  skeleton: Skeleton,
): Mass[] {
  const shape = scaledShape(mass.shape, size) as MeshWithLimbs['shape'];
  const posed = new Map(skeleton.joints.map((j) => [j.id, j]));
  const { limbs } = shape;
  const hidden = limbs.map((j) => edits[limbPartId(mass, j.id)]?.hidden === true);
  const turns = limbs.map((j) => {
    const { at, rotation } = posed.get(limbJointId(mass, j.id))!;
    return { at, rotation };
  });
  const whole = new LimbedSolid({ shape, limbs, at: scale(mass.at, size), turn: mass.turn }, turns, hidden);
  return limbs.flatMap((j, i): Mass[] => {
    if (hidden[i] || !whole.places.boxes[i]) return [];
    const id = limbPartId(mass, j.id);
    const like = limbs.filter((o, k) => o.limb === j.limb && whole.places.boxes[k]);
    return [
      {
        ...mass,
        id,
        name: partName(j, like),
        region: edits[id]?.region ?? limbRegion(j.limb),
        joint: limbJointId(mass, j.id),
        at: triple(turns[i]!.at),
        turn: [0, 0, 0],
        blend: mass.blend * size,
        // As a part it is measured by the whole; by itself it is about so large.
        shape: { kind: 'ellipsoid', radii: triple(scale([1, 1, 1], j.radius)) },
        part: { whole, joint: i },
      },
    ];
  });
}

export function partsHidden(
  mass: MeshWithLimbs,
  edits: Readonly<Record<string, MassEdit>>,
): { readonly id: string; readonly name: string }[] {
  const { limbs } = mass.shape;
  return limbs.flatMap((j) => {
    const id = limbPartId(mass, j.id);
    const like = limbs.filter((o) => o.limb === j.limb && limbs.some((c) => c.parent === o.id));
    return edits[id]?.hidden === true ? [{ id, name: partName(j, like) }] : [];
  });
}

function partName(j: Limbs[number], like: Limbs): string {
  return like.length > 1 ? `${j.limb}, part ${like.indexOf(j) + 1}` : j.limb;
}
