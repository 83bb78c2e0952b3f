import type { Range } from '../quantity';

/**
 * How far the drying of the whole piece lies off the quick answer, by what the clay of a region is: full over quick, as
 * 5th percentile, middle and 95th percentile. Measured over whole dryings of seeded pieces of every start form, school,
 * drying clay and room (`scripts/against.ts`, seeds 1 to 60); the quick answer knows no joins, crevices or neighbours, and
 * takes a further coat to lie on clay that drinks nothing. Left out: that regions of one piece depart together.
 */
export const waysToDry = ['coat', 'further-coat', 'resting', 'shell', 'solid'] as const;
export type DriedAs = (typeof waysToDry)[number];

export const correctedTimes = ['touch', 'leather', 'hold', 'through', 'steady'] as const;
export type CorrectedTime = (typeof correctedTimes)[number];

/** Factors on the quick answer: of times since the last coat went on, and of the crack index. */
export type Against = Readonly<Record<CorrectedTime | 'crack', Range>>;

const range = (low: number, nominal: number, high: number): Range => ({ low, nominal, high });

export const usualAgainst: Readonly<Record<DriedAs, Against>> = {
  coat: {
    touch: range(0.82, 1.05, 1.26),
    leather: range(0.68, 0.95, 1.1),
    hold: range(0.8, 1.02, 1.22),
    through: range(0.88, 1.22, 2.5),
    steady: range(0.88, 1.22, 2.5),
    crack: range(1.01, 1.14, 2.2),
  },
  // Some of it lies on the board or the table; few were seen, and their ends are set wider.
  resting: {
    touch: range(0.9, 1.1, 1.25),
    leather: range(0.65, 0.97, 1.06),
    hold: range(0.92, 1.06, 1.2),
    through: range(0.85, 1.27, 1.9),
    steady: range(0.85, 1.26, 1.9),
    crack: range(1, 1.12, 2),
  },
  // A wall with a face either side; few were seen.
  shell: {
    touch: range(0.6, 0.72, 1.05),
    leather: range(0.45, 0.58, 0.9),
    hold: range(0.52, 0.65, 1),
    through: range(0.55, 0.84, 1.5),
    steady: range(0.55, 0.84, 1.5),
    crack: range(0.9, 1.35, 2.3),
  },
  'further-coat': {
    touch: range(0.4, 0.58, 0.85),
    leather: range(0.05, 0.17, 0.67),
    hold: range(0.38, 0.56, 0.77),
    through: range(1.1, 1.71, 5.5),
    steady: range(1.18, 1.9, 6),
    crack: range(0.7, 1.04, 2.1),
  },
  solid: {
    touch: range(0.75, 1.54, 2.9),
    leather: range(0.4, 1.14, 2.1),
    hold: range(0.7, 1.37, 2.7),
    through: range(0.97, 1.86, 4.6),
    steady: range(1, 1.94, 5),
    crack: range(0.63, 1.2, 2.5),
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
