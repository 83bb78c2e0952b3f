import {
  DistanceField,
  extractSurface,
  findStartForm,
  resolveForm,
  voxelise,
  type ResolvedForm,
} from '../../src/core/form';
import type { Build, JointEdit } from '../../src/core/document';
import { startBuild } from '../../src/core/school';
import { solidPieces } from './solid-pieces';

/** A start form with measures drawn by chance about those of one of its types: what it is held to whatever is typed in. */
export interface Drawn {
  readonly kind: string;
  readonly type: string | undefined;
  readonly measures: Record<string, number | string | boolean>;
  readonly size: number;
}

export function draw(kind: string, random: () => number): Drawn {
  const form = findStartForm(kind)!;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const type = form.types ? pick(form.types) : undefined;
  const measures: Drawn['measures'] = { ...type?.measures };
  for (const [key, m] of Object.entries(form.measures)) {
    if (random() > 0.35) continue;
    if (m.kind === 'choice') measures[key] = pick(m.options).id;
    else if (m.kind === 'yes-no') measures[key] = random() < 0.5;
    else {
      const base = Number(measures[key] ?? m.start);
      const v = base * (0.75 + 0.5 * random()) + (base === 0 ? 0.1 * random() * (m.high - m.low) : 0);
      const kept = Math.min(m.high, Math.max(m.low, v));
      measures[key] = m.kind === 'count' ? Math.round(kept) : kept;
    }
  }
  return { kind, type: type?.id, measures, size: form.usualSize * (0.5 + 1.2 * random()) };
}

function formOf({ kind, type, measures, size }: Drawn, pose: Record<string, JointEdit>): ResolvedForm {
  const made = startBuild('Drawn', '2026-12-01', kind, size, type);
  if (!made.ok) throw new Error(made.message);
  const start = { ...made.value.form.start, measures };
  const build: Build = { ...made.value, form: { ...made.value.form, start, pose } };
  const form = resolveForm(build);
  if (!form.ok) throw new Error(`${form.path}: ${form.message}`);
  return form.value;
}

function lowestOf(positions: ArrayLike<number>): number {
  let z = Infinity;
  for (let i = 2; i < positions.length; i += 3) z = Math.min(z, positions[i]!);
  return z;
}

/** What is wrong with one drawn form, each in a few words; empty when nothing is. */
export function faultsOf(drawn: Drawn, random: () => number): string[] {
  const faults: string[] = [];
  const form = formOf(drawn, {});
  const box = new DistanceField(form.masses).box();
  const longest = Math.max(...[0, 1, 2].map((k) => box.high[k as 0] - box.low[k as 0]));
  const step = Math.max(longest / 190, 0.0055 * drawn.size);
  const gridOf = (f: ResolvedForm) =>
    voxelise(
      new DistanceField(
        f.masses,
        Float64Array.from(f.masses, (m) => (m.shape.kind === 'shell' ? 2 * step : 0)),
        f.countedWith,
      ),
      { step, depth: 10 },
    );
  const grid = gridOf(form);
  const pieces = solidPieces(grid);
  // What stands by itself is a piece by itself: a left and a right hand.
  const stand = Math.max(1, form.skeleton.joints.filter((j) => j.parent === null && j.ground).length);
  const loose = pieces.slice(stand).filter((cells) => cells > 4);
  if (loose.length > 0) faults.push(`afloat: ${loose.join(', ')} cells`);
  const { triangles, positions } = extractSurface(grid);
  const edges = new Map<number, number>();
  const key = (a: number, b: number) => a * 2 ** 26 + b;
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const e = key(triangles[t + k]!, triangles[t + ((k + 1) % 3)]!);
      edges.set(e, (edges.get(e) ?? 0) + 1);
    }
  for (const [e, n] of edges)
    if (edges.get(key(e % 2 ** 26, Math.floor(e / 2 ** 26))) !== n) {
      faults.push('its face is open');
      break;
    }
  const byId = new Map(form.masses.map((m) => [m.id, m]));
  for (const [right, left] of form.twinOf) {
    const p = byId.get(left)!.at,
      q = byId.get(right)!.at;
    if (Math.abs(p[0] + q[0]) > 1e-9 || Math.abs(p[1] - q[1]) > 1e-9 || Math.abs(p[2] - q[2]) > 1e-9)
      if (!form.skeleton.joints.some((j) => j.id.endsWith('-right') && j.twinOf === null)) {
        faults.push(`${right} is not the mirror of ${left}`);
        break;
      }
  }
  const lowest = lowestOf(positions);
  // A head on a long neck may hang over the edge of what its frame stands on.
  if (drawn.kind !== 'long-neck' && lowest < -0.012 * longest)
    faults.push(`reaches ${(lowest * 1000).toFixed(1)} mm into the ground`);
  const movable = form.skeleton.joints.filter((j) => /^(head|neck|spine|waist|tail)/.test(j.id));
  if (movable.length > 0) {
    const pose = Object.fromEntries(
      movable
        .slice(0, 3)
        .map((j) => [
          j.id,
          { turned: [10 * (random() - 0.4), 6 * (random() - 0.5), 16 * (random() - 0.5)] as [number, number, number] },
        ]),
    );
    const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
    const change = sum(solidPieces(gridOf(formOf(drawn, pose)))) / sum(pieces) - 1;
    if (Math.abs(change) > 0.02) faults.push(`a pose changes its volume by ${(100 * change).toFixed(1)} %`);
  }
  return faults;
}
