import { memberMass, type Armature } from '../../src/core/armature';
import { lumpLoad } from '../../src/core/load';
import { checkLoad, type Piece } from '../../src/core/piece';
import { mix } from '../../src/core/quantity';

/** The armature with a joint put in the middle of one bone: nothing about it is any other. */
export function splitBone(armature: Armature, id: string, share = 0.5): Armature {
  const at = new Map(armature.nodes.map((n) => [n.id, n.at]));
  const bone = armature.bones.find((b) => b.id === id)!;
  const middle = `${id}-middle`,
    second = `${id}-second`;
  return {
    ...armature,
    nodes: [...armature.nodes, { id: middle, at: mix(at.get(bone.from)!, at.get(bone.to)!, share), held: false }],
    bones: armature.bones.flatMap((b) =>
      b.id !== id
        ? [b]
        : [
            { ...b, to: middle, joinTo: 'welded' as const },
            { ...b, id: second, from: middle, joinFrom: 'welded' as const },
          ],
    ),
    members: armature.members.map((m) => ({ ...m, bones: m.bones.flatMap((b) => (b === id ? [b, second] : [b])) })),
  };
}

/** The piece on another armature of the same members. */
export function onArmature(piece: Piece, armature: Armature): Piece {
  const { volumes, regionOfMass, regions, form, wrapPerArea, layersPerArea, field, stockOf } = piece;
  return {
    ...piece,
    armature,
    load: lumpLoad(
      volumes.parcels,
      regionOfMass,
      regions.length,
      form.masses.map((m) => m.id),
      armature.nodes,
      armature.bones,
      armature.members,
      (m) => memberMass(m, stockOf(m.stock)!),
      volumes.perMass.map((m, i) =>
        m.clay <= 0 || wrapPerArea === 0 ? 0 : (m.area * layersPerArea[regionOfMass[i]!]!) / wrapPerArea,
      ),
      field.countedWith,
    ),
  };
}

/** What the weakest bone of a piece is asked, and how far the worst joint sinks of its way from the base. */
export function worstOf(piece: Piece): { utilisation: number; sag: number } {
  const report = checkLoad(piece);
  if (!report.ok) throw new Error(report.message);
  const bones = report.value.lifeStages.flatMap((s) => s.bones);
  return {
    utilisation: Math.max(...bones.map((b) => b.utilisation)),
    sag: Math.max(...bones.map((b) => b.sag)),
  };
}
