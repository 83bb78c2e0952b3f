import { nearestCell, slicePlane, wetScale, type WholeDrying, type WholeStage } from '../../core/drying';
import type { Picture } from '../../workers/protocol';
import type { DryFace } from './controller';
import { loadColour, moistureColour } from './ramp';
import type { Section } from './section';

/** The whole drying as pictures: a cut at a moment, and the face coloured by water, cracks, or where a hand may hold. */

/** The frame nearest a time. */
export function frameAt(whole: WholeDrying, time: number): number {
  let best = 0;
  whole.frames.forEach((f, i) => {
    if (Math.abs(f.time - time) < Math.abs((whole.frames[best]?.time ?? 0) - time)) best = i;
  });
  return best;
}

/** Cells with clay along an axis: where a cut shows something. */
function reachAlong(stage: WholeStage, axis: 0 | 1 | 2): [number, number] {
  let low = Infinity,
    high = -Infinity;
  const [nx, ny] = stage.size;
  for (const i of stage.latticeOf) {
    const k = axis === 0 ? i % nx : axis === 1 ? Math.floor(i / nx) % ny : Math.floor(i / (nx * ny));
    if (k < low) low = k;
    if (k > high) high = k;
  }
  return [low, high];
}

export function sectionOf(whole: WholeDrying, frame: number, axis: 0 | 1 | 2, share: number): Section | null {
  const stage = whole.stages[whole.frames[frame]?.stage ?? -1];
  if (!stage) return null;
  const [low, high] = reachAlong(stage, axis);
  const index = Math.round(low + (high - low) * share);
  const { width, height, values } = slicePlane(whole, frame, axis, index);
  const pixels = new Uint8Array(width * height * 4);
  values.forEach((v, i) => {
    if (v < 0) return;
    const [r, g, b] = moistureColour(v);
    pixels.set([r * 255, g * 255, b * 255, 255], i * 4);
  });
  const across = axis === 0 ? 1 : 0,
    up = axis === 2 ? 1 : 2;
  return {
    axis,
    at: stage.origin[axis] + (index + 0.5) * stage.step,
    corner: [stage.origin[across] as number, stage.origin[up] as number],
    step: stage.step,
    width,
    height,
    pixels,
  };
}

const nearest = new WeakMap<WholeStage, { positions: Float32Array; cells: Int32Array }>();

/** For every point of the picture's face, the cell under it. */
function cellsUnder(stage: WholeStage, positions: Float32Array): Int32Array {
  const known = nearest.get(stage);
  if (known?.positions === positions) return known.cells;
  const cells = new Int32Array(positions.length / 3);
  for (let v = 0; v < cells.length; v++)
    cells[v] = nearestCell(stage, [positions[v * 3]!, positions[v * 3 + 1]!, positions[v * 3 + 2]!]);
  nearest.set(stage, { positions, cells });
  return cells;
}

const perCell = new WeakMap<WholeStage, { crack: Float32Array; hold: Float32Array }>();

/** Crack index and time of holding by cell; a cell under the face takes its face's, others what lies over them. */
function byCell(stage: WholeStage): { crack: Float32Array; hold: Float32Array } {
  const known = perCell.get(stage);
  if (known) return known;
  const crack = new Float32Array(stage.latticeOf.length).fill(-1),
    hold = new Float32Array(stage.latticeOf.length).fill(-1);
  stage.face.cell.forEach((c, f) => {
    crack[c] = Math.max(crack[c]!, stage.face.crack[f]!);
    hold[c] = Math.max(hold[c]!, stage.face.holdAt[f]!);
  });
  const made = { crack, hold };
  perCell.set(stage, made);
  return made;
}

const plain: [number, number, number] = [0.91, 0.87, 0.79];
const heldColour: [number, number, number] = [0.18, 0.46, 0.4];
const softColour: [number, number, number] = [0.73, 0.52, 0.14];

export function faceColours(
  whole: WholeDrying,
  frame: number,
  picture: Picture,
  mode: DryFace,
): [number, number, number][] {
  const at = whole.frames[frame];
  const stage = whole.stages[at?.stage ?? -1];
  if (!at || !stage) return [];
  const cells = cellsUnder(stage, picture.surface.positions);
  const figures = byCell(stage);
  return Array.from(cells, (c) => {
    if (c < 0) return plain;
    if (mode === 'moisture') return moistureColour(at.wet[c]! / wetScale);
    if (mode === 'crack') return figures.crack[c]! < 0 ? plain : loadColour(figures.crack[c]!);
    const hold = figures.hold[c]!;
    return hold < 0 ? plain : hold <= at.time ? heldColour : softColour;
  });
}
