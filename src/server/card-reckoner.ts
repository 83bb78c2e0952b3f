import { parseBuild } from '../core/document';
import { cardOf, emptyCard, Evaluator, type BuildCard } from '../core/evaluate';
import type { LogEntry } from '../core/log';
import type { FullFindings } from '../core/piece';
import type { PlanSurroundings } from '../core/plan';

/** One build's card: what the thread beside the server works out. */
export interface CardRequest {
  readonly id: string;
  readonly text: string;
  readonly log: readonly LogEntry[];
  readonly now: number;
  readonly full: FullFindings | null;
  readonly surroundings: PlanSurroundings;
}
export interface CardAnswer {
  readonly card: BuildCard;
}

const evaluator = new Evaluator();

export function cardFor({ id, text, log, now, full, surroundings }: CardRequest): BuildCard {
  const build = parseBuild(text);
  if (!build.ok) return { ...emptyCard, problem: `${build.path}: ${build.message}` };
  try {
    return cardOf({ build: build.value, log, now }, evaluator, { id, full, surroundings });
  } catch (error) {
    return { ...emptyCard, problem: `it could not be worked out (${(error as Error).message})` };
  }
}
