import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readBuild, type Build } from '../../src/core/document';
import { asBriefed, Evaluator, type Report } from '../../src/core/evaluate';
import { earlierForms, findStartForm, resolveForm, startFormOf } from '../../src/core/form';
import { startBuild } from '../../src/core/school';

/** Pieces of every form begun before it was made anew, each with what was reported of it then. */
interface Kept {
  readonly build: Build;
  readonly figures: {
    readonly summary: Report['summary'];
    readonly size: Report['size'];
    readonly regions: readonly { id: string; area: number; clayVolume: number; bulkVolume: number }[];
    readonly members: Readonly<Record<string, number>>;
  };
}
const kept = JSON.parse(
  readFileSync(path.join(__dirname, '../fixtures/forms/first-making.json'), 'utf8'),
) as readonly Kept[];

function same(a: unknown, b: unknown, at: string): string[] {
  if (typeof a === 'number' && typeof b === 'number')
    return Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(b)) ? [] : [`${at}: ${a}, was ${b}`];
  if (typeof a === 'object' && typeof b === 'object' && a !== null && b !== null)
    return Object.keys(b).flatMap((k) => same((a as never)[k], (b as never)[k], `${at}/${k}`));
  return a === b ? [] : [`${at}: ${String(a)}, was ${String(b)}`];
}

/** What hangs on the form and its armature. What they bear, how they dry and what they cost is worked out anew, by models that are mended. */
const ofTheForm = ({ wet, dry, tipAngle, push, clayToBuy }: Report['summary']) => ({
  wet,
  dry,
  tipAngle,
  push,
  clayToBuy,
});

test.each(kept.map((k) => [k.build.name, k] as const))(
  '%s: its form and its report are what they were',
  (_, { build, figures }) => {
    const opened = readBuild(build);
    if (!opened.ok) throw new Error(opened.message);
    expect(opened.value.form.start.version).toBeUndefined();
    expect(opened.value.armature.sizing).toBe('by-hand');
    const report = new Evaluator().evaluate(asBriefed(opened.value));
    if (!report.ok) throw new Error(report.message);
    const { summary, size, regions, members } = report.value;
    expect(same({ size, regions }, { size: figures.size, regions: figures.regions }, '')).toEqual([]);
    expect(same(ofTheForm(summary), ofTheForm(figures.summary), '')).toEqual([]);
    expect(members.map((m) => m.id).sort()).toEqual(Object.keys(figures.members).sort());
  },
);

test('a build begun today says which making of the form it has, and keeps it', () => {
  for (const { kind } of earlierForms) {
    const made = startBuild('A piece', '2026-12-01', kind, 1);
    if (!made.ok) throw new Error(made.message);
    const { start } = made.value.form;
    expect(start.version).toBe(2);
    expect(startFormOf(start)).toBe(findStartForm(kind));
    expect(startFormOf({ ...start, version: undefined })).not.toBe(findStartForm(kind));
  }
  const once = startBuild('A piece', '2026-12-01', 'free', 1);
  expect(once.ok && 'version' in once.value.form.start).toBe(false);
});

test('a making this program does not know is refused by its place', () => {
  const made = startBuild('A piece', '2026-12-01', 'bust', 1);
  if (!made.ok) throw new Error(made.message);
  const { form } = made.value;
  const later = { ...made.value, form: { ...form, start: { ...form.start, version: 9 } } };
  expect(resolveForm(later)).toMatchObject({ ok: false, path: 'form.start.version' });
});

test.each(kept.map((k) => [k.build.name, k] as const))(
  '%s: its measures that today’s form has are ones it takes',
  (_, { build }) => {
    const today = findStartForm(build.form.start.kind)!;
    const own = Object.entries(build.form.start.measures).filter(([key]) => key in today.measures);
    expect(today.schema.safeParse(Object.fromEntries(own)).success).toBe(true);
  },
);
