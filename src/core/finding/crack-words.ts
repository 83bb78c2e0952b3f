import { sensible } from '../quantity';
import { statusOf, type Status } from '../piece';

/**
 * Whether it cracks as it dries, place by place and by the brief's own limit: what the core holds back of the shrinkage,
 * the dry skin over a wet inside, and what lies thin over a member. Sentence, mark and beam read this one figure.
 */
export function crackStatus(index: number, limit: number): Status {
  return statusOf(index, Math.min(0.6, limit * 0.6), limit);
}

const likely = 1,
  nearCertain = 1.6,
  possible = 0.6;

/** How likely, by the index; and where a limit of the maker's own is passed, that. */
export function crackWords(index: number, limit: number): string {
  const word =
    index > nearCertain ? 'near certain' : index > likely ? 'likely' : index >= possible ? 'possible' : 'unlikely';
  if (limit === likely) return word;
  if (index > limit && index <= likely) return `${word}, but past the index of ${sensible(limit)} you allow`;
  if (index <= limit && index > likely) return `${word}, within the index of ${sensible(limit)} you allow`;
  return word;
}
