import type { Build, BuildEdit, Change, JointEdit, Mass, MassEdit, MassShape } from '../document';
import { add, scale, subtract, unit, type Vec3 } from '../quantity';
import { mirrorJointEdit, mirrorPlace, mirrorTurn, twinId } from './mirror';
import type { ResolvedForm } from './resolve';
import { scaledShape } from './stretch';
import type { PosedJoint } from './skeleton';
import { compose, inverse, rotate, rotationOf, turnOf, type Rotation } from './turn';

/**
 * Shaping by hand: each gesture as one typed edit. A change to the right of a pair that is not set apart goes to its
 * left, reflected. Lengths in the document are at life size and before the pose; gestures come at full scale, posed.
 */
interface Target {
  readonly id: string;
  /** The gesture was made on the reflection. */
  readonly reflected: boolean;
}

export function massTarget(build: Build, form: ResolvedForm, id: string): Target {
  const source = form.twinOf.get(id);
  if (source === undefined || build.form.edits[id]?.apart) return { id, reflected: false };
  return { id: source, reflected: true };
}

export function jointTarget(build: Build, joint: Pick<PosedJoint, 'id' | 'twinOf'>): Target {
  if (joint.twinOf === null || build.form.pose[joint.id]?.apart) return { id: joint.id, reflected: false };
  return { id: joint.twinOf, reflected: true };
}

function reflectedChange(change: MassEdit): MassEdit {
  return {
    ...change,
    ...(change.moved ? { moved: mirrorPlace(change.moved) } : {}),
    ...(change.turned ? { turned: mirrorTurn(change.turned) } : {}),
  };
}

/** What has been changed on a mass, as seen from that mass. */
export function changesOf(build: Build, form: ResolvedForm, id: string): MassEdit {
  const target = massTarget(build, form, id);
  const edit = build.form.edits[target.id] ?? {};
  return target.reflected ? reflectedChange(edit) : edit;
}

const isStill = (v: readonly number[], rest: number) => v.every((x) => Math.abs(x - rest) < 1e-9);

/** Leaves out what changes nothing, so that a mass put back is as if never touched. */
function withoutIdle(edit: MassEdit): MassEdit | undefined {
  const out: Record<string, unknown> = { ...edit };
  if (edit.moved && isStill(edit.moved, 0)) delete out['moved'];
  if (edit.turned && isStill(edit.turned, 0)) delete out['turned'];
  if (edit.stretched && isStill(edit.stretched, 1)) delete out['stretched'];
  for (const key of ['hidden', 'locked', 'apart']) if (out[key] === false) delete out[key];
  for (const [key, value] of Object.entries(out)) if (value === undefined) delete out[key];
  return Object.keys(out).length > 0 ? (out as MassEdit) : undefined;
}

/** Lays a change over what is changed already. */
export function changeMass(build: Build, form: ResolvedForm, id: string, label: string, change: MassEdit): BuildEdit {
  const target = massTarget(build, form, id);
  const own = build.form.edits[target.id] ?? {};
  return {
    label,
    changes: [
      {
        path: ['form', 'edits', target.id],
        value: withoutIdle({ ...own, ...(target.reflected ? reflectedChange(change) : change) }),
      },
    ],
  };
}

/** The joint's rotation a mass is carried by. */
function carriedBy(form: ResolvedForm, id: string): Rotation {
  const mass = form.masses.find((m) => m.id === id);
  return mass?.joint === undefined ? rotationOf([0, 0, 0]) : form.skeleton.rotationAt(mass.joint);
}

/** Moves a mass by a way in the world, metres at full scale. */
export function moveMass(build: Build, form: ResolvedForm, mass: Pick<Mass, 'id' | 'name'>, by: Vec3): BuildEdit {
  const before = changesOf(build, form, mass.id).moved ?? [0, 0, 0];
  const way = scale(rotate(inverse(carriedBy(form, mass.id)), by), 1 / form.size);
  return changeMass(build, form, mass.id, `Move the ${mass.name}`, { moved: triple(add(before, way)) });
}

/** Turns a mass about its own place to a rotation in the world. */
export function turnMass(build: Build, form: ResolvedForm, mass: Mass, to: Rotation): BuildEdit {
  const before = rotationOf(changesOf(build, form, mass.id).turned ?? [0, 0, 0]);
  const joint = carriedBy(form, mass.id);
  const own = compose(inverse(joint), rotationOf(mass.turn));
  // own = turned . base, so base is what is left; the new turn takes base to where it was asked to be.
  const base = compose(inverse(before), own);
  return changeMass(build, form, mass.id, `Turn the ${mass.name}`, {
    turned: triple(turnOf(compose(compose(inverse(joint), to), inverse(base)))),
  });
}

/** Stretches a mass along its own axes by further factors. */
export function stretchMass(build: Build, form: ResolvedForm, mass: Pick<Mass, 'id' | 'name'>, by: Vec3): BuildEdit {
  const before = changesOf(build, form, mass.id).stretched ?? [1, 1, 1];
  const clamp = (v: number) => Math.min(20, Math.max(0.05, v));
  return changeMass(build, form, mass.id, `Stretch the ${mass.name}`, {
    stretched: [clamp(before[0] * by[0]), clamp(before[1] * by[1]), clamp(before[2] * by[2])],
  });
}

/** Sets a pair apart, each keeping the shape it has; or joins it again, the right following the left. */
export function setApart(build: Build, form: ResolvedForm, id: string, apart: boolean): BuildEdit {
  const source = form.twinOf.get(id) ?? id;
  const twin = twinId(source);
  const from = build.form.edits[source] ?? {};
  return {
    label: apart ? 'Set left and right apart' : 'Let the right follow the left',
    changes: [{ path: ['form', 'edits', twin], value: apart ? { ...reflectedChange(from), apart: true } : undefined }],
  };
}

export function jointChanges(build: Build, joint: Pick<PosedJoint, 'id' | 'twinOf'>): JointEdit {
  const target = jointTarget(build, joint);
  const edit = build.form.pose[target.id] ?? {};
  return target.reflected ? mirrorJointEdit(edit) : edit;
}

/** Turns or moves a joint; everything beyond it follows. */
export function changeJoint(
  build: Build,
  joint: Pick<PosedJoint, 'id' | 'name' | 'twinOf'>,
  change: JointEdit,
): BuildEdit {
  const target = jointTarget(build, joint);
  const next: JointEdit = {
    ...(build.form.pose[target.id] ?? {}),
    ...(target.reflected ? mirrorJointEdit(change) : change),
  };
  const idle =
    (!next.moved || isStill(next.moved, 0)) && (!next.turned || isStill(next.turned, 0)) && next.apart !== true;
  return {
    label: `${change.turned ? 'Turn' : 'Move'} the ${joint.name}`,
    changes: [{ path: ['form', 'pose', target.id], value: idle ? undefined : next }],
  };
}

/** Turns a joint from one rotation in the world to another, as a hand on it does. */
export function poseJoint(
  build: Build,
  form: ResolvedForm,
  joint: PosedJoint,
  from: Rotation,
  to: Rotation,
): BuildEdit {
  // world = above . local, and only the local turn is the joint's own.
  const above =
    joint.parent === null ? compose(from, inverse(rotationOf(joint.turn))) : form.skeleton.rotationAt(joint.parent);
  const wanted = turnOf(compose(inverse(above), to));
  const own = jointChanges(build, joint).turned ?? [0, 0, 0];
  const near = (angle: number) => ((((angle + 180) % 360) + 360) % 360) - 180;
  return changeJoint(build, joint, {
    turned: [0, 1, 2].map((k) => near(own[k]! + near(wanted[k]! - joint.turn[k]!))) as [number, number, number],
  });
}

/** The right one of a joint's pair; null where it has none. */
export function rightOf(form: Pick<ResolvedForm, 'skeleton'>, joint: Pick<PosedJoint, 'id' | 'twinOf'>): string | null {
  return joint.twinOf !== null ? joint.id : (form.skeleton.joints.find((j) => j.twinOf === joint.id)?.id ?? null);
}

export function setJointApart(
  build: Build,
  form: Pick<ResolvedForm, 'skeleton'>,
  joint: Pick<PosedJoint, 'id' | 'twinOf'>,
  apart: boolean,
): BuildEdit {
  const source = joint.twinOf ?? joint.id;
  const right = rightOf(form, joint) ?? twinId(source);
  const from = build.form.pose[source] ?? {};
  return {
    label: apart ? 'Pose left and right apart' : 'Let the right follow the left',
    changes: [{ path: ['form', 'pose', right], value: apart ? { ...mirrorJointEdit(from), apart: true } : undefined }],
  };
}

/** Every joint back to the stance it started in. */
export function unpose(): BuildEdit {
  return {
    label: 'Back to the stance',
    changes: [
      { path: ['form', 'pose'], value: {} },
      { path: ['form', 'planted'], value: null },
    ],
  };
}

export const newShapes: readonly {
  readonly id: MassShape['kind'];
  readonly name: string;
  readonly shape: (size: number) => MassShape;
}[] = [
  { id: 'ellipsoid', name: 'ball or egg', shape: (r) => ({ kind: 'ellipsoid', radii: [r, r, r] }) },
  {
    id: 'round-cone',
    name: 'limb',
    shape: (r) => ({ kind: 'round-cone', reach: [0, 0, 2 * r], radiusFrom: r * 0.6, radiusTo: r * 0.4 }),
  },
  { id: 'rounded-box', name: 'block', shape: (r) => ({ kind: 'rounded-box', half: [r, r, r], rounding: r * 0.25 }) },
  { id: 'drum', name: 'drum', shape: (r) => ({ kind: 'drum', radius: r, half: r, rounding: r * 0.1 }) },
  { id: 'ring', name: 'ring', shape: (r) => ({ kind: 'ring', radius: r, thickness: r * 0.25 }) },
];

function freeId(build: Build, form: ResolvedForm, word: string): string {
  const taken = new Set([
    ...form.masses.map((m) => m.id),
    ...form.hidden.map((m) => m.id),
    ...build.form.added.map((m) => m.id),
  ]);
  for (let i = 1; ; i++) {
    const id = `own/${word}-${i}`;
    if (!taken.has(id) && !taken.has(twinId(id))) return id;
  }
}

/** A new mass beside the one selected (or the first), on the same joint and in the same region. */
export function addMass(
  build: Build,
  form: ResolvedForm,
  kind: MassShape['kind'],
  beside: string | null,
): { edit: BuildEdit; id: string } {
  const near = form.masses.find((m) => m.id === beside) ?? form.masses[0]!;
  const entry = newShapes.find((s) => s.id === kind) ?? newShapes[0]!;
  const r = (0.5 * middleSize(near)) / form.size;
  const id = freeId(build, form, entry.id);
  const place = placeUnposed(form, near, add(near.at, [0, -middleSize(near) * 0.8, 0]));
  const mass: Mass = {
    id,
    name: `${entry.name} ${id.replace(/^.*-/, '')}`,
    region: near.region,
    at: place,
    turn: [0, 0, 0],
    blend: Math.max(0.002, r * 0.3),
    shape: entry.shape(Math.max(0.002, r)),
    ...(near.joint === undefined ? {} : { joint: near.joint }),
  };
  return {
    id,
    edit: {
      label: `Add a ${entry.name}`,
      changes: [{ path: ['form', 'added', build.form.added.length], value: mass }],
    },
  };
}

/** A copy further along the limb the mass hangs on (towards the joint beyond), or beside it. */
export function copyMass(build: Build, form: ResolvedForm, id: string): { edit: BuildEdit; id: string } | null {
  const mass = form.masses.find((m) => m.id === id);
  if (!mass) return null;
  const joint = form.skeleton.joints.find((j) => j.id === mass.joint);
  const beyond = form.skeleton.joints.find((j) => j.parent === mass.joint);
  const along: Vec3 = joint && beyond ? unit(subtract(beyond.at, joint.at)) : [1, 0, 0];
  const copy = freeId(build, form, mass.shape.kind);
  const back = mass.joint === undefined ? rotationOf([0, 0, 0]) : inverse(form.skeleton.rotationAt(mass.joint));
  const made: Mass = {
    ...mass,
    id: copy,
    name: `${mass.name.slice(0, 60)}, copy ${copy.replace(/^.*-/, '')}`,
    at: placeUnposed(form, mass, add(mass.at, scale(along, middleSize(mass)))),
    turn: triple(turnOf(compose(back, rotationOf(mass.turn)))),
    blend: mass.blend / form.size,
    shape: scaledShape(mass.shape, 1 / form.size),
  };
  return {
    id: copy,
    edit: {
      label: `Copy the ${mass.name}`,
      changes: [{ path: ['form', 'added', build.form.added.length], value: made }],
    },
  };
}

/** Takes away a mass of one's own, or hides one the start form makes. */
export function removeMass(build: Build, form: ResolvedForm, id: string): BuildEdit {
  const name = form.masses.find((m) => m.id === id)?.name ?? id;
  const at = build.form.added.findIndex((m) => m.id === id || (m.mirrored && twinId(m.id) === id));
  if (at < 0) return changeMass(build, form, id, `Hide the ${name}`, { hidden: true });
  const own = build.form.added[at]!.id;
  const changes: Change[] = [{ path: ['form', 'added', at], value: undefined }];
  for (const key of [own, twinId(own)])
    if (build.form.edits[key]) changes.push({ path: ['form', 'edits', key], value: undefined });
  return { label: `Take the ${name} away`, changes };
}

/** Gives a mass of one's own a twin on the other side, or takes the twin away. */
export function mirrorOwn(build: Build, id: string, mirrored: boolean): BuildEdit | null {
  const at = build.form.added.findIndex((m) => m.id === id);
  if (at < 0) return null;
  const twin = twinId(id);
  return {
    label: mirrored ? 'Mirror it to the other side' : 'Take its twin away',
    changes: [
      { path: ['form', 'added', at, 'mirrored'], value: mirrored ? true : undefined },
      ...(build.form.edits[twin] ? [{ path: ['form', 'edits', twin], value: undefined }] : []),
    ],
  };
}

function placeUnposed(form: ResolvedForm, mass: Mass, at: Vec3): [number, number, number] {
  const joint = form.skeleton.joints.find((j) => j.id === mass.joint);
  const rest = joint ? add(joint.rest, rotate(inverse(joint.rotation), subtract(at, joint.at))) : at;
  return triple(scale(rest, 1 / form.size));
}

/** About how large a mass is, metres. */
export function middleSize(mass: Mass): number {
  const s = mass.shape;
  if (s.kind === 'ellipsoid' || s.kind === 'shell') return Math.cbrt(s.radii[0] * s.radii[1] * s.radii[2]);
  if (s.kind === 'rounded-box') return Math.cbrt(s.half[0] * s.half[1] * s.half[2]);
  if (s.kind === 'round-cone') return Math.max(s.radiusFrom, s.radiusTo);
  if (s.kind === 'sampled') return 0.4 * s.step * Math.cbrt(s.cells[0] * s.cells[1] * s.cells[2]);
  return s.kind === 'drum' ? Math.cbrt(s.radius * s.radius * s.half) : s.radius;
}

function triple(v: Vec3): [number, number, number] {
  return [v[0], v[1], v[2]];
}
