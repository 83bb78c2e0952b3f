import type { LimbJoint, Limbs } from '../../document';
import { add, distance, scale, subtract, type Vec3 } from '../../quantity';
import type { RawJoint } from './line-tree';

const { abs, max } = Math;

/**
 * What limbs are called until their maker says otherwise: bodies where limbs meet, a head beyond a neck, limbs by number
 * and place, the number shared by two that are each other's reflection.
 */
interface Box {
  readonly low: Vec3;
  readonly high: Vec3;
}

interface Group {
  readonly joints: number[];
  readonly body: boolean;
  name: string;
  pair?: Group;
}

/** A piece that is alike left and right of its middle: how far off it a joint may have been found that belongs there. */
export interface Even {
  readonly middle: number;
  readonly near: number;
}

/** A pair is made alike in each. */
const mostRounds = 30;

/** `even`: null where left and right differ. */
export function namedLimbs(raw: readonly RawJoint[], box: Box, even: Even | null, rounds = mostRounds): Limbs {
  const groups = groupsOf(raw);
  const all = [...new Set(groups)];
  nameBodies(
    all.filter((g) => g.body),
    raw,
  );
  nameHead(all, groups, raw, box);
  const limbs = all.filter((g) => g.name === '').sort((a, b) => lengthOf(b, raw) - lengthOf(a, raw));
  pairUp(limbs, raw, box, even?.middle ?? (box.low[0] + box.high[0]) / 2);
  const alike = even && rounds > 0 ? withLikeTwins(limbs, raw, even) : null;
  if (alike) return namedLimbs(alike, box, even, rounds - 1);
  const places = even ? evened(limbs, raw, even) : raw;
  let number = 0;
  for (const g of limbs) {
    if (g.name !== '') continue;
    number++;
    g.name = placed(g, raw, box, number);
    if (g.pair) g.pair.name = placed(g.pair, raw, box, number);
  }
  const id = (i: number) => `j${i + 1}`;
  return raw.map((j, i) => {
    const made: LimbJoint = {
      id: id(i),
      kind: j.kind,
      limb: groups[i]!.name,
      parent: j.parent === null ? null : id(j.parent),
      at: [...places[i]!.at],
      radius: places[i]!.radius,
    };
    const { pair } = groups[i]!;
    const at = groups[i]!.joints.indexOf(i);
    if (!pair || tipOf(pair, raw)[0] < tipOf(groups[i]!, raw)[0] || pair.joints.length !== groups[i]!.joints.length)
      return made;
    return { ...made, twinOf: id(pair.joints[at]!) };
  });
}

/** Where limbs meet is a body of its own from this share of the thickest on; else it is a fork of a limb. */
const bodyShare = 0.45;

/** By joint: the limb that what runs on from it belongs to. */
function groupsOf(raw: readonly RawJoint[]): Group[] {
  const children = raw.map((_, i) => raw.flatMap((j, k) => (j.parent === i ? [k] : [])));
  const bodies = new Map<number, Group>();
  const thickest = raw.reduce((most, j) => (j.kind === 'body' ? max(most, j.radius) : most), 0);
  raw.forEach((j, i) => {
    const own = j.kind === 'body' && (j.line < 0 || j.radius >= bodyShare * thickest);
    if (own) bodies.set(i, { joints: [i], body: true, name: '' });
  });
  const lines = new Map<number, Group>();
  const of: (Group | undefined)[] = raw.map((_, i) => bodies.get(i));
  const onward = (i: number): Group => {
    if (of[i]) return of[i]!;
    const { kind, line, parent } = raw[i]!;
    let end = children[i]![0] ?? i;
    while (children[end]!.length === 1 && !bodies.has(end) && raw[end]!.kind !== 'narrow') end = children[end]![0]!;
    const next = children[i]![0];
    // A line that ends where limbs meet belongs to what it ends in; one that ends in a thin place, to what it came from.
    const own = kind === 'narrow' && next !== undefined ? raw[next]!.line : line;
    const before = raw[end]!.kind === 'narrow' && end !== i && parent !== null ? onward(parent) : undefined;
    // What stands on a fork of a limb is that limb's foot.
    const foot = kind === 'foot' && parent !== null && raw[parent]!.kind === 'body' && !bodies.has(parent);
    const group =
      before ??
      (foot ? onward(parent) : undefined) ??
      bodies.get(end) ??
      lines.get(own) ??
      ({ joints: [], body: false, name: '' } as Group);
    if (!group.body && !foot) lines.set(own, group);
    group.joints.push(i);
    return (of[i] = group);
  };
  return raw.map((_, i) => onward(i));
}

function nameBodies(bodies: readonly Group[], raw: readonly RawJoint[]): void {
  const height = (g: Group) => raw[g.joints[0]!]!.at[2];
  const upward = [...bodies].sort((a, b) => height(a) - height(b));
  const names = upward.length === 2 ? ['lower body', 'upper body'] : [];
  upward.forEach((g, i) => (g.name = upward.length === 1 ? 'body' : (names[i] ?? `body ${i + 1}`)));
}

/** A neck is no thinner than this share of the body. */
const neckShare = 0.4;

/** A head is what lies beyond a thin place, above it, thicker than it, and highest of all. */
function nameHead(all: readonly Group[], groups: readonly Group[], raw: readonly RawJoint[], { low, high }: Box): void {
  const heads = all.filter((g) =>
    g.joints.some((i) => {
      const { kind, at, radius } = raw[i]!;
      if (kind !== 'narrow' || at[2] < low[2] + 0.4 * (high[2] - low[2])) return false;
      if (radius < neckShare * raw.reduce((most, j) => (j.kind === 'body' ? max(most, j.radius) : most), 0))
        return false;
      const beyond = raw.filter((_, k) => k !== i && groups[k] === g);
      return beyond.length > 0 && beyond.every((b) => b.at[2] > at[2]) && beyond.some((b) => b.radius > 0.6 * radius);
    }),
  );
  const highest = (g: Group) => g.joints.reduce((z, i) => max(z, raw[i]!.at[2]), -Infinity);
  const head = heads.sort((a, b) => highest(b) - highest(a))[0];
  if (head) head.name = 'head';
}

function tipOf(g: Group, raw: readonly RawJoint[]): Vec3 {
  return raw[g.joints[g.joints.length - 1]!]!.at;
}

/** Where what it hangs on is. */
function rootOf(g: Group, raw: readonly RawJoint[]): Vec3 {
  const { at, parent } = raw[g.joints[0]!]!;
  return parent === null ? at : raw[parent]!.at;
}

function lengthOf(g: Group, raw: readonly RawJoint[]): number {
  return g.joints.reduce((sum, i) => {
    const { parent, at } = raw[i]!;
    return sum + (parent === null ? 0 : distance(at, raw[parent]!.at));
  }, 0);
}

/** Two ends apart straight across, alike in length: each the other's reflection. */
function pairUp(limbs: readonly Group[], raw: readonly RawJoint[], { low, high }: Box, middle: number): void {
  const chances = limbs
    .flatMap((a, i) => limbs.slice(i + 1).map((b) => ({ a, b })))
    .map(({ a, b }) => {
      const [p, q] = [tipOf(a, raw), tipOf(b, raw)];
      const across = subtract(p, q);
      const square = abs(across[0]) / max(1e-9, distance(p, q));
      const off = abs((p[0] + q[0]) / 2 - middle) / (high[0] - low[0]);
      const alike = lengthOf(a, raw) / max(1e-9, lengthOf(b, raw));
      // They hang on one joint, or on two that are across from each other.
      const [r, s] = [rootOf(a, raw), rootOf(b, raw)];
      const hung = distance([2 * middle - r[0], r[1], r[2]], s) / (high[0] - low[0]);
      return { a, b, square, off, alike, hung };
    })
    .filter((c) => c.square > 0.95 && c.off < 0.1 && c.hung < 0.15 && c.alike < 1.3 && c.alike > 1 / 1.3)
    .sort((a, b) => b.square - a.square);
  for (const { a, b } of chances)
    if (!a.pair && !b.pair) {
      a.pair = b;
      b.pair = a;
    }
}

/** Of a pair in an even piece whose joints were found otherwise in one than in the other: it is made its reflection. Null where there is none. */
function withLikeTwins(limbs: readonly Group[], raw: readonly RawJoint[], even: Even): RawJoint[] | null {
  const isChain = ({ joints }: Group) =>
    joints.every((i, n) => n === 0 || (i === joints[n - 1]! + 1 && raw[i]!.parent === i - 1)) &&
    raw.every((j, i) => j.parent === null || !joints.includes(j.parent) || joints.includes(i));
  const unlike = ({ joints }: Group, { joints: others }: Group) =>
    joints.length < others.length ||
    (joints.length === others.length && joints.some((i, n) => !areTwins(raw[i]!, raw[others[n]!]!, even)));
  const fewer = limbs.find((g) => g.pair && unlike(g, g.pair) && isChain(g) && isChain(g.pair));
  if (!fewer) return null;
  const from = fewer.joints[0]!,
    until = from + fewer.joints.length;
  const { parent, line } = raw[from]!;
  const made = fewer.pair!.joints.map((i, n): RawJoint => {
    const { kind, at, radius } = raw[i]!;
    return {
      kind,
      at: reflected(at, even),
      radius,
      parent: n === 0 ? parent : from + n - 1,
      line,
    };
  });
  const moved = (j: RawJoint): RawJoint =>
    j.parent !== null && j.parent >= until ? { ...j, parent: j.parent + made.length - fewer.joints.length } : j;
  return [...raw.slice(0, from), ...made, ...raw.slice(until).map(moved)];
}

/** Two joints that are each other's reflection within this share of how thick the limb is there are made it exactly. */
const nearlyEven = 0.5;

function areTwins(a: RawJoint, b: RawJoint, even: Even): boolean {
  return distance(a.at, reflected(b.at, even)) < max(even.near, (nearlyEven * (a.radius + b.radius)) / 2);
}

function reflected([x, y, z]: Vec3, { middle }: Even): Vec3 {
  return [2 * middle - x, y, z];
}

/**
 * Each found for itself, the two of a pair differ by a place or so of the lattice: what the two say together stands for
 * both. What lies in the middle of an even piece, within `near` of it, is put there.
 */
function evened(limbs: readonly Group[], raw: readonly RawJoint[], even: Even): Place[] {
  const { middle, near } = even;
  const out = raw.map(({ at: [x, y, z], radius }): Place => ({
    at: [abs(x - middle) <= near ? middle : x, y, z],
    radius,
  }));
  for (const { joints, pair } of limbs) {
    if (!pair || pair.joints.length !== joints.length) continue;
    joints.forEach((i, n) => {
      const [own, other] = [raw[i]!, raw[pair.joints[n]!]!];
      if (areTwins(own, other, even))
        out[i] = { at: scale(add(own.at, reflected(other.at, even)), 0.5), radius: (own.radius + other.radius) / 2 };
    });
  }
  return out;
}

interface Place {
  readonly at: Vec3;
  readonly radius: number;
}

function placed(g: Group, raw: readonly RawJoint[], { low, high }: Box, number: number): string {
  const tip = tipOf(g, raw);
  const share = tip.map((v, k) => (v - low[k]!) / max(1e-9, high[k]! - low[k]!));
  const words = [`limb ${number}`];
  if (g.pair) words.push(tip[0] > tipOf(g.pair, raw)[0] ? 'left' : 'right');
  else if (abs(share[0]! - 0.5) > 0.2) words.push(share[0]! > 0.5 ? 'left' : 'right');
  if (share[2]! > 0.75) words.push('top');
  else if (share[1]! < 0.3) words.push('front');
  else if (share[1]! > 0.7) words.push('back');
  return words.join(', ');
}
