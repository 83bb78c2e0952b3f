import type { Armature, ArmatureNode, Bone, Member } from '../armature';
import type { Mass } from '../form';
import { distance, mix, type Vec3 } from '../quantity';
import { bodySide } from './body-names';
import type { SchoolContext } from './school';
import { alongPath, awayFromLine, cutAt, slenderParts, type SlenderPart } from './slender-parts';
import { bentInto } from './wire-that-fits';

/**
 * Wires along parts of the form that no joint runs through, each bound on at the nearest joint there is: along a horn or
 * the finger of a wing from root to tip, and straight into what is not long and thin.
 */

/** What such a wire is cut from before it is sized. */
const stock = 'aluminium-annealed',
  size = '2mm';
const prefix = 'along';
/** Nearer to its joint than this a part begins there, metres. */
const atTheJoint = 0.01;
/** Of its part a wire goes along, the least and the most. */
const leastShare = 0.4,
  mostShare = 0.96;
/** Metres that the middle of a wire lies deeper than the clay at its end. */
const underClay = 0.0015;

/** The parts of a form a wire may run along, of an armature that is set out. */
export function partsToWire(masses: readonly Mass[], nodes: readonly ArmatureNode[]): SlenderPart[] {
  const joints = new Map(nodes.map((n) => [n.id.slice(n.id.indexOf('/') + 1), n.at]));
  return slenderParts(masses, (id) => joints.get(id));
}

/** Metres from a bone within which a line lies along it, and how far out it is looked at: a wire ends short of a tip. */
const alongBone = 0.012,
  lookedAt = 0.7;

/** Whether bones run along a part already, from its root to near its tip. */
export function hasBone({ line }: SlenderPart, { nodes, bones }: Pick<Armature, 'nodes' | 'bones'>): boolean {
  const at = new Map(nodes.map((n) => [n.id, n.at]));
  const near = (p: Vec3) => bones.some((b) => awayFromLine([at.get(b.from)!, at.get(b.to)!], p) < alongBone);
  return near(line[0]!) && near(mix(line[line.length - 2]!, line[line.length - 1]!, lookedAt));
}

export function withWiresAlong(made: Armature, ids: readonly string[], context: SchoolContext): Armature {
  if (ids.length === 0 || made.bones.length === 0) return made;
  const { masses } = context.form;
  const parts = partsToWire(masses, made.nodes);
  const nodes = [...made.nodes],
    bones = [...made.bones],
    members = [...made.members];
  const wanted = ids.flatMap((id): SlenderPart[] => {
    const mass = masses.find((m) => m.id === id);
    const whole = mass && { id, name: mass.name, line: [mass.at as Vec3], masses: [id] };
    return whole ? [parts.find((p) => p.id === id) ?? whole] : [];
  });
  // What leaves another of them is bound to that, once it is there.
  const off = (p: SlenderPart) => nodes.reduce((least, n) => Math.min(least, distance(n.at, p.line[0]!)), Infinity);
  while (wanted.length > 0) {
    const next = wanted.reduce((best, p) => (off(p) < off(best) - 1e-9 ? p : best));
    wanted.splice(wanted.indexOf(next), 1);
    lay(next, masses, context, { nodes, bones, members });
  }
  return { ...made, nodes, bones, members };
}

function lay(
  part: SlenderPart,
  masses: readonly Mass[],
  context: SchoolContext,
  to: { nodes: ArmatureNode[]; bones: Bone[]; members: Member[] },
): void {
  const first = part.line[0]!;
  // A left horn is not bound to the right one.
  const own = to.nodes.filter((n) => !n.id.startsWith(`${prefix}/`) || sideOf(n.id) === sideOf(part.id));
  const root = own.reduce((best, n) => (distance(n.at, first) < distance(best.at, first) ? n : best));
  const region = masses.find((m) => m.id === part.id)!.region;
  // A part that is all its line begins at its joint.
  const asked = distance(root.at, first) > atTheJoint || part.line.length === 1 ? part.line : part.line.slice(1);
  const path = drawnBack(context, root.at, asked, context.clayOver(region));
  const name = `wire in the ${bodySide(part.name)}`.slice(0, 80);
  // What lies beside it hangs on it where it is the nearest.
  const beside = masses.filter(
    (m) => m.region === region && awayFromLine([root.at, ...path], m.at as Vec3) < 1.2 * reachOf(m),
  );
  const hangs = [...new Set([...part.masses, ...beside.map((m) => m.id)])];
  const laid: string[] = [];
  let from = root.id;
  path.forEach((at, i) => {
    const id = `${prefix}/${part.id.replaceAll('/', '-')}${path.length > 1 ? `-${i + 1}` : ''}`;
    to.nodes.push({ id, at, held: false });
    to.bones.push({
      id,
      name: path.length > 1 ? `${bodySide(part.name)}, stretch ${i + 1}` : bodySide(part.name),
      from,
      to: id,
      masses: hangs,
      joinFrom: i === 0 ? 'bound-glued' : 'welded',
      joinTo: 'welded',
    });
    laid.push(id);
    from = id;
  });
  const across = context.across(stock, size);
  to.members.push({
    id: `${prefix}/wire-${part.id.replaceAll('/', '-')}`,
    name,
    stock,
    size,
    strands: 1,
    bonded: false,
    sizedBy: { stock: '', size: '' },
    ...bentInto(context, stock, size, 1),
    path: [root.at, ...path],
    bones: laid,
    allowances: [
      { what: 'bound along the other wire', at: 'start', length: 12 * across },
      { what: 'end loop', at: 'end', length: 6 * across },
    ],
  });
}

/** As far out as there is core for it to lie in, and at least so much of the way. */
function drawnBack(context: SchoolContext, root: Vec3, line: readonly Vec3[], clay: number): Vec3[] {
  const whole = [root, ...line];
  const wanted = clay + underClay;
  let until = leastShare;
  // From the tip inwards: where it leaves the trunk it passes through clay in any case.
  for (let share = mostShare; share > leastShare; share -= 0.02)
    if (context.depthAt(alongPath(whole, share)) >= wanted) {
      until = share;
      break;
    }
  return cutAt(whole, until).slice(1);
}

const sideOf = (id: string): string => /-(left|right)(-\d+)?$/.exec(id)?.[1] ?? '';

function reachOf({ shape }: Mass): number {
  if (shape.kind === 'round-cone') return Math.max(shape.radiusFrom, shape.radiusTo);
  return shape.kind === 'ellipsoid' ? [...shape.radii].sort((a, b) => a - b)[1]! : 0;
}
