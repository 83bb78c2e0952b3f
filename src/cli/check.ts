import { readFileSync } from 'node:fs';
import { parseBuild } from '../core/document';
import { asBriefed, Evaluator, type EvaluateOptions, type Question } from '../core/evaluate';
import { evaluateWithRemedies } from '../core/improve';
import { readLogFile, type LogEntry } from '../core/log';
import { wholePlan, wholeRun, type FullFindings } from '../core/piece';
import { readSurroundings, type BuildPlan, type PlanSurroundings } from '../core/plan';
import { failure, success, type Result } from '../core/quantity';

/**
 * check BUILD.json [--log LOG.json] [--full] [--now ISO] [--workshop WORKSHOP.json]: the whole report as JSON. The
 * workshop is who works when, how fast and what else is on the go, as the plan of a build is asked for on the bench.
 */
export interface CheckOptions {
  readonly log?: string;
  readonly workshop?: string;
  readonly now?: string;
  readonly full: boolean;
}

export const checkUsage = 'check BUILD.json [--log LOG.json] [--full] [--now ISO] [--workshop WORKSHOP.json]';

/** Reads the options; the failure says which is wrong. */
export function readCheckArguments(args: readonly string[]): Result<{ file: string; options: CheckOptions }> {
  const given: Record<string, string> = {};
  const files: string[] = [];
  let full = false;
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    const [name = '', inline] = arg.split('=', 2);
    if (name === '--full') full = true;
    else if (['--log', '--now', '--workshop'].includes(name)) {
      const value = inline ?? args[++i];
      if (value === undefined || value === '') return failure('usage', name, `${name} wants something after it`);
      given[name.slice(2)] = value;
    } else if (arg.startsWith('--')) return failure('usage', arg, `there is no option ${arg}: ${checkUsage}`);
    else files.push(arg);
  }
  const [file] = files;
  if (file === undefined || files.length > 1) return failure('usage', 'check', checkUsage);
  return success({ file, options: { ...given, full } });
}

function readJson(file: string, what: string): Result<unknown> {
  try {
    return success(JSON.parse(readFileSync(file, 'utf8')) as unknown);
  } catch (error) {
    return failure('unreadable', `${what} ${file}`, (error as Error).message);
  }
}

export function check(text: string, options: CheckOptions): Result<unknown> {
  const build = parseBuild(text);
  if (!build.ok) return build;
  let log: readonly LogEntry[] = [];
  if (options.log !== undefined) {
    const json = readJson(options.log, 'the log');
    const read = json.ok ? readLogFile(json.value) : json;
    if (!read.ok) return { ...read, path: options.log === read.path ? read.path : `--log: ${read.path}` };
    log = read.value;
  }
  let surroundings: PlanSurroundings | undefined;
  if (options.workshop !== undefined) {
    const json = readJson(options.workshop, 'the workshop');
    if (!json.ok) return { ...json, path: `--workshop: ${json.path}` };
    const read = readSurroundings(json.value);
    if (!read.ok) return { ...read, path: `--workshop: ${read.path}` };
    surroundings = read.value;
  }
  const asked = asBriefed(build.value);
  const now = options.now === undefined ? asked.now : Date.parse(options.now) / 1000;
  if (!Number.isFinite(now)) return failure('bad-time', '--now', 'the time is ISO, such as 2026-12-01T09:00Z');
  const question: Question = { build: build.value, log, now };
  const evaluator = new Evaluator();
  const full = options.full ? dryWhole(evaluator, question) : success(null);
  if (!full.ok) return full;
  const evaluateOptions: EvaluateOptions = {
    ranges: true,
    full: full.value,
    ...(surroundings ? { surroundings } : {}),
  };
  const report = evaluateWithRemedies(evaluator, question, evaluateOptions);
  if (!report.ok) return report;
  const { plan, workshop: _, ...rest } = report.value;
  return success({ ...rest, plan: plan ? planRows(plan) : null });
}

/** The drying of the whole piece, worked out here and now; nothing where the clay does not dry. */
function dryWhole(evaluator: Evaluator, question: Question): Result<FullFindings | null> {
  const piece = evaluator.piece(question);
  if (!piece.ok) return piece;
  const plan = wholePlan(piece.value);
  if (!plan.ok) return plan.code === 'does-not-dry' ? success(null) : plan;
  const run = wholeRun(plan.value);
  while (!run.work(200));
  return evaluator.findingsOfFull(question, plan.value.key, run.result());
}

const iso = (t: number) => (Number.isFinite(t) ? new Date(Math.round(t) * 1000).toISOString() : null);

function planRows(plan: BuildPlan) {
  return plan.steps.map((s) => ({
    id: s.id,
    name: s.name,
    region: s.region,
    start: iso(s.from),
    end: iso(s.until),
    after: s.after.map((w) => w.task),
    done: s.done,
  }));
}
