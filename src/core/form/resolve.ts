import { describeIssue, type Build, type Mass } from '../build';
import { failure, success, type Result } from '../quantity';
import { bustMasses, bustMeasuresSchema, bustLevels, type BustLevels, type BustMeasures } from './bust';

/** A form made from its start, with edits and additions laid over it. */
export interface ResolvedForm {
  readonly masses: readonly Mass[];
  readonly regions: readonly string[];
  readonly size: number;
  /** Ids of edits whose mass is no longer there. */
  readonly lostEdits: readonly string[];
  readonly bust: { readonly measures: BustMeasures; readonly levels: BustLevels };
}

export const startForms = [{ id: 'bust', name: 'bust', measures: bustMeasuresSchema }] as const;

/** Makes the masses of a build. Fails with the path of a measure that is out of range. */
export function resolveForm(build: Build): Result<ResolvedForm> {
  const { start, edits, added } = build.form;
  if (start.kind !== 'bust') return failure('unknown-form', 'form.start.kind', `there is no start form "${start.kind}"`);
  const measures = bustMeasuresSchema.safeParse(start.measures);
  if (!measures.success) {
    const { path, message } = describeIssue(measures.error, 'form.start.measures');
    return failure('out-of-range', path, message);
  }
  const generated = bustMasses(measures.data, start.size);
  const ids = new Set<string>();
  const masses = [...generated.map((m): Mass => withoutGaps(m, edits[m.id])), ...added];
  for (const mass of masses) {
    if (ids.has(mass.id)) return failure('same-id', 'form.added', `two masses are called "${mass.id}"`);
    ids.add(mass.id);
  }
  return success({
    masses,
    regions: [...new Set(masses.map((m) => m.region))],
    size: start.size,
    lostEdits: Object.keys(edits).filter((id) => !ids.has(id)),
    bust: { measures: measures.data, levels: bustLevels(measures.data, start.size) },
  });
}

function withoutGaps(mass: Mass, edit: Partial<Mass> | undefined): Mass {
  if (!edit) return mass;
  const given = Object.fromEntries(Object.entries(edit).filter(([, v]) => v !== undefined));
  return { ...mass, ...given };
}
