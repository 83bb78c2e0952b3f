import type { EvaluateOptions, Question } from '../core/evaluate';
import type { Asked } from './protocol';

/** What a page asks, as the one entry takes it. */
export function questionOf({ build, log, now }: Asked): Question {
  return { build, log, now };
}

export function optionsOf({ id, units, surroundings, full }: Asked): EvaluateOptions {
  return { id, units, full, ...(surroundings ? { surroundings } : {}) };
}
