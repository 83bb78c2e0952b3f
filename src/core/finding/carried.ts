import type { CarriedReport, PieceReport } from '../piece';

/** What is carried: the whole, or its parts where it comes apart. */
export function carriedParts(report: PieceReport): {
  readonly carried: readonly CarriedReport[];
  readonly inParts: boolean;
} {
  const { parts, whole } = report.handling;
  return { carried: parts.length > 0 ? parts : [whole], inParts: parts.length > 0 };
}

export const itOrPart = (name: string): string => (name === 'whole piece' ? 'It' : `The part "${name}"`);
