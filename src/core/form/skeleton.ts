import type { JointEdit } from '../document';
import { add, scale, subtract, type Vec3 } from '../quantity';
import { mirrorJointEdit, mirrorPlace, mirrorTurn, twinId, twinName } from './mirror';
import { compose, inverse, noTurn, rotate, rotationOf, unturned, type Rotation } from './turn';

/** A joint the form is posed by. Made at life size and unposed, parents first; the left of a pair stands for both. */
export interface Joint {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
  readonly at: Vec3;
  /** Degrees it is turned by the stance the form starts in. */
  readonly stance?: Vec3;
  /** Where the piece meets its base. */
  readonly ground?: boolean;
  /** Of a mesh: the limb it is of. */
  readonly limb?: string;
  /** Made on its own, but posed with this one, reflected. */
  readonly twinOf?: string;
}

export interface PosedJoint {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
  readonly ground: boolean;
  /** Where it stands unposed and posed, metres at full scale. */
  readonly rest: Vec3;
  readonly at: Vec3;
  /** Degrees it is turned in all: stance and the maker's own. */
  readonly turn: Vec3;
  /** The left joint this one follows, if it does. */
  readonly twinOf: string | null;
  /** Of a mesh: the limb it is of. */
  readonly limb?: string;
  readonly rotation: Rotation;
}

export interface Skeleton {
  readonly joints: readonly PosedJoint[];
  /** Takes a place near a joint, given unposed at full scale, to where the pose carries it. */
  readonly carry: (joint: string, rest: Vec3) => Vec3;
  readonly rotationAt: (joint: string) => Rotation;
}

/** Both sides of every joint whose id ends in "-left", where its right is not made on its own. */
export function withTwins(joints: readonly Joint[]): (Omit<Joint, 'twinOf'> & { readonly twinOf: string | null })[] {
  const made = new Set(joints.map((j) => j.id));
  const pairs = new Set(joints.filter((j) => j.id.endsWith('-left') && !made.has(twinId(j.id))).map((j) => j.id));
  const twin = (id: string) => (pairs.has(id) ? twinId(id) : id);
  return joints.flatMap((j) => {
    const own = { ...j, twinOf: j.twinOf ?? null };
    if (!pairs.has(j.id)) return [own];
    return [
      own,
      {
        ...j,
        id: twinId(j.id),
        name: twinName(j.name),
        at: mirrorPlace(j.at),
        parent: j.parent === null ? null : twin(j.parent),
        twinOf: j.id,
        ...(j.stance ? { stance: mirrorTurn(j.stance) } : {}),
      },
    ];
  });
}

/**
 * Turns every joint about its own place, everything beyond it following; then, when a joint is planted, moves the
 * whole so that that joint stands where and as it stood. `lift` raises it all, metres.
 */
export function poseSkeleton(
  made: readonly Joint[],
  pose: Readonly<Record<string, JointEdit>>,
  planted: string | null,
  size: number,
  lift = 0,
): Skeleton {
  const shifts = new Map<string, Vec3>();
  const rests = new Map<string, Vec3>();
  const rotations = new Map<string, Rotation>();
  const places = new Map<string, Vec3>();
  const joints: PosedJoint[] = [];
  for (const j of withTwins(made)) {
    const edit = editOf(j, pose);
    const shift = add(j.parent === null ? noTurn : (shifts.get(j.parent) ?? noTurn), edit.moved ?? noTurn);
    const rest = scale(add(j.at, shift), size);
    const turn = add(j.stance ?? noTurn, edit.turned ?? noTurn);
    const above = j.parent === null ? unturned : (rotations.get(j.parent) ?? unturned);
    const parentRest = j.parent === null ? undefined : rests.get(j.parent);
    const at =
      parentRest === undefined ? rest : add(places.get(j.parent!) ?? rest, rotate(above, subtract(rest, parentRest)));
    const rotation = compose(above, rotationOf(turn));
    shifts.set(j.id, shift);
    rests.set(j.id, rest);
    places.set(j.id, at);
    rotations.set(j.id, rotation);
    joints.push({
      id: j.id,
      name: j.name,
      parent: j.parent,
      ground: j.ground ?? false,
      rest,
      at,
      turn,
      twinOf: j.twinOf,
      ...(j.limb === undefined ? {} : { limb: j.limb }),
      rotation,
    });
  }
  const anchor = planted === null ? undefined : joints.find((j) => j.id === planted);
  const back = anchor ? inverse(anchor.rotation) : unturned;
  const settled = joints.map((j): PosedJoint =>
    anchor
      ? {
          ...j,
          at: add(anchor.rest, rotate(back, subtract(j.at, anchor.at))),
          rotation: compose(back, j.rotation),
        }
      : { ...j, at: [j.at[0], j.at[1], j.at[2] + lift] },
  );
  const byId = new Map(settled.map((j) => [j.id, j]));
  return {
    joints: settled,
    carry: (id, rest) => {
      const joint = byId.get(id);
      if (!joint) return rest;
      const moved = add(rest, scale(shifts.get(id) ?? noTurn, size));
      return add(joint.at, rotate(joint.rotation, subtract(moved, joint.rest)));
    },
    rotationAt: (id) => byId.get(id)?.rotation ?? unturned,
  };
}

function editOf(
  joint: { readonly id: string; readonly twinOf: string | null },
  pose: Readonly<Record<string, JointEdit>>,
): JointEdit {
  const own = Object.hasOwn(pose, joint.id) ? pose[joint.id] : undefined;
  if (joint.twinOf === null || own?.apart) return own ?? {};
  const source = Object.hasOwn(pose, joint.twinOf) ? pose[joint.twinOf] : undefined;
  return source ? mirrorJointEdit(source) : {};
}
