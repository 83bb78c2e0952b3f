import { kneadingMinutes, largestBatch, warmth, workingMinutes } from './epoxy';

/**
 * What is mixed, wetted or soaked a little at a time because it goes off: how much, how long that takes, and how long it
 * works then. Figures are the usual ones at 21 degrees and ours; a pack's own leaflet goes before them.
 */
export interface Mix {
  readonly what: string;
  /** kg made ready at a time: dry strips, powder, or both parts together. */
  readonly each: number;
  /** Minutes to make it ready, and minutes it works from then. */
  readonly ready: number;
  readonly works: number;
  /** Whether warmth shortens that as it does with resins: by half for ten degrees. Plaster goes by its water. */
  readonly quickens: boolean;
  /** kg put on a minute. */
  readonly rate: number;
  /** Kneaded in the hand, as two-part clay is: what a hand kneads, and a large lump goes off sooner. */
  readonly kneaded: boolean;
  /** What is done to it to make it ready. */
  readonly done: 'mixed' | 'wetted';
  readonly how: string;
  readonly caution: string;
}

export const mixes = {
  'two-part-clay': {
    what: 'two-part clay',
    each: 0.25,
    ready: 5,
    works: 90,
    quickens: true,
    rate: 0.015,
    kneaded: true,
    done: 'mixed',
    how: 'Equal parts, kneaded until no streak is left.',
    caution: 'Gloves, moving air, and no bare skin until it is hard.',
  },
  'plaster-gauze': {
    what: 'plaster gauze',
    each: 0.12,
    ready: 0.5,
    works: 5,
    quickens: false,
    rate: 0.03,
    kneaded: false,
    done: 'wetted',
    how: 'Cut all strips dry first. Dip them one at a time in lukewarm water, let them drip, lay them crosswise and rub them smooth.',
    caution:
      'It warms as it sets: never a closed shell round a person’s head or limb. No plaster water down the drain.',
  },
  'glue-plaster': {
    what: 'plaster and glue primer',
    each: 0.5,
    ready: 3,
    works: 15,
    quickens: false,
    rate: 0.06,
    kneaded: false,
    done: 'mixed',
    how: 'Glue and water first, then the plaster into them; brush it on at once.',
    caution: 'A mask against the dust while the powder is dry.',
  },
  filler: {
    what: 'fine filler',
    each: 0.3,
    ready: 3,
    works: 20,
    quickens: false,
    rate: 0.03,
    kneaded: false,
    done: 'mixed',
    how: 'Powder into water until it stands, then stir; nothing from the last bowl into the next.',
    caution: 'A mask against the dust while the powder is dry, and again for sanding.',
  },
  'coating-resin': {
    what: 'coating resin with its hardener',
    each: 0.2,
    ready: 2,
    works: 15,
    quickens: true,
    rate: 0.03,
    kneaded: false,
    done: 'mixed',
    how: 'Weigh both parts, stir two minutes, scrape the sides, pour it into a flat dish and brush from there.',
    caution: 'A respirator for vapour, gloves, moving air, no flame; what is left in a cup heats itself.',
  },
  silicone: {
    what: 'silicone with its hardener',
    each: 1,
    ready: 6,
    works: 30,
    quickens: true,
    rate: 0.08,
    kneaded: false,
    done: 'mixed',
    how: 'By weight, stirred slowly. The first coat thin and without bubbles, the next when the one before is tacky.',
    caution: 'Gloves and moving air. Try it on a scrap of the same clay first: some things stop it setting.',
  },
  plaster: {
    what: 'plaster',
    each: 2,
    ready: 4,
    works: 4,
    quickens: false,
    rate: 0.5,
    kneaded: false,
    done: 'mixed',
    how: '100 parts of powder to 65 of water by weight: sift it in, let it soak, stir without air, lay it on when it thickens.',
    caution:
      'A mask against the dust. Thick plaster gets hot enough to burn: never on skin. None of it down the drain.',
  },
} as const satisfies Readonly<Record<string, Mix>>;
export type MixId = keyof typeof mixes;

/** Which layers, and which steps of a process, are mixed for. */
export const mixOfLayer: Readonly<Record<string, MixId>> = {
  gauze: 'plaster-gauze',
  'gauze-four': 'plaster-gauze',
  'sealing-primer': 'glue-plaster',
  'filler-skin': 'filler',
  'epoxy-skin': 'two-part-clay',
};

/** How a material is batched in a room: kg, kg a minute, seconds by the kg there are in a batch, both from when it is begun. */
export interface Batching {
  readonly each: number;
  /** Less than this is not worth making ready. */
  readonly least: number;
  readonly rate: number;
  readonly ready: (mass: number) => number;
  readonly works: (mass: number) => number;
}

const leastKneaded = 0.02;

/** Two-part clay that works `reference` minutes at 21 degrees, kneaded by hand. */
export function kneadedClay(reference: number, celsius: number, rate: number): Batching {
  return {
    each: Math.max(leastKneaded, largestBatch(reference, celsius, rate)),
    least: leastKneaded,
    rate,
    ready: (mass) => kneadingMinutes(mass) * 60,
    works: (mass) => workingMinutes(reference, celsius, mass) * 60,
  };
}

/** Batches no larger than are put on while they work. `rate` is the maker's own, where it is known. */
export function batchingOf(id: MixId, celsius: number, rate: number = mixes[id].rate): Batching {
  const mix: Mix = mixes[id];
  if (mix.kneaded) return kneadedClay(mix.works, celsius, rate);
  const works = mix.works * (mix.quickens ? warmth(celsius) : 1);
  const each = Math.min(mix.each, rate * works);
  return { each, least: each / 10, rate, ready: () => mix.ready * 60, works: () => (mix.ready + works) * 60 };
}
