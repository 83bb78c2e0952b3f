import { cross, dot, scale, subtract, unit, type Vec3 } from '../quantity';

const { abs, ceil, floor, hypot, max, min } = Math;

/** A mesh with one colour, for a picture. */
export interface ColouredMesh {
  /** Three figures a vertex, metres. */
  readonly positions: ArrayLike<number>;
  /** Three vertices a triangle. */
  readonly triangles: ArrayLike<number>;
  /** Red, green, blue, 0..255. */
  readonly colour: Vec3;
  /** Whether its faces meet in edges, as a board's do, or run into each other, as clay does. */
  readonly edges: 'sharp' | 'round';
}

/** Rows from the top, four bytes a pixel; where nothing is drawn it is clear. */
export interface ShadedPicture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray;
}

export interface PictureOptions {
  /** The direction one looks from. */
  readonly from: Vec3;
  readonly width: number;
  readonly height: number;
  /** Left free at each edge, as a share of the height. */
  readonly margin?: number;
}

/** Each pixel is drawn this many times across and down, and the mean taken. */
const finer = 2;
const up: Vec3 = [0, 0, 1];
/** Depth where nothing is; and beyond the picture's edge. A loop that asks for a global each time is slow under the unit runner. */
const clear = Infinity;
const beyond = NaN;

/**
 * A small picture of meshes as by the light of a window up on the left, what lies in a hollow darker: drawn without
 * perspective, nearest last, as large as fits. Worked out alone from what it is given, so that it is the same on every
 * machine.
 */
export function shadedPicture(meshes: readonly ColouredMesh[], options: PictureOptions): ShadedPicture {
  const { width, height, margin = 0.05 } = options;
  const away = scale(unit(options.from), -1);
  const right = unit(cross(away, up));
  const above = cross(right, away);
  const light = unit([
    above[0] * 0.8 - right[0] * 0.55 - away[0] * 0.75,
    above[1] * 0.8 - right[1] * 0.55 - away[1] * 0.75,
    above[2] * 0.8 - right[2] * 0.55 - away[2] * 0.75,
  ]);
  const drawn = meshes.map((m) => projected(m, right, above, away, light));
  let left = Infinity,
    most = -Infinity,
    low = Infinity,
    high = -Infinity;
  for (const { seen } of drawn)
    for (let i = 0; i < seen.length; i += 3) {
      left = min(left, seen[i]!);
      most = max(most, seen[i]!);
      low = min(low, seen[i + 1]!);
      high = max(high, seen[i + 1]!);
    }
  const w = width * finer,
    h = height * finer;
  const free = margin * h;
  const size = high > low ? min((w - 2 * free) / (most - left), (h - 2 * free) / (high - low)) : 1;
  const depth = new Float32Array(w * h).fill(clear);
  const shade = new Float32Array(w * h);
  const mesh = new Uint16Array(w * h);
  const x = (v: number) => w / 2 + (v - (left + most) / 2) * size;
  // It stands on the lower edge, as on a shelf.
  const y = (v: number) => h - free - (v - low) * size;
  drawn.forEach(({ seen, lit, triangles }, m) => {
    for (let t = 0; t < triangles.length; t += 3) {
      const a = triangles[t]! * 3,
        b = triangles[t + 1]! * 3,
        c = triangles[t + 2]! * 3;
      const ax = x(seen[a]!),
        ay = y(seen[a + 1]!),
        bx = x(seen[b]!),
        by = y(seen[b + 1]!),
        cx = x(seen[c]!),
        cy = y(seen[c + 1]!);
      const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
      if (abs(area) < 1e-9) continue;
      const la = lit[triangles[t]!]!,
        lb = lit[triangles[t + 1]!]!,
        lc = lit[triangles[t + 2]!]!;
      const top = max(0, floor(min(ay, by, cy))),
        bottom = min(h - 1, ceil(max(ay, by, cy)));
      const first = max(0, floor(min(ax, bx, cx))),
        last = min(w - 1, ceil(max(ax, bx, cx)));
      for (let py = top; py <= bottom; py++) {
        const qy = py + 0.5;
        for (let px = first; px <= last; px++) {
          const qx = px + 0.5;
          const wb = ((qx - ax) * (cy - ay) - (cx - ax) * (qy - ay)) / area,
            wc = ((bx - ax) * (qy - ay) - (qx - ax) * (by - ay)) / area;
          const wa = 1 - wb - wc;
          if (wa < 0 || wb < 0 || wc < 0) continue;
          const at = py * w + px;
          const d = wa * seen[a + 2]! + wb * seen[b + 2]! + wc * seen[c + 2]!;
          if (d >= depth[at]!) continue;
          depth[at] = d;
          shade[at] = wa * la + wb * lb + wc * lc;
          mesh[at] = m;
        }
      }
    }
  });
  darkenHollows(depth, shade, w, h, size);
  return { width, height, rgba: means(depth, shade, mesh, meshes, width, height) };
}

interface Projected {
  /** Right, up and away of each vertex, metres. */
  readonly seen: Float64Array;
  /** Light on each vertex. */
  readonly lit: Float64Array;
  readonly triangles: ArrayLike<number>;
}

function projected(m: ColouredMesh, right: Vec3, above: Vec3, away: Vec3, light: Vec3): Projected {
  const { positions, triangles } = m.edges === 'sharp' ? apart(m) : m;
  const vertices = positions.length / 3;
  const place = (i: number): Vec3 => [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!];
  // A vertex looks the way the faces round it do, each by its size.
  const looks = new Float64Array(positions.length);
  for (let t = 0; t < triangles.length; t += 3) {
    const a = place(triangles[t]!);
    const face = cross(subtract(place(triangles[t + 1]!), a), subtract(place(triangles[t + 2]!), a));
    for (let k = 0; k < 9; k++) looks[triangles[t + floor(k / 3)]! * 3 + (k % 3)]! += face[(k % 3) as 0 | 1 | 2];
  }
  const seen = new Float64Array(positions.length),
    lit = new Float64Array(vertices);
  for (let i = 0; i < vertices; i++) {
    const p = place(i);
    seen[i * 3] = dot(p, right);
    seen[i * 3 + 1] = dot(p, above);
    seen[i * 3 + 2] = dot(p, away);
    lit[i] = lightOn([looks[i * 3]!, looks[i * 3 + 1]!, looks[i * 3 + 2]!], light, away);
  }
  return { seen, lit, triangles };
}

/** Every triangle with corners of its own. */
function apart({ positions, triangles }: ColouredMesh): Pick<ColouredMesh, 'positions' | 'triangles'> {
  const own = Array.from(triangles).flatMap((v) => [positions[v * 3]!, positions[v * 3 + 1]!, positions[v * 3 + 2]!]);
  return { positions: own, triangles: Array.from({ length: own.length / 3 }, (_, i) => i) };
}

/** From about a half in the dark to a little over 1: sky from above, and the window. A face seen from behind counts from before. */
function lightOn(looks: Vec3, light: Vec3, away: Vec3): number {
  const long = hypot(...looks);
  if (long === 0) return 0.5;
  const n = scale(looks, (dot(looks, away) > 0 ? -1 : 1) / long);
  return 0.56 + 0.12 * n[2] + 0.5 * max(0, dot(n, light));
}

/** How far round a place is looked for what stands before it, as a share of the picture's height. */
const ring = 0.028;
/** To one side and, the other way, to the other: what slopes away evenly stands as much before as behind. */
const around = Array.from({ length: 8 }, (_, i) => {
  const r = i % 2 === 0 ? 1 : 0.5;
  return [r * Math.cos((i * Math.PI) / 8), r * Math.sin((i * Math.PI) / 8)] as const;
});

function darkenHollows(depth: Float32Array, shade: Float32Array, w: number, h: number, size: number): void {
  const far = max(2, ring * h);
  const reach = far / size;
  const sides = around.map(([x, y]) => [Math.round(x * far), Math.round(y * far)] as const);
  /** How far the place beside stands before this one, up to the reach: what stands further before does not touch it. */
  const before = (d: number, x: number, y: number): number => {
    if (x < 0 || y < 0 || x >= w || y >= h) return beyond;
    const by = d - depth[y * w + x]!;
    return by > reach ? max(0, 2 * reach - by) : max(-reach, by);
  };
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const d = depth[y * w + x]!;
      if (d === clear) continue;
      let hidden = 0;
      for (const [ox, oy] of sides) {
        const both = before(d, x + ox, y + oy) + before(d, x - ox, y - oy);
        if (both > 0) hidden += both / (2 * reach);
      }
      shade[y * w + x] = shade[y * w + x]! * (1 - 0.6 * min(1, (hidden / sides.length) * 2));
    }
}

function means(
  depth: Float32Array,
  shade: Float32Array,
  mesh: Uint16Array,
  meshes: readonly ColouredMesh[],
  width: number,
  height: number,
): Uint8ClampedArray {
  const w = width * finer;
  const out = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const sum = [0, 0, 0];
      let covered = 0;
      for (let k = 0; k < finer * finer; k++) {
        const at = (y * finer + floor(k / finer)) * w + x * finer + (k % finer);
        if (depth[at] === clear) continue;
        covered++;
        const { colour } = meshes[mesh[at]!]!;
        for (let c = 0; c < 3; c++) sum[c]! += colour[c as 0 | 1 | 2] * shade[at]!;
      }
      if (covered === 0) continue;
      const to = (y * width + x) * 4;
      for (let c = 0; c < 3; c++) out[to + c] = sum[c]! / covered;
      out[to + 3] = (255 * covered) / finer ** 2;
    }
  return out;
}
