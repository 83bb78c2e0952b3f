import { frontSilhouette } from '../form';
import { worstStatus, type Status, type Summary } from '../piece';
import type { Dates, StationId } from '../finding';
import type { EvaluateOptions, Evaluator, Question } from './evaluate';

/** What the shelf shows of a build: its figures, its two dates, its marks and its outline. */
export interface BuildCard {
  readonly summary: Summary | null;
  readonly dates: Dates | null;
  readonly verdicts: Partial<Record<StationId, Status>>;
  readonly silhouette: readonly (readonly [number, number, number])[];
  readonly wires: readonly (readonly (readonly [number, number])[])[];
  /** Why there is no answer, when there is none. */
  readonly problem: string | null;
}

export const emptyCard: BuildCard = {
  summary: null,
  dates: null,
  verdicts: {},
  silhouette: [],
  wires: [],
  problem: null,
};

export function cardOf(question: Question, evaluator: Evaluator, options: EvaluateOptions): BuildCard {
  const report = evaluator.evaluate(question, { ...options, ranges: 'dates' });
  const piece = evaluator.piece(question);
  if (!report.ok || !piece.ok) {
    const why = !report.ok ? report : piece;
    return { ...emptyCard, problem: why.ok ? null : `${why.path}: ${why.message}` };
  }
  const verdicts: Partial<Record<StationId, Status>> = {};
  for (const f of report.value.findings) verdicts[f.station] = worstStatus([verdicts[f.station] ?? 'sound', f.status]);
  const round = (v: number) => Math.round(v * 1000) / 1000;
  return {
    summary: report.value.summary,
    dates: report.value.dates,
    verdicts,
    problem: null,
    silhouette: frontSilhouette(piece.value.grid).map(([z, l, r]) => [round(z), round(l), round(r)]),
    wires: piece.value.armature.members.map((m) => m.path.map((p) => [round(p[0]), round(p[2])] as const)),
  };
}
