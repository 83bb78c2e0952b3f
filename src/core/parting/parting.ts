import { openSide } from '../mould';
import { failure, success, unit, type Result, type Vec3 } from '../quantity';
import { opposite } from './directions';
import { cavitiesOf, type Cavity } from './cavities';
import type { MasterFace } from './face';
import { HeightFields } from './height-fields';
import { labelTriangles, seamWeight } from './labels';
import { findLocks, type Lock } from './locks';
import { partingLines, type PartingLine } from './parting-line';
import { airTraps, bestPour, pouredWith, type Pour } from './pour';
import { FaceRays } from './rays';
import { roughFace } from './rough-face';
import { chooseDirections, mostPieces, settled, undrawnAllowed, type Chosen, type Working } from './search';
import { bestShim, shimAt, type Shim } from './shim';
import { stretchAlong, type Stretch } from './stretch';

/** How a mould is to part; what is left out is looked for. */
export interface PartingAsked {
  readonly pieces?: number;
  /** Share of the face for which one more is made, where their number is left open. */
  readonly worth?: number;
  readonly pulls?: readonly Vec3[];
  readonly pour?: Vec3;
  /** One part over the front of a piece that lies on its back, open behind. */
  readonly open?: boolean;
  /** In two halves at a flat sheet; a plane that is given, or the best. */
  readonly shim?: boolean | { readonly normal: Vec3; readonly offset: number };
}

/** A part of the mould: drawn along its direction, m2 of the face it lies on, and of that what is steep for a rigid mould. */
export interface MouldPiece {
  readonly direction: Vec3;
  readonly area: number;
  /** m2 within three degrees of its direction. */
  readonly steep: number;
  /** m2 that do not come off along it. */
  readonly undrawn: number;
  /** Metres it comes away before what does not come off holds it; Infinity where it comes off. */
  readonly travel: number;
}

export interface Parting {
  readonly pieces: readonly MouldPiece[];
  /** By triangle: its piece. */
  readonly labels: Uint8Array;
  /** By triangle: does not come off with its piece. */
  readonly held: Uint8Array;
  /** m2 that a mould open behind leaves open, labelled past the last piece; null for any other. */
  readonly behind: number | null;
  readonly lines: readonly PartingLine[];
  readonly partingLength: number;
  readonly locked: readonly Lock[];
  readonly lockedVolume: number;
  readonly pour: Pour;
  readonly shim: Shim | null;
  readonly undrawn: Undrawn;
  /** Of the face, what one part more would free; null where it was not looked for. */
  readonly oneMore: number | null;
  readonly cavities: readonly Cavity[];
  /** Of a mould that gives, drawn along the first direction. */
  readonly stretch: Stretch;
}

/** Shares of the face that stay behind; null where it was not looked for. */
export interface Undrawn {
  readonly one: number | null;
  readonly two: number | null;
  /** Of what one part that is open behind would lie over. */
  readonly open: number;
}

/** A part comes off a rigid face that leans away from its direction by this much. */
const draft = Math.sin((3 * Math.PI) / 180);

/** Bad directions as failures that name them; nothing else fails. */
export function checkAsked({ pieces, pulls, pour, shim, worth, open }: PartingAsked): Result<PartingAsked> {
  if (pieces !== undefined && !(Number.isInteger(pieces) && pieces >= 1 && pieces <= mostPieces))
    return failure('bad-pieces', 'pieces', `a mould has 1 to ${mostPieces} of them`);
  if (pulls !== undefined && (pulls.length < 1 || pulls.length > mostPieces))
    return failure('bad-pull', 'pull', `1 to ${mostPieces} directions are said`);
  const given = typeof shim === 'object' ? [shim.normal] : [];
  for (const [path, d] of [
    ...(pulls ?? []).map((p) => ['pull', p] as const),
    ...given.map((n) => ['shim', n] as const),
  ])
    if (!isDirection(d)) return failure('bad-direction', path, 'it is three numbers, not all of them nought');
  if (pour && !isDirection(pour))
    return failure('bad-direction', 'pour', 'it is three numbers, not all of them nought');
  return success({
    ...(pieces === undefined ? {} : { pieces }),
    ...(worth === undefined ? {} : { worth }),
    ...(open ? { open } : {}),
    ...(pulls ? { pulls: pulls.map(unit) } : {}),
    ...(pour ? { pour: unit(pour) } : {}),
    ...(shim === undefined ? {} : { shim: typeof shim === 'object' ? { ...shim, normal: unit(shim.normal) } : shim }),
  });
}

function isDirection(d: Vec3): boolean {
  const l = Math.hypot(...d);
  return d.length === 3 && Number.isFinite(l) && l > 1e-9;
}

/** `asked` as `checkAsked` left it. Tells how far it is between parts of the work. */
export function* partingOf(face: MasterFace, board: number | null, asked: PartingAsked): Working<Parting> {
  let shim: Shim | null = null;
  let chosen: Chosen;
  const rough = roughFace(face);
  if (asked.shim) {
    shim =
      typeof asked.shim === 'object'
        ? shimAt(face, asked.shim.normal, asked.shim.offset)
        : yield* scaled(bestShim(face), 0, 0.7);
    chosen = bySides(face, shim);
  } else if (asked.open) chosen = openFront(face, true);
  else if (asked.pulls) chosen = settled(face, new FaceRays(face), asked.pulls);
  else chosen = yield* scaled(chooseDirections(face, asked.pieces ?? null, asked.worth, rough), 0, 0.8);
  yield 0.8;
  const { directions, labels, held } = withHeld(face, chosen);
  const lines = partingLines(face, labels);
  yield 0.83;
  const locked = asked.open
    ? findLocks(face, directions, board, { over: labels, pull: opposite(directions[0]!) })
    : findLocks(face, directions, board);
  yield 0.9;
  const stretch = stretchAlong(face, directions[0]!);
  const pour = yield* pourOf(face, rough, asked.pour);
  return {
    pieces: directions.map((direction, i) => pieceOf(face, direction, i, labels, held)),
    undrawn: {
      one: null,
      two: null,
      ...chosen.undrawn,
      open: openLeft(face, asked.open ? chosen : openFront(face, false)),
    },
    behind: asked.open ? areaOf(face, (t) => labels[t]! > 0) : null,
    labels,
    held,
    oneMore: chosen.oneMore,
    cavities: cavitiesOf(face),
    lines,
    partingLength: lines.reduce((sum, l) => sum + l.length, 0),
    locked,
    lockedVolume: locked.reduce((sum, l) => sum + l.volume, 0),
    pour,
    shim,
    stretch,
  };
}

/**
 * One part, drawn along the open side's direction: over all it can be drawn from. The rest, where it can be drawn the
 * other way, is left open behind; what can be drawn neither way holds it. By pictures, or by rays for good.
 */
function openFront(face: MasterFace, byRays: boolean): Chosen {
  const { draw } = openSide(face);
  const front = new Uint8Array(face.count),
    back = new Uint8Array(face.count);
  new HeightFields(face).look(draw).drawable(front, back);
  if (byRays) front.set(new FaceRays(face).drawable(draw));
  const behind = back.map((drawn, t) => (front[t] ? 0 : drawn));
  const labels = labelTriangles(face, [front, behind], seamWeight(face));
  return { directions: [draw], drawable: [front], labels, undrawn: null, oneMore: null };
}

/** Of what an open part lies over, the share that does not come off. */
function openLeft(face: MasterFace, { drawable, labels }: Chosen): number {
  const under = areaOf(face, (t) => labels[t] === 0);
  return under > 0 ? areaOf(face, (t) => labels[t] === 0 && !drawable[0]![t]) / under : 0;
}

/** m2 a mould may lie on, of these. */
function areaOf({ count, stands, areas }: MasterFace, counts: (t: number) => boolean): number {
  let area = 0;
  for (let t = 0; t < count; t++) if (!stands[t] && counts(t)) area += areas[t]!;
  return area;
}

/** With what does not come off: triangles of a part that its direction does not draw. */
export function withHeld(face: MasterFace, chosen: Chosen): Chosen & { readonly held: Uint8Array } {
  const { drawable, labels } = chosen;
  // What lies past the last piece is under none.
  const held = labels.map((label, t) => (!face.stands[t] && drawable[label]?.[t] === 0 ? 1 : 0));
  return { ...chosen, held };
}

function* pourOf(face: MasterFace, rough: MasterFace, up: Vec3 | undefined): Working<Pour> {
  if (up) return pouredWith(up, airTraps(face, up));
  return yield* scaled(bestPour(face, rough), 0.92, 1);
}

function* scaled<T>(work: Working<T>, from: number, to: number): Working<T> {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
    yield from + value * (to - from);
  }
}

/** At a flat sheet it is the side that says which way a place is drawn, whether it can be or not. */
function bySides(face: MasterFace, { normal, offset }: Shim): Chosen {
  const back: Vec3 = [-normal[0], -normal[1], -normal[2]];
  const rays = new FaceRays(face);
  const { centres: c } = face;
  const labels = new Uint8Array(face.count).map((_, t) =>
    c[3 * t]! * normal[0] + c[3 * t + 1]! * normal[1] + c[3 * t + 2]! * normal[2] > offset ? 0 : 1,
  );
  return {
    directions: [normal, back],
    drawable: [rays.drawable(normal), rays.drawable(back)],
    labels,
    undrawn: null,
    oneMore: null,
  };
}

function pieceOf(face: MasterFace, direction: Vec3, label: number, labels: Uint8Array, held: Uint8Array): MouldPiece {
  let area = 0,
    steep = 0,
    undrawn = 0;
  const { normals: n, areas, stands } = face;
  for (let t = 0; t < face.count; t++) {
    if (stands[t] || labels[t] !== label) continue;
    area += areas[t]!;
    if (held[t]) undrawn += areas[t]!;
    else if (n[3 * t]! * direction[0] + n[3 * t + 1]! * direction[1] + n[3 * t + 2]! * direction[2] < draft)
      steep += areas[t]!;
  }
  // So little is pressed flat, filled or cut, and holds nothing.
  const travel = undrawn <= undrawnAllowed * face.area ? Infinity : travelOf(face, direction, label, labels, held);
  return { direction, area, steep, undrawn, travel };
}

/** The way to what it meets, of the triangles that hold it: a face that leans away meets what it lies on at once. */
function travelOf(face: MasterFace, direction: Vec3, label: number, labels: Uint8Array, held: Uint8Array): number {
  const rays = new FaceRays(face);
  let least = Infinity;
  const { centres: c, normals: n } = face;
  for (let t = 0; t < face.count && least > 0; t++) {
    if (!held[t] || labels[t] !== label || face.stands[t]) continue;
    const k = 3 * t;
    const leans = n[k]! * direction[0] + n[k + 1]! * direction[1] + n[k + 2]! * direction[2];
    const off = 0.05 * face.medianEdge;
    const from: Vec3 = [c[k]! + n[k]! * off, c[k + 1]! + n[k + 1]! * off, c[k + 2]! + n[k + 2]! * off];
    least = Math.min(least, leans < 0 ? 0 : rays.meets(from, direction));
  }
  return least;
}
