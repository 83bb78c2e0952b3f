import {
  bulkPart,
  clayPart,
  coatColours,
  conflictsIn,
  heightThatStands,
  layerPart,
  layersOverClay,
  layersUnderClay,
  processOf,
  slidesFrom,
  stockPart,
  thicknessThatHangs,
  yieldInOven,
  type Conflict,
  type StackPart,
  type StackProcess,
} from '../clay';
import { layers, stocks } from '../catalogue';
import { blockSide, cellsPerBlock, distanceAtCell, type VoxelGrid } from '../form';
import { bakingPlan, bakingTemperature, warmingPlan } from '../heat';
import { partHash } from '../document';
import type { ResultCache } from './result-cache';
import type { Piece } from './piece';
import type { HeatReport, StayingPut } from './report';

/** What the clay is laid on and over: whether it all gets on, stays where it is put, and stands the heat. */

/** The stack of one region, from the armature out. */
export function stackOf(piece: Piece, region: number): { armature: StackPart[]; layers: StackPart[] } {
  const id = piece.regions[region] ?? '';
  const used = new Set(piece.armature.members.map((m) => m.stock));
  const armature = [...used]
    .map((s) => piece.stockOf(s) ?? stocks.get(s))
    .filter((s) => s !== undefined)
    .map(stockPart);
  if (piece.bulk.id.startsWith('foil') && armature.length === 0)
    armature.push({ id: 'no-wire', name: 'foil without a wire', traits: ['no-wire'], standsTo: 600, seals: false });
  const chosen = layersUnderClay(piece.build, id);
  const own = layers.get(piece.wrap.id);
  const under = chosen ?? (own ? [own] : []);
  const clay = coatColours(piece.build, id).map((colour) => clayPart(piece.clay, colour));
  return {
    armature,
    layers: [
      ...(piece.face.solid ? [] : [bulkPart(piece.bulk), ...under.map(layerPart)]),
      ...clay,
      ...layersOverClay(piece.build, id).map(layerPart),
    ],
  };
}

export function processesOf(piece: Piece): StackProcess[] {
  const { finish, brief } = piece.build;
  const kinds = finish.processes.some((p) => p.kind === 'outdoors') || !brief.outdoors ? [] : ['outdoors'];
  const named = [
    ...finish.processes.map((p) => processOf(p.kind, p.temperature)),
    ...kinds.map((k) => processOf(k)),
  ].filter((p) => p !== null);
  const bakes = piece.clay.setting === 'bakes' && !piece.build.finish.processes.some((p) => p.kind === 'bake');
  const bake = bakes ? processOf('bake') : null;
  return bake ? [bake, ...named] : named;
}

export function conflictsOf(piece: Piece): Conflict[] {
  const processes = processesOf(piece);
  const found = new Map<string, Conflict>();
  piece.regions.forEach((region, r) => {
    for (const c of conflictsIn({ ...stackOf(piece, r), processes })) {
      const known = found.get(c.id);
      found.set(c.id, { ...c, regions: [...(known?.regions ?? []), region] });
    }
  });
  return [...found.values()]
    .map((c) => (c.regions.length === piece.regions.length ? { ...c, regions: [] } : c))
    .sort((a, b) => Number(b.status === 'fails') - Number(a.status === 'fails'));
}

const slopeBins = 40;

/** Area of each region's face by how much it looks up: the share of face in bins of the normal's rise, -1 .. 1. */
export function slopesOf(grid: VoxelGrid, regionOfMass: readonly number[], regions: number): Float64Array[] {
  const out = Array.from({ length: regions }, () => new Float64Array(slopeBins));
  const [nx, ny] = grid.blocks;
  grid.slots.forEach((slot, b) => {
    if (slot < 0) return;
    const bx = b % nx,
      by = Math.floor(b / nx) % ny,
      bz = Math.floor(b / (nx * ny));
    const first = slot * cellsPerBlock;
    const last = blockSide - 1;
    for (let c = 0; c < cellsPerBlock; c++) {
      const band = 1 - Math.abs(grid.distances[first + c]!) / grid.step;
      if (band <= 0) continue;
      const inX = c % blockSide,
        inY = Math.floor(c / blockSide) % blockSide,
        inZ = Math.floor(c / blockSide ** 2);
      const x = bx * blockSide + inX,
        y = by * blockSide + inY,
        z = bz * blockSide + inZ;
      // Most neighbours lie in the same block.
      const across = (at: number, step: number, dx: number, dy: number, dz: number) =>
        at > 0 && at < last
          ? grid.distances[first + c + step]! - grid.distances[first + c - step]!
          : distanceAtCell(grid, x + dx, y + dy, z + dz) - distanceAtCell(grid, x - dx, y - dy, z - dz);
      const gx = across(inX, 1, 1, 0, 0),
        gy = across(inY, blockSide, 0, 1, 0),
        gz = across(inZ, blockSide ** 2, 0, 0, 1);
      const up = gz / (Math.hypot(gx, gy, gz) || 1);
      const region = regionOfMass[grid.owners[slot * cellsPerBlock + c]!] ?? 0;
      const bin = Math.min(slopeBins - 1, Math.floor(((up + 1) / 2) * slopeBins));
      (out[region] as Float64Array)[bin] = (out[region] as Float64Array)[bin]! + band;
    }
  });
  return out;
}

/** Share of a region's face steeper than `degrees` from level, overhangs and undersides too. */
export function steeperThan(bins: Float64Array, degrees: number): number {
  const rise = Math.cos((degrees * Math.PI) / 180);
  let steep = 0,
    all = 0;
  bins.forEach((area, i) => {
    const middle = ((i + 0.5) / slopeBins) * 2 - 1;
    all += area;
    if (middle < rise) steep += area;
  });
  return all > 0 ? steep / all : 0;
}

export function stayingPut(piece: Piece, cache: ResultCache): StayingPut[] {
  const slopes = cache.keep('slopes', partHash(piece.build.form), () =>
    slopesOf(piece.grid, piece.regionOfMass, piece.regions.length),
  );
  const soft = piece.hold.yieldStress;
  return piece.regions.map((id, r): StayingPut => {
    const coat = Math.max(0, ...(piece.coats[r] ?? []));
    const hangs = thicknessThatHangs(soft, piece.faces[r]?.grip ?? piece.face.grip, piece.mixed.wetDensity, 90);
    const from = piece.face.solid ? null : slidesFrom(hangs, coat);
    const own = piece.form.masses.map((m, i) => ({ m, i })).filter(({ i }) => piece.regionOfMass[i] === r);
    const levels: number[] = [];
    const { parcels } = piece.volumes;
    for (let p = 0; p < parcels.count; p++)
      if (piece.regionOfMass[parcels.mass[p]!] === r && parcels.clayVolume[p]! > 0)
        levels.push(parcels.clayCentre[p * 3 + 2]!);
    const low = levels.reduce((m, z) => Math.min(m, z), Infinity),
      high = levels.reduce((m, z) => Math.max(m, z), -Infinity);
    return {
      region: id,
      name: id.replaceAll('-', ' '),
      coat,
      hangs,
      slidesFrom: from,
      steep: from === null ? 0 : steeperThan(slopes[r]!, from),
      squat:
        piece.face.solid && own.length > 0 && high > low
          ? { height: high - low, stands: heightThatStands(soft, piece.mixed.wetDensity) }
          : null,
    };
  });
}

export function heatOf(piece: Piece, clayNeeded: number): HeatReport {
  const { clay, build } = piece;
  const { warming } = build.materials;
  if (clay.setting === 'never') {
    return {
      warming: warmingPlan(
        clayNeeded,
        clay.wetDensity,
        build.room.temperature,
        warming.to,
        warming.watts,
        warming.lump,
      ),
      baking: null,
    };
  }
  if (clay.setting !== 'bakes') return { warming: null, baking: null };
  const temperature = build.finish.processes.find((p) => p.kind === 'bake')?.temperature ?? bakingTemperature;
  const inside = piece.regions.flatMap((_, r) => {
    const stack = stackOf(piece, r);
    return [...stack.armature, ...stack.layers.filter((l) => l.id !== clay.id)];
  });
  const unique = [...new Map(inside.map((p) => [p.id, p])).values()];
  const grip = piece.faces.reduce((least, f) => Math.min(least, f.grip), Infinity);
  const thickest = piece.coats.reduce(
    (most, c) => (c.reduce((s, t) => s + t, 0) > most.reduce((s, t) => s + t, 0) ? c : most),
    piece.coats[0] ?? [],
  );
  return {
    warming: null,
    baking: bakingPlan(thickest, temperature, unique, thicknessThatHangs(yieldInOven, grip, clay.wetDensity, 90)),
  };
}
