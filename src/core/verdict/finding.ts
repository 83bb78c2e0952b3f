import type { Finding, Report, StationId, Status } from './report';

/** A finding before its remedies are tried, and the report it is read from. */
export type BareFinding = Omit<Finding, 'remedies'>;
export type BareReport = Omit<Report, 'findings' | 'worst'>;

export function finding(
  station: StationId,
  id: string,
  status: Status,
  place: string,
  sentence: string,
  reason: string,
  figure: Pick<Finding, 'measured' | 'limit' | 'unit'> & {
    range?: Finding['range'];
    smallerIsWorse?: boolean;
    moment?: string;
    cause?: string;
  },
): BareFinding {
  return { station, id, status, place, sentence, reason, range: null, ...figure };
}
