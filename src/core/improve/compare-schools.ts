import type { Build } from '../document';
import { resolveForm } from '../form';
import type { Failure } from '../quantity';
import { schools, schoolsThatSuit, type SchoolTraits } from '../school';
import type { EvaluateOptions, Evaluator, Question } from '../evaluate';
import type { Dates } from '../finding';
import { hoursOfPlan } from '../plan';
import { worstStatus, type Status, type Summary } from '../piece';

/** The same form made another way: everything that moves, side by side. */
export interface SchoolRow {
  readonly kind: string;
  readonly name: string;
  readonly traits: SchoolTraits;
  readonly summary: Summary;
  readonly dates: Dates;
  readonly clayOn: number;
  readonly give: number;
  /** Of work at it: until the clay is on, and until it is ready; as its plan has them. */
  readonly hours: { readonly untilClay: number; readonly all: number };
  readonly load: Status;
  readonly sag: number;
  /** Why it cannot be made this way, with every size chosen as well as can be; null where it can. */
  readonly cannot: string | null;
}

/** The build under another school, sized to carry; its own school keeps what the maker has set. */
export function underSchool(build: Build, kind: string): Build {
  if (build.armature.school.kind === kind) return build;
  const blank = {
    sizing: 'to-carry' as const,
    edits: {},
    nodes: {},
    removed: [],
    splits: {},
    props: [],
    added: { nodes: [], bones: [], members: [] },
  };
  return { ...build, armature: { ...build.armature, ...blank, school: { kind, parameters: {} } } };
}

/** Schools that suit the form, the build's own first. */
export function schoolsFor(build: Build): { readonly kind: string; readonly name: string; readonly when: string }[] {
  const form = resolveForm(build);
  if (!form.ok) return [];
  const own = build.armature.school.kind;
  return schoolsThatSuit(form.value, own)
    .map(({ kind, name, when }) => ({ kind, name, when }))
    .sort((a, b) => Number(b.kind === own) - Number(a.kind === own));
}

export function compareSchool(
  question: Question,
  kind: string,
  evaluator: Evaluator,
  options: EvaluateOptions = {},
): SchoolRow | Failure {
  const school = schools.find((s) => s.kind === kind);
  const known = evaluator.knownOf(question, options.known);
  if (!known.ok) return known;
  const build = underSchool(question.build, kind);
  const report = evaluator.evaluate({ ...question, build }, { ...options, known: known.value.history });
  if (!report.ok) return report;
  const { summary, dates, clay, give, plan, findings, lifeStages } = report.value;
  return {
    kind,
    name: school?.name ?? kind,
    traits: school?.traits ?? { posedLater: 'no', reused: 'nothing' },
    summary,
    dates,
    clayOn: clay.onPiece,
    give,
    hours: plan ? hoursOfPlan(plan) : { untilClay: NaN, all: NaN },
    cannot: report.value.sizing.cannot,
    load: worstStatus(findings.filter((f) => f.station === 'load').map((f) => f.status)),
    sag: lifeStages
      .filter((m) => m.stage.startsWith('clay'))
      .reduce((most, m) => m.bones.reduce((x, b) => Math.max(x, b.sag), most), 0),
  };
}
