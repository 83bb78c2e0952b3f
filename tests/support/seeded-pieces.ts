import type { Build } from '../../src/core/document';
import { resolveForm, startForms } from '../../src/core/form';
import { seeded } from '../../src/core/quantity';
import { schools, startBuild } from '../../src/core/school';

/** A piece anyone might make: any start form, school, clay and room, laid as thick as that clay usually is. */
export function seededPiece(seed: number, clays = dryingClays): Build {
  const random = seeded(seed * 7919 + 13);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const between = (low: number, high: number) => low + random() * (high - low);
  for (;;) {
    const form = pick(startForms);
    const size = form.usualSize * between(0.7, 1.2);
    const made = startBuild(`Piece ${seed}`, '2026-12-01', form.kind, Math.min(5, Math.max(0.06, size)));
    if (!made.ok) throw new Error(made.message);
    const resolved = resolveForm(made.value);
    if (!resolved.ok) throw new Error(resolved.message);
    const [kind, usual] = pick(clays);
    const fitting = schools.filter((s) => s.fits(resolved.value)).map((s) => s.kind);
    const own = made.value.armature.school;
    const school = random() < 0.5 ? own : { kind: pick(fitting), parameters: {} };
    const thickness = between(usual[0], usual[1]);
    const coats = random() < 0.25 ? [thickness / 2, thickness / 2] : [thickness];
    return {
      ...made.value,
      brief: { ...made.value.brief, clay: kind },
      room: {
        ...made.value.room,
        temperature: between(13, 27),
        relativeHumidity: between(0.35, 0.7),
        airSpeed: pick([0.1, 0.1, 0.4, 1.5]),
        covers: random() < 0.2 ? [{ kind: 'loose-plastic', from: 0, until: 48, regions: [] }] : [],
      },
      armature: { ...made.value.armature, school },
      regions: { painted: [], seams: [], everywhere: { coats }, own: {} },
    };
  }
}

export const dryingClays: readonly (readonly [string, readonly [number, number]])[] = [
  ['paper-clay', [0.004, 0.012]],
  ['earthen-air-dry', [0.005, 0.014]],
  ['foam-air-dry', [0.005, 0.012]],
  ['cold-porcelain', [0.002, 0.005]],
  ['paper-strips', [0.002, 0.004]],
];
