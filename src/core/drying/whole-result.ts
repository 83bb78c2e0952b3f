/** What came of drying a whole piece: frames of its cells, its regions, the places that matter; and how it is read. */
export interface WholeFrame {
  readonly time: number;
  readonly stage: number;
  /** Share of the water still to leave, 0..250 for each cell. */
  readonly wet: Uint8Array;
  /** Index of the wettest cell. */
  readonly wettest: number;
  /** kg of clay and water. */
  readonly mass: number;
}

/** A stage's clay as it is needed to show it. */
export interface WholeStage {
  readonly size: readonly [number, number, number];
  readonly origin: readonly [number, number, number];
  readonly step: number;
  /** Lattice cell to frame index, -1 where there is no clay. */
  readonly indexOf: Int32Array;
  readonly latticeOf: Int32Array;
  /** Of the outer faces: frame index of the cell, crack index reached, when it passed the limit and when a hand may hold it (seconds, or Infinity). */
  readonly face: {
    readonly cell: Int32Array;
    readonly crack: Float32Array;
    readonly crackedAt: Float32Array;
    readonly holdAt: Float32Array;
  };
}

export interface WholePlace {
  readonly at: readonly [number, number, number];
  readonly region: string;
  readonly time: number;
  readonly value: number;
}

export interface WholeRegion {
  readonly id: string;
  readonly touchDry: number | null;
  readonly leatherHard: number | null;
  readonly throughDry: number | null;
  readonly steady: number | null;
  /** When nine tenths of its face may be held. */
  readonly hold: number | null;
  readonly crack: number;
  readonly restrained: number;
  readonly differential: number;
  readonly crackAt: number | null;
}

export interface WholeDrying {
  readonly step: number;
  readonly cells: number;
  readonly steps: number;
  readonly volume: number;
  readonly stages: readonly WholeStage[];
  readonly frames: readonly WholeFrame[];
  readonly regions: readonly WholeRegion[];
  /** The place that dries last, the worst crack, and the first there is; null where nothing cracks. */
  readonly last: WholePlace;
  readonly worst: WholePlace;
  readonly firstCrack: WholePlace | null;
  /** Water in less water out, over what there was: rounding. */
  readonly balance: number;
}

/** `wet` counts to this. */
export const wetScale = 250;

/** Share of the water still to leave in the cells of one plane of the lattice, -1 where there is no clay; across, then up. */
export function slicePlane(
  whole: WholeDrying,
  frame: number,
  axis: 0 | 1 | 2,
  index: number,
): { readonly width: number; readonly height: number; readonly values: Float32Array } {
  const f = whole.frames[frame];
  const stage = f ? whole.stages[f.stage] : undefined;
  if (!f || !stage) return { width: 0, height: 0, values: new Float32Array(0) };
  const [nx, ny, nz] = stage.size;
  const width = axis === 0 ? ny : nx,
    height = axis === 2 ? ny : nz;
  const values = new Float32Array(width * height).fill(-1);
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      const i =
        axis === 0 ? index + nx * (u + ny * v) : axis === 1 ? u + nx * (index + ny * v) : u + nx * (v + ny * index);
      const c = stage.indexOf[i] ?? -1;
      if (c >= 0) values[u + width * v] = f.wet[c]! / wetScale;
    }
  return { width, height, values };
}

/** Share of the water still to leave at a place, by frame; the nearest clay within three cells. Null where there is none. */
export function curveAt(
  whole: WholeDrying,
  at: readonly [number, number, number],
): { readonly time: number; readonly wet: number | null }[] {
  return whole.frames.map((f) => {
    const stage = whole.stages[f.stage];
    const c = stage ? nearestCell(stage, at) : -1;
    return { time: f.time, wet: c < 0 ? null : f.wet[c]! / wetScale };
  });
}

export function nearestCell(stage: WholeStage, at: readonly [number, number, number]): number {
  const [nx, ny, nz] = stage.size;
  const [x, y, z] = at.map((v, k) => Math.floor((v - stage.origin[k]!) / stage.step)) as [number, number, number];
  let best = -1,
    least = Infinity;
  for (let reach = 0; reach <= 3 && best < 0; reach++) {
    for (let dz = -reach; dz <= reach; dz++)
      for (let dy = -reach; dy <= reach; dy++)
        for (let dx = -reach; dx <= reach; dx++) {
          const px = x + dx,
            py = y + dy,
            pz = z + dz;
          if (px < 0 || py < 0 || pz < 0 || px >= nx || py >= ny || pz >= nz) continue;
          const c = stage.indexOf[px + nx * (py + ny * pz)]!;
          const d = dx * dx + dy * dy + dz * dz;
          if (c >= 0 && d < least) {
            least = d;
            best = c;
          }
        }
  }
  return best;
}
