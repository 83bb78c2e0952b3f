import { formatForce, sensible } from '../quantity';
import { finding, type Rule } from './finding';

/** What holds a worn piece on the body: its weight lies within its straps, and none carries nearly all. */
export const straps: Rule = {
  id: 'straps',
  judge: ({ report, units }) => {
    const { mount } = report;
    if (mount.kind !== 'worn') return [];
    if (mount.straps.length === 0) {
      return [
        finding(
          'move',
          'straps',
          'watch',
          'straps',
          'Nothing holds it on the body yet.',
          'Set two straps or stitch points at least, one each side of its centre of gravity.',
          { measured: 0, limit: 2, unit: 'count', smallerIsWorse: true },
        ),
      ];
    }
    const worst = mount.straps.reduce((w, s) => (s.share > w.share ? s : w));
    const lifts = mount.straps.some((s) => s.share < -0.01);
    return [
      finding(
        'move',
        'straps',
        lifts ? 'fails' : mount.straps.length < 2 || worst.share > 0.7 ? 'watch' : 'sound',
        'straps',
        lifts
          ? 'Its weight lies outside its straps: it turns over on the body.'
          : `The ${worst.name} carries most of it: ${sensible(worst.share * 100, 2)} %.`,
        `${mount.straps.map((s) => `${s.name} ${formatForce(s.pull, units)}`).join(', ')} at rest; a jump asks for twice that. Pad what presses, and let it come off by itself when it is caught.`,
        { measured: worst.share, limit: 0.7, unit: 'share' },
      ),
    ];
  },
};
