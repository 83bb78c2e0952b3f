import { clays, type ClayFamily } from '../src/core/catalogue';
import type { Build } from '../src/core/document';
import { asBriefed, Evaluator } from '../src/core/evaluate';
import { resolveForm, startForms } from '../src/core/form';
import { schoolsThatSuit, startBuild } from '../src/core/school';
import { begunToCarry } from '../src/core/sizing';

/**
 * Every untouched start there is: each form, each way of building that suits it, each clay at its usual coat. What fails
 * of each is told; `npm run starts` prints it all, and a test holds the share that has nothing failing.
 */
export interface Start {
  readonly form: string;
  readonly school: string;
  readonly clay: string;
  /** Of the form's usual size. */
  readonly size: number;
  /** What fails, by the rule's own name. */
  readonly fails: readonly string[];
}

/** A clay of each kind that an armature is made for. */
export const startClays = [
  'earthen-air-dry',
  'paper-clay',
  'foam-air-dry',
  'epoxy-clay',
  'oil-medium',
  'water-based',
  'oven-polymer',
] as const;

const startDate = '2026-12-01';
export const startedForms = startForms.filter((f) => f.kind !== 'free').map((f) => f.kind);

/** As a newcomer takes it: a form at a share of its usual size, and nothing else set. */
export function firstStart(form: string, size = 1): Build {
  const found = startForms.find((f) => f.kind === form)!;
  const made = startBuild('Start', startDate, form, found.usualSize * size);
  if (!made.ok) throw new Error(`${form}: ${made.message}`);
  return begunToCarry(made.value);
}

/** The same under another way of building and in another clay, at the middle of that clay's usual coat. */
export function startIn(form: string, school: string, clay: string, size = 1): Build {
  const build = firstStart(form, size);
  const [thin, thick] = (clays.get(clay) as ClayFamily).usualThickness;
  const coat = Math.sqrt(thin * thick);
  return {
    ...build,
    brief: { ...build.brief, clay },
    armature: {
      ...build.armature,
      ...(build.armature.school.kind === school ? {} : { school: { kind: school, parameters: {} } }),
    },
    regions: { ...build.regions, everywhere: { ...build.regions.everywhere, coats: [coat] } },
  };
}

export function schoolsOf(form: string): string[] {
  const resolved = resolveForm(firstStart(form));
  if (!resolved.ok) throw new Error(resolved.message);
  return schoolsThatSuit(resolved.value).map((s) => s.kind);
}

/** Ids of what fails, without the places they name. */
export function failuresOf(build: Build): string[] {
  const report = new Evaluator().evaluate(asBriefed(build));
  if (!report.ok) return [`cannot be worked out: ${report.path} ${report.message}`];
  return [...new Set(report.value.findings.filter((f) => f.status === 'fails').map((f) => f.id.split('/')[0]!))];
}

export function* allStarts(): Generator<Start> {
  for (const form of startedForms)
    for (const school of schoolsOf(form))
      for (const clay of startClays)
        yield { form, school, clay, size: 1, fails: failuresOf(startIn(form, school, clay)) };
}

/** The forms as a newcomer first meets them, at half, their own and half again of their usual size. */
export function* firstStarts(): Generator<Start> {
  for (const form of startedForms)
    for (const size of [0.5, 1, 1.5]) {
      const build = firstStart(form, size);
      yield { form, school: build.armature.school.kind, clay: build.brief.clay, size, fails: failuresOf(build) };
    }
}

function main(): void {
  const json = process.argv.includes('--json');
  const say = (line: string) => {
    if (!json) console.log(line);
  };
  const told = ({ form, school, clay, size, fails }: Start) =>
    say(`${form.padEnd(13)} ${school.padEnd(16)} ${clay.padEnd(16)} ${size.toFixed(1)}  ${fails.join(', ') || '-'}`);
  const first: Record<string, string[]> = {};
  for (const s of firstStarts()) {
    told(s);
    first[s.form] = [...new Set([...(first[s.form] ?? []), ...s.fails])];
  }
  say('');
  const failing: Record<string, number> = {};
  let total = 0,
    clean = 0;
  for (const s of process.argv.includes('--first') ? [] : allStarts()) {
    told(s);
    total += 1;
    if (s.fails.length === 0) clean += 1;
    for (const id of s.fails) failing[id] = (failing[id] ?? 0) + 1;
  }
  if (json) console.log(JSON.stringify({ total, clean, first, failing }));
  else say(`\n${clean} of ${total} have nothing failing (${((100 * clean) / Math.max(1, total)).toFixed(1)} %)`);
}

if (process.argv[1]?.endsWith('starts.ts')) main();
