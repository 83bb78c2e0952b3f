import { applyEdit } from '../document';
import type { Answer, EvaluateOptions, Evaluator, Question, Report } from '../evaluate';
import {
  partIn,
  ruleOf,
  type Finding,
  type Judged,
  type Judging,
  type Part,
  type Proposal,
  type Remedy,
  type Worse,
} from '../finding';
import { compareStatus, type Status } from '../piece';
import { success, type Result } from '../quantity';

/**
 * What a remedy does is found by doing it: each proposal of a rule is made on a copy, which is judged as the build itself
 * is, with the log's factors frozen. What is promised is that copy's own answer, so pressing it gives exactly that, and
 * whatever it makes worse elsewhere is named before it is pressed.
 */
const leastGain = 0.02;
const mostRemedies = 5;
/** Of alike findings of each rule so many are mended, and so many tried: mend the worst, and the rest are mended too or move up. */
const lotsMended = 2,
  lotsTried = 5;

/** The report with its remedies; pauses between pieces of work, so that a caller can show progress or walk away. */
export function* withRemedies(
  evaluator: Evaluator,
  question: Question,
  answer: Answer,
  options: EvaluateOptions,
): Generator<void, Report> {
  const out: Finding[] = [];
  const tried = new Map<string, number>(),
    mended = new Map<string, number>();
  const trials = new Trials(evaluator, question, answer, options);
  for (const f of answer.findings) {
    const rule = ruleOf(f.id);
    const lots = tried.get(rule?.id ?? '') ?? 0,
      done = mended.get(rule?.id ?? '') ?? 0;
    const wanted =
      rule?.propose && (f.status === 'fails' || f.status === 'watch') && lots < lotsTried && done < lotsMended;
    if (!wanted) {
      out.push({ ...f, remedies: [] });
      continue;
    }
    tried.set(rule.id, lots + 1);
    const remedies = yield* remediesFor(trials, f, rule.propose!(answer.judging, f));
    if (remedies.length > 0) mended.set(rule.id, done + 1);
    out.push({ ...f, remedies });
  }
  return evaluator.reportOf(answer, out);
}

/** One change is often the remedy of several findings: it is tried once. */
class Trials {
  private readonly done = new Map<string, Answer | null>();

  constructor(
    private readonly evaluator: Evaluator,
    private readonly question: Question,
    readonly before: Answer,
    private readonly options: EvaluateOptions,
  ) {}

  after(proposal: Proposal): Answer | null {
    const key = JSON.stringify(proposal.edit.changes);
    const kept = this.done.get(key);
    if (kept !== undefined) return kept;
    const made = this.tryOut(proposal);
    this.done.set(key, made);
    return made;
  }

  private tryOut({ edit }: Proposal): Answer | null {
    const { build, log, now } = this.question;
    const edited = applyEdit(build, edit);
    if (!edited.ok) return null;
    // A deadline is judged by the latest there may be; without one the likely dates are enough.
    const ranges = build.brief.deadline === null ? false : 'dates';
    const known = this.before.known.history;
    const made = this.evaluator.judge(
      { build: edited.value, log, now },
      { ...this.options, ranges, known, sizes: this.before.sizes },
    );
    return made.ok ? made.value : null;
  }
}

function* remediesFor(trials: Trials, f: Judged, proposals: readonly Proposal[]): Generator<void, Remedy[]> {
  const out: Remedy[] = [];
  for (const p of proposals) {
    yield;
    const after = trials.after(p);
    if (!after) continue;
    const then = standingOf(f, after);
    const gain = f.smallerIsWorse ? then.measured - f.measured : f.measured - then.measured;
    const turns = compareStatus(then.status, f.status) < 0;
    const nowReached = f.measured === Infinity && Number.isFinite(then.measured);
    if (!turns && !nowReached && !(gain > leastGain * Math.max(Math.abs(f.measured), 1e-9))) continue;
    if (compareStatus(then.status, f.status) > 0) continue;
    const worse = madeWorse(f, trials.before, after);
    // What mends one place and breaks another is no remedy.
    if (worse.some((w) => w.to === 'fails')) continue;
    out.push({
      ...p,
      before: f.measured,
      after: then.measured,
      statusAfter: then.status,
      turns,
      worse,
      promised: after.judging.report.summary,
      dates: after.judging.dates,
    });
  }
  // Those that turn it first, the ones that make it sound before those that do not, what spoils nothing else before what does,
  // another clay last. Where something turns it and leaves the clay what it is, what leaves it failing is not offered.
  const order = (a: Remedy, b: Remedy) =>
    compareStatus(a.statusAfter, b.statusAfter) ||
    Number(a.worse.length > 0) - Number(b.worse.length > 0) ||
    Number(a.another ?? false) - Number(b.another ?? false) ||
    (f.smallerIsWorse ? b.after - a.after : a.after - b.after);
  const turned = out.filter((r) => r.statusAfter !== 'fails');
  return (turned.some((r) => !r.another) ? turned : out).sort(order).slice(0, mostRemedies);
}

/** How all the parts of a finding stand in another answer: the worst of them. */
function standingOf(f: Judged, { judging, findings }: Answer): Pick<Part, 'status' | 'measured'> {
  return f.parts
    .map((p) => standsNow(p.id, f.id, judging, findings))
    .reduce((w, s) =>
      compareStatus(s.status, w.status) > 0 ||
      (s.status === w.status && (f.smallerIsWorse ? s.measured < w.measured : s.measured > w.measured))
        ? s
        : w,
    );
}

function standsNow(
  part: string,
  finding: string,
  judging: Judging,
  findings: readonly Judged[],
): Pick<Part, 'status' | 'measured'> {
  const found = partIn(findings, part);
  if (found) return found;
  return ruleOf(finding)?.measure?.(judging, part) ?? { status: 'sound' as Status, measured: 0 };
}

/** Every place but the finding's own that stands worse after than before, as the finding that tells of it then. */
export function madeWorse(own: Judged, before: Answer, after: Answer): Worse[] {
  const out: Worse[] = [];
  const mine = new Set(own.parts.map((p) => p.id));
  for (const f of after.findings) {
    if (!counts(f.status)) continue;
    const grown = f.parts.filter((p) => {
      if (mine.has(p.id)) return false;
      const was = standsNow(p.id, f.id, before.judging, before.findings);
      return compareStatus(p.status, was.status) > 0;
    });
    const worst = grown[0];
    if (!worst) continue;
    const was = standsNow(worst.id, f.id, before.judging, before.findings);
    out.push({ finding: f.id, place: f.place, sentence: f.sentence, from: was.status, to: f.status });
  }
  return out;
}

const counts = (status: Status) => status === 'watch' || status === 'fails';

/** The whole answer at once, remedies and all. */
export function evaluateWithRemedies(
  evaluator: Evaluator,
  question: Question,
  options: EvaluateOptions = {},
): Result<Report> {
  const answer = evaluator.judge(question, options);
  if (!answer.ok) return answer;
  const steps = withRemedies(evaluator, question, answer.value, options);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return success(step.value);
}
