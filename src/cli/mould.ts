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
import { mouldFigures, mouldKinds, type Master, type MouldAsked, type MouldFigures } from '../core/mould';
import { failure, success, type Result } from '../core/quantity';

/** mould BUILD.json|MESH [--unit mm] [--kind KIND] [--cast CAST] [--skin M] [--shell M] [--margin M]. */
export const mouldUsage =
  'mould BUILD.json|MESH.(stl|obj|ply|glb) [--unit mm|cm|in|m] [--kind KIND] [--cast CAST] [--skin M] [--shell M] [--margin M]';

export interface MouldArguments {
  readonly file: string;
  readonly unit: MeshUnit;
  readonly asked: MouldAsked;
}

const words = ['--unit', '--kind', '--cast'],
  lengths = ['--skin', '--shell', '--margin'];

/** Reads the options; the failure says which is wrong. */
export function readMouldArguments(args: readonly string[]): Result<MouldArguments> {
  const given: Record<string, string> = {};
  const files: string[] = [];
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    const [name = '', inline] = arg.split('=', 2);
    if (words.includes(name) || lengths.includes(name)) {
      const value = inline ?? args[++i];
      if (value === undefined || value === '') return failure('usage', name, `${name} wants something after it`);
      given[name.slice(2)] = value;
    } else if (arg.startsWith('--')) return failure('usage', arg, `there is no option ${arg}: ${mouldUsage}`);
    else files.push(arg);
  }
  const [file] = files;
  if (file === undefined || files.length > 1) return failure('usage', 'mould', mouldUsage);
  const { unit = 'mm', kind = mouldKinds[2].id, cast } = given;
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
  const asked = { kind, ...(cast === undefined ? {} : { cast }), ...metres };
  return success({ file, unit: unit as MeshUnit, asked });
}

export function mouldOfBuild(text: string, asked: MouldAsked): Result<unknown> {
  const build = parseBuild(text);
  if (!build.ok) return build;
  const piece = new Evaluator().piece(asBriefed(build.value));
  if (!piece.ok) return piece;
  const { field, extent, armature } = piece.value;
  const board = armature.base.standing === 'own' ? extent.low[2] : 0;
  return told(mouldFigures({ field, box: extent, board }, asked));
}

/** A mesh in its file's unit, standing on its lowest face. */
export function mouldOfMesh(bytes: Uint8Array, name: string, unit: MeshUnit, asked: MouldAsked): Result<unknown> {
  const read = readMesh(bytes, name);
  if (!read.ok) return read;
  const mended = mendMesh(read.value);
  if (!mended.ok) return mended;
  const k = meshUnits[unit];
  const { positions, triangles } = mended.value.mesh;
  const mesh = { positions: positions.map((v) => v * k), triangles };
  const solid = solidOfMesh(mesh, samplesAlong(mesh), { fillHollow: true });
  if (!solid.ok) return solid;
  const shape = sampleSolid(solid.value);
  const field = new DistanceField([
    { id: 'mesh', name, region: 'mesh', at: [0, 0, 0], turn: [0, 0, 0], blend: 0, role: 'face', shape },
  ]);
  const [low, high] = sizeOfMesh(mesh).box;
  const master: Master = { field, box: { low, high }, board: low[2] };
  return told(mouldFigures(master, asked));
}

function told(made: Result<MouldFigures>): Result<unknown> {
  if (!made.ok) return made;
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
    cautions: [...new Set([...kind.cautions, cast.caution])],
  });
}
