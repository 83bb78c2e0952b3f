import { z } from 'zod';

/** What is put over a piece to slow it: a resistance in series, s/m. */
export const coverKinds = [
  { id: 'none', name: 'uncovered', resistance: 0 },
  { id: 'cloth', name: 'a loose cloth', resistance: 200 },
  { id: 'loose-plastic', name: 'loose plastic', resistance: 1500 },
  { id: 'bagged', name: 'bagged and closed', resistance: 20000 },
] as const;
export type CoverId = (typeof coverKinds)[number]['id'];
export const coverKindSchema = z.enum(coverKinds.map((c) => c.id) as [CoverId, ...CoverId[]]);

export function coverResistance(id: CoverId): number {
  return coverKinds.find((c) => c.id === id)?.resistance ?? 0;
}
