import { bundleAcross, coverWanted } from '../armature';
import type { PosedJoint } from '../form';
import { distance, mix, type Vec3 } from '../quantity';
import type { SchoolContext } from './school';

/**
 * Wire for a limb of a mesh, by the room there is in it: the stoutest that keeps its cover all the way, of what the way of
 * building asks for at most. What runs on into a thinner limb is a wire of its own, bound on.
 */
export interface WireRun {
  readonly joints: readonly string[];
  /** The run that all others are bound to. */
  readonly first: boolean;
  readonly size: string;
  readonly strands: number;
  readonly path: readonly Vec3[];
}

interface Bundle {
  readonly size: string;
  readonly strands: number;
  /** Of one strand and of all of them, metres. */
  readonly wire: number;
  readonly across: number;
  /** What it bears in bending, against others of its stock. */
  readonly bears: number;
}

/** Smallest first; no stouter than asked for. */
function bundlesOf(context: SchoolContext, stock: string, most: string, strands: number): Bundle[] {
  const widest = context.across(stock, most);
  return context
    .sizesOf(stock)
    .filter((s) => context.across(stock, s) <= widest * 1.001)
    .flatMap((size) =>
      Array.from({ length: strands }, (_, n): Bundle => {
        const wire = context.across(stock, size);
        return { size, strands: n + 1, wire, across: bundleAcross(wire, n + 1), bears: (n + 1) * wire ** 3 };
      }),
    )
    .sort((a, b) => a.bears - b.bears);
}

/** Of a limb's last stretch a wire may stop short by this share, rather than be thinner all the way. */
const stopsShort = 0.35;
const looks = 8;

const fits = (context: SchoolContext, b: Bundle, p: Vec3, clay: number): boolean =>
  context.depthAt(p) - b.across / 2 >= coverWanted(b.wire, clay);

/** Runs of wire for chains of joints; those of a start form run as they are, with what is asked for. */
export function wireRuns(
  context: SchoolContext,
  asked: { readonly stock: string; readonly size: string; readonly strands: number; readonly byHand: boolean },
  chains: readonly { readonly joints: readonly string[]; readonly first: boolean }[],
): WireRun[] {
  const { joints } = context.form.skeleton;
  const byId = new Map(joints.map((j) => [j.id, j]));
  const inner = new Set(joints.map((j) => j.parent));
  const bundles = asked.byHand ? [] : bundlesOf(context, asked.stock, asked.size, asked.strands);
  return chains.flatMap(({ joints: chain, first }): WireRun[] => {
    const own = chain.map((id) => byId.get(id)!);
    if (own[1]?.limb === undefined || bundles.length === 0)
      return [{ joints: chain, first, size: asked.size, strands: asked.strands, path: own.map((j) => j.at) }];
    const stretches = byLimb(own).map((s) => ({ ...s, bundle: stoutest(context, bundles, s.joints, inner) }));
    const runs: { joints: PosedJoint[]; bundle: Bundle }[] = [];
    for (const { joints: part, bundle } of stretches) {
      const last = runs[runs.length - 1];
      if (last && bundle.bears >= last.bundle.bears) last.joints.push(...part.slice(1));
      else runs.push({ joints: [...part], bundle });
    }
    return runs.map(({ joints: run, bundle }, i) => ({
      joints: run.map((j) => j.id),
      first: first && i === 0,
      size: bundle.size,
      strands: bundle.strands,
      path: drawnBack(context, run, bundle, inner),
    }));
  });
}

/** Stretches of a chain that are of one limb, each with the joint it begins at. */
function byLimb(chain: readonly PosedJoint[]): { joints: PosedJoint[] }[] {
  const out: { joints: PosedJoint[] }[] = [];
  chain.slice(1).forEach((j, i) => {
    const before = chain[i]!;
    const last = out[out.length - 1];
    // The stretch up to where a limb leaves what it hangs on still lies in that.
    if (last && (chain[i]!.limb === j.limb || i === 0)) last.joints.push(j);
    else out.push({ joints: [before, j] });
  });
  return out;
}

function clayAt(context: SchoolContext, joint: string): number {
  const region = context.form.masses.find((m) => m.joint === joint)?.region;
  return region === undefined ? 0 : context.clayOver(region);
}

function stoutest(
  context: SchoolContext,
  bundles: readonly Bundle[],
  run: readonly PosedJoint[],
  inner: ReadonlySet<string | null>,
): Bundle {
  const places: { at: Vec3; clay: number }[] = [];
  run.slice(1).forEach((to, i) => {
    const from = run[i]!;
    const until = inner.has(to.id) ? 1 : 1 - stopsShort;
    // A foot leaves the form where it stands: its cover ends there.
    const since = from.ground ? stopsShort : 0;
    const end = to.ground ? 1 - stopsShort : until;
    for (let k = 0; k <= looks; k++)
      places.push({ at: mix(from.at, to.at, since + ((end - since) * k) / looks), clay: clayAt(context, from.id) });
  });
  let best = bundles[0]!;
  for (const b of bundles) if (places.every((p) => fits(context, b, p.at, p.clay))) best = b;
  return best;
}

/** The run's places, its end drawn back along its last stretch until there is enough over it. */
function drawnBack(
  context: SchoolContext,
  run: readonly PosedJoint[],
  bundle: Bundle,
  inner: ReadonlySet<string | null>,
): Vec3[] {
  const path = run.map((j) => j.at);
  const end = run[run.length - 1]!,
    before = run[run.length - 2]!;
  if (inner.has(end.id) || end.ground || distance(end.at, before.at) < 1e-4) return path;
  const clay = clayAt(context, before.id);
  const least = 1 - stopsShort;
  let share = 1;
  while (share > least && !fits(context, bundle, mix(before.at, end.at, share), clay)) share -= 0.025;
  return [...path.slice(0, -1), share < 1 ? mix(before.at, end.at, share) : end.at];
}

/** By where it begins and ends; in a limb of a mesh, by that limb. */
export function wireName(run: readonly PosedJoint[]): string {
  const first = run[0]!,
    last = run[run.length - 1]!;
  if (last.limb !== undefined && run.every((j) => j.limb === last.limb)) return `wire in ${last.limb}`;
  return first === last ? `wire to ${last.name}` : `wire, ${first.name} to ${last.name}`;
}
