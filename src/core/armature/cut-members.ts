import { mix, type Vec3 } from '../quantity';
import { CutRows, type SectionForces } from './beam';
import type { FrameLoad, FrameMember, FrameModel, FrameNode, FrameSolution } from './frame';
import type { PushAlong } from './geometric-stiffness';

/**
 * Members cut into equal pieces, so that a cubic follows how each bows under a push. The joints of the uncut frame keep
 * their order and come first; end springs stay at the ends.
 */
export interface CutFrame {
  readonly model: FrameModel;
  /** By piece, the member it is of. */
  readonly owner: readonly number[];
  /** By member, its first piece and how many it has. */
  readonly first: readonly number[];
  readonly pieces: readonly number[];
}

export function cutMembers(model: FrameModel, pieces: readonly number[]): CutFrame {
  const place = new Map(model.nodes.map((n) => [n.id, n.at]));
  const nodes: FrameNode[] = [...model.nodes];
  const members: FrameMember[] = [],
    owner: number[] = [],
    first: number[] = [];
  model.members.forEach((m, i) => {
    const a = place.get(m.from),
      b = place.get(m.to);
    const n = a && b ? pieces[i]! : 1;
    first.push(members.length);
    const { springFrom, springTo, from, to, ...rest } = m;
    for (let p = 0; p < n; p++) {
      const last = p === n - 1;
      if (!last) nodes.push({ id: cutId(m.id, p + 1), at: mix(a as Vec3, b as Vec3, (p + 1) / n) });
      members.push({
        ...rest,
        id: n === 1 ? m.id : pieceId(m.id, p),
        from: p === 0 ? from : cutId(m.id, p),
        to: last ? to : cutId(m.id, p + 1),
        ...(p === 0 && springFrom !== undefined ? { springFrom } : {}),
        ...(last && springTo !== undefined ? { springTo } : {}),
      });
      owner.push(i);
    }
  });
  return { model: { nodes, members }, owner, first, pieces };
}

// No name a maker gives holds this character.
const cutId = (member: string, at: number) => `${member}\u0000at ${at}`;
const pieceId = (member: string, piece: number) => `${member}\u0000${piece}`;

/** Loads on members as loads on their pieces. One at a cut is on the piece that ends there. */
export function cutLoads(
  cut: CutFrame,
  indexOf: ReadonlyMap<string, number>,
  loads: readonly FrameLoad[],
): FrameLoad[] {
  return loads.flatMap((load): FrameLoad[] => {
    if ('node' in load) return [load];
    const i = indexOf.get(load.member);
    const n = i === undefined ? 1 : cut.pieces[i]!;
    if (n === 1) return [load];
    if ('perLength' in load) return Array.from({ length: n }, (_, p) => ({ ...load, member: pieceId(load.member, p) }));
    const p = Math.min(n - 1, Math.max(0, Math.ceil(load.at * n - 1e-9) - 1));
    return [{ ...load, member: pieceId(load.member, p), at: load.at * n - p }];
  });
}

/** What was solved on pieces, told by whole members again. `lengths` are those of the members, metres. */
export function joinedUp(
  cut: CutFrame,
  solution: FrameSolution,
  nodes: number,
  lengths: readonly number[],
): FrameSolution {
  const rows = new CutRows(solution.forces.reduce((sum, cuts) => sum + cuts.length, 0));
  return {
    displacements: solution.displacements.subarray(0, nodes * 6),
    reactions: solution.reactions.subarray(0, nodes * 6),
    forces: cut.first.map((from, i): readonly SectionForces[] => {
      const n = cut.pieces[i]!;
      if (n === 1) return solution.forces[from]!;
      const step = lengths[i]! / n;
      return Array.from({ length: n }, (_, p) =>
        solution.forces[from + p]!.map((s) =>
          rows.add(s.at + p * step, s.axial, s.shearY, s.shearZ, s.torsion, s.momentY, s.momentZ),
        ),
      ).flat();
    }),
  };
}

/** The push along one piece of a member, from that along the whole of it. */
export function pushWithin(push: PushAlong, from: number, to: number): PushAlong {
  const at = (x: number, late: boolean): number => {
    // Where the push jumps, the value on the side of the piece.
    for (let i = 1; i < push.length; i++) {
      const a = push[i - 1]!,
        b = push[i]!;
      if (b.at > a.at && (late ? x < b.at : x <= b.at))
        return a.axial + ((x - a.at) / (b.at - a.at)) * (b.axial - a.axial);
    }
    return push[push.length - 1]?.axial ?? 0;
  };
  return [
    { at: 0, axial: at(from, true) },
    ...push.filter((s) => s.at > from && s.at < to).map((s) => ({ at: s.at - from, axial: s.axial })),
    { at: to - from, axial: at(to, false) },
  ];
}
