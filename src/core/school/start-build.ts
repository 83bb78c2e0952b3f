import { buildSchema, newBust, schemaVersion, type Build } from '../document';
import { findStartForm } from '../form';
import { failure, success, type Result } from '../quantity';

/** What each start form is usually made of and on, until the maker says otherwise. */
interface Usual {
  readonly clay: string;
  /** Coats in all, metres at the usual size. */
  readonly coat: number;
  readonly school: string;
  readonly parameters?: Record<string, string | number>;
  readonly situation?: 'bench' | 'moved' | 'worn';
}

const usual: Readonly<Record<string, Usual>> = {
  head: { clay: 'paper-clay', coat: 0.008, school: 'stuffed' },
  hand: { clay: 'oil-medium', coat: 0.008, school: 'wire-figure' },
  mask: { clay: 'water-based', coat: 0.012, school: 'head-form' },
  figure: { clay: 'paper-clay', coat: 0.006, school: 'wire-figure' },
  'four-legged': { clay: 'paper-clay', coat: 0.006, school: 'wire-figure' },
  'bird-like': { clay: 'paper-clay', coat: 0.005, school: 'wire-figure' },
  branching: { clay: 'paper-clay', coat: 0.005, school: 'branching' },
  'long-neck': { clay: 'oil-medium', coat: 0.025, school: 'board-foam-mesh' },
  'worn-shell': { clay: 'epoxy-clay', coat: 0.004, school: 'shell', situation: 'worn' },
  relief: { clay: 'oil-medium', coat: 0.012, school: 'object-core', parameters: { bulk: 'polystyrene-extruded' } },
  ringed: { clay: 'paper-clay', coat: 0.006, school: 'wire-figure' },
  'found-object': { clay: 'paper-clay', coat: 0.006, school: 'object-core', parameters: { bulk: 'bottle-plastic' } },
  free: { clay: 'paper-clay', coat: 0.008, school: 'wire-figure' },
};

/** The way of building a start form begins with. */
export function usualSchool(kind: string): string | null {
  return kind === 'bust' ? 'stuffed' : (usual[kind]?.school ?? null);
}

/**
 * A new build of any start form, with sensible beginnings for the rest; `type` is one of the form's named sets of
 * measures. Fails on a form, a type or a figure there is not.
 */
export function startBuild(name: string, startDate: string, kind: string, size: number, type?: string): Result<Build> {
  const form = findStartForm(kind);
  if (!form) return failure('unknown-form', 'form', `there is no start form "${kind}"`);
  const typed = form.types?.find((t) => t.id === type);
  if (type !== undefined && !typed)
    return failure(
      'unknown-type',
      'type',
      form.types
        ? `there is no type "${type}" of ${form.name}; there are: ${form.types.map((t) => t.id).join(', ')}`
        : `a ${form.name} comes in one type only`,
    );
  try {
    // Forms that were made once say nothing of it.
    const start = {
      kind,
      size,
      measures: { ...typed?.measures },
      ...(form.version > 1 ? { version: form.version } : {}),
    };
    if (kind === 'bust') {
      const made = newBust(name, startDate, size);
      return success({ ...made, form: { ...made.form, start } });
    }
    const u = usual[kind];
    if (!u) throw new Error(`no usual way to make a ${kind}`);
    const thickness = Math.max(0.001, Math.round(u.coat * (size / form.usualSize) ** 0.5 * 2e4) / 2e4);
    return success(
      buildSchema.parse({
        schemaVersion,
        name,
        brief: { startDate, clay: u.clay, ...(u.situation ? { situation: u.situation } : {}) },
        form: { start },
        armature: { school: { kind: u.school, parameters: u.parameters ?? {} } },
        regions: { painted: [], seams: [], everywhere: { coats: [thickness] } },
      }),
    );
  } catch (error) {
    return failure('bad-start', 'the new build', (error as Error).message);
  }
}
