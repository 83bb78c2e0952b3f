import { rotate, rotationOf, type Mass } from '../form';
import type { BuildEdit } from '../document';
import type { Piece } from '../piece';
import { add, distance, dot, mix, scale, subtract, type Vec3 } from '../quantity';

/**
 * A wire along a slender part that no joint runs through: a horn, a tusk, the finger of a wing. Its line is that of the
 * cones it is made of, from the nearest joint of the armature to short of its tip; what is on the other side gets its own.
 */
interface Cone {
  readonly id: string;
  readonly from: Vec3;
  readonly to: Vec3;
  readonly radiusTo: number;
}

/** Cones meet where their ends lie closer than this, metres. */
const meets = 0.003;
/** What lies farther than this from a cone is no part of it. */
const belongs = 0.12;
/** The wire ends this share of the last cone short of its tip. */
const shortOfTip = 0.88;

function conesOf(masses: readonly Mass[]): Cone[] {
  return masses.flatMap((m): Cone[] =>
    m.shape.kind === 'round-cone'
      ? [
          {
            id: m.id,
            from: m.at as Vec3,
            to: add(m.at as Vec3, rotate(rotationOf(m.turn as Vec3), m.shape.reach as Vec3)),
            radiusTo: m.shape.radiusTo,
          },
        ]
      : [],
  );
}

function awayFrom({ from, to }: Pick<Cone, 'from' | 'to'>, p: Vec3): number {
  const way = subtract(to, from);
  const l2 = dot(way, way);
  const t = l2 > 0 ? Math.min(1, Math.max(0, dot(subtract(p, from), way) / l2)) : 0;
  return distance(p, mix(from, to, t));
}

/** Whether a bone runs in it already, from end to end. */
function hasBone({ from, to }: Cone, { nodes, bones }: Piece['armature']): boolean {
  const at = new Map(nodes.map((n) => [n.id, n.at]));
  const near = (p: Vec3) => bones.some((b) => awayFrom({ from: at.get(b.from)!, to: at.get(b.to)! }, p) < 4 * meets);
  return near(from) && near(mix(from, to, shortOfTip));
}

/** The cones in a row that the one nearest to a place is one of, root first. */
function rowAt(cones: readonly Cone[], at: Vec3): Cone[] {
  const nearest = cones.reduce<Cone | null>(
    (best, c) => (best === null || awayFrom(c, at) < awayFrom(best, at) ? c : best),
    null,
  );
  if (!nearest || awayFrom(nearest, at) > belongs) return [];
  const row = [nearest];
  for (let n = 0; n < 20; n++) {
    const before = cones.find((c) => !row.includes(c) && distance(c.to, row[0]!.from) < meets);
    if (!before) break;
    row.unshift(before);
  }
  for (let n = 0; n < 20; n++) {
    const last = row[row.length - 1]!;
    const after = cones.find((c) => !row.includes(c) && distance(c.from, last.to) < meets);
    if (!after) break;
    row.push(after);
  }
  return row;
}

/** Puts a wire of this size along what lies at each of these places, its end on a prop until it is dry if asked; null where no cone lies there that no bone runs in. */
export function wireAlong(
  { build, armature, form }: Piece,
  places: readonly { readonly at: Vec3; readonly mass: string }[],
  size: string,
  label: string,
  propped: boolean,
): BuildEdit | null {
  const { added, props } = build.armature;
  const taken = new Set([...armature.nodes, ...armature.bones, ...armature.members].map((x) => x.id));
  const free = (stem: string): string => {
    for (let n = 1; ; n++) {
      const id = `${stem}-${n}`;
      if (!taken.has(id)) {
        taken.add(id);
        return id;
      }
    }
  };
  const nodes: unknown[] = [],
    bones: unknown[] = [],
    members: unknown[] = [],
    stands: unknown[] = [];
  const done = new Set<string>();
  for (const place of places) {
    const row = rowAt(
      conesOf(form.masses).filter((c) => !hasBone(c, armature)),
      place.at,
    );
    const [first] = row;
    if (!first || done.has(first.id)) continue;
    done.add(first.id);
    const root = armature.nodes.reduce((best, n) =>
      distance(n.at, first.from) < distance(best.at, first.from) ? n : best,
    );
    const tips = row.map((c, i) => (i < row.length - 1 ? c.to : mix(c.from, c.to, shortOfTip)));
    // A root that lies on the joint itself is no bend of its own.
    const path = distance(root.at, first.from) > 0.01 ? [first.from, ...tips] : tips;
    const name = `wire in the ${form.masses.find((m) => m.id === first.id)?.name ?? 'part'}`.slice(0, 80);
    const masses = [...new Set([...row.map((c) => c.id), place.mass])];
    let from = root.id;
    const along: string[] = [];
    path.forEach((p, i) => {
      const node = free('own/joint'),
        bone = free('own/member');
      nodes.push({ id: node, at: round(p), held: false });
      bones.push({
        id: bone,
        name,
        from,
        to: node,
        masses,
        joinFrom: i === 0 ? 'bound-glued' : 'welded',
        joinTo: 'welded',
      });
      along.push(bone);
      from = node;
    });
    if (propped)
      stands.push({
        id: `prop-${from.replaceAll('/', '-')}`,
        name: `prop under the end of the ${name}`.slice(0, 80),
        node: from,
        until: 'through-dry',
      });
    members.push({
      id: along[0],
      name,
      stock: 'steel-galvanised',
      size,
      strands: 1,
      bonded: false,
      path: [round(root.at), ...path.map(round)],
      bones: along,
      allowances: [{ what: 'bound along the other wire', length: 0.04 }],
    });
  }
  if (members.length === 0) return null;
  return {
    label,
    changes: [
      ...nodes.map((value, i) => ({ path: ['armature', 'added', 'nodes', added.nodes.length + i], value })),
      ...bones.map((value, i) => ({ path: ['armature', 'added', 'bones', added.bones.length + i], value })),
      ...members.map((value, i) => ({ path: ['armature', 'added', 'members', added.members.length + i], value })),
      ...stands.map((value, i) => ({ path: ['armature', 'props', props.length + i], value })),
    ],
  };
}

const round = (p: Vec3): number[] => [...scale(p, 1)].map((v) => Math.round(v * 1e5) / 1e5);
