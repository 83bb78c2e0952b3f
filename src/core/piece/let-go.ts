import { sagLimit, sagWatched, type StageCheck } from '../load';
import { formatDuration, sensible } from '../quantity';
import { coatMass } from './laying';
import type { LoadReport } from './load-report';
import type { Piece } from './piece';
import type { LetGo, RegionReport } from './report';

/**
 * When the hand or the prop may go: when the armature bears it, and keeps its pose. With the strength of fresh clay
 * throughout (dried clay is never relied on for strength), the only thing that changes is the water that leaves: between
 * wet and dry the load falls in step with it. Where the armature bears it and gives too far, the pose is kept by clay
 * that is hard: `hardens`, seconds, null where it never is.
 */
export function letGo(
  piece: Piece,
  load: Pick<LoadReport, 'unpropped'>,
  regions: readonly RegionReport[],
  hardens: number | null,
): LetGo {
  const worst = (c: StageCheck | undefined) =>
    c?.bones.reduce((m, b) => Math.max(m, b.utilisation, b.buckling), 0) ?? 0;
  const clayOn = load.unpropped.filter((c) => c.stage.startsWith('clay'));
  const unproppedWet = clayOn.reduce((m, c) => Math.max(m, worst(c)), 0);
  const unproppedDry = worst(load.unpropped.find((c) => c.stage === 'dry'));
  const sags = clayOn.flatMap((c) => c.bones).reduce((m, b) => Math.max(m, b.sagShare), 0);
  // What is propped is propped so that it keeps its place: it is let go when it would not even be watched without.
  const keeps = piece.build.armature.props.length > 0 ? sagWatched : sagLimit;
  const figures = { unproppedWet, unproppedDry, sags, keeps };
  const bears =
    unproppedWet <= 1
      ? 0
      : unproppedDry <= 1 && piece.mixed.drying
        ? timeOfWaterLost(piece, regions, (unproppedWet - 1) / (unproppedWet - unproppedDry))
        : null;
  if (bears === null) return { when: 'never', after: null, ...figures };
  if (sags <= keeps) return { when: bears === 0 ? 'at-once' : 'after', after: bears, ...figures };
  if (hardens === null) return { when: 'never', after: null, ...figures };
  return { when: 'after', after: Math.max(bears, hardens), ...figures };
}

/** What is said of it; the pose comes first where that is what keeps the prop in longest. */
export function letGoWords(l: LetGo): string {
  const asked = `asked for ${sensible(l.unproppedWet, 2)} times what it can bear`;
  const past = l.sags > sagLimit ? sagLimit : sagWatched;
  const pose = `it sags by ${sensible(l.sags * 100, 2)} % of its way from the base, and past ${sensible(past * 100)} % ${l.sags > sagLimit ? 'the pose is lost' : 'it shows'}`;
  if (l.when === 'at-once') return 'You may let go as soon as the clay is on: the armature carries it without a prop.';
  if (l.when === 'after' && l.after !== null)
    return l.sags > l.keeps
      ? `Hold or prop it for ${formatDuration(l.after)}, until the clay is hard: let go before then, ${pose}.`
      : `Hold or prop it for ${formatDuration(l.after)}: by then enough water has left. Until then it is ${asked}.`;
  return l.unproppedWet <= 1
    ? `Not by itself: let go, ${pose}, and this clay does not harden to keep it. Strengthen it, or leave the prop in.`
    : `Not by itself: unpropped it is ${asked}, and ${sensible(l.unproppedDry, 2)} when dry. Strengthen it, or leave the prop in.`;
}

/** Why a prop stays in so long, as a plan says what it waits for. */
export function letGoWaitsFor(l: LetGo): string {
  return l.sags > l.keeps ? 'the clay is hard and keeps the pose' : 'it carries itself';
}

/** Seconds until `share` of the water that will leave the whole piece has left. */
function timeOfWaterLost(piece: Piece, regions: readonly RegionReport[], share: number): number | null {
  const d = piece.mixed.drying;
  if (!d) return null;
  const last = regions.reduce((m, r) => Math.max(m, r.throughDry ?? Infinity), 0);
  if (!Number.isFinite(last)) return null;
  const wet = waterAt(piece, regions, 0),
    end = waterAt(piece, regions, last);
  let low = 0,
    high = last;
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (wet - waterAt(piece, regions, middle) < share * (wet - end)) low = middle;
    else high = middle;
  }
  return high;
}

/** kg of water in the clay that is on at `time` seconds. */
export function waterAt(piece: Piece, regions: readonly RegionReport[], time: number): number {
  const d = piece.mixed.drying;
  if (!d) return 0;
  return regions.reduce((sum, r) => sum + clayMassAt(r, d.rho_dry, time).water, 0);
}

/** Dry solids of a region's clay that is on at `time`, and its water: in the clay and in the core under it. */
export function clayMassAt(region: RegionReport, rhoDry: number, time: number): { solids: number; water: number } {
  let solids = 0,
    water = 0;
  for (const coat of region.coats) {
    if (coat.start > time) continue;
    const own = rhoDry * region.clayVolume * (region.thickness > 0 ? coat.thickness / region.thickness : 1);
    solids += own;
    const has = coatMass(coat, own, rhoDry, time - coat.start);
    water += has.water + has.core;
  }
  return { solids, water };
}
