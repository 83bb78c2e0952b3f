import type { Build } from '../build';
import { frontSilhouette } from '../form';
import { isoDateOf, secondsOf } from '../quantity';
import type { Evaluator } from './evaluate';
import { worstStatus, type StationId, type Status, type Summary } from './report';

/** What the shelf shows of a build, worked out when it is saved. */
export interface BuildCard {
  readonly summary: Summary | null;
  readonly readyOn: string | null;
  readonly verdicts: Partial<Record<StationId, Status>>;
  readonly silhouette: readonly (readonly [number, number, number])[];
  readonly wires: readonly (readonly (readonly [number, number])[])[];
  /** Why there is no answer, when there is none. */
  readonly problem: string | null;
}

export function cardOf(build: Build, evaluator: Evaluator): BuildCard {
  const report = evaluator.evaluate(build);
  const piece = evaluator.piece(build);
  if (!report.ok || !piece.ok) {
    const why = !report.ok ? report : piece;
    return {
      summary: null,
      readyOn: null,
      verdicts: {},
      silhouette: [],
      wires: [],
      problem: why.ok ? null : `${why.path}: ${why.message}`,
    };
  }
  const verdicts: Partial<Record<StationId, Status>> = {};
  for (const f of report.value.findings) verdicts[f.station] = worstStatus([verdicts[f.station] ?? 'sound', f.status]);
  const { readyAfter } = report.value.summary;
  const rows = frontSilhouette(piece.value.grid);
  const round = (v: number) => Math.round(v * 1000) / 1000;
  return {
    summary: report.value.summary,
    readyOn: readyAfter === null ? null : isoDateOf(secondsOf(build.brief.startDate) + readyAfter),
    verdicts,
    problem: null,
    silhouette: rows.map(([z, l, r]) => [round(z), round(l), round(r)]),
    wires: piece.value.armature.members.map((m) => m.path.map((p) => [round(p[0]), round(p[2])] as const)),
  };
}
