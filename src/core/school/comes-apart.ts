import { comesAway, type Allowance, type Armature, type Bone, type Member } from '../armature';
import type { JoinKindId } from '../catalogue';
import type { ArmaturePart, BuildEdit } from '../document';
import { distance, type Vec3 } from '../quantity';

/**
 * A limb that comes away: the bones that begin at a joint are held there by something that lets go, and a wire that ran
 * through it is two, each with its length in the socket, the sleeve or the plates.
 */
/** Times how thick one wire is: what each side of a join takes. */
const inTheJoin = 10;

/** A joint's place and a bone's end are the same within this, metres. */
const same = 1e-4;

const apart = '/apart-';

/** The member that a part of it was cut from; its own id for one that was not. */
export const cutFrom = (id: string): string => id.split(apart)[0]!;

/** Members that run through a join which the maker set to come away are cut there. `across`: how thick one strand is, metres. */
export function cutWhereItParts(
  { nodes, bones, members }: Pick<Armature, 'nodes' | 'bones' | 'members'>,
  edits: ArmaturePart['edits'],
  across: (stock: string, size: string) => number,
): Member[] {
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  const byId = new Map(bones.map((b) => [b.id, b]));
  return members.flatMap((m) => {
    // Bent by hand it is bent as a whole.
    if (Object.hasOwn(edits, m.id) && edits[m.id]?.path) return [m];
    const parts: Member[] = [];
    let left = m;
    for (let i = 1; i < m.bones.length; i++) {
      const [before, bone] = [byId.get(m.bones[i - 1]!), byId.get(m.bones[i]!)];
      if (!before || !bone || before.to !== bone.from) continue;
      const inIt = setByHand(edits, before.id, 'joinTo') ?? setByHand(edits, bone.id, 'joinFrom');
      const at = place.get(bone.from);
      const k = at ? left.path.findIndex((p) => distance(p, at) < same) : -1;
      if (!inIt || k <= 0 || k >= left.path.length - 1) continue;
      const within: Allowance = { what: inIt, length: inTheJoin * across(m.stock, m.size) };
      const since = left.bones.indexOf(bone.id);
      const [near, far] = [left.path.slice(0, k + 1), left.path.slice(k)];
      const share = lengthOf(near) / lengthOf(left.path);
      parts.push({
        ...left,
        path: near,
        bones: left.bones.slice(0, since),
        allowances: [...shared(left.allowances, 'end', share), within],
      });
      left = {
        ...left,
        id: `${m.id}${apart}${parts.length + 1}`,
        name: `wire in the ${bone.name.replace(/, stretch \d+$/, '')}, which comes away`,
        path: far,
        bones: left.bones.slice(since),
        allowances: [within, ...shared(left.allowances, 'start', 1 - share)],
      };
    }
    return [...parts, left];
  });
}

/** What a piece keeps of its allowances: not those of the end it no longer has, and its share of those all along. */
function shared(all: readonly Allowance[], without: 'start' | 'end', share: number): Allowance[] {
  return all.flatMap((a) => (a.at === without ? [] : a.at ? [a] : [{ ...a, length: a.length * share }]));
}

function setByHand(edits: ArmaturePart['edits'], id: string, end: 'joinFrom' | 'joinTo'): string | null {
  const join = Object.hasOwn(edits, id) ? edits[id]?.[end] : undefined;
  return join === undefined ? null : (comesAway(join)?.inIt ?? null);
}

const lengthOf = (path: readonly Vec3[]): number => path.slice(1).reduce((sum, p, i) => sum + distance(path[i]!, p), 0);

/** Bones that begin at a place; none where the armature has no joint there. */
export function bonesFrom({ nodes, bones }: Pick<Armature, 'nodes' | 'bones'>, at: Vec3): Bone[] {
  const node = nodes.find((n) => distance(n.at, at) < same);
  return node ? bones.filter((b) => b.from === node.id && !b.tie) : [];
}

/** What lies beyond a place comes away there, held by `join`; one piece with the rest again by null. Null where no bone begins. */
export function letComeAway(
  armature: Pick<Armature, 'nodes' | 'bones'>,
  at: Vec3,
  limb: string,
  join: JoinKindId | null,
): BuildEdit | null {
  const beyond = bonesFrom(armature, at);
  if (beyond.length === 0) return null;
  return {
    label: join ? `The ${limb} comes away` : `The ${limb} stays on`,
    changes: beyond.map((b) => ({ path: ['armature', 'edits', b.id, 'joinFrom'], value: join ?? undefined })),
  };
}
