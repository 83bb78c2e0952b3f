import { sensible } from '../quantity';
import { crackStatus, crackWords } from './crack-words';
import { finding, type Rule } from './finding';

/** A joint of two pieces of clay takes less than whole clay does: it is where the piece cracks first. */

/** Of what whole clay takes: grips of the bond against that of scored and slipped clay, and nothing is as good as none. Ours. */
export const seamStrength = { 'scored-slipped': 0.9, slipped: 0.75, scored: 0.6, pressed: 0.4 } as const;
const seamWords = {
  'scored-slipped': 'scored and slipped',
  slipped: 'with slip alone',
  scored: 'scored, without slip',
  pressed: 'by pressing alone',
} as const;

export const seam: Rule = {
  id: 'seam',
  judge: ({ piece, report }) => {
    const limit = piece.build.brief.limits.crack;
    return piece.build.regions.seams.flatMap((s) => {
      const strength = seamStrength[s.made];
      const beside = s.regions.reduce((m, id) => Math.max(m, report.regions.find((r) => r.id === id)?.crack ?? 0), 0);
      const crack = beside / strength;
      if (crack === 0 || piece.clay.setting !== 'dries') return [];
      return [
        finding(
          'clay',
          `seam/${s.name}`,
          crackStatus(crack, limit),
          s.name,
          `Along the seam "${s.name}" cracks are ${crackWords(crack, limit)}.`,
          `Made ${seamWords[s.made]}, it takes ${sensible(strength * 100)} % of what whole clay does; beside it the crack index is ${sensible(beside, 2)}.`,
          { measured: crack, limit, unit: 'ratio' },
        ),
      ];
    });
  },
};
