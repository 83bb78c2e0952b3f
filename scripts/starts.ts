import { clays, type ClayFamily } from '../src/core/catalogue';
import type { Build } from '../src/core/document';
import { asBriefed, Evaluator } from '../src/core/evaluate';
import { resolveForm, startForms } from '../src/core/form';
import { schools, schoolsThatSuit, startBuild } from '../src/core/school';
import { begunToCarry } from '../src/core/sizing';
import { refusedByHand } from './refused-starts';

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
  /** Why it cannot be made so, however it is sized; null where it can. */
  readonly cannot: string | null;
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

/** Ids of what fails, without the places they name, with the sentence that says why it cannot be made so. */
function judged(build: Build): Pick<Start, 'fails' | 'cannot'> {
  const report = new Evaluator().evaluate(asBriefed(build));
  if (!report.ok) return { fails: [`cannot be worked out: ${report.path} ${report.message}`], cannot: null };
  const { findings, sizing } = report.value;
  const failing = findings.filter((f) => f.status === 'fails');
  return { fails: [...new Set(failing.map((f) => f.id.split('/')[0]!))], cannot: sizing.cannot };
}

/** Each `every`-th start from `first` on: all of them, or some spread over all. */
export function* allStarts(every = 1, first = 0): Generator<Start> {
  let i = 0;
  for (const form of startedForms)
    for (const school of schoolsOf(form))
      for (const clay of startClays)
        if (i++ % every === first) yield { form, school, clay, size: 1, ...judged(startIn(form, school, clay)) };
}

/** The forms as a newcomer first meets them, at half, their own and half again of their usual size. */
export function* firstStarts(): Generator<Start> {
  for (const form of startedForms)
    for (const size of [0.5, 1, 1.5]) {
      const build = firstStart(form, size);
      yield { form, school: build.armature.school.kind, clay: build.brief.clay, size, ...judged(build) };
    }
}

/** Ways of building that a form could be set out in and is not offered, with why. */
export function* notOffered(): Generator<{ readonly form: string; readonly school: string; readonly why: string }> {
  for (const form of startedForms) {
    const resolved = resolveForm(firstStart(form));
    if (!resolved.ok) throw new Error(resolved.message);
    for (const s of schools) {
      const why = s.fits(resolved.value) ? s.unsuited?.(resolved.value) : null;
      if (why) yield { form, school: s.kind, why };
    }
  }
}

/** Of starts: how many there are, have nothing failing, and are turned down as the list by hand says. */
export function tally(starts: Iterable<Start>, each: (s: Start) => void = () => undefined): Tally {
  const out = { total: 0, clean: 0, refused: 0, failing: {} as Record<string, number> };
  for (const s of starts) {
    each(s);
    out.total += 1;
    if (s.fails.length === 0) out.clean += 1;
    else if (refusedByHand(s.form, s.school, s.clay) !== null && s.cannot !== null) out.refused += 1;
    for (const id of s.fails) out.failing[id] = (out.failing[id] ?? 0) + 1;
  }
  return out;
}

export interface Tally {
  readonly total: number;
  readonly clean: number;
  readonly refused: number;
  readonly failing: Readonly<Record<string, number>>;
}

export function tallyWords({ total, clean, refused }: Tally): string {
  const share = (n: number) => `${((100 * n) / Math.max(1, total)).toFixed(1)} %`;
  const otherwise = total - clean - refused;
  return `${clean} of ${total} have nothing failing (${share(clean)}); ${refused} are refused with a sentence, as the list by hand says (${share(refused)}); ${otherwise} fail otherwise (${share(otherwise)})`;
}

function main(): void {
  const json = process.argv.includes('--json');
  const say = (line: string) => {
    if (!json) console.log(line);
  };
  const told = ({ form, school, clay, size, fails, cannot }: Start) =>
    say(
      `${form.padEnd(13)} ${school.padEnd(16)} ${clay.padEnd(16)} ${size.toFixed(1)}  ${fails.join(', ') || '-'}${cannot ? `: ${cannot}` : ''}`,
    );
  const first: Record<string, string[]> = {};
  for (const s of firstStarts()) {
    told(s);
    first[s.form] = [...new Set([...(first[s.form] ?? []), ...s.fails])];
  }
  say('');
  const { total, clean, refused, failing } = tally(process.argv.includes('--first') ? [] : allStarts(), told);
  const unsuited = [...notOffered()];
  if (json) {
    console.log(JSON.stringify({ total, clean, first, failing, refused, notOffered: unsuited.length }));
    return;
  }
  say('');
  for (const u of unsuited) say(`${u.form.padEnd(13)} ${u.school.padEnd(16)} not offered: ${u.why}`);
  say(`\n${tallyWords({ total, clean, refused, failing })}`);
}

if (process.argv[1]?.endsWith('starts.ts')) main();
