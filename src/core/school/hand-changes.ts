import type { Armature, ArmatureNode, Bone, Member } from '../armature';
import type { ArmaturePart, MemberEdit } from '../document';
import { cutFrom, cutWhereItParts } from './comes-apart';
import { add, distance, failure, mix, success, type Result, type Vec3 } from '../quantity';

/**
 * What the maker changed by hand, laid over what the school set out: joints moved, bones cut, parts left out, stock and
 * joins set, wires bent, and parts of one's own. A member follows the joints it is bent through.
 */
export interface HandChanged {
  readonly armature: Armature;
  readonly lostEdits: readonly string[];
}

/** `across`: how thick one strand of a stock is, metres. */
export function layHandChanges(
  setOut: Armature,
  part: ArmaturePart,
  across: (stock: string, size: string) => number,
): Result<HandChanged> {
  const made = { ...setOut, members: cutWhereItParts(setOut, part.edits, across) };
  const { edits, added, nodes: moves, removed, splits } = part;
  const gone = new Set(removed);
  const all: ArmatureNode[] = [...made.nodes, ...added.nodes];
  const known = new Map(all.map((n) => [n.id, n]));
  for (const [i, bone] of added.bones.entries()) {
    for (const end of ['from', 'to'] as const) {
      if (!known.has(bone[end]) && !isSplit(bone[end], splits))
        return failure('unknown-node', `armature.added.bones.[${i}].${end}`, `no joint is called "${bone[end]}"`);
    }
    if (bone.from === bone.to)
      return failure('no-length', `armature.added.bones.[${i}]`, `"${bone.name}" starts and ends at the same joint`);
  }
  const shift = (id: string): Vec3 | undefined => (Object.hasOwn(moves, id) ? moves[id]?.moved : undefined);
  const nodes = all
    .filter((n) => !gone.has(n.id))
    .map((n): ArmatureNode => {
      const by = shift(n.id);
      const held = moves[n.id]?.held;
      return { ...n, ...(by ? { at: add(n.at, by) } : {}), ...(held === undefined ? {} : { held }) };
    });
  const bones = [...made.bones, ...added.bones.map(({ tie, ...b }): Bone => ({ ...b, ...(tie ? { tie } : {}) }))]
    .filter((b) => !gone.has(b.id) && !gone.has(b.from) && !gone.has(b.to))
    .map((b): Bone => ({ ...b, ...pick(edits[b.id], ['joinFrom', 'joinTo']) }));
  const moved = all.filter((n) => shift(n.id)).map((n) => ({ from: n.at, by: shift(n.id)! }));
  const own = added.members.map(({ bare, ...m }): Member => ({ ...m, ...(bare ? { bare } : {}) }));
  const members = [...made.members, ...own]
    .filter((m) => !gone.has(m.id))
    .map((m): Member => {
      // What comes away is of the same wire until it is set otherwise.
      const edit: MemberEdit = {
        ...pick(edits[cutFrom(m.id)], ['stock', 'size', 'strands', 'bonded', 'drawnIn']),
        ...edits[m.id],
      };
      const path = edit.path ?? follow(m.path, moved);
      const { drawnIn: _, ...asBent } = m;
      return { ...(edit.path ? asBent : m), path, ...pick(edit, ['stock', 'size', 'strands', 'bonded', 'drawnIn']) };
    });
  const cut = cutBones({ nodes, bones, members }, splits);
  // A member serves only bones there are; one that has none left is still cut and weighed.
  const there = new Set(cut.bones.map((b) => b.id));
  const ids = new Set([...all, ...made.members, ...made.bones, ...added.members, ...added.bones].map((x) => x.id));
  const lost = [...Object.keys(edits), ...Object.keys(moves), ...removed, ...Object.keys(splits)].filter(
    (id) => !ids.has(id),
  );
  return success({
    armature: {
      ...made,
      ...cut,
      members: cut.members.map((m) => ({ ...m, bones: m.bones.filter((b) => there.has(b)) })),
    },
    lostEdits: [...new Set(lost)],
  });
}

function isSplit(id: string, splits: ArmaturePart['splits']): boolean {
  const match = /^(.*)\/cut-(\d+)$/.exec(id);
  return match !== null && (splits[match[1]!]?.length ?? 0) >= Number(match[2]);
}

/** Points of a wire that stood at a joint go where the joint went; those between go their share of the way. */
function follow(path: readonly Vec3[], moved: readonly { readonly from: Vec3; readonly by: Vec3 }[]): readonly Vec3[] {
  if (moved.length === 0) return path;
  const at = path.map((p) => moved.find((m) => distance(m.from, p) < 1e-6)?.by ?? null);
  if (at.every((b) => b === null)) return path;
  // Between two points that are joints of other bones nothing moves; only the neighbours of a moved joint bend.
  return path.map((p, i) => (at[i] ? add(p, at[i] as Vec3) : p));
}

/** Cuts bones at shares of their length; joints between are called after the bone. */
function cutBones(
  parts: { nodes: readonly ArmatureNode[]; bones: readonly Bone[]; members: readonly Member[] },
  splits: ArmaturePart['splits'],
): { nodes: ArmatureNode[]; bones: Bone[]; members: Member[] } {
  const nodes = [...parts.nodes];
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  const pieces = new Map<string, string[]>();
  const bones = parts.bones.flatMap((b): Bone[] => {
    const shares = Object.hasOwn(splits, b.id)
      ? [...(splits[b.id] ?? [])].sort((x, y) => x - y).filter((s, i, list) => i === 0 || s - list[i - 1]! > 1e-3)
      : [];
    const from = place.get(b.from),
      to = place.get(b.to);
    if (shares.length === 0 || !from || !to) return [b];
    const stops = [
      b.from,
      ...shares.map((s, i) => {
        const id = `${b.id}/cut-${i + 1}`;
        if (!place.has(id)) nodes.push({ id, at: mix(from, to, s), held: false });
        return id;
      }),
      b.to,
    ];
    const out = stops.slice(1).map((stop, i): Bone => ({
      ...b,
      id: i === 0 ? b.id : `${b.id}/part-${i + 1}`,
      name: `${b.name}, part ${i + 1}`,
      from: stops[i]!,
      to: stop,
      joinFrom: i === 0 ? b.joinFrom : 'welded',
      joinTo: i === stops.length - 2 ? b.joinTo : 'welded',
    }));
    pieces.set(
      b.id,
      out.map((x) => x.id),
    );
    return out;
  });
  const members =
    pieces.size === 0
      ? [...parts.members]
      : parts.members.map((m) => ({ ...m, bones: m.bones.flatMap((id) => pieces.get(id) ?? [id]) }));
  return { nodes, bones, members };
}

function pick<K extends keyof MemberEdit>(
  edit: MemberEdit | undefined,
  keys: readonly K[],
): { [P in K]?: NonNullable<MemberEdit[P]> } {
  const out: { [P in K]?: NonNullable<MemberEdit[P]> } = {};
  for (const key of keys) {
    const value = edit?.[key];
    if (value !== undefined) out[key] = value as NonNullable<MemberEdit[K]>;
  }
  return out;
}
