import type { Build, BuildEdit } from '../../../core/document';
import { schoolsFor, underSchool } from '../../../core/improve';

/** The form under another school, as an edit: the form stays, the old school's changes by hand go. */
export function takeSchool(build: Build, kind: string): BuildEdit {
  const name = schoolsFor(build).find((s) => s.kind === kind)?.name ?? kind;
  const { armature } = underSchool(build, kind);
  return {
    label: `School: ${name}`,
    changes: Object.entries(armature).map(([k, value]) => ({ path: ['armature', k], value })),
  };
}
