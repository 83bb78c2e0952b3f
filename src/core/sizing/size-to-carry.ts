import { bundleAcross, sectionAcross, type Member } from '../armature';
import type { Build, MemberEdit } from '../document';
import { joinEfficiency } from '../catalogue';
import { sagLimit } from '../load';
import { loadReport, makePiece, type LoadReport, type Piece, type ResultCache } from '../piece';
import { baseFor, tooHeavy } from './base';
import { bundleOf, bundlesFor, type Bundle } from './bundles';
import { coreUnder } from './core-under-clay';
import { groupsOf, type SizedGroup } from './groups';
import { partsWired } from './parts-to-wire';
import { noSizes, withSizes, type Sizes } from '../school';
import { sagWanted, utilisationWanted, wantedOf, type Wanted } from './wanted';

/**
 * Chooses what an armature is cut from: of what is sold the lightest that bears and resists what a solve asks of it and
 * keeps its cover, then solved again until nothing is asked that is not there. A pure function of the build; what the
 * maker set is never touched. What cannot be had within the room there is stays as near to it as there is room for.
 */
export function sizeToCarry(build: Build, cache: ResultCache): Sizes {
  const core: Sizes = { ...noSizes, parameters: coreUnder(build) };
  const along = partsWired(build, core, cache);
  let sizes: Sizes = along.length > 0 ? { ...core, along } : core;
  const tooLittle: TooLittle = new Map(),
    exhausted = new Set<string>();
  const tried: Sizes[] = [];
  let best: Tried = { sizes, short: Infinity, cut: Infinity };
  for (let round = 0; round < mostRounds; round++) {
    const found = tryOut(build, sizes, cache);
    if (!found) return best.sizes;
    const { piece, load, short, cut } = found;
    const settled = short === 0 && best.short === 0 && cut > 0.95 * best.cut;
    tried.push(sizes);
    best = better(found, best);
    if (settled) break;
    const known = exhausted.size;
    const asked = () => nextSizes(build, sizes, piece, load, tooLittle, exhausted);
    // Where what bends most has no more to give, what bends less on the way is stiffened.
    const next = asked() ?? (exhausted.size > known ? asked() : null);
    if (next === null) break;
    sizes = next;
  }
  return best.short > 0 ? oneByOne(build, best, tried, cache).sizes : best.sizes;
}

interface Tried {
  readonly sizes: Sizes;
  /** How far the worst is over what was asked for. */
  readonly short: number;
  /** kg of what is cut. */
  readonly cut: number;
}

function tryOut(build: Build, sizes: Sizes, cache: ResultCache): (Tried & { piece: Piece; load: LoadReport }) | null {
  const piece = makePiece(withSizes(build, sizes), cache);
  if (!piece.ok) return null;
  const load = loadReport(piece.value, cache, [], false);
  if (!load.ok) return null;
  const short = shortOf(piece.value, load.value);
  return { sizes, short, cut: cutMass(load.value), piece: piece.value, load: load.value };
}

/** Of two as good the lighter; and what was taken off last may not be worth another round. */
function better(found: Tried, best: Tried): Tried {
  const asGood = found.short <= best.short + 0.01;
  return found.short < best.short - 0.01 || (asGood && found.cut < best.cut) ? found : best;
}

/**
 * A round asks all that share in a sag for more at once, and some may have been asked too much: what was tried of each
 * wire is tried again by itself, the others as they were at their best.
 */
function oneByOne(build: Build, from: Tried, tried: readonly Sizes[], cache: ResultCache): Tried {
  const piece = makePiece(withSizes(build, from.sizes), cache);
  if (!piece.ok) return from;
  let best = from,
    left = mostTrials;
  for (const group of groupsOf(build, piece.value.armature.members)) {
    const own = new Set([JSON.stringify(sizesOfGroup(group, best.sizes))]);
    for (const before of tried) {
      const other = sizesOfGroup(group, before);
      if (own.has(JSON.stringify(other)) || left === 0) continue;
      own.add(JSON.stringify(other));
      left--;
      const { parameters, edits } = best.sizes;
      const found = tryOut(
        build,
        { ...best.sizes, parameters: { ...parameters, ...other.parameters }, edits: { ...edits, ...other.edits } },
        cache,
      );
      if (found) best = better(found, best);
    }
  }
  return best;
}
const mostTrials = 6;

/** What was chosen for a group alone. */
function sizesOfGroup({ by, members }: SizedGroup, { parameters, edits }: Sizes): Pick<Sizes, 'parameters' | 'edits'> {
  const own = (keys: readonly (string | undefined)[], all: Readonly<Record<string, unknown>>) =>
    Object.fromEntries(keys.flatMap((k) => (k !== undefined && Object.hasOwn(all, k) ? [[k, all[k]]] : [])));
  return by.together
    ? { parameters: own([by.stock, by.size, by.strands], parameters) as Sizes['parameters'], edits: {} }
    : {
        parameters: {},
        edits: own(
          members.map((m) => m.id),
          edits,
        ) as Sizes['edits'],
      };
}

const mostRounds = 8;
/** What was tried of a group and was not enough: nothing that bears or resists no more is tried again. */
type TooLittle = Map<string, { bears: number; stiffness: number }>;
/** No group is made lighter than this share of what it was in one round: what bows does so all at once. */
const lighterBy = 0.3;
const mostStrands = 4;

/** kg of what is cut. */
function cutMass({ ledger }: LoadReport): number {
  return ledger.items.filter((i) => i.kind === 'member').reduce((sum, i) => sum + i.dry, 0);
}

/** How far the worst is over what was asked for; 0 where all of it is met. */
function shortOf(piece: Piece, load: LoadReport): number {
  const over = (measured: number, wanted: number) => Math.max(0, Math.log(Math.max(1e-9, measured) / wanted));
  const sound = 1.04;
  const members = load.members.reduce((s, m) => s + over(m.utilisation, utilisationWanted * sound), 0);
  const sag = load.lifeStages
    .filter((s) => s.stage.startsWith('clay'))
    .reduce((s, stage) => s + stage.bones.reduce((x, b) => Math.max(x, over(b.sagShare, sagWanted * sound)), 0), 0);
  const splits = piece.clay.setting === 'dries' ? 0.4 : 0.1;
  const out = piece.cover.reduce(
    (s, c) => s + (c.least < 0 ? 1 : c.thinOver.length > 0 ? splits : c.least < c.wanted ? 0.1 : 0),
    0,
  );
  const tips = over(piece.build.brief.limits.tipAngle, Math.max(0.1, load.stance.tipAngle));
  const base = over(Math.max(load.base.boardUtilisation, load.base.screwUtilisation), utilisationWanted * sound);
  return members + sag + out + tips + base + (tooHeavy(piece, load) ? 0.5 : 0) + failingCounts * failing(piece, load);
}

/** What fails weighs more than all that is watched together. */
const failingCounts = 3;

/** How many kinds of thing fail, as the findings have it: a member gives way, an end sags until its pose is lost, a wire splits what dries on it. */
function failing({ cover, clay }: Piece, { members, lifeStages }: LoadReport): number {
  const sags = (s: LoadReport['lifeStages'][number]) => s.bones.some((b) => b.sagShare > sagLimit);
  return [
    members.some((m) => m.utilisation > 1),
    lifeStages.some((s) => s.stage.startsWith('clay') && sags(s)),
    clay.setting === 'dries' && cover.some((c) => c.thinOver.length > 0),
  ].filter(Boolean).length;
}

/** What is to be tried next; null where nothing would be other than it is. */
function nextSizes(
  build: Build,
  now: Sizes,
  piece: Piece,
  load: LoadReport,
  tooLittle: TooLittle,
  /** Bones for which nothing stouter has room. */
  exhausted: Set<string>,
): Sizes | null {
  const wanted = wantedOf(piece, load.members, load.lifeStages, exhausted);
  const parameters: Record<string, string | number | boolean> = { ...now.parameters, ...baseFor(piece, load) };
  const edits: Record<string, MemberEdit> = { ...now.edits };
  for (const group of groupsOf(build, piece.armature.members)) {
    const current = currentOf(piece, group.members[0]!);
    if (!current) continue;
    const asked = askedOf(group, wanted);
    if (!asked) continue;
    const chosen = choose(piece, group, current, asked, leastOf(tooLittle, group.key, current, asked));
    if (!chosen.enough) for (const m of group.members) for (const b of m.bones) exhausted.add(b);
    if (same(chosen.bundle, current)) continue;
    const { stock, size, strands } = chosen.bundle;
    if (group.by.together) {
      if (stock !== current.stock) parameters[group.by.stock] = stock.id;
      parameters[group.by.size] = size.id;
      if (group.free.strands && group.by.strands) parameters[group.by.strands] = strands;
    } else
      for (const m of group.members)
        edits[m.id] = {
          ...edits[m.id],
          ...(group.free.stock ? { stock: stock.id } : {}),
          ...(group.free.size ? { size: size.id } : {}),
          ...(group.free.strands ? { strands } : {}),
        };
  }
  // Where no wire with room is enough, the join it hangs on is made as good as a join by hand gets.
  for (const m of load.members) {
    const bone = piece.armature.bones.find((b) => b.id === m.id)!;
    if (m.utilisation < 1.04 * utilisationWanted || !exhausted.has(m.id)) continue;
    if (
      joinEfficiency(bone.joinFrom) < joinEfficiency(firmest) &&
      build.armature.edits[bone.id]?.joinFrom === undefined
    )
      edits[bone.id] = { ...edits[bone.id], joinFrom: firmest };
  }
  const next: Sizes = { ...now, parameters, edits };
  return JSON.stringify(next) === JSON.stringify(now) ? null : next;
}
const firmest = 'epoxied';

/** What the next of a group must have more of than what did not do. */
function leastOf(
  tooLittle: TooLittle,
  key: string,
  current: Bundle,
  asked: Wanted,
): { bears: number; stiffness: number } {
  const known = tooLittle.get(key) ?? { bears: 0, stiffness: 0 };
  const least = {
    bears: asked.bears > 1.03 ? Math.max(known.bears, current.bears) : known.bears,
    stiffness: asked.stiff > 1.03 ? Math.max(known.stiffness, current.stiffness) : known.stiffness,
  };
  tooLittle.set(key, least);
  return least;
}

function currentOf(piece: Piece, m: Member): Bundle | null {
  const stock = piece.stockOf(m.stock);
  const size = stock?.sizes.find((s) => s.id === m.size);
  return stock && size ? bundleOf(stock, size, m.strands, m.bonded) : null;
}

const same = (a: Bundle, b: Bundle) => a.stock === b.stock && a.size === b.size && a.strands === b.strands;

/** The most that any bone of the group asks of it; null where it runs along none. */
function askedOf(group: SizedGroup, wanted: ReadonlyMap<string, Wanted>): Wanted | null {
  let bears = 0,
    stiff = 0,
    any = false;
  for (const m of group.members)
    for (const id of m.bones) {
      const w = wanted.get(id);
      if (!w) continue;
      any = true;
      bears = Math.max(bears, w.bears);
      stiff = Math.max(stiff, w.stiff);
    }
  return any ? { bears, stiff } : null;
}

/** Cover as it should be; or a third of it, in the core; or so much that no clay shrinks on it; or inside at all. */
type Cover = 'kept' | 'in the core' | 'unsplit' | 'inside';

/**
 * The lightest that is enough, of its own stock where that can be, with as much cover as can be had; else the strongest
 * that there is room for.
 */
function choose(
  piece: Piece,
  group: SizedGroup,
  current: Bundle,
  asked: Wanted,
  tooLittle: { readonly bears: number; readonly stiffness: number },
): { readonly bundle: Bundle; readonly enough: boolean } {
  // What has no room where it is may be as much thinner as it takes.
  const least = fits(piece, group, current, 'kept') ? lighterBy : 0;
  // Half way back towards what did not do, and no further.
  const between = (now: number, did: number) => (did < now ? Math.sqrt(now * did) : 0);
  const wanted = {
    bears: Math.max(Math.max(least, asked.bears) * current.bears, between(current.bears, tooLittle.bears)),
    stiffness: Math.max(
      Math.max(least, asked.stiff) * current.stiffness,
      between(current.stiffness, tooLittle.stiffness),
    ),
  };
  const meets = (share: number) => (b: Bundle) =>
    b.bears >= share * wanted.bears &&
    b.stiffness >= share * wanted.stiffness &&
    (share < 1 || (b.bears > tooLittle.bears && b.stiffness > tooLittle.stiffness));
  const [enough, passes] = [meets(1), meets(justPasses)];
  const height = piece.extent.high[2] - piece.extent.low[2];
  const most = group.free.strands ? mostStrands : current.strands;
  const lists = bundlesFor(
    group.members[0]!,
    group.stock,
    height,
    most,
    group.free.stock ? (group.by.bends ? 'bends' : 'any') : 'none',
    piece.stockOf,
  ).map((list) =>
    list.filter(
      (b) => (group.free.size || b.size === current.size) && (group.free.strands || b.strands === current.strands),
    ),
  );
  const slimmest = [lists.flat().sort((a, b) => a.whole - b.whole)];
  const room = (holds: (b: Bundle) => boolean, cover: Cover) => {
    for (const list of cover === 'inside' ? slimmest : lists) {
      const found = list.find((b) => holds(b) && fits(piece, group, b, cover));
      if (found) return found;
    }
    return undefined;
  };
  // Where not all can be had: what holds, only just, before the cover; cover before what does not hold.
  for (const [holds, cover] of order) {
    if (cover === 'unsplit' && piece.clay.setting !== 'dries') continue;
    const found = room(holds === 'soundly' ? enough : passes, cover);
    if (found) return { bundle: found, enough: holds === 'soundly' };
  }
  const share = (b: Bundle) => Math.min(b.bears / (wanted.bears + 1e-12), b.stiffness / (wanted.stiffness + 1e-12));
  const inside = lists.flat().filter((b) => fits(piece, group, b, 'inside'));
  if (inside.length > 0) return { bundle: inside.reduce((x, b) => (share(b) > share(x) ? b : x)), enough: false };
  // No room for any: the thinnest that holds.
  const thin = lists.flat().filter(passes);
  return {
    bundle: thin.reduce<Bundle>((x, b) => (b.whole < x.whole ? b : x), thin[0] ?? current),
    enough: false,
  };
}

/** Of what is asked for, so that it does not fail: 1 for what reads sound. */
const justPasses = 0.6;
const order: readonly (readonly ['soundly' | 'just', Cover])[] = [
  ['soundly', 'kept'],
  ['soundly', 'in the core'],
  ['just', 'kept'],
  ['just', 'in the core'],
  ['soundly', 'unsplit'],
  ['just', 'unsplit'],
  ['soundly', 'inside'],
  ['just', 'inside'],
];

/** Metres that lie over what is in the core and not in the clay. */
const underClay = 0.0002;

function fits(piece: Piece, group: SizedGroup, b: Bundle, cover: Cover): boolean {
  return nearestTheFace(piece, group.members).every((m) => {
    const now = piece.cover.find((c) => c.member === m.id);
    if (!now) return true;
    const stock = piece.stockOf(m.stock);
    const size = stock?.sizes.find((s) => s.id === m.size);
    const whole = size ? bundleAcross(sectionAcross(size.section), m.strands) : 0;
    // What is thinner along the same way lies so much deeper.
    if (now.least + (whole - b.whole) / 2 < underClay) return false;
    if (cover === 'inside') return true;
    const then = piece.coverAs(m, b);
    if (!then) return true;
    const least = cover === 'kept' ? then.wanted : cover === 'unsplit' ? 0 : then.wanted / 3;
    return then.thinOver.length === 0 && then.least >= least;
  });
}

/** Of many that are alike those that have least over them: the others have more. */
function nearestTheFace(piece: Piece, members: readonly Member[]): readonly Member[] {
  if (members.length <= looked) return members;
  const least = new Map(piece.cover.map((c) => [c.member, c.least - c.wanted]));
  return [...members].sort((a, b) => (least.get(a.id) ?? Infinity) - (least.get(b.id) ?? Infinity)).slice(0, looked);
}
const looked = 6;
