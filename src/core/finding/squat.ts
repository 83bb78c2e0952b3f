import { formatLength } from '../quantity';
import { regionName, statusOf } from '../piece';
import { finding, type Rule } from './finding';
import { warmth } from './staying-put';

/** Solid soft clay stands under its own weight. */
export const squat: Rule = {
  id: 'squat',
  judge: (on) => {
    const { piece, report, units } = on;
    const worst = report.staying
      .flatMap((s) =>
        s.squat && s.squat.height > 0 ? [{ s, ...s.squat, share: s.squat.height / s.squat.stands }] : [],
      )
      .sort((a, b) => b.share - a.share)[0];
    if (!worst) return [];
    const { share, height, stands } = worst;
    const name = regionName(worst.s.region);
    return [
      finding(
        'clay',
        'squat',
        statusOf(share, 0.8),
        name,
        share > 1 ? `Fresh, the ${name} squats under its own weight.` : `Fresh, the ${name} stands by itself.`,
        `It is ${formatLength(height, units)} high; ${piece.clay.name}${warmth(on)} stands ${formatLength(stands, units)} before its foot flows${piece.clay.setting === 'never' ? ', given a day' : ''}. The armature takes up some of it; build from the base upward and let each part stiffen.`,
        { measured: share, limit: 1, unit: 'ratio' },
      ),
    ];
  },
};
