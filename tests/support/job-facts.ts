import { exactly } from '../../src/core/quantity';
import type { JobFacts, RegionFacts } from '../../src/core/plan';

const hour = 3600;

/** A region with one coat of a kilo, dry through after two days. */
export function regionFacts(id: string, height: number, more: Partial<RegionFacts> = {}): RegionFacts {
  return {
    id,
    name: id,
    area: 0.1,
    bulkShare: 0.5,
    height,
    seen: id === 'head' ? 1 : 0.3,
    crack: 0.2,
    coats: [
      {
        stage: 1,
        mass: 1,
        thickness: 0.01,
        smoothUntil: exactly(8 * hour),
        hold: exactly(10 * hour),
        through: exactly(48 * hour),
        steady: exactly(60 * hour),
        next: exactly(30 * hour),
      },
    ],
    ...more,
  };
}

/** A chest and a head in clay that dries, standing on its board. */
export function jobFacts(more: Partial<JobFacts> = {}): JobFacts {
  return {
    setting: 'dries',
    clayName: 'paper clay',
    area: 0.3,
    armatureHours: 2,
    bulkHours: 1.5,
    joinsSet: null,
    wrap: 'tape',
    wrapped: null,
    hoursPerKg: 0.6,
    fineness: 'rough',
    regions: [regionFacts('chest', 0.2), regionFacts('head', 0.6)],
    under: [],
    over: [],
    processes: [],
    props: 0,
    letGo: null,
    lift: null,
    split: null,
    turns: [],
    uncover: [],
    sections: 1,
    soft: null,
    cure: null,
    batch: null,
    ownMix: null,
    celsius: 20,
    bakes: [],
    warming: null,
    workable: null,
    heavy: false,
    held: true,
    lies: false,
    bareFirst: null,
    ...more,
  };
}
