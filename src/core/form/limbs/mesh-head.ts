import type { Vec3 } from '../../quantity';
import type { Box } from '../distance';
import { massBox } from '../distance';
import type { Mass } from '../mass';
import type { HeadSetting } from '../head-setting';
import type { Skeleton } from '../skeleton';

const { max, min } = Math;

/** The limb of a mesh that a head frame is set out for, by the name its maker knows it by. */
export const headLimb = 'head';

/** What a head frame is set out from, of a mesh whose head stands on a neck; null where it has none. Metres, posed. */
export function headOfMesh(masses: readonly Mass[], { joints }: Skeleton, bottom: number): HeadSetting | null {
  const own = joints.filter((j) => j.limb === headLimb);
  const neck = own.find((j) => j.parent !== null && joints.some((p) => p.id === j.parent && p.limb !== headLimb));
  const parts = masses.filter((m) => own.some((j) => j.id === m.joint));
  if (!neck || parts.length === 0) return null;
  const radius = (id: string) => radiusOf(parts, id);
  const box = boxOfAll(parts.map((m) => massBox(m)));
  const across = (k: 0 | 1 | 2) => box.high[k] - box.low[k];
  const crown = box.high[2];
  // The chin hangs below where the neck is thinnest, or the frame begins there.
  const chin = min(neck.at[2], crown - 0.5 * across(2));
  const height = crown - chin;
  // Hair or a beard stands out to one side: its middle is where it is thickest.
  const thickest = own
    .filter((j) => j !== neck)
    .reduce((b, j) => (radius(j.id) > radius(b.id) ? j : b), own[own.length - 1]!);
  const middle: Vec3 = [thickest.at[0], thickest.at[1], crown - 0.45 * height];
  return {
    height,
    breadth: across(0),
    depth: across(1),
    forward: -middle[1],
    bottom,
    chin,
    crown,
    skull: middle[2],
    band: middle[2] + 0.1 * height,
    faced: false,
    mesh: {
      middle,
      neck: neck.at,
      carriedBy: neck.id,
      neckMasses: parts.filter((m) => m.joint === neck.id).map((m) => m.id),
      headMasses: parts.map((m) => m.id),
      trunkMasses: masses.filter((m) => !parts.includes(m)).map((m) => m.id),
    },
  };
}

/** How thick it is about a joint. */
function radiusOf(parts: readonly Mass[], joint: string): number {
  const shape = parts.find((m) => m.joint === joint)?.shape;
  return shape?.kind === 'ellipsoid' ? shape.radii[0] : 0;
}

function boxOfAll(boxes: readonly Box[]): Box {
  const side = (pick: 'low' | 'high', of: typeof max) =>
    [0, 1, 2].map((k) => of(...boxes.map((b) => b[pick][k as 0]))) as unknown as Box['low'];
  return { low: side('low', min), high: side('high', max) };
}
