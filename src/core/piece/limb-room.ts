import { thickestWithCover, type CoverInputs } from '../armature';
import type { ResolvedForm } from '../form';
import { distance, mix, type Vec3 } from '../quantity';

/** What a stretch of the form between two joints can take, read off the form alone: the way of building comes after. */
export interface LimbRoom {
  /** Joints it runs between, parent first. */
  readonly from: string;
  readonly to: string;
  readonly name: string;
  /** Across it at its thinnest along the line between the joints, metres; 0 where that line leaves the form. */
  readonly thinnest: number;
  readonly at: Vec3;
  /** The thickest single wire on that line that keeps its cover all the way, metres; 0 for none. */
  readonly wire: number;
}

const stepAlong = 0.004;
/** Past this share of its last stretch a limb is its own round end, where no wire runs on. */
const shortOfTip = 0.85;

/** In the order of the joints. Places are metres at full size and in pose; `least` is the cover there should be anywhere. */
export function limbRooms(
  form: Pick<ResolvedForm, 'skeleton'>,
  { near, clayOver, least }: Pick<CoverInputs, 'near' | 'clayOver' | 'least'>,
): LimbRoom[] {
  const { joints } = form.skeleton;
  const byId = new Map(joints.map((j) => [j.id, j]));
  const inner = new Set(joints.map((j) => j.parent));
  return joints.flatMap((end): LimbRoom[] => {
    const start = end.parent === null ? undefined : byId.get(end.parent);
    const long = start ? distance(start.at, end.at) : 0;
    if (!start || long < 1e-4) return [];
    const exact = near(mix(start.at, end.at, 0.5), long / 2 + 1e-6);
    const until = inner.has(end.id) ? 1 : shortOfTip;
    // What stands on the ground leaves it there.
    const since = start.ground && start.parent === null ? 1 - shortOfTip : 0;
    const steps = Math.max(2, Math.ceil(long / stepAlong));
    let shallowest = Infinity,
      wire = Infinity;
    let at: Vec3 = start.at;
    for (let k = 0; k <= steps; k++) {
      const p = mix(start.at, end.at, since + ((until - since) * k) / steps);
      const { distance: d, mass } = exact(p);
      if (-d < shallowest) {
        shallowest = -d;
        at = p;
      }
      wire = Math.min(wire, thickestWithCover(-d, clayOver(mass), least));
    }
    return [
      {
        from: start.id,
        to: end.id,
        name: `${start.name} to ${end.name}`,
        thinnest: Math.max(0, 2 * shallowest),
        at,
        wire,
      },
    ];
  });
}
