import type { Member, SizedBy } from '../armature';
import type { Build } from '../document';
import { schools, twinKey } from '../school';

/** Members that are cut from the same: all of one figure, or one wire and its twin on the other side. */
export interface SizedGroup {
  readonly key: string;
  readonly by: SizedBy;
  readonly members: readonly Member[];
  /** What the way of building takes, before anything is chosen. */
  readonly stock: string;
  /** What the maker left to be chosen. */
  readonly free: { readonly stock: boolean; readonly size: boolean; readonly strands: boolean };
}

/** What may be sized of an armature; a member of the maker's own, or with a size of the maker's, is left as it is. */
export function groupsOf(build: Build, members: readonly Member[]): SizedGroup[] {
  const { school, edits } = build.armature;
  const set = (key: string | undefined) => key !== undefined && Object.hasOwn(school.parameters, key);
  const own = schools.find((s) => s.kind === school.kind)?.parameters.safeParse(school.parameters);
  const figures = (own?.success ? own.data : {}) as Readonly<Record<string, unknown>>;
  const groups = new Map<string, { by: SizedBy; members: Member[] }>();
  for (const m of members) {
    const { sizedBy } = m;
    if (!sizedBy || (edits[m.id]?.size ?? edits[m.id]?.strands ?? edits[m.id]?.stock) !== undefined) continue;
    const key = sizedBy.together ? `figure/${sizedBy.size}` : `member/${twinKey(m.id)}`;
    const group = groups.get(key) ?? { by: sizedBy, members: [] };
    group.members.push(m);
    groups.set(key, group);
  }
  return [...groups].flatMap(([key, { by, members: alike }]): SizedGroup[] => {
    const free = {
      stock: !set(by.stock) && !set(by.size),
      size: !set(by.size),
      strands: !!by.strands && !set(by.strands),
    };
    return free.size || free.strands
      ? [{ key, by, members: alike, stock: String(figures[by.stock] ?? alike[0]!.stock), free }]
      : [];
  });
}
