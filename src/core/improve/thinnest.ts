import { sectionAcross, sectionGeometry, type Member } from '../armature';
import { sizesLike, stockWords, type StockSize } from '../catalogue';
import { applyEdit, type BuildEdit } from '../document';
import { memberChanges } from '../finding';
import type { Answer, EvaluateOptions, Evaluator, Question } from '../evaluate';
import { compareStatus } from '../piece';
import { twinKey } from '../school';

/**
 * The thinnest a member can be of its own stock, and its twin on the other side with it, without anything under Load,
 * Armature or Drying standing worse than it does: no verdict may fall, and its own figure rise no further than sound.
 */
export interface Thinnest {
  readonly edit: BuildEdit;
  /** As stock is written: what it is now, and what is enough. */
  readonly from: string;
  readonly to: string;
  /** Of what it can bear, in the worst of its bones, after. */
  readonly utilisation: number;
}

/** 'already' where nothing thinner holds; null where there is no such member, or the build is not worked out. */
export function thinnestThatHolds(
  evaluator: Evaluator,
  question: Question,
  memberId: string,
  options: EvaluateOptions = {},
): Thinnest | 'already' | null {
  const known = evaluator.knownOf(question, options.known);
  if (!known.ok) return null;
  const sizes = options.sizes ?? evaluator.sizesOf(question);
  const asked = { ...options, ranges: false, known: known.value.history, sizes } as const;
  const before = evaluator.judge(question, asked);
  if (!before.ok) return null;
  const { piece } = before.value.judging;
  const member = piece.armature.members.find((m) => m.id === memberId);
  const stock = member && piece.stockOf(member.stock);
  if (!member || !stock) return null;
  const twins = piece.armature.members.filter((m) => m.id === member.id || isTwin(m, member));
  const bones = new Set(twins.flatMap((m) => m.bones));
  const lighter = bundlesUnder(member, sizesLike(stock, member.size));
  const holds = (b: Bundle): Answer | null => {
    const edited = applyEdit(question.build, changeTo(twins, b));
    if (!edited.ok) return null;
    const after = evaluator.judge({ ...question, build: edited.value }, asked);
    if (!after.ok || !noneWorse(before.value, after.value)) return null;
    return askedOf(after.value, bones) <= Math.max(soundTo, askedOf(before.value, bones)) ? after.value : null;
  };
  // Thinner holds less: halve the list until what holds and what does not stand side by side.
  let best: { bundle: Bundle; answer: Answer } | null = null;
  let low = 0,
    high = lighter.length - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    const bundle = lighter[middle]!;
    const answer = holds(bundle);
    if (answer) {
      best = { bundle, answer };
      high = middle - 1;
    } else low = middle + 1;
  }
  if (!best) return 'already';
  const to = { ...member, size: best.bundle.size.id, strands: best.bundle.strands };
  return {
    edit: changeTo(twins, best.bundle),
    from: stockWords(member),
    to: stockWords(to),
    utilisation: askedOf(best.answer, bones),
  };
}

const soundTo = 0.6;

/** The most that is asked of any of these bones. */
function askedOf({ judging }: Answer, bones: ReadonlySet<string>): number {
  return judging.report.members.reduce((most, m) => (bones.has(m.id) ? Math.max(most, m.utilisation) : most), 0);
}

interface Bundle {
  readonly size: StockSize;
  readonly strands: number;
}

const bears = (b: Bundle) => b.strands * sectionGeometry(b.size.section).plasticModulus;
const weighs = (b: Bundle) => b.strands * sectionGeometry(b.size.section).area;

/** What is lighter and bears less, weakest first; of two alike in weight the stronger. */
function bundlesUnder(member: Member, sizes: readonly StockSize[]): Bundle[] {
  const size = sizes.find((s) => s.id === member.size);
  if (!size) return [];
  const now: Bundle = { size, strands: member.strands };
  return sizes
    .filter(
      (s) => s.section.shape === size.section.shape && sectionAcross(s.section) <= sectionAcross(size.section) * 1.001,
    )
    .flatMap((s) => Array.from({ length: member.strands }, (_, n): Bundle => ({ size: s, strands: n + 1 })))
    .filter((b) => weighs(b) < weighs(now) * 0.999)
    .filter((b, _, all) => !all.some((o) => o !== b && weighs(o) <= weighs(b) && bears(o) > bears(b) * 1.001))
    .sort((a, b) => bears(a) - bears(b));
}

/** The same on the other side. */
function isTwin(m: Member, of: Member): boolean {
  return twinKey(m.id) === twinKey(of.id) && m.stock === of.stock && m.size === of.size && m.strands === of.strands;
}

function changeTo(members: readonly Member[], b: Bundle): BuildEdit {
  return {
    label: `${members[0]?.name ?? 'Member'}: ${stockWords({ ...members[0]!, size: b.size.id, strands: b.strands })}`,
    changes: memberChanges(members, { size: b.size.id, strands: b.strands }),
  };
}

const watched: ReadonlySet<string> = new Set(['armature', 'load', 'drying']);

/** No verdict of these stations is worse than the one that stood there before; a new one counts as having been sound. */
function noneWorse(before: Answer, after: Answer): boolean {
  const was = new Map(before.findings.flatMap((f) => f.parts.map((p) => [p.id, p.status] as const)));
  return after.findings
    .filter((f) => watched.has(f.station))
    .every((f) => f.parts.every((p) => compareStatus(p.status, was.get(p.id) ?? 'sound') <= 0));
}
