import { inverse, massBox, rotate, type Envelope, type ResolvedForm } from '../form';
import { scale, subtract, type Vec3 } from '../quantity';
import type { Piece } from './piece';

/** What leaves the bounds of proportion, and by how much at the most, metres. */
export interface Outside {
  readonly envelope: string;
  readonly envelopeName: string;
  readonly id: string;
  readonly name: string;
  readonly member: boolean;
  readonly by: number;
}

/** Less than this is a matter of taste. */
const slack = 0.002;

export function outsideEnvelopes({
  form,
  armature: { members },
  field,
}: Pick<Piece, 'form' | 'armature' | 'field'>): Outside[] {
  const everyone = field.all();
  /** A wire on its way through the neck is not the head's: the nearest mass says whose a place is. */
  const jointAt = (p: Vec3): string | undefined => {
    field.at(p[0], p[1], p[2], everyone);
    return form.masses[field.owner]?.joint;
  };
  return form.envelopes.flatMap((e): Outside[] => {
    const local = intoJoint(form, e);
    const own = form.masses
      .filter((m) => m.joint === e.joint && !m.id.startsWith('own/') && m.region !== 'features')
      .flatMap((m): Outside[] => {
        const box = massBox(m);
        const by = Math.max(...corners(box.low, box.high).map((p) => overBy(local(p), e, form.size)));
        // A turned mass's box is wider than the mass: only what is clearly out is said.
        return by > 0.04 * form.size
          ? [{ envelope: e.id, envelopeName: e.name, id: m.id, name: m.name, member: false, by }]
          : [];
      });
    const wires = members.flatMap((m): Outside[] => {
      const least = slack * Math.max(0.5, form.size);
      const by = m.path.reduce((most, p) => {
        const over = overBy(local(p), e, form.size);
        return over > Math.max(most, least) && jointAt(p) === e.joint ? over : most;
      }, 0);
      return by > least ? [{ envelope: e.id, envelopeName: e.name, id: m.id, name: m.name, member: true, by }] : [];
    });
    return [...own, ...wires];
  });
}

/** From the world to the joint's own unposed place, at full scale. */
function intoJoint(form: ResolvedForm, e: Envelope): (p: Vec3) => Vec3 {
  const joint = form.skeleton.joints.find((j) => j.id === e.joint);
  if (!joint) return (p) => p;
  const back = inverse(joint.rotation);
  return (p) => {
    const q = rotate(back, subtract(p, joint.at));
    return [q[0] + joint.rest[0], q[1] + joint.rest[1], q[2] + joint.rest[2]];
  };
}

/** How far a place beside the envelope is out of it; a place far off belongs to something else (an arm held up). */
function overBy(p: Vec3, e: Envelope, size: number): number {
  const low = scale(e.low, size),
    high = scale(e.high, size);
  if (p[2] < low[2] || p[2] > high[2]) return 0;
  const out = Math.max(low[0] - p[0], p[0] - high[0], low[1] - p[1], p[1] - high[1]);
  return out < 0.6 * (high[0] - low[0]) ? Math.max(0, out) : 0;
}

function corners(low: Vec3, high: Vec3): Vec3[] {
  // The middles of the faces: a box's own corners stand out further than any round mass does.
  const mid: Vec3 = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2];
  return [
    [low[0], mid[1], mid[2]],
    [high[0], mid[1], mid[2]],
    [mid[0], low[1], mid[2]],
    [mid[0], high[1], mid[2]],
  ];
}
