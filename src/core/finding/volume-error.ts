import { formatLength, formatVolume, sensible } from '../quantity';
import { statusOf } from '../piece';
import { finding, type Rule } from './finding';

/** How well the form is measured. */
export const volumeError: Rule = {
  id: 'volume-error',
  judge: ({ report, units }) => {
    const { size } = report;
    const share = size.volume > 0 ? size.volumeError / size.volume : Infinity;
    return [
      finding(
        'form',
        'volume-error',
        statusOf(share, 0.01, 0.05),
        'whole form',
        `It stands ${formatLength(size.height, units)} high and encloses ${formatVolume(size.volume, units)}.`,
        `Measured on cells of ${formatLength(size.step, units)}; the volume is good to ${sensible(share * 100, 2)} %.`,
        { measured: share, limit: 0.05, unit: 'share' },
      ),
    ];
  },
};
