import { bundleAcross, coverWanted } from '../armature';
import type { PosedJoint } from '../form';
import { distance, mix, type Vec3 } from '../quantity';
import { bodyLimb } from './body-names';
import { heightOf, type SchoolContext } from './school';

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
  /** Strands times diameter cubed, m3: what it bears in bending, against others of its stock. */
  readonly bears: number;
}

/** Wet clay about a light core, kg/m3, and what soft wire bears with something to spare, Pa: rough, to choose a wire by. The frame is solved for what it then is. */
const roughDensity = 900;
const roughStrength = 20e6;
/** A leg is leant on by what stands on it: its lever as a share of its length. */
const lean = 0.15;
/** A limb's last stretches may stay without a wire, up to this share of its length. */
const leftOut = 0.3;
/** Of a limb's last stretch a wire may stop short by this share, rather than be thinner all the way. */
const stopsShort = 0.45;
/** Places along a stretch that are looked at. */
const looks = 8;

/**
 * Runs of wire for chains of joints. Those of a start form run as they are, with what is asked for, unless the armature is
 * sized to carry.
 */
export function wireRuns(
  context: SchoolContext,
  asked: { readonly stock: string; readonly size: string; readonly strands: number; readonly byHand: boolean },
  chains: readonly { readonly joints: readonly string[]; readonly first: boolean }[],
): WireRun[] {
  const { joints } = context.form.skeleton;
  const byId = new Map(joints.map((j) => [j.id, j]));
  const bundles = asked.byHand ? [] : bundlesOf(context, asked.stock, asked.size, asked.strands);
  return chains.flatMap(({ joints: chain, first }): WireRun[] => {
    const own = chain.map((id) => byId.get(id)!);
    const ofMesh = own[1]?.limb !== undefined;
    if (bundles.length === 0 || (!ofMesh && !context.toCarry))
      return [{ joints: chain, first, size: asked.size, strands: asked.strands, path: own.map((j) => j.at) }];
    const runs = ofMesh ? runsOfMesh(context, bundles, own) : runsOfStart(context, bundles, own);
    return runs.map(({ joints: run, bundle }, i) => ({
      joints: run.map((j) => j.id),
      first: first && i === 0,
      size: bundle.size,
      strands: bundle.strands,
      path: drawnBack(context, run, bundle, i === runs.length - 1),
    }));
  });
}

interface Run {
  readonly joints: readonly PosedJoint[];
  readonly bundle: Bundle;
}

function runsOfMesh(context: SchoolContext, bundles: readonly Bundle[], own: readonly PosedJoint[]): Run[] {
  const runs: { joints: PosedJoint[]; bundle: Bundle }[] = [];
  for (const { joints: part, bundle } of byLimb(own).map((s) => endOf(context, bundles, s))) {
    const last = runs[runs.length - 1];
    if (last && bundle.bears >= last.bundle.bears) last.joints.push(...part.slice(1));
    else runs.push({ joints: [...part], bundle });
  }
  return runs;
}

/**
 * A start form's limb in one wire from end to end, as stout as all of it has room for; only where its outer part has room
 * for so much less is that a wire of its own. What is too thin for any is left without, where it is the last of the limb.
 */
function runsOfStart(context: SchoolContext, bundles: readonly Bundle[], own: readonly PosedJoint[]): Run[] {
  const { joints } = context.form.skeleton;
  const inner = new Set(joints.map((j) => j.parent));
  const ends = !inner.has(own[own.length - 1]!.id);
  const { joints: reached } = endOf(context, bundles, own);
  // A foot is folded over on the board in one piece with its leg.
  const room = reached
    .slice(1)
    .map((to, i) =>
      to.ground || reached[i]!.ground
        ? Infinity
        : roomFor(context, bundles, [reached[i]!, to], ends && i === reached.length - 2),
    );
  // From the tip inwards: the stretch before has room for as much, or for so much more that it gets a wire of its own.
  // The first stretch lies in what the limb hangs on; its wire is the limb's.
  const cuts: number[] = [];
  let least = Math.min(...room) >= wantedFrom(context, reached) ? 0 : Infinity;
  for (let i = room.length - 1; i > 0 && least > 0; i--) {
    if (room[i]! > muchMore * least && room[i]! < Infinity) {
      cuts.unshift(i + 1);
      least = room[i]!;
    } else least = Math.min(least, room[i]!);
  }
  const stops = [0, ...cuts, reached.length - 1];
  return stops.slice(1).map((stop, i): Run => {
    const run = reached.slice(stops[i]!, stop + 1);
    const last = i === stops.length - 2;
    return { joints: run, bundle: stoutest(context, bundles, run, last && ends).bundle };
  });
}
/** Of what a wire bears: from here on two wires are worth binding together. */
const muchMore = 12;

/** What the stoutest bears that lies in the core all along a run, m3; the thinnest there is where none does. */
function roomFor(
  context: SchoolContext,
  bundles: readonly Bundle[],
  run: readonly PosedJoint[],
  ends: boolean,
): number {
  const places = placesOf(context, run, ends);
  return bundles.filter((b) => places.every((p) => fits(b, p, 'in the core'))).at(-1)?.bears ?? bundles[0]!.bears;
}

/** Of an armature sized to carry: how deep its wires are bent to, so that each lies in the middle of what is thin. */
export function bentInto(
  context: SchoolContext,
  stock: string,
  size: string,
  strands: number,
): { readonly drawnIn?: number } {
  if (!context.toCarry) return {};
  const wire = context.across(stock, size);
  const clay = Math.max(0, ...context.form.regions.map((r) => context.clayOver(r)));
  const asked = deeper * (coverWanted(wire, clay) + bundleAcross(wire, strands) / 2);
  return { drawnIn: Math.min(asked, mostBent * heightOf(context.form)) };
}

/** Times what cover asks: there may be a stouter wire in its place; and of the height of the piece, the most. */
const deeper = 1.35,
  mostBent = 0.04;

/** By the limb it runs on into, as a body calls it or a mesh does; else by where it begins and ends. */
export function wireName(run: readonly PosedJoint[]): string {
  const first = run[0]!,
    last = run[run.length - 1]!;
  if (last.limb !== undefined && run.every((j) => j.limb === last.limb)) return `wire in ${last.limb}`;
  const limb = bodyLimb(last.id);
  if (limb) return `${limb} wire`;
  return first === last ? `wire to ${last.name}` : `wire, ${first.name} to ${last.name}`;
}

/** Those that bear least first; no stouter than asked for. */
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

/** Stretches of a chain that are of one limb, each with the joint it begins at. */
function byLimb(chain: readonly PosedJoint[]): PosedJoint[][] {
  const out: PosedJoint[][] = [];
  chain.slice(1).forEach((j, i) => {
    const before = chain[i]!;
    const last = out[out.length - 1];
    // The stretch up to where a limb leaves what it hangs on still lies in that.
    if (last && (before.limb === j.limb || i === 0)) last.push(j);
    else out.push([before, j]);
  });
  return out;
}

/** How far out a limb's wire goes: to its end, or to a joint before it where none that bears enough keeps its cover further. */
function endOf(
  context: SchoolContext,
  bundles: readonly Bundle[],
  joints: readonly PosedJoint[],
): { joints: readonly PosedJoint[]; bundle: Bundle } {
  const end = joints[joints.length - 1]!;
  const ends = !end.ground && context.form.skeleton.joints.every((j) => j.parent !== end.id);
  const long = (run: readonly PosedJoint[]) => run.slice(1).reduce((sum, j, i) => sum + distance(run[i]!.at, j.at), 0);
  let best = { joints, ...stoutest(context, bundles, joints, ends) };
  for (let n = joints.length - 1; ends && n >= 2; n--) {
    const run = joints.slice(0, n);
    if (long(run) < (1 - leftOut) * long(joints)) break;
    const shorter = stoutest(context, bundles, run, true);
    if (shorter.good > best.good) best = { joints: run, ...shorter };
  }
  return best;
}

/** All of its cover; or so much that it still lies in the core, with all the clay over it; or half of it. */
type Room = 'covered' | 'in the core' | 'half';
const inCore = 0.0005;

function fits(b: Bundle, { deep, clay }: Place, room: Room = 'covered'): boolean {
  const wanted = coverWanted(b.wire, clay, undefined, 2 * deep);
  const over = deep - b.across / 2;
  return over >= (room === 'covered' ? wanted : room === 'half' ? wanted / 2 : Math.max(wanted / 2, clay + inCore));
}

/** The stoutest that keeps its cover; where that would give way, what bears enough and still lies in the core. `good`: 3 for the first, 0 for what gives way. */
function stoutest(
  context: SchoolContext,
  bundles: readonly Bundle[],
  run: readonly PosedJoint[],
  ends: boolean,
): { readonly bundle: Bundle; readonly good: number } {
  const places = placesOf(context, run, ends);
  const keeping = (room: Room) => bundles.filter((b) => places.every((p) => fits(b, p, room)));
  const wanted = wantedFrom(context, run);
  const covered = keeping('covered').at(-1);
  if (covered && covered.bears >= wanted) return { bundle: covered, good: 3 };
  const within = keeping('in the core').find((b) => b.bears >= wanted);
  if (within) return { bundle: within, good: 2 };
  const half = keeping('half');
  const enough = half.find((b) => b.bears >= wanted);
  return enough ? { bundle: enough, good: 1 } : { bundle: half.at(-1) ?? bundles[0]!, good: 0 };
}

/** How deep a place lies under the finished face, and the clay over the core there; metres. */
interface Place {
  readonly deep: number;
  readonly clay: number;
}

/** Places along a run where a wire wants its cover. */
function placesOf(context: SchoolContext, run: readonly PosedJoint[], ends: boolean): Place[] {
  return run.slice(1).flatMap((to, i): Place[] => {
    const from = run[i]!;
    // A foot leaves the form where it stands: its cover ends there.
    const since = from.ground ? stopsShort : 0;
    const until = to.ground || (ends && i === run.length - 2) ? 1 - stopsShort : 1;
    const clay = clayAt(context, from.id);
    return Array.from({ length: looks + 1 }, (_, k) => ({
      deep: context.depthAt(mix(from.at, to.at, since + ((until - since) * k) / looks)),
      clay,
    }));
  });
}

/** Strands times diameter cubed that a run needs at its root, for what hangs beyond it or stands on it; m3. */
function wantedFrom({ form, depthAt }: SchoolContext, run: readonly PosedJoint[]): number {
  const { joints } = form.skeleton;
  // The stretch up to where a limb leaves what it hangs on lies in that, and is held by it.
  const root = run[0]!.limb === run[1]!.limb ? run[0]! : run[1]!,
    end = run[run.length - 1]!;
  const radius = (j: PosedJoint) => Math.max(0.001, depthAt(j.at));
  const byId = new Map(joints.map((j) => [j.id, j]));
  const beyond = (from: PosedJoint): number =>
    joints
      .filter((j) => j.parent === from.id)
      .reduce((sum, j) => {
        const middle = mix(from.at, j.at, 0.5);
        const lever = Math.hypot(middle[0] - root.at[0], middle[1] - root.at[1]);
        return sum + volumeOf(radius(from), radius(j), distance(from.at, j.at)) * lever + beyond(j);
      }, 0);
  const feet = joints.filter((j) => j.ground).length;
  const all = joints.reduce((sum, j) => {
    const parent = j.parent === null ? undefined : byId.get(j.parent);
    return parent ? sum + volumeOf(radius(parent), radius(j), distance(parent.at, j.at)) : sum;
  }, 0);
  const moment = end.ground ? (all / Math.max(1, feet)) * lean * distance(root.at, end.at) : beyond(root);
  return (32 * 9.81 * roughDensity * moment) / (Math.PI * roughStrength);
}

const volumeOf = (a: number, b: number, long: number) => (Math.PI * long * (a * a + a * b + b * b)) / 3;

/** The run's places, its end drawn back along its last stretch until there is enough over it. */
function drawnBack(context: SchoolContext, run: readonly PosedJoint[], bundle: Bundle, ends: boolean): Vec3[] {
  const path = run.map((j) => j.at);
  const end = run[run.length - 1]!,
    before = run[run.length - 2]!;
  if (!ends || end.ground || distance(end.at, before.at) < 1e-4) return path;
  const clay = clayAt(context, before.id);
  let share = 1;
  const place = (): Place => ({ deep: context.depthAt(mix(before.at, end.at, share)), clay });
  while (share > 1 - stopsShort && !fits(bundle, place())) share -= 0.025;
  return [...path.slice(0, -1), share < 1 ? mix(before.at, end.at, share) : end.at];
}

function clayAt(context: SchoolContext, joint: string): number {
  const region = context.form.masses.find((m) => m.joint === joint)?.region;
  return region === undefined ? 0 : context.clayOver(region);
}
