import { formatMass, sensible } from '../quantity';
import { statusOf } from '../piece';
import { finding, type Proposal, type Rule } from './finding';

/** Clay with so much water worked in that it runs is slip, and stays nowhere. */
export const slip: Rule = {
  id: 'slip',
  judge: ({ piece, units }) => {
    const { towardsSlip } = piece.mixed;
    const { waterWorkedIn } = piece.build.materials;
    if (towardsSlip < nearSlip) return [];
    const status = statusOf(towardsSlip);
    return [
      finding(
        'clay',
        'slip',
        status,
        'the clay',
        status === 'fails'
          ? 'With that much water it is slip, not clay: it runs off what it is laid on.'
          : 'With that much water the clay is close to slip.',
        `${formatMass(waterWorkedIn, units)} worked into ${formatMass(1, units)} of ${piece.clay.name} is ${sensible(towardsSlip * 100, 2)} % of the water that makes slip of it. Its yield stress falls from ${sensible(piece.clay.yieldStress / 1000, 2)} to ${sensible(piece.mixed.yieldStress / 1000, 2)} kPa.`,
        { measured: towardsSlip, limit: 1, unit: 'ratio' },
      ),
    ];
  },
  propose: ({ piece }) => {
    const { waterWorkedIn } = piece.build.materials;
    const water = (id: string, label: string, value: number, note: string): Proposal => ({
      id,
      edit: { label, changes: [{ path: ['materials', 'waterWorkedIn'], value }] },
      note,
    });
    const less = Math.floor(((waterWorkedIn * softEnough) / piece.mixed.towardsSlip) * 100) / 100;
    return [
      ...(less > 0
        ? [water('less-water', `Work in ${sensible(less * 100)} % of water`, less, 'soft, and still clay')]
        : []),
      water('no-water', 'Work no water in', 0, 'as it comes out of the pack'),
    ];
  },
};

/** Of the water that makes slip of it: from here on it is said. */
const nearSlip = 0.6;
const softEnough = 0.3;
