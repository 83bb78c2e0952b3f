import type { TriangleMesh } from '../../src/core/form';
import type { Vec3 } from '../../src/core/quantity';

/** Meshes whose volume is known: of the polyhedron itself, not of the smooth shape it stands for. */
export function ballMesh(radius: number, rings = 48, at: readonly [number, number, number] = [0, 0, 0]): TriangleMesh {
  return gridMesh(
    rings * 2,
    rings,
    (u, v) => {
      const a = u * 2 * Math.PI,
        b = v * Math.PI;
      return [
        at[0] + radius * Math.sin(b) * Math.cos(a),
        at[1] + radius * Math.sin(b) * Math.sin(a),
        at[2] - radius * Math.cos(b),
      ];
    },
    false,
  );
}

/** Concave, with a handle: a ring, its tube squeezed as it goes round, or plain. */
export function ringMesh(radius: number, tube: number, along = 128, round = 48, squeezed = 0.25): TriangleMesh {
  return gridMesh(
    along,
    round,
    (u, v) => {
      const a = u * 2 * Math.PI,
        b = v * 2 * Math.PI;
      const r = tube * (1 + squeezed * Math.cos(3 * a));
      const out = radius + r * Math.cos(b);
      return [out * Math.cos(a), out * Math.sin(a), r * Math.sin(b)];
    },
    true,
  );
}

/** A profile of radii and heights, from the bottom up, turned about the vertical; closed where it begins and ends on it. */
export function latheMesh(profile: readonly (readonly [number, number])[], around = 128): TriangleMesh {
  const last = profile.length - 1;
  return gridMesh(
    around,
    last,
    (u, v) => {
      const [r, z] = profile[Math.round(v * last)]!;
      return [r * Math.cos(u * 2 * Math.PI), r * Math.sin(u * 2 * Math.PI), z];
    },
    false,
  );
}

/** The same profile with places on it no further apart than this. */
export function finelyPlaced(profile: readonly (readonly [number, number])[], step: number): [number, number][] {
  return profile.flatMap(([r, z], i): [number, number][] => {
    const next = profile[i + 1];
    if (!next) return [[r, z]];
    const parts = Math.max(1, Math.ceil(Math.hypot(next[0] - r, next[1] - z) / step));
    return Array.from({ length: parts }, (_, k) => [r + (k / parts) * (next[0] - r), z + (k / parts) * (next[1] - z)]);
  });
}

export function turnedMesh(m: TriangleMesh, turn: (p: Vec3) => Vec3): TriangleMesh {
  const positions = new Float32Array(m.positions.length);
  for (let i = 0; i < positions.length; i += 3)
    positions.set(turn([m.positions[i]!, m.positions[i + 1]!, m.positions[i + 2]!]), i);
  return { positions, triangles: m.triangles };
}

export function boxMesh(x: number, y: number, z: number): TriangleMesh {
  const p = [0, 1, 2, 3, 4, 5, 6, 7].flatMap((i) => [(i & 1 ? x : -x) / 2, (i & 2 ? y : -y) / 2, (i & 4 ? z : -z) / 2]);
  return {
    positions: Float32Array.from(p),
    triangles: Uint32Array.from([
      0, 2, 3, 0, 3, 1, 4, 5, 7, 4, 7, 6, 0, 1, 5, 0, 5, 4, 2, 6, 7, 2, 7, 3, 0, 4, 6, 0, 6, 2, 1, 3, 7, 1, 7, 5,
    ]),
  };
}

/** A sheet of squares wrapped round in u, and in v too or closed by points that fall together. Faces look outward. */
function gridMesh(
  nu: number,
  nv: number,
  place: (u: number, v: number) => readonly [number, number, number],
  wrapped: boolean,
): TriangleMesh {
  const rows = wrapped ? nv : nv + 1;
  const positions: number[] = [];
  for (let j = 0; j < rows; j++) for (let i = 0; i < nu; i++) positions.push(...place(i / nu, j / nv));
  const triangles: number[] = [];
  const at = (i: number, j: number) => (j % rows) * nu + (i % nu);
  for (let j = 0; j < nv; j++) {
    for (let i = 0; i < nu; i++) {
      const a = at(i, j),
        b = at(i + 1, j),
        c = at(i + 1, j + 1),
        d = at(i, j + 1);
      if (wrapped || j > 0) triangles.push(a, b, c);
      if (wrapped || j < nv - 1) triangles.push(a, c, d);
    }
  }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** Without some of its triangles. */
export function without(m: TriangleMesh, drop: (face: number) => boolean): TriangleMesh {
  const kept: number[] = [];
  for (let f = 0; f < m.triangles.length / 3; f++) if (!drop(f)) kept.push(...m.triangles.subarray(f * 3, f * 3 + 3));
  return { positions: m.positions, triangles: Uint32Array.from(kept) };
}

/** Several in one, crossing as they may. */
export function together(...meshes: readonly TriangleMesh[]): TriangleMesh {
  const positions: number[] = [],
    triangles: number[] = [];
  for (const m of meshes) {
    const first = positions.length / 3;
    positions.push(...m.positions);
    triangles.push(...[...m.triangles].map((v) => v + first));
  }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** Its faces looking the other way. */
export function insideOut(m: TriangleMesh): TriangleMesh {
  const t = m.triangles.slice();
  for (let i = 0; i < t.length; i += 3) [t[i], t[i + 1]] = [t[i + 1]!, t[i]!];
  return { positions: m.positions, triangles: t };
}
