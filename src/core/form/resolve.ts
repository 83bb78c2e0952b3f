import { describeIssue, type Build, type Mass as WrittenMass, type MassEdit } from '../document';
import { add, failure, scale, success, type Result, type Vec3 } from '../quantity';
import { massBox } from './distance';
import type { HeadSetting } from './head-setting';
import { headOfMesh } from './limbs/mesh-head';
import { hasLimbs, jointsOfMesh, limbPartId, partsOfMesh, partsHidden } from './limbs/mesh-parts';
import type { Mass } from './mass';
import { mirrorMass, twinId } from './mirror';
import { scaledShape, stretchedShape, triple } from './stretch';
import { poseSkeleton, withTwins, type Joint, type Skeleton } from './skeleton';
import {
  bustLevels,
  earlierForms,
  startForms,
  type AnyStartForm,
  type BustLevels,
  type BustSetting,
  type Envelope,
  type Landmark,
} from './start';
import { compose, rotationOf, turnOf } from './turn';

/** A form made from its start, with edits, pose and additions laid over it. Metres at full scale. */
export interface ResolvedForm {
  readonly kind: string;
  readonly masses: readonly Mass[];
  readonly regions: readonly string[];
  /** By mass: the mass it is counted with on a grid; itself where it is counted alone. */
  readonly countedWith: Uint16Array;
  readonly size: number;
  readonly skeleton: Skeleton;
  /** By mass: the mass it mirrors, if it does. */
  readonly twinOf: ReadonlyMap<string, string>;
  readonly hidden: readonly { readonly id: string; readonly name: string }[];
  readonly landmarks: readonly (Landmark & { readonly ends: readonly [Vec3, Vec3] })[];
  readonly envelopes: readonly Envelope[];
  /** Ids of edits whose mass or joint is no longer there. */
  readonly lostEdits: readonly string[];
  /** Of a bust only: what schools made for busts set out from. */
  readonly bust: { readonly measures: BustSetting; readonly levels: BustLevels } | null;
  /** Of a bust or a head: what a head frame is set out from, metres at full size. */
  readonly head: HeadSetting | null;
}

function headSetting(kind: string, given: unknown, size: number): HeadSetting | null {
  if (kind !== 'bust' && kind !== 'head') return null;
  const m = given as Pick<
    BustSetting,
    'headHeight' | 'headBreadth' | 'headDepth' | 'headForward' | 'neckLength' | 'standHeight'
  > & { readonly faceHeight?: number; readonly brow?: number };
  const at = kind === 'bust' ? bustLevels(given as BustSetting, size) : null;
  const chin = at?.chin ?? (m.standHeight + m.neckLength) * size;
  const crown = chin + m.headHeight * size;
  const skull = crown - m.headHeight * size * 0.37;
  return {
    height: m.headHeight * size,
    breadth: m.headBreadth * size,
    // What goes round the brain case lies behind the brows.
    depth: (m.headDepth - 0.8 * (m.brow ?? 0)) * size,
    forward: m.headForward * size,
    bottom: at?.bottom ?? m.standHeight * size,
    chin,
    crown,
    skull,
    band: m.faceHeight === undefined ? skull - 0.02 * size : chin + (m.faceHeight + 0.14 * m.headHeight) * size,
    faced: m.faceHeight !== undefined,
  };
}

/** As it is made today. */
export function findStartForm(kind: string): AnyStartForm | undefined {
  return startForms.find((s) => s.kind === kind);
}

/** As a build was begun with it: one that says nothing was begun with the first. */
export function startFormOf(start: Build['form']['start']): AnyStartForm | undefined {
  const version = start.version ?? 1;
  return [...startForms, ...earlierForms].find((s) => s.kind === start.kind && s.version === version);
}

/** Makes the masses of a build. Fails with the path of a measure that is out of range. */
export function resolveForm(build: Build): Result<ResolvedForm> {
  const { start, edits, pose, planted, added } = build.form;
  const form = startFormOf(start);
  if (!form && findStartForm(start.kind))
    return failure(
      'unknown-form',
      'form.start.version',
      `this program knows no making ${start.version ?? 1} of the form "${start.kind}"; a later one does`,
    );
  if (!form)
    return failure(
      'unknown-form',
      'form.start.kind',
      `there is no start form "${start.kind}"; there are: ${startForms.map((s) => s.kind).join(', ')}`,
    );
  const measures = form.schema.safeParse(start.measures);
  if (!measures.success) {
    const { path, message } = describeIssue(measures.error, 'form.start.measures');
    return failure('out-of-range', path, message);
  }
  const made = form.make(measures.data as never);
  const own = withTwins(made.joints);
  const twins = new Set(own.map((j) => j.id));
  const all = bothSides([...made.masses, ...added], edits, (id) =>
    id.endsWith('-left') && twins.has(twinId(id)) ? twinId(id) : id,
  );
  const shown = all.filter(({ mass }) => edits[mass.id]?.hidden !== true);
  if (shown.length === 0) return failure('no-masses', 'form.edits', 'every mass is hidden; show one');
  const allJoints = jointsWith(made.joints, shown);
  const joints = withTwins(allJoints);
  const jointIds = new Set(joints.map((j) => j.id));
  const ids = new Set<string>();
  for (const { mass } of all) {
    if (ids.has(mass.id)) return failure('same-id', 'form.added', `two masses are called "${mass.id}"`);
    ids.add(mass.id);
    if (hasLimbs(mass)) for (const j of mass.shape.limbs) ids.add(limbPartId(mass, j.id));
    if (mass.joint !== undefined && !jointIds.has(mass.joint) && !twins.has(mass.joint))
      return failure(
        'unknown-joint',
        'form.added',
        `"${mass.name}" hangs on a joint "${mass.joint}" that is not there`,
      );
  }
  const posed = poseSkeleton(allJoints, pose, planted, start.size);
  const inPose = (as: Skeleton) =>
    shown.flatMap(({ mass }) =>
      hasLimbs(mass) ? partsOfMesh(mass, edits, start.size, as) : [placed(mass, start.size, as)],
    );
  const lift =
    planted === null && posed.joints.some((j) => j.turn.some((t) => t !== 0))
      ? lowest(
          inPose(
            poseSkeleton(
              allJoints.map(({ stance: _, ...j }) => j),
              unturnedPose(pose),
              null,
              start.size,
            ),
          ),
        ) - lowest(inPose(posed))
      : 0;
  const skeleton = lift === 0 ? posed : poseSkeleton(allJoints, pose, planted, start.size, lift);
  const masses = inPose(skeleton);
  if (masses.length === 0) return failure('no-masses', 'form.edits', 'every limb is hidden; show one');
  // What the start form would be is not there: its head and shoulders are a mesh's.
  const meshAlone = shown.every(({ mass }) => hasLimbs(mass));
  return success({
    kind: start.kind,
    masses,
    size: start.size,
    skeleton,
    regions: [...new Set(masses.map((m) => m.region))],
    countedWith: countedTogether(masses, form.finelyMade === true),
    twinOf: new Map(all.flatMap(({ mass, twinOf }) => (twinOf === null ? [] : [[mass.id, twinOf] as const]))),
    hidden: all
      .filter(({ mass }) => edits[mass.id]?.hidden === true)
      .flatMap(({ mass }) => [{ id: mass.id, name: mass.name }])
      .concat(shown.flatMap(({ mass }) => (hasLimbs(mass) ? partsHidden(mass, edits) : []))),
    landmarks: made.landmarks.map((l) => landmarkAt(l, start.size, skeleton)),
    envelopes: made.envelopes,
    lostEdits: [
      ...Object.keys(edits).filter((id) => !ids.has(id)),
      ...Object.keys(pose).filter((id) => !jointIds.has(id) && !twins.has(id)),
    ],
    bust:
      start.kind === 'bust' && !meshAlone
        ? {
            measures: measures.data as unknown as BustSetting,
            levels: bustLevels(measures.data as unknown as BustSetting, start.size),
          }
        : null,
    head: meshAlone ? headOfMesh(masses, skeleton, lowest(masses)) : headSetting(start.kind, measures.data, start.size),
  });
}

/**
 * The joints of the start form and of the meshes in it. Where a mesh has limbs of its own, joints of the start that nothing
 * is left on go: no wire is to run along limbs that are not there.
 */
function jointsWith(made: readonly Joint[], shown: readonly Sided[]): Joint[] {
  const meshes = shown.flatMap(({ mass }) => (hasLimbs(mass) ? [mass] : []));
  if (meshes.length === 0) return [...made];
  const used = new Set(shown.flatMap(({ mass }) => mass.joint ?? []));
  const parent = new Map(withTwins(made).map((j) => [j.id, j.parent]));
  for (const id of [...used])
    for (let at = parent.get(id) ?? null; at !== null; at = parent.get(at) ?? null) used.add(at);
  const left = made.filter((j) => used.has(j.id) || used.has(twinId(j.id)));
  return [...left, ...meshes.flatMap(jointsOfMesh)];
}

/** Masses that nothing tells apart but their names: of one region, on one joint, of one role. */
function countedTogether(masses: readonly Mass[], together: boolean): Uint16Array {
  const first = new Map<string, number>();
  return Uint16Array.from(masses, (m, i) => {
    const key = together ? `${m.region}/${m.joint ?? ''}/${m.role ?? ''}` : String(i);
    if (!first.has(key)) first.set(key, i);
    return first.get(key)!;
  });
}

/** A posed piece comes down, or up, to stand as low as it stood unposed. */
function lowest(masses: readonly Mass[]): number {
  return masses.reduce((z, m) => (m.role === 'opening' ? z : Math.min(z, massBox(m).low[2])), Infinity);
}

function unturnedPose(pose: Build['form']['pose']): Build['form']['pose'] {
  return Object.fromEntries(Object.entries(pose).map(([id, { turned: _, ...rest }]) => [id, rest]));
}

interface Sided {
  readonly mass: WrittenMass;
  readonly twinOf: string | null;
}

/** Every mass as edited; the right of a pair is the reflection of the left as edited, unless it is set apart. */
function bothSides(
  made: readonly WrittenMass[],
  edits: Readonly<Record<string, MassEdit>>,
  jointTwin: (id: string) => string,
): Sided[] {
  return made.flatMap((mass): Sided[] => {
    const own = edited(mass, edits[mass.id]);
    if (!mass.id.endsWith('-left') && mass.mirrored !== true) return [{ mass: own, twinOf: null }];
    const twin = twinId(mass.id);
    const change = Object.hasOwn(edits, twin) ? edits[twin] : undefined;
    const right = change?.apart ? edited(mirrorMass(mass, jointTwin), change) : mirrorMass(own, jointTwin);
    const { mirrored: _, ...left } = own;
    return [
      { mass: left, twinOf: null },
      { mass: right, twinOf: mass.id },
    ];
  });
}

function edited(mass: WrittenMass, edit: MassEdit | undefined): WrittenMass {
  if (!edit) return mass;
  const { moved, turned, stretched, hidden: __hidden, locked: __locked, apart: __apart, ...replaced } = edit;
  const given = Object.fromEntries(Object.entries(replaced).filter(([, v]) => v !== undefined));
  const base: WrittenMass = { ...mass, ...given };
  return {
    ...base,
    at: moved ? triple(add(base.at, moved)) : base.at,
    turn: turned ? triple(turnOf(compose(rotationOf(turned), rotationOf(base.turn)))) : base.turn,
    shape: stretched ? stretchedShape(base.shape, stretched) : base.shape,
  };
}

/** From life size, unposed, to full scale and posed. */
function placed(mass: WrittenMass, size: number, skeleton: Skeleton): Mass {
  const at = scale(mass.at, size);
  const sized: WrittenMass = {
    ...mass,
    at: triple(at),
    blend: mass.blend * size,
    shape: scaledShape(mass.shape, size),
  };
  if (mass.joint === undefined) return sized;
  return {
    ...sized,
    at: triple(skeleton.carry(mass.joint, at)),
    turn: triple(turnOf(compose(skeleton.rotationAt(mass.joint), rotationOf(mass.turn)))),
  };
}

function landmarkAt(
  l: Landmark,
  size: number,
  skeleton: Skeleton,
): Landmark & { readonly ends: readonly [Vec3, Vec3] } {
  const end = (side: number) => skeleton.carry(l.joint, scale([l.at[0] + side * l.half, l.at[1], l.at[2]], size));
  return { ...l, ends: [end(-1), end(1)] };
}
