import { parseBuild } from '../core/document';
import { asBriefed, Evaluator } from '../core/evaluate';
import {
  DistanceField,
  mendMesh,
  meshUnits,
  readMesh,
  sampleSolid,
  samplesAlong,
  sizeOfMesh,
  solidOfMesh,
  type MeshUnit,
} from '../core/form';
import {
  mouldChosen,
  mouldFigures,
  mouldKinds,
  openSide,
  saidWalls,
  type Master,
  type MouldAsked,
  type MouldFigures,
} from '../core/mould';
import {
  checkAsked,
  masterOfMesh,
  masterOfPiece,
  partingAskedOf,
  partingOf,
  usualParting,
  type PartedMaster,
  type PartingAsked,
} from '../core/parting';
import { masterOf } from '../core/piece';
import { failure, success, type Result, type Vec3 } from '../core/quantity';

/** The mould command: its figures, and how it parts. */
export const mouldUsage =
  'mould BUILD.json|MESH.(stl|obj|ply|glb) [--unit mm|cm|in|m] [--kind KIND] [--cast CAST] [--skin M] [--shell M] [--margin M] [--pieces N] [--pull x,y,z;x,y,z] [--pour x,y,z]';

export interface MouldArguments {
  readonly file: string;
  readonly unit: MeshUnit;
  /** What was said; the rest is the build's own, or usual. */
  readonly asked: Partial<MouldAsked>;
  readonly parting: PartingAsked;
}

const words = ['--unit', '--kind', '--cast', '--pieces', '--pull', '--pour'],
  lengths = ['--skin', '--shell', '--margin'];

/** Reads the options; the failure says which is wrong. */
export function readMouldArguments(args: readonly string[]): Result<MouldArguments> {
  const given: Record<string, string> = {};
  const files: string[] = [];
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    const [name = '', inline] = arg.split('=', 2);
    if (words.includes(name) || lengths.includes(name)) {
      const value = inline === undefined ? args[++i] : arg.slice(name.length + 1);
      if (value === undefined || value === '') return failure('usage', name, `${name} wants something after it`);
      given[name.slice(2)] = value;
    } else if (arg.startsWith('--')) return failure('usage', arg, `there is no option ${arg}: ${mouldUsage}`);
    else files.push(arg);
  }
  const [file] = files;
  if (file === undefined || files.length > 1) return failure('usage', 'mould', mouldUsage);
  const { unit = 'mm', kind, cast } = given;
  if (!Object.hasOwn(meshUnits, unit))
    return failure('usage', '--unit', `it is one of ${Object.keys(meshUnits).join(', ')}, not "${unit}"`);
  const metres: Partial<Record<'skin' | 'shell' | 'margin', number>> = {};
  for (const name of ['skin', 'shell', 'margin'] as const) {
    const said = given[name];
    if (said === undefined) continue;
    const value = Number(said);
    if (!Number.isFinite(value)) return failure('usage', `--${name}`, `"${said}" is no number of metres`);
    metres[name] = value;
  }
  const asked = { ...(kind === undefined ? {} : { kind }), ...(cast === undefined ? {} : { cast }), ...metres };
  const parting = readParting(given);
  if (!parting.ok) return parting;
  return success({ file, unit: unit as MeshUnit, asked, parting: parting.value });
}

/** What is said of its pieces; where nothing is, what the kind that was named wants, or as few as will do. */
function readParting(given: Readonly<Record<string, string>>): Result<PartingAsked> {
  const { pieces, pull, pour, kind } = given;
  const pulls = pull === undefined ? null : vectors('--pull', pull);
  if (pulls && !pulls.ok) return pulls;
  const up = pour === undefined ? null : vectors('--pour', pour);
  if (up && !up.ok) return up;
  if (up && up.value.length !== 1) return failure('usage', '--pour', 'it is one direction, as 0,0,1');
  const usual = pulls || pieces !== undefined ? {} : usualParting(kind);
  const checked = checkAsked({
    ...usual,
    ...(pieces === undefined ? {} : { pieces: Number(pieces) }),
    ...(pulls ? { pulls: pulls.value } : {}),
    ...(up ? { pour: up.value[0]! } : {}),
  });
  return checked.ok ? checked : failure('usage', `--${checked.path}`, checked.message);
}

function vectors(path: string, text: string): Result<Vec3[]> {
  const out = text.split(';').map((v) => v.split(',').map((n) => (n.trim() === '' ? NaN : Number(n))));
  return out.every((v) => v.length === 3 && v.every(Number.isFinite))
    ? success(out as unknown as Vec3[])
    : failure('usage', path, `"${text}" is no direction: three numbers, as 0,0,1`);
}

/** Where nothing says which. */
const usualKind = mouldKinds[2].id;

/** The mould the build says it will have, with what is said here in its place. */
export function mouldOfBuild(text: string, said: Partial<MouldAsked>, parting: PartingAsked): Result<unknown> {
  const build = parseBuild(text);
  if (!build.ok) return build;
  const piece = new Evaluator().piece(asBriefed(build.value));
  if (!piece.ok) return piece;
  const parted = masterOfPiece(piece.value);
  if (!parted.ok) return parted;
  const chosen = said.kind === undefined ? mouldChosen(build.value) : null;
  const own = chosen && { kind: chosen.kind, cast: chosen.cast, ...saidWalls(chosen.walls) };
  const free = parting.pieces === undefined && parting.pulls === undefined && parting.shim === undefined;
  const asked = { kind: usualKind, ...own, ...said };
  const how = chosen && free ? { ...partingAskedOf(build.value), ...parting } : parting;
  return told(mouldFigures(masterOf(piece.value), asked), parted.value, how);
}

/** A mesh in its file's unit, standing on its lowest face. */
export function mouldOfMesh(
  bytes: Uint8Array,
  name: string,
  unit: MeshUnit,
  said: Partial<MouldAsked>,
  parting: PartingAsked,
): Result<unknown> {
  const read = readMesh(bytes, name);
  if (!read.ok) return read;
  const mended = mendMesh(read.value);
  if (!mended.ok) return mended;
  const k = meshUnits[unit];
  const { positions, triangles } = mended.value.mesh;
  const mesh = { positions: positions.map((v) => v * k), triangles };
  // A skin that was scanned from outside is filled; what closes round its own hollow, a cup, is as it is.
  const { openEdges, crowdedEdges } = mended.value;
  const fillHollow = openEdges > 0 || crowdedEdges > 0;
  const solid = solidOfMesh(mesh, samplesAlong(mesh), { fillHollow });
  if (!solid.ok) return solid;
  const shape = sampleSolid(solid.value);
  const field = new DistanceField([
    { id: 'mesh', name, region: 'mesh', at: [0, 0, 0], turn: [0, 0, 0], blend: 0, role: 'face', shape },
  ]);
  const [low, high] = sizeOfMesh(mesh).box;
  const parted = masterOfMesh(mesh, solid.value, field);
  if (!parted.ok) return parted;
  const { face } = parted.value;
  const master: Master = { field, box: { low, high }, board: low[2], front: () => openSide(face).share };
  return told(mouldFigures(master, { kind: usualKind, ...said }), parted.value, parting);
}

function told(made: Result<MouldFigures>, { face, board }: PartedMaster, asked: PartingAsked): Result<unknown> {
  if (!made.ok) return made;
  const work = partingOf(face, board, asked);
  let step = work.next();
  while (!step.done) step = work.next();
  const { pieces, partingLength, locked, lockedVolume, pour, cavities } = step.value;
  const { kind, cast, skin, shell, block, castMass, left, piece } = made.value;
  return success({
    kind: kind.id,
    cast: cast.id,
    pieceVolume: piece,
    skin: skin?.thickness ?? null,
    skinVolume: skin?.volume ?? null,
    shell: shell?.thickness ?? null,
    shellVolume: shell?.volume ?? null,
    margin: block?.thickness ?? null,
    blockVolume: block?.volume ?? null,
    toBuy: [skin, shell, block].flatMap((p) => (p ? [{ material: p.material, mass: p.toBuy }] : [])),
    mass: [skin, shell, block].reduce((sum, p) => sum + (p?.mass ?? 0), 0),
    left,
    castMass,
    pieces: pieces.map(({ direction, area }) => ({ direction, area })),
    partingLength,
    locked,
    lockedVolume,
    cavities,
    pour: pour.up,
    holes: pour.holes,
    vents: pour.vents,
    traps: pour.traps.map((t) => t.at),
    cautions: [...new Set([...kind.cautions, cast.caution])],
  });
}
