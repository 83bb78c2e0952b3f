import type { PosedJoint } from '../form';
import { distance, type Vec3 } from '../quantity';
import { bodyPart } from './body-names';
import type { SchoolContext } from './school';

/** The pose skeleton as limbs: what every school that follows the limbs sets out from. */

/** Joints in chains: each runs on through its first child; every other child starts a chain at its parent. */
export function chainsOf(joints: readonly PosedJoint[]): string[][] {
  const children = childrenOf(joints);
  const chains: string[][] = [];
  const run = (start: readonly string[], id: string) => {
    const chain = [...start];
    for (let at: string | undefined = id; at !== undefined;) {
      chain.push(at);
      const [next, ...others]: string[] = children.get(at) ?? [];
      for (const other of others) run([at], other);
      at = next;
    }
    if (chain.length > 1) chains.push(chain);
  };
  for (const j of joints) if (j.parent === null) run([], j.id);
  return chains;
}

function childrenOf(joints: readonly PosedJoint[]): Map<string, string[]> {
  const children = new Map<string, string[]>();
  for (const j of joints) if (j.parent !== null) children.set(j.parent, [...(children.get(j.parent) ?? []), j.id]);
  return children;
}

/** From what stands on the ground to the head, or else along the longest way there is. */
export function mainChain(joints: readonly PosedJoint[]): string[] {
  const byId = new Map(joints.map((j) => [j.id, j]));
  const upTo = (id: string): string[] => {
    const out: string[] = [];
    for (let at: string | null = id; at !== null; at = byId.get(at)?.parent ?? null) out.unshift(at);
    return out;
  };
  const children = childrenOf(joints);
  const head = byId.get('head');
  const tips = joints.filter((j) => (children.get(j.id) ?? []).length === 0);
  const longest = (among: readonly PosedJoint[]) =>
    among.map((j) => upTo(j.id)).sort((a, b) => b.length - a.length)[0] ?? [];
  return head ? longest(tips.filter((t) => upTo(t.id).includes('head'))) : longest(tips);
}

/** A bone as a body calls it, or by the joints it runs between; in a mesh by its limb, the stretches of which are counted. */
export function boneName(joints: readonly PosedJoint[], fromId: string, toId: string): string {
  const from = joints.find((j) => j.id === fromId),
    to = joints.find((j) => j.id === toId);
  if (to?.limb === undefined || from?.limb === undefined)
    return bodyPart(fromId, toId, joints) ?? `${from?.name ?? fromId} to ${to?.name ?? toId}`;
  if (from.limb !== to.limb) return `${from.limb} to ${to.limb}`;
  const { limb } = to;
  const stretches = joints.filter((j) => j.limb === limb && joints.some((p) => p.id === j.parent && p.limb === limb));
  return stretches.length > 1 ? `${limb}, stretch ${stretches.indexOf(to) + 1}` : limb;
}

/** The joints that meet the base: those made to, as far as the pose leaves them low; else whatever is lowest. */
export function standingJoints(joints: readonly PosedJoint[]): ReadonlySet<string> {
  const low = Math.min(...joints.map((j) => j.at[2])),
    high = Math.max(...joints.map((j) => j.at[2]));
  const near = (j: PosedJoint) => j.at[2] <= low + 0.06 * (high - low) + 1e-9;
  const meant = joints.filter((j) => j.ground && near(j));
  return new Set((meant.length > 0 ? meant : joints.filter(near)).map((j) => j.id));
}

/** Chains as an armature takes them: joints in one place are one; a foot off the ground has no board to be fixed to. */
export function limbsOf(
  joints: readonly PosedJoint[],
): { readonly joints: readonly string[]; readonly first: boolean }[] {
  const standing = standingJoints(joints);
  const byId = new Map(joints.map((j) => [j.id, j]));
  return chainsOf(joints).flatMap((chain, c) => {
    const end = byId.get(chain[chain.length - 1]!);
    const reached = end?.ground && !standing.has(end.id) ? chain.slice(0, -1) : chain;
    const kept = reached.filter(
      (id, i) => i === 0 || distance(byId.get(id)!.at!, byId.get(reached[i - 1]!)!.at!) > 1e-4,
    );
    return kept.length < 2 ? [] : [{ joints: kept, first: c === 0 }];
  });
}

/** A round wire of about a hundredth of the height, the nearest there is: two of them go into the thinnest limbs. */
export function wireForHeight(
  context: Pick<SchoolContext, 'sizesOf' | 'across'>,
  stock: string,
  height: number,
): string {
  return nearestSize(context, stock, height / 100);
}

export function nearestSize(context: Pick<SchoolContext, 'sizesOf' | 'across'>, stock: string, wanted: number): string {
  const sizes = context.sizesOf(stock);
  return sizes.reduce(
    (best, s) =>
      Math.abs(context.across(stock, s) - wanted) < Math.abs(context.across(stock, best) - wanted) ? s : best,
    sizes[0] ?? '',
  );
}

export function lengthOf(path: readonly Vec3[]): number {
  return path.slice(1).reduce((sum, b, i) => sum + distance(path[i]!, b), 0);
}

/** A board for a piece on its own feet: from how far it spreads either way. */
export function footBoard(span: { readonly low: Vec3; readonly high: Vec3 }): {
  readonly width: number;
  readonly depth: number;
} {
  const reach = (low: number, high: number) => Math.max(Math.abs(low), Math.abs(high), 0.03);
  return { width: 2 * reach(span.low[0], span.high[0]) * 0.8, depth: 2 * reach(span.low[1], span.high[1]) * 0.9 };
}
