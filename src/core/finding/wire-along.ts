import { whenHardWords } from '../catalogue';
import type { BuildEdit } from '../document';
import type { Mass } from '../form';
import type { Piece } from '../piece';
import { distance, mix, scale, type Vec3 } from '../quantity';
import { awayFromLine, hasBone, partsToWire, type SlenderPart } from '../school';

/**
 * A wire along a slender part that no joint runs through: a horn, a tusk, the finger of a wing. Its line is that of the
 * cones it is made of, from the nearest joint of the armature to short of its tip; what is on the other side gets its own.
 */
/** What lies farther than this from a line is no part of it. */
const belongs = 0.12;
/** The wire ends this share of the last cone short of its tip. */
const shortOfTip = 0.88;

/** Rows of cones with no bone in them. */
function rowsOf(masses: readonly Mass[], armature: Piece['armature']): SlenderPart[] {
  const cones = new Set(masses.filter((m) => m.shape.kind === 'round-cone').map((m) => m.id));
  return partsToWire(masses, armature.nodes).filter((p) => cones.has(p.id) && !hasBone(p, armature));
}

/** Puts a wire of this size along what lies at each of these places, its end on a prop until it is hard if asked; null where no cone lies there that no bone runs in. */
export function wireAlong(
  { build, armature, form, clay }: Piece,
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
  const rows = rowsOf(form.masses, armature);
  for (const place of places) {
    const away = (p: SlenderPart) => awayFromLine(p.line, place.at);
    const row = rows.reduce<SlenderPart | null>((best, p) => (best && away(best) <= away(p) ? best : p), null);
    if (!row || away(row) > belongs || done.has(row.id)) continue;
    done.add(row.id);
    const first = row.line[0]!;
    const root = armature.nodes.reduce((best, n) => (distance(n.at, first) < distance(best.at, first) ? n : best));
    const last = row.line.length - 1;
    const tips = [...row.line.slice(1, last), mix(row.line[last - 1]!, row.line[last]!, shortOfTip)];
    // A root that lies on the joint itself is no bend of its own.
    const path = distance(root.at, first) > 0.01 ? [first, ...tips] : tips;
    const name = `wire in the ${row.name}`.slice(0, 80);
    const masses = [...new Set([...row.masses, place.mass])];
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
        until: whenHardWords(clay.setting) === null ? 'always' : 'through-dry',
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
