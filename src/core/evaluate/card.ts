import { worstStatus, type Status, type Summary } from '../piece';
import type { Dates, StationId } from '../finding';
import type { EvaluateOptions, Evaluator, Question } from './evaluate';

/** What the shelf shows of a build: its figures, its two dates, its marks and its picture. */
export interface BuildCard {
  readonly summary: Summary | null;
  readonly dates: Dates | null;
  readonly verdicts: Partial<Record<StationId, Status>>;
  /** An address of what it looks like with its clay on, as a page takes it; whoever keeps the card draws it. */
  readonly picture: string | null;
  /** Why there is no answer, when there is none. */
  readonly problem: string | null;
}

export const emptyCard: BuildCard = {
  summary: null,
  dates: null,
  verdicts: {},
  picture: null,
  problem: null,
};

export function cardOf(question: Question, evaluator: Evaluator, options: EvaluateOptions): BuildCard {
  const report = evaluator.evaluate(question, { ...options, ranges: 'dates' });
  if (!report.ok) return { ...emptyCard, problem: `${report.path}: ${report.message}` };
  const verdicts: Partial<Record<StationId, Status>> = {};
  for (const f of report.value.findings) verdicts[f.station] = worstStatus([verdicts[f.station] ?? 'sound', f.status]);
  return { ...emptyCard, summary: report.value.summary, dates: report.value.dates, verdicts };
}
