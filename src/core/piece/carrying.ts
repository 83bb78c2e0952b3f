import {
  centreOf,
  edgeOfTable,
  fitsIn,
  groundUnder,
  hangFrom,
  liftOf,
  rampPush,
  situationStages,
  standingFigures,
  stanceOnRoad,
  uprightThroughDoor,
  throughDoor,
  vehicles,
  wallPull,
  wearOn,
  type Carry,
  type Hold,
  type Ledger,
  type RoadStance,
  type Stance,
} from '../load';
import { sectionsIn } from '../armature';
import type { Box } from '../form';
import { massBox } from '../form';
import { flatCast, mouldChosen } from '../mould';
import type { Vec3 } from '../quantity';
import { castFrom } from './mould-master';
import type { Piece } from './piece';
import type { CarriedReport, HandlingReport, MountReport } from './report';

/** The finished piece: what is left when its work is done, and how it meets the world and the way there. */

/** What weighs once it is done. A piece that does not stand on its board leaves it; what comes out is gone. */
export function finishedParts(piece: Piece, ledger: Ledger): { mass: number; centre: Vec3 } {
  const { comesOut } = piece.armature;
  const stands = piece.build.armature.mount.kind === 'stands' && comesOut !== 'all';
  const left = ledger.items.filter((i) => {
    if (i.kind === 'base' || i.kind === 'ballast') return stands;
    if (i.kind === 'clay') return true;
    if (i.kind === 'bulk' || i.kind === 'wrap') return comesOut === undefined;
    return comesOut !== 'all' && (stands || !i.id.endsWith('/flange'));
  });
  const { mass, at } = centreOf(left.map((i) => ({ mass: i.dry, at: i.at })));
  return { mass, centre: at };
}

/** What is put on a wall or on a body: where a mould is taken of the piece, the cast of it. */
function putUp(piece: Piece, ledger: Ledger, finished: { readonly mass: number; readonly centre: Vec3 }) {
  const chosen = mouldChosen(piece.build);
  if (!chosen) return { ...finished, most: finished.mass, ofCast: false };
  const { kind, cast, area, volume } = castFrom(piece, chosen);
  const { wall, backing } = flatCast(kind, cast, { area, volume });
  const clay = ledger.items.filter((i) => i.kind === 'clay');
  return {
    mass: wall.nominal + (backing?.nominal ?? 0),
    most: wall.high + (backing?.high ?? 0),
    // A wall of one thickness over the face lies about the same middle as the clay under it.
    centre: clay.length > 0 ? centreOf(clay.map((i) => ({ mass: i.dry, at: i.at }))).at : finished.centre,
    ofCast: true,
  };
}

export function mountOf(
  piece: Piece,
  ledger: Ledger,
  finished: { readonly mass: number; readonly centre: Vec3 },
): MountReport {
  const { mount } = piece.build.armature;
  if (mount.kind === 'stands') return { kind: 'stands' };
  if (mount.kind === 'hangs') return { kind: 'hangs', ...hangFrom(mount.points, finished.mass, finished.centre) };
  if (mount.kind === 'wall') {
    const { mass, centre, ofCast } = putUp(piece, ledger, finished);
    // The plate lies behind everything there is.
    const standsOut = piece.extent.high[1] - centre[1];
    return {
      kind: 'wall',
      ...wallPull(mass, standsOut, mount.height, mount.screws),
      pull: mount.pull,
      standsOut,
      ofCast,
    };
  }
  const { mass, most, centre, ofCast } = putUp(piece, ledger, finished);
  return { kind: 'worn', ofCast, ...wearOn(mount, mass, centre, seatOf(mount.where, piece.extent), most) };
}

/** Middle of what it sits on: under a head or shoulder piece; the body's side of a breast or back plate. */
function seatOf(where: string, box: Box): Vec3 {
  const middle = (k: 0 | 1) => (box.low[k] + box.high[k]) / 2;
  return [middle(0), where === 'chest' ? box.high[1] : where === 'back' ? box.low[1] : middle(1), box.low[2]];
}

const sizeOf = (box: Box, mass: number): Carry => ({
  mass,
  width: box.high[0] - box.low[0],
  depth: box.high[1] - box.low[1],
  height: box.high[2] - box.low[2],
});

/** The finished piece as it is carried: on its board, where it stands on one and keeps it. */
export function wholeToCarry(piece: Piece, mass: number): Carry {
  const { base, comesOut } = piece.armature;
  const alone = piece.build.armature.mount.kind !== 'stands' || comesOut === 'all';
  return alone || base.standing === 'own' ? sizeOf(piece.extent, mass) : onItsBoard(piece, piece.extent, mass);
}

/** What stands on the board, with it: from the ground up. */
function onItsBoard({ armature: { base } }: Piece, box: Box, mass: number): Carry {
  const side = (k: 0 | 1, across: number) =>
    Math.max(box.high[k], base.at[k] + across / 2) - Math.min(box.low[k], base.at[k] - across / 2);
  return { mass, width: side(0, base.width), depth: side(1, base.depth), height: box.high[2] - groundUnder(base) };
}

export function handlingOf(
  piece: Piece,
  ledger: Ledger,
  stance: Stance,
  finished: { readonly mass: number; readonly centre: Vec3 },
): HandlingReport {
  const { travel, limits } = piece.build.brief;
  const { base, comesOut } = piece.armature;
  const alone = piece.build.armature.mount.kind !== 'stands' || comesOut === 'all';
  const hold: Hold | undefined =
    travel.vehicle === 'own'
      ? { id: 'own', name: 'your vehicle', inside: travel.inside, opening: [travel.inside[1], travel.inside[2]] }
      : vehicles.find((v) => v.id === travel.vehicle);
  const opening = { width: travel.doorWidth, height: travel.doorHeight };
  const judge = (name: string, heldBy: string, onBase: boolean, size: Carry): CarriedReport => ({
    name,
    heldBy,
    onBase,
    rolls: onBase && base.standing === 'casters',
    mass: size.mass,
    size,
    lift: liftOf(size),
    // On its board it stays upright; a part of one may be turned any way.
    door: (onBase ? uprightThroughDoor : throughDoor)(size, opening),
    vehicle: hold ? fitsIn(size, hold) : null,
  });
  const boarded = !alone && base.standing !== 'own';
  return {
    whole: judge('whole piece', '', !alone, wholeToCarry(piece, finished.mass)),
    parts: sectionsOf(piece, ledger).map((s) =>
      boarded && s.standing
        ? judge(s.name, s.heldBy, true, onItsBoard(piece, s.box, s.mass + boardMass(ledger)))
        : judge(s.name, s.heldBy, false, sizeOf(s.box, s.mass)),
    ),
    rampPush: rampPush(finished.mass, travel.ramp),
    vehicleName: hold?.name ?? null,
    ...edgeOfTable(base, stance, Math.min(10, limits.tipAngle)),
    road: roadOf(piece, stance, finished, hold !== undefined),
  };
}

/** The finished piece standing on the floor of what drives it, its centre where it is once it is dry. */
function roadOf(
  { build, armature }: Piece,
  stance: Stance,
  finished: { readonly mass: number; readonly centre: Vec3 },
  driven: boolean,
): RoadStance | null {
  if (build.armature.mount.kind !== 'stands' || armature.comesOut === 'all') return null;
  if (!driven && build.brief.situation !== 'moved') return null;
  const road = situationStages({ coats: [], dryDensity: 0 }).find((s) => s.id === 'moved')!;
  const { friction } = standingFigures[armature.base.standing];
  return stanceOnRoad(
    { ...stance, ...finished },
    groundUnder(armature.base),
    friction,
    road.accelerations,
    road.causes,
  );
}

/** kg of the board and of what is fixed to it. */
function boardMass({ items }: Ledger): number {
  return items.filter((i) => i.kind === 'base' || i.kind === 'ballast').reduce((sum, i) => sum + i.dry, 0);
}

interface CarriedSection {
  readonly name: string;
  readonly heldBy: string;
  readonly standing: boolean;
  readonly mass: number;
  readonly box: Box;
}

/** What each section weighs dry: the clay and bulk of its masses, and its share of everything else by volume. */
function sectionsOf(piece: Piece, ledger: Ledger): CarriedSection[] {
  const sections = sectionsIn(piece.armature);
  if (sections.length < 2) return [];
  const { perMass } = piece.volumes;
  const index = new Map(piece.form.masses.map((m, i) => [m.id, i]));
  const dryShare = ledger.clayWet > 0 ? ledger.clayDry / ledger.clayWet : 1;
  const rest = ledger.items.filter((i) => i.kind === 'member' || i.kind === 'wrap').reduce((sum, i) => sum + i.dry, 0);
  const total = perMass.reduce((sum, m) => sum + m.clay + m.bulk, 0);
  return sections.flatMap((s) => {
    const at = s.masses.map((id) => index.get(id)).filter((i): i is number => i !== undefined);
    if (at.length === 0) return [];
    const volume = at.reduce((sum, i) => sum + (perMass[i]?.clay ?? 0) + (perMass[i]?.bulk ?? 0), 0);
    const own = at.reduce(
      (sum, i) =>
        sum +
        (perMass[i]?.clay ?? 0) * piece.mixed.wetDensity * dryShare +
        (piece.face.solid ? 0 : (perMass[i]?.bulk ?? 0) * piece.bulk.density),
      0,
    );
    const boxes = at.map((i) => massBox(piece.form.masses[i]!));
    const side = (pick: 'low' | 'high', of: (...v: number[]) => number) =>
      [0, 1, 2].map((k) => of(...boxes.map((b) => b[pick][k as 0 | 1 | 2]))) as unknown as Vec3;
    return [
      {
        name: s.name,
        heldBy: s.heldBy,
        standing: s.standing ?? false,
        mass: own + (total > 0 ? (rest * volume) / total : 0),
        box: { low: side('low', Math.min), high: side('high', Math.max) },
      },
    ];
  });
}
