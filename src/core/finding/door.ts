import type { Bone } from '../armature';
import { distance, formatLength, type Vec3 } from '../quantity';
import type { CarriedReport, Piece } from '../piece';
import { limbOfRun, twinKey } from '../school';
import { carriedParts, itOrPart } from './carried';
import { finding, type Proposal, type Rule } from './finding';

/** It goes through the door, whole or in its parts. */
export const door: Rule = {
  id: 'door',
  judge: ({ piece, report, units }) => {
    const { carried } = carriedParts(report);

    const { doorWidth, doorHeight } = piece.build.brief.travel;
    const stuck = carried.filter((c) => !c.door);
    const first = stuck[0];
    const size = (c: CarriedReport) =>
      `${formatLength(c.size.width, units)} across, ${formatLength(c.size.depth, units)} deep and ${formatLength(c.size.height, units)} high`;
    const shown =
      first ??
      carried.reduce((w, c) => (Math.max(c.size.width, c.size.height) > Math.max(w.size.width, w.size.height) ? c : w));
    return [
      finding(
        'move',
        'door',
        stuck.length > 0 ? 'fails' : 'sound',
        shown.name,
        first
          ? `${itOrPart(first.name)} does not go through the door.`
          : `${carried.length > 1 ? 'Every part' : 'It'} goes through the door.`,
        `${shown.name === 'whole piece' ? 'It' : `"${shown.name}"`} is ${size(shown)}${shown.name === 'whole piece' && carried.length === 1 ? ', on its board where it stands on one' : ''}; the door is ${formatLength(doorWidth, units)} by ${formatLength(doorHeight, units)}, and ${formatLength(0.03, units)} is kept free.`,
        { measured: stuck.length, limit: 0, unit: 'count' },
      ),
    ];
  },
  propose: ({ piece }) => limbsOff(piece),
};

/** Limbs taken off for the way, those that reach furthest out first, each pair together; then as many as it takes. */
function limbsOff({ armature, extent }: Piece): Proposal[] {
  const { nodes, bones } = armature;
  const at = new Map(nodes.map((n) => [n.id, n.at]));
  const middle = [0, 1, 2].map((k) => (extent.low[k as 0] + extent.high[k as 0]) / 2) as unknown as Vec3;
  const size = distance(extent.low, extent.high);
  const pairs = new Map<string, { bones: Bone[]; reach: number }>();
  for (const b of bones) {
    // A limb leaves where others do; what leads to the base, or is held elsewhere too, stays on it.
    if (b.tie || bones.filter((o) => o.from === b.from && !o.tie).length < 2) continue;
    const ends = beyond(b, bones);
    if (nodes.some((n) => n.held && ends.has(n.id))) continue;
    if (bones.some((o) => o !== b && ends.has(o.from) !== ends.has(o.to))) continue;
    if (nodes.some((n) => !ends.has(n.id) && [...ends].some((id) => distance(at.get(id)!, n.at) < meets * size)))
      continue;
    const reach = Math.max(...[...ends].map((id) => distance(at.get(id)!, middle)));
    if (distance(at.get(b.from)!, middle) > reach || reach < leastReach * size) continue;
    const key = twinKey(b.id);
    const pair = pairs.get(key) ?? { bones: [], reach: 0 };
    pairs.set(key, { bones: [...pair.bones, b], reach: Math.max(pair.reach, reach) });
  }
  const far = [...pairs.values()].sort((a, b) => b.reach - a.reach).slice(0, mostLimbs);
  const off = (which: readonly { bones: Bone[] }[], id: string): Proposal[] =>
    ways.map(({ join, note }) => {
      const all = which.flatMap((w) => w.bones);
      const names = [...new Set(all.map((b) => limbOff(b, bones)))];
      return {
        id: `${id}-${join}`,
        edit: {
          label: `Let the ${names.join(' and the ')} come away`,
          changes: all.map((b) => ({ path: ['armature', 'edits', b.id, 'joinFrom'], value: join })),
        },
        note,
      };
    });
  return [
    ...far.flatMap((f, i) => off([f], `off-${i}`)),
    ...far.slice(1).flatMap((_, i) => off(far.slice(0, i + 2), `off-first-${i + 2}`)),
  ];
}

/** Joints that a bone leads on to, its own end among them. */
function beyond(bone: Bone, bones: readonly Bone[]): ReadonlySet<string> {
  const out = new Set([bone.to]);
  for (const id of out) for (const b of bones) if (b.from === id) out.add(b.to);
  return out;
}

/** Of the diagonal: two ends so near are of one solid, as the halves of a ring. */
const meets = 0.05;
/** Of the diagonal of it all: a limb that ends nearer to its middle is not what stands in the door. */
const leastReach = 0.18;
const mostLimbs = 3;
const ways = [
  { join: 'sleeved', note: 'pipe in pipe, pinned: its wire is two, each with its length in the sleeve' },
  { join: 'bolted', note: 'bolted through plates' },
] as const;

/** What comes away as a body calls it, of both sides in one word. */
function limbOff(bone: Bone, bones: readonly Bone[]): string {
  const run = [bone];
  for (let next: Bone | undefined = bone; next;) {
    const end: string = next.to;
    next = bones.find((b) => b.from === end && !run.includes(b));
    if (next) run.push(next);
  }
  const [name] = limbOfRun(run);
  return (name ?? bone.name)
    .replace(/^(left|right) /, '')
    .replace(/, (left|right)$/, '')
    .replace(/, stretch \d+$/, '');
}
