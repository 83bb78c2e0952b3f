import type { MemberReport, Piece } from '../piece';
import { sagWatched, type StageCheck } from '../load';
import { distance, mix, type Vec3 } from '../quantity';

/** Sized so that utilisation and sag read sound with a little to spare. */
export const utilisationWanted = 0.57;
export const sagWanted = 0.95 * sagWatched;

/** By bone: how many times what it bears in metal and timber, and how many times as stiff that should be. */
export interface Wanted {
  readonly bears: number;
  readonly stiff: number;
}

/**
 * What a solved frame asks of each bone. Metal makes good what bulk and clay leave over; a bone that bows wants to be
 * stiffer. Where an end sags, the bones between it and the base are asked by their part in it: curvature times length
 * times the way to the end; `exhausted` are bones for which nothing stiffer has room, against which no other is weighed.
 */
export function wantedOf(
  piece: Piece,
  members: readonly MemberReport[],
  stages: readonly StageCheck[],
  exhausted: ReadonlySet<string> = new Set(),
): Map<string, Wanted> {
  const out = new Map<string, { bears: number; stiff: number }>();
  for (const m of members) {
    const wanted = (m.capacity * m.utilisation) / utilisationWanted;
    const others = Math.max(0, m.capacity - m.metalShare);
    const bows = m.buckling >= m.utilisation;
    out.set(m.id, {
      bears: m.metalShare > 0 ? Math.max(0, wanted - others) / m.metalShare : 1,
      stiff: bows ? m.buckling / utilisationWanted : 0,
    });
  }
  stiffer(piece, stages, out, exhausted);
  return out;
}

/** Against what lets an end sag most, what else is worth stiffening. */
const worthStiffening = 0.3;
/** Times as stiff in one round. */
const mostAtOnce = 6;

function stiffer(
  { armature, load }: Piece,
  stages: readonly StageCheck[],
  wanted: Map<string, { bears: number; stiff: number }>,
  exhausted: ReadonlySet<string>,
): void {
  const { bones } = armature;
  const down = towardsBase(armature);
  for (const stage of stages) {
    if (!stage.stage.startsWith('clay')) continue;
    const turns = stage.bones.map((b, i) => {
      const radius = load.outerDiameter[i]! / 2;
      return radius > 0 ? (b.skinStrain / radius) * distance(...load.ends[i]!) : 0;
    });
    stage.bones.forEach((b, i) => {
      if (b.sagShare <= 0.2 * sagWanted) return;
      const over = Math.min(mostAtOnce, b.sagShare / sagWanted);
      const end: Vec3 = load.ends[i]![1];
      const way: { bone: number; part: number }[] = [];
      for (let at: string | undefined = bones[i]!.to; at !== undefined && way.length <= bones.length;) {
        const next = down.get(at);
        if (next)
          way.push({ bone: next.bone, part: turns[next.bone]! * distance(mix(...load.ends[next.bone]!, 0.5), end) });
        at = next?.node;
      }
      const most = way.reduce((m, w) => (exhausted.has(bones[w.bone]!.id) ? m : Math.max(m, w.part)), 0);
      for (const { bone, part } of way) {
        if (part < worthStiffening * most) continue;
        const entry = wanted.get(bones[bone]!.id);
        if (entry) entry.stiff = Math.max(entry.stiff, over);
      }
    });
  }
}

/** By joint, the bone that leads towards what is built into the base by the shortest way, and the joint at its other end. */
function towardsBase({ nodes, bones }: Piece['armature']): ReadonlyMap<string, { bone: number; node: string }> {
  const at = new Map(nodes.map((n) => [n.id, n.at]));
  const away = new Map(nodes.filter((n) => n.held).map((n) => [n.id, 0]));
  const out = new Map<string, { bone: number; node: string }>();
  for (let grew = true; grew;) {
    grew = false;
    bones.forEach((b, bone) => {
      if (b.tie) return;
      const long = distance(at.get(b.from)!, at.get(b.to)!);
      for (const [near, far] of [
        [b.from, b.to],
        [b.to, b.from],
      ] as const) {
        const way = (away.get(near) ?? Infinity) + long;
        if (!(way < (away.get(far) ?? Infinity) - 1e-9)) continue;
        away.set(far, way);
        out.set(far, { bone, node: near });
        grew = true;
      }
    });
  }
  return out;
}
