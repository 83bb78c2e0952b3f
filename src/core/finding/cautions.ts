import type { Build } from '../document';
import type { Piece } from '../piece';

/** The usual cautions that stand beside the results, by what the piece is made of. Local rules come first. */
export function cautionsFor(piece: Piece): string[] {
  const out: string[] = [];
  const { clay, bulk, armature, build } = piece;
  if (clay.setting === 'dries')
    out.push('Sanding dried clay: respirator, wet sanding where it stands it, and no sweeping dry.');
  if (clay.setting === 'sets') out.push('Epoxy clay: gloves, moving air, and no bare skin until it is hard.');
  if (clay.setting === 'bakes') out.push('Oven work: moving air, and nothing hot in bare hands.');
  if (clay.setting === 'never') out.push('Warmed clay burns skin above 50 degrees: test it on the wrist.');
  if (bulk.id.startsWith('polystyrene') || bulk.id.startsWith('foam'))
    out.push('Foam: cut it cold, keep heat and solvent away from it.');
  if (bulk.id.startsWith('plaster') || bulk.id.startsWith('gauze'))
    out.push('Plaster: a mask against the dust, and never a hand or limb in setting plaster.');
  if (armature.members.length > 0) out.push('Cut wire ends: eye protection, and turn the ends in.');
  if (build.brief.situation === 'worn')
    out.push('Worn or above people: a licensed engineer and the local rules decide; these figures are a sketch.');
  return out;
}

/** Lifting is judged on its own when it is heavy. */
export function liftingCaution(kilograms: number): string | null {
  if (kilograms > 23) return 'Over 23 kg: two people or a hoist, a clear path, and someone at the door.';
  if (kilograms > 12) return 'Over 12 kg: lift it close to the body, or ask for a second pair of hands.';
  return null;
}

/** Where these figures stop being enough; null where they do not. */
export function engineerDecides(
  build: Build,
  report: {
    readonly size: { readonly height: number };
    readonly handling: { readonly whole: { readonly mass: number } };
  },
): string | null {
  const { mount } = build.armature;
  const why =
    mount.kind === 'hangs' || mount.kind === 'wall'
      ? 'It hangs where people pass'
      : build.brief.situation === 'worn'
        ? 'It is worn or stands above people'
        : report.size.height > 2
          ? 'It stands over 2 m high'
          : null;
  return why === null
    ? null
    : `${why}: a licensed engineer or rigger and the local rules decide; what is worked out here is a sketch for that talk.`;
}
