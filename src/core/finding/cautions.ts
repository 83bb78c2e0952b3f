import { layersOverClay, layersUnderClay } from '../clay';
import type { Build } from '../document';
import type { Piece } from '../piece';

const byMaterial: readonly (readonly [ids: readonly string[], caution: string])[] = [
  [
    ['polystyrene-expanded', 'polystyrene-extruded', 'foam-sprayed', 'foam-camping', 'foam-upholstery'],
    'Foam: cut it cold, keep heat and solvent away from it.',
  ],
  [
    ['foam-sprayed'],
    'Sprayed foam: gloves, eye protection and moving air until it has gone hard; not in a closed room, nor near a flame.',
  ],
  [
    ['plaster-set', 'gauze-set', 'primer-plaster-glue', 'gauze', 'gauze-four', 'sealing-primer'],
    'Plaster: a mask against the dust, and never a hand or limb in setting plaster.',
  ],
  [['cement'], 'Cement burns wet skin: gloves, eye protection, and a mask against the dust.'],
  [
    ['glassfibre-skin'],
    'Glass fibre and resin: gloves and a respirator for the fumes; long sleeves and a respirator where it is cut or sanded.',
  ],
  [['hot-glue'], 'Hot-melt glue burns deep: keep cold water by it.'],
  [
    ['shellac', 'varnish', 'solvent-varnish'],
    'Varnish and shellac: moving air, no flame; lay oily and spirit rags out flat to dry.',
  ],
];

/** The usual cautions that stand beside the results, by what the piece is made of. Local rules come first. */
export function cautionsFor(piece: Piece): string[] {
  const out: string[] = [];
  const { clay, bulk, armature, build } = piece;
  if (clay.setting === 'dries')
    out.push('Sanding dried clay: respirator, wet sanding where it stands it, and no sweeping dry.');
  if (clay.setting === 'sets') out.push('Epoxy clay: gloves, moving air, and no bare skin until it is hard.');
  if (clay.setting === 'bakes') out.push('Oven work: moving air, and nothing hot in bare hands.');
  if (clay.setting === 'never') out.push('Warmed clay burns skin above 50 °C, 122 °F: test it on the wrist.');
  const laid = new Set([
    bulk.id,
    ...(piece.face.solid ? [] : [piece.wrap.id]),
    ...piece.regions.flatMap((r) => (layersUnderClay(build, r) ?? []).map((l) => l.id)),
    ...piece.regions.flatMap((r) => layersOverClay(build, r).map((l) => l.id)),
  ]);
  for (const [ids, caution] of byMaterial) if (ids.some((id) => laid.has(id))) out.push(caution);
  if (build.armature.school.kind === 'steel-mesh-foam')
    out.push(
      'Welded or brazed steel: a screen, covered skin, moving air, nothing near that burns, an extinguisher at hand; then let it cool, and look again after an hour.',
    );
  if (armature.members.length > 0) out.push('Cut wire ends: eye protection, and turn the ends in.');
  if (build.brief.outdoors)
    out.push(
      'Outdoors: look at it after every wind, take it in or lie it down before a storm, and keep people from under it; its guys want to be seen.',
    );
  const engineer = engineerDecides(build, { size: { height: piece.extent.high[2] } });
  if (engineer) out.unshift(engineer);
  return out;
}

/** Lifting is judged on its own when it is heavy. */
export function liftingCaution(kilograms: number): string | null {
  if (kilograms > 23)
    return 'Over 23 kg, 51 lb: not by one alone, however it is held; a hoist or a trolley, a clear path, and someone at the door.';
  if (kilograms > 12) return 'Over 12 kg, 26 lb: lift it close to the body, or ask for a second pair of hands.';
  return null;
}

/** Where these figures stop being enough; null where they do not. */
export function engineerDecides(build: Build, report: { readonly size: { readonly height: number } }): string | null {
  const { mount } = build.armature;
  const why =
    mount.kind === 'hangs' || mount.kind === 'wall'
      ? 'It hangs where people pass'
      : build.brief.situation === 'worn'
        ? 'It is worn or stands above people'
        : report.size.height > 2
          ? 'It stands over 2 m high'
          : build.brief.outdoors
            ? 'It stands outdoors, in wind and weather'
            : null;
  return why === null
    ? null
    : `${why}: a licensed engineer or rigger and the local rules decide; what is worked out here is a sketch for that talk.`;
}
