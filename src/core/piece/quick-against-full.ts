import type { Range } from '../quantity';

/**
 * How far the drying of the whole piece lies off the quick answer, by what the clay of a region is: full over quick, as
 * 5th percentile, middle and 95th percentile. Measured over whole dryings of seeded pieces of every start form, school,
 * drying clay and room (`scripts/against.ts`, seeds 1 to 60); the quick answer knows no joins, crevices or neighbours, and
 * takes a further coat to lie on clay that drinks nothing. Left out: that regions of one piece depart together.
 */
export type DriedAs = 'coat' | 'further-coat' | 'resting' | 'shell' | 'solid';

export const correctedTimes = ['touch', 'leather', 'hold', 'through', 'steady'] as const;
export type CorrectedTime = (typeof correctedTimes)[number];

/** Factors on the quick answer: of times since the last coat went on, and of the crack index. */
export type Against = Readonly<Record<CorrectedTime | 'crack', Range>>;

const range = (low: number, nominal: number, high: number): Range => ({ low, nominal, high });

export const usualAgainst: Readonly<Record<DriedAs, Against>> = {
  coat: {
    touch: range(0.8, 1.05, 1.28),
    leather: range(0.63, 0.95, 1.06),
    hold: range(0.79, 1.02, 1.23),
    through: range(0.89, 1.22, 3),
    steady: range(0.89, 1.24, 3),
    crack: range(1.02, 1.16, 2.6),
  },
  // Some of it lies on the board or the table, and hardly breathes there.
  resting: {
    touch: range(0.8, 1.05, 1.5),
    leather: range(0.63, 0.95, 1.06),
    hold: range(0.79, 1.02, 1.28),
    through: range(0.95, 2.2, 6),
    steady: range(0.95, 2.3, 6),
    crack: range(1.02, 1.16, 2.6),
  },
  // A wall with a face either side.
  shell: {
    touch: range(0.6, 0.8, 1.1),
    leather: range(0.45, 0.65, 0.95),
    hold: range(0.55, 0.75, 1.05),
    through: range(0.5, 0.78, 1.45),
    steady: range(0.5, 0.78, 1.45),
    crack: range(0.8, 1.25, 2.4),
  },
  'further-coat': {
    touch: range(0.26, 0.59, 0.8),
    leather: range(0.04, 0.13, 0.37),
    hold: range(0.25, 0.53, 0.66),
    through: range(1.12, 1.91, 5.5),
    steady: range(1.21, 2.1, 5.8),
    crack: range(0.72, 1.06, 2.1),
  },
  solid: {
    touch: range(0.75, 1.51, 2.9),
    leather: range(0.42, 1.08, 1.85),
    hold: range(0.71, 1.36, 2.7),
    through: range(0.98, 1.86, 3.9),
    steady: range(1, 1.95, 4.1),
    crack: range(0.63, 1.23, 2.8),
  },
};

/** What a full answer of the piece itself has shown is off by no more than this when the piece is changed a little. */
const afterAnEdit = 0.12;

/** Factors a full answer has shown for a region; where it says nothing of one, the usual ones. */
export function shownAgainst(shown: Partial<Record<CorrectedTime | 'crack', number>>, usual: Against): Against {
  const of = (key: CorrectedTime | 'crack'): Range => {
    const at = shown[key];
    return at === undefined || !Number.isFinite(at) || at <= 0
      ? usual[key]
      : { low: at * (1 - afterAnEdit), nominal: at, high: at * (1 + afterAnEdit) };
  };
  return {
    touch: of('touch'),
    leather: of('leather'),
    hold: of('hold'),
    through: of('through'),
    steady: of('steady'),
    crack: of('crack'),
  };
}
