import { joinKinds, type JoinKindId } from '../catalogue';
import type { Armature, Bone, Section } from './types';

/**
 * Where an armature comes apart: a bone that is bolted on, sleeved or socketed takes everything beyond it along. What is
 * left standing is a section too. None when nothing comes away.
 */
const waysToPart: readonly { readonly join: JoinKindId; readonly inIt: string }[] = [
  { join: 'socketed', inIt: 'in the socket' },
  { join: 'sleeved', inIt: 'in the sleeve' },
  { join: 'bolted', inIt: 'between the plates' },
];
const separable: ReadonlySet<JoinKindId> = new Set(waysToPart.map((w) => w.join));

/** Joins that what lies beyond them comes away at. */
export const partingJoins: readonly JoinKindId[] = waysToPart.map((w) => w.join);

/** What a wire's length in a join that comes apart is called; null for joins that hold for good. */
export function comesAway(join: JoinKindId): { readonly inIt: string } | null {
  return waysToPart.find((w) => w.join === join) ?? null;
}

/** What it comes apart into, by its school's word or else by its joins; none or one where it does not. */
export function sectionsIn(armature: Pick<Armature, 'nodes' | 'bones' | 'sections'>): readonly Section[] {
  return armature.sections ?? sectionsByJoins(armature);
}

export function sectionsByJoins(armature: Pick<Armature, 'nodes' | 'bones'>): Section[] {
  const { nodes, bones } = armature;
  const cuts = bones.filter((b) => !b.tie && (separable.has(b.joinFrom) || separable.has(b.joinTo)));
  if (cuts.length === 0) return [];
  // A cut bone hangs on to one of its ends only: the other side is let go there.
  const links = bones
    .filter((b) => !b.tie)
    .flatMap((b): [string, string][] => [
      ...(separable.has(b.joinFrom) ? [] : [[b.from, b.id] as [string, string]]),
      ...(separable.has(b.joinTo) ? [] : [[b.to, b.id] as [string, string]]),
    ]);
  const { ofJoint, ofBone } = componentsOf(
    nodes.map((n) => n.id),
    bones.map((b) => b.id),
    links,
  );
  const standing = new Set(nodes.filter((n) => n.held).map((n) => ofJoint.get(n.id)));
  const own = new Map<number, { masses: string[]; bone: Bone | undefined }>();
  const massesOf = new Map<string, Map<number, number>>();
  for (const b of bones) {
    const g = ofBone.get(b.id)!;
    const main = standing.has(g) ? -1 : g;
    if (!own.has(main)) own.set(main, { masses: [], bone: undefined });
    for (const m of b.masses) {
      const counts = massesOf.get(m) ?? new Map<number, number>();
      counts.set(main, (counts.get(main) ?? 0) + 1);
      massesOf.set(m, counts);
    }
  }
  for (const cut of cuts) {
    const g = ofBone.get(cut.id)!;
    const section = own.get(g);
    if (section && !section.bone) section.bone = cut;
  }
  // A mass goes with the section most of its bones are in; with the part that comes away when it is shared alike.
  for (const [mass, counts] of massesOf) {
    const [best] = [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0]);
    if (best) own.get(best[0])?.masses.push(mass);
  }
  const sections = [...own]
    .filter(([, s]) => s.masses.length > 0)
    .map(([g, s]): Section => {
      const join = s.bone ? (separable.has(s.bone.joinFrom) ? s.bone.joinFrom : s.bone.joinTo) : undefined;
      return g === -1
        ? { id: 'standing', name: 'what stays on the base', masses: s.masses, heldBy: 'the base', standing: true }
        : {
            id: s.bone?.id ?? String(g),
            name: `from the ${s.bone?.name ?? 'join'} on`,
            masses: s.masses,
            heldBy: joinKinds.find((j) => j.id === join)?.name ?? '',
          };
    });
  return sections.length > 1 ? sections.sort((a, b) => Number(b.id === 'standing') - Number(a.id === 'standing')) : [];
}

/** Which part every joint and every bone is of, by number; links are [joint, bone]. */
function componentsOf(
  nodes: readonly string[],
  bones: readonly string[],
  links: readonly (readonly [string, string])[],
): { readonly ofJoint: ReadonlyMap<string, number>; readonly ofBone: ReadonlyMap<string, number> } {
  const place = new Map(nodes.map((n, i) => [n, i])),
    boneAt = new Map(bones.map((b, i) => [b, nodes.length + i]));
  const parent = Array.from({ length: nodes.length + bones.length }, (_, i) => i);
  const find = (x: number): number => {
    let at = x;
    while (parent[at] !== at) at = parent[at]!;
    return at;
  };
  for (const [n, b] of links) parent[find(place.get(n) ?? 0)] = find(boneAt.get(b) ?? 0);
  return {
    ofJoint: new Map(nodes.map((n, i) => [n, find(i)])),
    ofBone: new Map(bones.map((b, i) => [b, find(nodes.length + i)])),
  };
}
