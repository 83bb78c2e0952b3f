import { z } from 'zod';
import { coverWanted, type Armature } from '../armature';
import { joinIds, type JoinKindId } from '../catalogue';
import type { ResolvedForm } from '../form';
import { add, scale, type Vec3 } from '../quantity';
import { boardFields, boardParameters, boardUnder, type BoardParameters } from './base';
import { reachInside, spanOfForm, spanOfMasses, staysInside, type SchoolContext, type SchoolField } from './school';

import { SettingOut } from './setting-out';

type Joint = ResolvedForm['skeleton']['joints'][number];

/** What carries the clay is there already and stands on a post: what object core, shell and head form share. */
export const postParameters = {
  postStock: z.string().default('hardwood-dowel'),
  postSize: z.string().default('25mm'),
  join: z.enum(joinIds).default('epoxied'),
  ...boardParameters,
};
export interface PostFigures extends BoardParameters {
  readonly bulk: string;
  readonly wrap: string;
  readonly postStock: string;
  readonly postSize: string;
  readonly join: JoinKindId;
}
export const postFields: readonly SchoolField[] = [
  { kind: 'heading', label: 'Post' },
  { kind: 'stock', key: 'postStock', size: 'postSize', label: 'Post', from: 'bar' },
  { kind: 'join', key: 'join', label: 'Post fixed to the board by' },
  ...boardFields,
];
export const postCuts = 'the depth let into the board, and 5 % for trim';

/** Of a mesh with limbs: where it is thickest, for a post to come up under. */
function bodyOfMesh({ form, depthAt }: SchoolContext): Vec3 | null {
  const own = form.skeleton.joints.filter((j) => j.limb !== undefined && !j.ground);
  if (own.length === 0) return null;
  return own.reduce((b, j) => (depthAt(j.at) > depthAt(b.at) ? j : b)).at;
}

/** Height at which a post straight under a place comes into the form. */
function entersAt({ depthAt }: SchoolContext, [x, y, z]: Vec3): number {
  const steps = 60;
  for (let i = steps - 1; i > 0; i--) if (depthAt([x, y, (i / steps) * z]) < 0) return ((i + 1) / steps) * z;
  return 0;
}

/** How high it can go there with enough over it. */
function topUnder(context: SchoolContext, body: Vec3, p: PostFigures): number {
  const post = context.across(p.postStock, p.postSize);
  const clay = Math.max(...context.form.regions.map((r) => context.clayOver(r)));
  const leave = coverWanted(post, clay) + post / 2;
  return body[2] + reachInside(context, body, [0, 0, 1], leave, body[2] * 4);
}

/** What stands by itself: its masses, and the joints they hang on. Two hands on one board are two. */
interface Standing {
  /** At the end of ids and names: nothing where there is one. */
  readonly side: string;
  readonly ground: Joint | undefined;
  readonly masses: ResolvedForm['masses'];
  readonly highestJoint: number;
}

function whatStands({ form }: SchoolContext): Standing[] {
  const { joints } = form.skeleton;
  const highest = (some: readonly Joint[]) => Math.max(...some.map((j) => j.at[2]));
  const roots = joints.filter((j) => j.parent === null && j.ground);
  if (roots.length < 2)
    return [{ side: '', ground: joints.find((j) => j.ground), masses: form.masses, highestJoint: highest(joints) }];
  return roots.map((root) => {
    // Parents come first.
    const own = new Set([root.id]);
    for (const j of joints) if (j.parent !== null && own.has(j.parent)) own.add(j.id);
    return {
      side: /-(left|right)$/.exec(root.id)?.[1] ?? root.id,
      ground: root,
      masses: form.masses.filter((m) => m.joint !== undefined && own.has(m.joint)),
      highestJoint: highest(joints.filter((j) => own.has(j.id))),
    };
  });
}

/** A post up into whatever stands by itself, as far as six tenths of its height, all of them on one board. */
export function onAPost(context: SchoolContext, p: PostFigures, more: Pick<Armature, 'comesOut'> = {}): Armature {
  const { form } = context;
  const out = new SettingOut('form');
  const feet = whatStands(context).map((standing) => onePost(out, context, p, standing));
  const span = spanOfForm(form);
  const foot = mean(feet);
  const post = context.across(p.postStock, p.postSize);
  const plate = Math.max(0.03, 2 * post);
  const base = boardUnder(
    context,
    p,
    foot,
    {
      width: Math.max(0.12, (span.high[0] - span.low[0]) * 1.1),
      depth: Math.max(0.12, (span.high[1] - span.low[1]) * 1.1),
    },
    { diameter: plate, mass: 0, circle: plate * 0.8, screws: 4 },
  );
  out.hole({
    what: 'in the board, for the post',
    count: feet.length,
    diameter: post,
    depth: base.thickness,
    at: feet.map((f): [number, number] => [f[0] - base.at[0], f[1] - base.at[1]]),
  });
  return out.finish(base, p, more);
}

function mean(places: readonly Vec3[]): Vec3 {
  return places.reduce<Vec3>((sum, p) => add(sum, scale(p, 1 / places.length)), [0, 0, 0]);
}

function onePost(out: SettingOut, context: SchoolContext, p: PostFigures, standing: Standing): Vec3 {
  const { form } = context;
  const { side, masses } = standing;
  const id = (short: string) => (side === '' ? short : `${short}-${side}`);
  const name = (plain: string) => (side === '' ? plain : `${plain}, ${side}`);
  const span = spanOfMasses(masses);
  const middle = (k: 0 | 1): number => (span.low[k] + span.high[k]) / 2;
  // Under the joint it stands by where a form has many masses: what is built out in front does not pull the post along.
  const body = bodyOfMesh(context);
  const ground = form.countedWith.some((rep, i) => rep !== i) ? standing.ground : undefined;
  const under = body ?? ground?.at;
  const foot: Vec3 = under ? [under[0], under[1], 0] : [middle(0), middle(1), 0];
  const high = span.high[2] - span.low[2];
  const lowest = body ? entersAt(context, body) : span.low[2];
  const rim: Vec3 = [foot[0], foot[1], Math.max(0.01, lowest)];
  const highest = body ? topUnder(context, body, p) : ground ? standing.highestJoint : Infinity;
  const asked = Math.max(rim[2] + 0.02, Math.min(rim[2] + 0.6 * high, highest));
  const post = context.across(p.postStock, p.postSize);
  // A head that is turned aside leaves less of the way inside it.
  const inside = context.toCarry ? staysInside(context, rim, [foot[0], foot[1], asked], post) : 1;
  const top: Vec3 = [foot[0], foot[1], Math.max(rim[2] + 0.02, rim[2] + inside * (asked - rim[2]))];
  out.node(id('foot'), foot, true);
  out.node(id('rim'), rim);
  out.node(id('top'), top);
  out.bone(id('post'), name('post under the form'), id('foot'), id('rim'), [], { joinFrom: p.join });
  out.bone(
    id('inside'),
    name('post inside the form'),
    id('rim'),
    id('top'),
    masses.map((m) => m.id),
  );
  out.member(id('post'), name('post'), {
    stock: p.postStock,
    size: p.postSize,
    sizedBy: { stock: 'postStock', size: 'postSize', together: true },
    path: [foot, rim, top],
    bones: [id('post'), id('inside')],
    bare: true,
    allowances: [{ what: 'let into the board', length: context.across(p.boardStock, p.boardSize) }],
  });
  return foot;
}
