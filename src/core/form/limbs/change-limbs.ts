import type { Build, BuildEdit, Change, LimbJoint, Limbs } from '../../document';
import { add, mix, scale, type Vec3 } from '../../quantity';
import { inverse, rotate, rotationOf, type Rotation } from '../turn';
import { hasLimbs, limbJointId, limbPartId, limbRegion, type MeshWithLimbs } from './mesh-parts';

/**
 * A mesh's limbs changed by hand, each gesture as one edit: a joint moved, added, made one with what it hangs on, taken away;
 * a limb called otherwise, what was set for its region going along.
 */
export interface JointOfMesh {
  readonly mesh: MeshWithLimbs;
  /** Of the mesh among the build's own masses. */
  readonly index: number;
  readonly joint: LimbJoint;
}

/** The mesh joint with this id in the form's skeleton; null for a joint of the start form. */
export function jointOfMesh(build: Build, id: string): JointOfMesh | null {
  for (const [index, mesh] of build.form.added.entries()) {
    if (!hasLimbs(mesh)) continue;
    const joint = mesh.shape.limbs.find((j) => limbJointId(mesh, j.id) === id);
    if (joint) return { mesh, index, joint };
  }
  return null;
}

function limbsEdit(label: string, { index }: JointOfMesh, limbs: Limbs, more: readonly Change[] = []): BuildEdit {
  return { label, changes: [{ path: ['form', 'added', index, 'shape', 'limbs'], value: limbs }, ...more] };
}

/** Moves a joint in the mesh as it lies before the pose; `by` is in the world, metres at full scale, as posed. */
export function moveLimbJoint(of: JointOfMesh, by: Vec3, carried: Rotation, size: number): BuildEdit {
  const { mesh, joint } = of;
  const own = rotate(inverse(rotationOf(mesh.turn)), rotate(inverse(carried), scale(by, 1 / size)));
  const at = add(joint.at, own).map((v) => Math.round(v * 1e5) / 1e5) as [number, number, number];
  return limbsEdit(
    `Move a joint of ${joint.limb}`,
    of,
    mesh.shape.limbs.map((j) => (j === joint ? { ...j, at } : j)),
  );
}

const freeId = (limbs: Limbs): string => {
  for (let i = limbs.length + 1; ; i++) if (limbs.every((j) => j.id !== `j${i}`)) return `j${i}`;
};

/** A joint half way to what it hangs on; null for the first. */
export function addLimbJoint(of: JointOfMesh): { readonly edit: BuildEdit; readonly id: string } | null {
  const { mesh, joint } = of;
  const { limbs } = mesh.shape;
  const parent = limbs.find((j) => j.id === joint.parent);
  if (!parent) return null;
  const id = freeId(limbs);
  const made: LimbJoint = {
    id,
    kind: 'bend',
    limb: joint.limb,
    parent: parent.id,
    at: [...mix(parent.at, joint.at, 0.5)],
    radius: (parent.radius + joint.radius) / 2,
  };
  return {
    id: limbJointId(mesh, id),
    edit: limbsEdit(
      `Add a joint to ${joint.limb}`,
      of,
      limbs.flatMap((j) => (j === joint ? [made, { ...j, parent: id }] : [j])),
    ),
  };
}

/** Made one with what it hangs on: what hung on it hangs there then. Null for the first, and where too little would be left. */
export function mergeLimbJoint(of: JointOfMesh): BuildEdit | null {
  const { mesh, joint } = of;
  const { limbs } = mesh.shape;
  if (joint.parent === null || limbs.length < 3) return null;
  return limbsEdit(
    `A joint of ${joint.limb} made one with the next`,
    of,
    withoutTwins(
      limbs.filter((j) => j !== joint).map((j) => (j.parent === joint.id ? { ...j, parent: joint.parent } : j)),
    ),
    leftBehind(mesh, [joint]),
  );
}

/** The joint and all that hangs on it; what they carried goes with what is left. Null for the first. */
export function removeLimb(of: JointOfMesh): BuildEdit | null {
  const { mesh, joint } = of;
  const { limbs } = mesh.shape;
  const gone = new Set([joint.id]);
  for (const j of limbs) if (j.parent !== null && gone.has(j.parent)) gone.add(j.id);
  if (joint.parent === null || limbs.length - gone.size < 2) return null;
  return limbsEdit(
    `Take the joints of ${joint.limb} away`,
    of,
    withoutTwins(limbs.filter((j) => !gone.has(j.id))),
    leftBehind(
      mesh,
      limbs.filter((j) => gone.has(j.id)),
    ),
  );
}

function withoutTwins(limbs: Limbs): Limbs {
  const ids = new Set(limbs.map((j) => j.id));
  return limbs.map(({ twinOf, ...j }) => (twinOf !== undefined && ids.has(twinOf) ? { ...j, twinOf } : j));
}

/** What was set on joints and parts that are no more. */
function leftBehind(mesh: MeshWithLimbs, joints: readonly LimbJoint[]): Change[] {
  return joints.flatMap((j) => [
    { path: ['form', 'pose', limbJointId(mesh, j.id)], value: undefined },
    { path: ['form', 'edits', limbPartId(mesh, j.id)], value: undefined },
  ]);
}

/** Calls a limb otherwise; what its region carries goes along. */
export function renameLimb(build: Build, of: JointOfMesh, name: string): BuildEdit {
  const { mesh, joint } = of;
  const [was, is] = [limbRegion(joint.limb), limbRegion(name)];
  const layers = build.regions.own[was];
  const moved: Change[] =
    layers && was !== is
      ? [
          { path: ['regions', 'own', was], value: undefined },
          { path: ['regions', 'own', is], value: layers },
        ]
      : [];
  return limbsEdit(
    `Call ${joint.limb} "${name}"`,
    of,
    mesh.shape.limbs.map((j) => (j.limb === joint.limb ? { ...j, limb: name } : j)),
    moved,
  );
}
