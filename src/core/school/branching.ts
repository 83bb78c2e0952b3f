import { z } from 'zod';
import { joinIds } from '../catalogue';
import type { Section } from '../armature';
import type { Mass } from '../document';
import { massBox, type PosedJoint } from '../form';
import { add, distance, mix, norm, type Vec3 } from '../quantity';
import { boardFields, boardParameters, boardUnder } from './base';
import { boneName, chainsOf, footBoard, lengthOf, nearestSize } from './limbs';
import { spanOfForm, type School, type SchoolContext } from './school';
import { SettingOut } from './setting-out';
import { bentInto, wireRuns } from './wire-that-fits';

/**
 * Branching: many wires in a drilled post, one for every tip, wrapped into a bundle that thins as the branches leave it.
 * Bundles of an odd number of wires pack round; the piece is built and dried in sections.
 */
const parameters = z.strictObject({
  bulk: z.string().default('foil-firm'),
  wrap: z.string().default('tape'),
  wireStock: z.string().default('aluminium-annealed'),
  /** Empty lets the thinnest tip decide. */
  wireSize: z.string().default(''),
  postStock: z.string().default('hardwood-dowel'),
  /** Empty lets the bundle decide. */
  postSize: z.string().default(''),
  /** Bundles are bound with wire, and glued or not. */
  join: z.enum(joinIds).default('bound-glued'),
  odd: z.boolean().default(true),
  sections: z.number().int().min(1).max(7).default(3),
  ...boardParameters,
});
export type BranchingParameters = z.infer<typeof parameters>;

/** Root to every tip, through the joints between. */
function waysToTips(context: SchoolContext): string[][] {
  const { joints } = context.form.skeleton;
  const parent = new Map(joints.map((j) => [j.id, j.parent]));
  const inner = new Set(joints.map((j) => j.parent));
  return joints
    .filter((j) => !inner.has(j.id))
    .map((tip) => {
      const way: string[] = [];
      for (let at: string | null = tip.id; at !== null; at = parent.get(at) ?? null) way.unshift(at);
      return way;
    })
    .filter((w) => w.length > 1);
}

/** Half the least breadth of anything there is: what the thinnest tip leaves for its wire. */
function thinnest(context: SchoolContext): number {
  return context.form.masses.reduce((least, m) => {
    if (m.shape.kind === 'round-cone') return Math.min(least, m.shape.radiusFrom, m.shape.radiusTo);
    const b = massBox(m);
    return Math.min(least, (b.high[0] - b.low[0]) / 2, (b.high[1] - b.low[1]) / 2, (b.high[2] - b.low[2]) / 2);
  }, Infinity);
}

function make(context: SchoolContext, p: BranchingParameters) {
  const { form } = context;
  const { joints } = form.skeleton;
  const out = new SettingOut('branching');
  const byId = new Map(joints.map((j) => [j.id, j]));
  const place = (id: string): Vec3 => byId.get(id)?.at ?? [0, 0, 0];
  const name = (id: string) => byId.get(id)?.name ?? id;
  const ways = waysToTips(context);
  const ofMesh = joints.some((j) => j.limb !== undefined);
  const most = ofMesh ? 0.004 : Math.min(0.004, thinnest(context) * 0.3);
  const size = p.wireSize || nearestSize(context, p.wireStock, most);
  const wire = context.across(p.wireStock, size);
  const bundle = wire * Math.sqrt(ways.length / 0.75);
  const postSize =
    p.postSize ||
    (context.sizesOf(p.postStock).find((s) => context.across(p.postStock, s) >= 1.6 * bundle) ??
      context.sizesOf(p.postStock).at(-1) ??
      '');
  const post = context.across(p.postStock, postSize);
  const asked = { stock: p.wireStock, size, strands: 1, byHand: p.wireSize !== '' };
  // In a mesh a tip's wire is as stout as its own limb has room for, all the way down, and may end before the tip does.
  const reach = (way: readonly string[]) => {
    const last = wireRuns(context, asked, [{ joints: way, first: false }]).at(-1)!;
    return { last, reached: way.slice(0, way.indexOf(last.joints[last.joints.length - 1]!) + 1) };
  };
  const reached = new Set(ways.flatMap((w) => reach(w).reached));
  for (const j of joints) if (reached.has(j.id)) out.node(j.id, j.at, j.parent === null);
  for (const chain of chainsOf(joints)) {
    chain.slice(1).forEach((id, i) => {
      if (!reached.has(id)) return;
      const from = chain[i]!;
      out.bone(
        id,
        boneName(joints, from, id),
        from,
        id,
        form.masses.filter((m) => m.joint === from || m.joint === id).map((m) => m.id),
        i === 0 && from !== ways[0]?.[0] ? { joinFrom: p.join } : {},
      );
    });
  }
  const root = ways[0]?.[0] ?? '',
    first = ways[0]?.[1] ?? '';
  const sunk = 6 * wire;
  const one = (id: string, what: string, way: readonly string[]) => {
    const { last, reached } = reach(way);
    const path = [...way.slice(0, way.indexOf(last.joints[0]!)).map(place), ...last.path];
    out.member(id, what, {
      stock: p.wireStock,
      size: last.size,
      sizedBy: { stock: 'wireStock', size: 'wireSize' },
      ...bentInto(context, p.wireStock, last.size, 1),
      path,
      bones: reached.slice(1),
      allowances: [
        { what: 'glued into the post', at: 'start', length: sunk },
        { what: 'end loop', at: 'end', length: 6 * wire },
        { what: 'laid round the bundle', length: 0.04 * lengthOf(path) },
      ],
    });
  };
  ways.forEach((way) => one(`wire-${way[way.length - 1] ?? ''}`, `wire to ${name(way[way.length - 1] ?? '')}`, way));
  if (p.odd && ways.length % 2 === 0) one('wire-spare', 'spare wire that makes the bundle odd', [root, first]);
  out.member('post', 'drilled post', {
    stock: p.postStock,
    size: postSize,
    sizedBy: { stock: 'postStock', size: 'postSize', together: true },
    path: [place(root), mix(place(root), place(first), 0.6)],
    bones: [first],
    allowances: [{ what: 'let into the board', length: context.across(p.boardStock, p.boardSize) }],
  });
  out.hole({
    what: 'in the top of the post, one for each wire',
    count: ways.length + (p.odd && ways.length % 2 === 0 ? 1 : 0),
    diameter: wire + 0.0003,
    depth: sunk,
  });
  out.adopt(form.masses, first);
  const plate = { diameter: Math.max(0.03, 2 * post), mass: 0, circle: Math.max(0.024, 1.6 * post), screws: 4 };
  const base = boardUnder(context, p, place(root), footBoard(spanOfForm(form)), plate);
  out.hole({
    what: 'in the board, for the post',
    count: 1,
    diameter: post,
    depth: base.thickness,
    at: [[place(root)[0] - base.at[0], place(root)[1] - base.at[1]]],
  });
  return out.finish(base, p, { sections: sectionsOf(context, p.sections) });
}

/** From the root on, always to where most of the piece lies, until only single branches are left. */
function trunkOf(joints: readonly PosedJoint[]): string[] {
  const children = (id: string | null) => joints.filter((j) => j.parent === id);
  const beyond = (id: string): number => 1 + children(id).reduce((n, c) => n + beyond(c.id), 0);
  // A bend on the way does not make a branch of more than one fork out of it.
  const past = (j: PosedJoint): PosedJoint => (j.id.startsWith('bend-') ? (children(j.id)[0] ?? j) : j);
  const branch = (j: PosedJoint) => children(past(j).id).every((c) => children(c.id).length === 0);
  const trunk: string[] = [];
  for (let at = children(null)[0]; at !== undefined;) {
    trunk.push(at.id);
    const next: PosedJoint[] = children(at.id);
    if (next.every(branch)) break;
    at = next.sort((x, y) => beyond(y.id) - beyond(x.id))[0];
  }
  return trunk;
}

/** The trunk, and its branches shared out among the rest. */
function sectionsOf(context: SchoolContext, wanted: number): Section[] {
  const {
    skeleton: { joints },
    masses,
  } = context.form;
  const trunk = new Set(trunkOf(joints));
  const byId = new Map(joints.map((j) => [j.id, j]));
  const branches = joints.filter((j) => !trunk.has(j.id) && j.parent !== null && trunk.has(j.parent));
  if (wanted < 2 || branches.length < 1) return [];
  const branchOf = (joint: string | undefined): number => {
    for (
      let at = joint === undefined ? undefined : byId.get(joint);
      at;
      at = at.parent === null ? undefined : byId.get(at.parent)
    ) {
      const i = branches.indexOf(at);
      if (i >= 0) return i;
    }
    return -1;
  };
  // A branch hangs on the fork it leaves: what ends at a branch's first joint belongs to that branch.
  const endsAt = (m: Mass): number => {
    if (m.shape.kind !== 'round-cone') return -1;
    const end = add(m.at, m.shape.reach),
      long = norm(m.shape.reach);
    return branches.findIndex((b) => b.parent === m.joint && distance(end, b.at) < 0.2 * long);
  };
  const own = masses.map((m) => Math.max(branchOf(m.joint), endsAt(m)));
  const groups = Math.min(wanted - 1, branches.length);
  return Array.from({ length: groups + 1 }, (_, g): Section => ({
    id: g === 0 ? 'trunk' : `branches-${g}`,
    name: g === 0 ? 'trunk' : `branches, part ${g}`,
    heldBy: g === 0 ? 'the post' : 'wires pushed into the bundle and glued',
    masses: masses
      .filter((_, i) => (g === 0 ? own[i] === -1 : own[i]! >= 0 && own[i]! % groups === g - 1))
      .map((m) => m.id),
  })).filter((s) => s.masses.length > 0);
}

export const branching: School<BranchingParameters> = {
  kind: 'branching',
  name: 'bundle of wires in a post',
  when: 'Coral, antlers, trees, candelabra: a wire for every tip, so branches thin as they leave and none is stuck on.',
  how: 'Every tip has its own wire, down through its branch to a hole in the post; they are bound into a bundle that thins as branches leave. An odd number packs round.',
  cuts: 'six diameters glued into the post, six for an end loop, 4 % for lying round the bundle, and 5 % for trim',
  traits: { posedLater: 'until the clay is on', reused: 'little' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Filled with' },
    { kind: 'wrap', key: 'wrap', label: 'Wrapped in' },
    { kind: 'heading', label: 'Wires and post' },
    { kind: 'stock', key: 'wireStock', size: 'wireSize', label: 'Wire', from: 'wire' },
    { kind: 'stock', key: 'postStock', size: 'postSize', label: 'Post', from: 'bar' },
    { kind: 'join', key: 'join', label: 'Branches joined by' },
    { kind: 'yes-no', key: 'odd', label: 'An odd number of wires' },
    { kind: 'number', key: 'sections', label: 'Built and dried in sections' },
    ...boardFields,
  ],
  fits: (form) => {
    const roots = form.skeleton.joints.filter((j) => j.parent === null);
    return (
      roots.length === 1 &&
      roots[0]?.ground === true &&
      form.skeleton.joints.length >= 6 &&
      (form.head === null || form.head.mesh !== undefined)
    );
  },
  unsuited: (form) =>
    form.kind === 'long-neck'
      ? 'One thick neck takes a beam or a pipe, not a bundle that thins as branches leave it.'
      : null,
  make,
};
