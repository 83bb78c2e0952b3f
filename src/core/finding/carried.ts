import type { CarriedReport, HandlingReport, PieceReport } from '../piece';

/** What is carried: the whole, or its parts where it comes apart. */
export function carriedParts(report: PieceReport): {
  readonly carried: readonly CarriedReport[];
  readonly inParts: boolean;
} {
  const { parts, whole } = report.handling;
  return { carried: parts.length > 0 ? parts : [whole], inParts: parts.length > 0 };
}

/**
 * Rolled and not lifted: whole on its casters, where the door lets it through so; taken apart for the door, what stays on
 * the board still is. A whole that the door stops is told so by the door.
 */
export function isRolled({ whole, parts }: HandlingReport, c: CarriedReport): boolean {
  return parts.length > 0 ? (whole.rolls && whole.door) || (c.rolls && c.door) : c.rolls;
}

export const itOrPart = (name: string): string => (name === 'whole piece' ? 'It' : `The part "${name}"`);
