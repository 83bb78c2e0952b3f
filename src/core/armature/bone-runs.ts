import type { Vec3 } from '../quantity';
import type { Armature, Bone } from './types';

/** Bones in runs, each going on from the last one's outer joint: what one wire goes through. Branches are runs of their own. */
export function runsOf(armature: Pick<Armature, 'nodes'>, bones: readonly Bone[]): Bone[][] {
  const from = new Map<string, Bone[]>();
  for (const b of bones) from.set(b.from, [...(from.get(b.from) ?? []), b]);
  const ends = new Set(bones.map((b) => b.to));
  const runs: Bone[][] = [];
  const follow = (start: Bone) => {
    const run = [start];
    for (let at = start; ;) {
      const [next, ...others]: Bone[] = from.get(at.to) ?? [];
      for (const o of others) follow(o);
      if (!next) break;
      run.push(next);
      at = next;
    }
    runs.push(run);
  };
  for (const b of bones) if (!ends.has(b.from)) follow(b);
  return runs.filter((r) => armature.nodes.some((n) => n.id === r[0]?.from));
}

/** Through the joints of a run, from its first. */
export function pathThrough(armature: Pick<Armature, 'nodes'>, run: readonly Bone[]): Vec3[] {
  const place = new Map(armature.nodes.map((n) => [n.id, n.at]));
  return [run[0]?.from ?? '', ...run.map((b) => b.to)].flatMap((id) => {
    const at = place.get(id);
    return at ? [at] : [];
  });
}
