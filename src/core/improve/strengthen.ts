import { pathThrough, runsOf, sectionAcross, type Bone } from '../armature';
import { applyEdit, type Build, type BuildEdit, type Change } from '../document';
import { harderStock, joinEfficiency, sizesLike } from '../catalogue';
import { counterweightAt, groundUnder, sagWatched } from '../load';
import { formatLength, formatMass, sensible, type UnitSystem } from '../quantity';
import type { EvaluateOptions, Evaluator, Question } from '../evaluate';
import { allThinner, memberChanges, parameter, type Judged as JudgedFinding } from '../finding';
import type { Piece, PieceReport, Summary } from '../piece';
import { limbOfRun, twinKey } from '../school';
import { front, smallestSets, type Choice, type Found } from './smallest-sets';

/**
 * Strengthen: the smallest set of real choices after which nothing on Load is left wanting and no further wire
 * stands out of the face. Each choice is an edit; what is promised is the report of a copy with the edits made.
 */
export interface StrengthChoice extends Choice {
  readonly label: string;
  readonly changes: readonly Change[];
  /** Hours it costs beyond what is planned. */
  readonly effort: number;
}

export interface Strengthening {
  readonly choices: readonly StrengthChoice[];
  readonly edit: BuildEdit;
  readonly promised: Summary;
  /** kg wet, money and hours more than now; below zero is less. */
  readonly weight: number;
  readonly cost: number;
  readonly effort: number;
  /** Findings on Load that are still not sound. */
  readonly left: number;
}

export interface StrengthenResult {
  /** Sets after which all is sound, the lightest first. */
  readonly sets: readonly Strengthening[];
  /** Of those, the ones no other beats in weight, cost and effort at once: by index. */
  readonly front: readonly number[];
  readonly nearest: Strengthening | null;
  readonly soundAlready: boolean;
  readonly exhaustive: boolean;
  readonly tried: number;
}

type AssessBuild = (
  build: Build,
) => { readonly piece: Piece; readonly report: PieceReport; readonly findings: readonly JudgedFinding[] } | null;

interface Judged {
  readonly over: readonly number[];
  readonly report: PieceReport;
  readonly build: Build;
  readonly left: number;
}

const largestSet = 4;
const mostTried = 260;
const otherTradeOffs = 60;

/** Yields how many sets were tried; `stop` ends the search with what it has. Null where the build is not worked out. */
export function* strengthen(
  evaluator: Evaluator,
  question: Question,
  options: EvaluateOptions = {},
  stop: () => boolean = () => false,
): Generator<number, StrengthenResult | null> {
  const known = evaluator.knownOf(question, options.known);
  if (!known.ok) return null;
  const { log, now } = question;
  const sizes = options.sizes ?? evaluator.sizesOf(question);
  const assess: AssessBuild = (build) => {
    const made = evaluator.judge({ build, log, now }, { ...options, ranges: false, known: known.value.history, sizes });
    return made.ok
      ? { piece: made.value.judging.piece, report: made.value.judging.report, findings: made.value.findings }
      : null;
  };
  return yield* search(question.build, assess, options.units ?? 'metric', stop);
}

function* search(
  build: Build,
  assess: AssessBuild,
  units: UnitSystem,
  stop: () => boolean,
): Generator<number, StrengthenResult | null> {
  const now = assess(build);
  if (!now) return null;
  const choices = choicesFor(now.piece, now.report, units);
  const demands = demandsOf(now.piece, now.report);
  const outNow = standingOut(now.report);
  const sets = smallestSets<StrengthChoice, Judged>({
    choices,
    largest: largestSet,
    budget: mostTried,
    further: otherTradeOffs,
    stop,
    tryOut: (set) => {
      const done = set.length === 0 ? build : withChoices(build, set);
      const after = done && assess(done);
      if (!done || !after) return null;
      const own = demandsOf(after.piece, after.report);
      const over = [...demands.keys()].map((k) => own.get(k) ?? -10);
      // What was not asked before may be asked now: a wire of its own, a bone that was cut.
      const fresh = [...own].reduce((most, [k, v]) => (demands.has(k) ? most : Math.max(most, v)), -10);
      const left = after.findings.filter(
        (f) => f.station === 'load' && (f.status === 'fails' || f.status === 'watch'),
      ).length;
      // Wires that stand out of the face already are not a choice's fault; one more is.
      const pierced = [...standingOut(after.report)].filter((id) => !outNow.has(id)).length;
      return { over: [...over, fresh, left, pierced], report: after.report, build: done, left };
    },
  });
  let step = sets.next();
  while (!step.done) {
    yield step.value;
    step = sets.next();
  }
  return resultOf(build, now.report, step.value, choices);
}

function resultOf(
  build: Build,
  now: PieceReport,
  found: Found<StrengthChoice, Judged>,
  choices: readonly StrengthChoice[],
): StrengthenResult {
  const told = (f: { readonly choices: readonly StrengthChoice[]; readonly outcome: Judged }): Strengthening => ({
    choices: f.choices,
    left: f.outcome.left,
    promised: f.outcome.report.summary,
    edit: {
      label:
        f.choices.length === 1
          ? (f.choices[0]?.label ?? '')
          : `Strengthened: ${f.choices.map((c) => c.label.charAt(0).toLowerCase() + c.label.slice(1)).join('; ')}`,
      changes: together(build, f.choices),
    },
    weight: f.outcome.report.summary.wet - now.summary.wet,
    cost: f.outcome.report.summary.cost - now.summary.cost,
    effort: f.choices.reduce((s, c) => s + c.effort, 0),
  });
  const soundAlready = found.sets.some((s) => s.choices.length === 0);
  const sets = soundAlready ? [] : found.sets.map(told).sort((a, b) => a.weight - b.weight || a.effort - b.effort);
  const best = front(sets, [(s) => s.weight, (s) => s.cost, (s) => s.effort]);
  return {
    sets,
    front: best.map((s) => sets.indexOf(s)),
    soundAlready,
    exhaustive: found.exhaustive && choices.length > 0,
    tried: found.tried,
    nearest: found.sets.length === 0 && found.nearest ? told(found.nearest) : null,
  };
}

/** Edits one after another on a copy; null when they cannot all be made. */
export function withChoices(build: Build, set: readonly StrengthChoice[]): Build | null {
  const done = applyEdit(build, { label: 'tried', changes: together(build, set) });
  return done.ok ? done.value : null;
}

/** The changes of a set; what each appends to a list goes after what the others append. */
function together(build: Build, set: readonly StrengthChoice[]): Change[] {
  const lists = { props: build.armature.props.length, members: build.armature.added.members.length };
  return set
    .flatMap((c) => c.changes)
    .map((change): Change => {
      const last = change.path[change.path.length - 1];
      const list = change.path[change.path.length - 2];
      if (typeof last !== 'number' || (list !== 'props' && list !== 'members')) return change;
      const path = [...change.path.slice(0, -1), lists[list]];
      lists[list] += 1;
      return { path, value: change.value };
    });
}

const soundBelow = 0.6;

/** By demand, the logarithm of how far it is over what is sound. */
function demandsOf(piece: Piece, report: PieceReport): Map<string, number> {
  const out = new Map<string, number>();
  const put = (key: string, measured: number, limit: number) =>
    out.set(key, Math.log(Math.max(1e-6, measured) / limit));
  for (const m of report.members) put(`member/${m.id}`, m.utilisation, soundBelow);
  const wet = report.lifeStages.filter((m) => m.stage.startsWith('clay'));
  put('sag', Math.max(...wet.flatMap((m) => m.bones.map((b) => b.sagShare)), 0), sagWatched);
  put(
    'skin',
    Math.max(...wet.flatMap((m) => m.bones.map((b) => b.skinStrain)), 0) / (piece.mixed.drying?.capacityWet ?? 0.1),
    soundBelow,
  );
  put('tip', piece.build.brief.limits.tipAngle, Math.max(0.1, report.stance.tipAngle));
  put('base', Math.max(report.base.screwUtilisation, report.base.boardUtilisation), soundBelow);
  return out;
}

/** Members that stand out of the face. */
function standingOut(report: PieceReport): Set<string> {
  return new Set(report.cover.filter((c) => c.least < 0).map((c) => c.member));
}

function choicesFor(piece: Piece, report: PieceReport, units: UnitSystem): StrengthChoice[] {
  const wanting = report.members
    .filter((m) => m.utilisation >= soundBelow || m.sagShare >= sagWatched)
    .map((m) => m.id);
  const bones = piece.armature.bones.filter((b) => wanting.includes(b.id));
  return [
    ...memberChoices(piece, bones, units),
    ...wireChoices(piece, bones),
    ...joinChoices(piece, bones),
    ...propChoices(piece, bones, report),
    ...coreChoices(piece),
    ...baseChoices(piece, report, units),
  ];
}

function byTwin<T extends { readonly id: string }>(all: readonly T[]): T[][] {
  const groups = new Map<string, T[]>();
  for (const t of all) groups.set(twinKey(t.id), [...(groups.get(twinKey(t.id)) ?? []), t]);
  return [...groups.values()];
}

const bothSides = (name: string, count: number) =>
  count > 1
    ? `${name
        .replace(/,? (left|right)\b|\b(left|right) /g, ' ')
        .replace(/\s+/g, ' ')
        .trim()}, both sides`
    : name;

function memberChoices(piece: Piece, bones: readonly Bone[], units: UnitSystem): StrengthChoice[] {
  const ids = new Set(bones.map((b) => b.id));
  // Those that carry most of the bones in question first; a cage of hoops is not strengthened bar by bar.
  const along = piece.armature.members.filter((m) => m.bones.some((b) => ids.has(b)));
  return byTwin(along)
    .slice(0, mostMembers)
    .flatMap((twins): StrengthChoice[] => {
      const first = twins[0]!;
      const stock = piece.stockOf(first.stock);
      const size = stock?.sizes.find((s) => s.id === first.size);
      if (!stock || !size) return [];
      const group = `member/${twinKey(first.id)}`;
      const name = bothSides(first.name, twins.length);
      const edit = (values: Readonly<Record<string, unknown>>): Change[] => memberChanges(twins, values);
      const now = sectionAcross(size.section);
      const thicker = sizesLike(stock, size.id)
        .filter((s) => s.section.shape === size.section.shape && sectionAcross(s.section) > now * 1.05)
        .sort((a, b) => sectionAcross(a.section) - sectionAcross(b.section));
      const out: StrengthChoice[] = thicker.slice(0, 2).map((s, i) => ({
        id: `${group}/size-${s.id}`,
        group,
        label: `${name}: ${s.label} instead of ${size.label}`,
        changes: edit({ size: s.id }),
        effort: 0.1 * twins.length * (i + 1),
      }));
      for (const more of [1, 2]) {
        if (first.strands + more <= 6)
          out.push({
            id: `${group}/strand-${more}`,
            group,
            label: `${name}: ${first.strands + more} strands instead of ${first.strands}`,
            changes: edit({ strands: first.strands + more }),
            effort: 0.15 * more * twins.length,
          });
      }
      if (!stock.brittle && first.strands > 1 && !first.bonded)
        out.push({
          id: `${group}/splint`,
          group,
          label: `${name}: strands splinted and glued together`,
          changes: edit({ bonded: true }),
          effort: 0.4 * twins.length,
        });
      const harder = harderStock[first.stock]?.[0];
      const other = harder ? piece.stockOf(harder) : undefined;
      const nearest = other?.sizes
        .filter((s) => s.section.shape === 'round')
        .sort((a, b) => Math.abs(sectionAcross(a.section) - now) - Math.abs(sectionAcross(b.section) - now))[0];
      if (other && nearest)
        out.push({
          id: `${group}/stock`,
          group,
          label: `${name}: ${other.name}, ${formatLength(sectionAcross(nearest.section), units)}`,
          changes: edit({ stock: other.id, size: nearest.id }),
          effort: 0.3 * twins.length,
        });
      return out;
    });
}

const mostMembers = 6;

/** What is run through a limb that has nothing: soft wire that is posed, or steel that is lighter and wants pliers. */
const wiresToRun = [
  { stock: 'aluminium-annealed', size: '2mm', strands: 2, words: 'A doubled 2 mm aluminium wire', effort: 0.1 },
  { stock: 'aluminium-annealed', size: '3mm', strands: 2, words: 'A doubled 3 mm aluminium wire', effort: 0.12 },
  { stock: 'aluminium-annealed', size: '4mm', strands: 2, words: 'A doubled 4 mm aluminium wire', effort: 0.2 },
  { stock: 'steel-galvanised', size: '1.5mm', strands: 2, words: 'A doubled 1.5 mm steel wire', effort: 0.25 },
  { stock: 'steel-galvanised', size: '2mm', strands: 1, words: 'One 2 mm steel wire', effort: 0.15 },
  { stock: 'steel-galvanised', size: '3mm', strands: 1, words: 'One 3 mm steel wire', effort: 0.3 },
] as const;

/** A limb with nothing in it: a wire through all of it, bound on where it leaves. */
function wireChoices(piece: Piece, bones: readonly Bone[]): StrengthChoice[] {
  const { armature, build } = piece;
  const served = new Set(armature.members.flatMap((m) => m.bones));
  const bare = bones.filter((b) => !served.has(b.id));
  if (bare.length === 0) return [];
  const limbs = byTwin(
    runsOf(
      armature,
      armature.bones.filter((b) => !served.has(b.id)),
    ).map((run) => ({ id: run[0]?.id ?? '', run })),
  ).filter((twins) => twins.some((t) => t.run.some((b) => bare.includes(b))));
  const height = piece.extent.high[2] - piece.extent.low[2];
  return limbs.flatMap((twins): StrengthChoice[] => {
    const first = twins[0]?.run[0];
    if (!first) return [];
    const group = `wire/${twinKey(first.id)}`;
    return wiresToRun.flatMap(({ stock, size, strands, words, effort }): StrengthChoice[] => {
      const across = Number.parseFloat(size) / 1000;
      if (across > height / 40) return [];
      return [
        {
          id: `${group}/${stock}-${size}-${strands}`,
          group,
          effort: (0.4 + effort) * twins.length,
          label: `${words} through the ${bothSides(limbOfRun(twins[0]!.run)[0] ?? first.name, twins.length)}`,
          changes: twins
            .map(({ run }, t): Change => ({
              path: ['armature', 'added', 'members', build.armature.added.members.length + t],
              value: {
                id: `added/wire-${run[0]!.id.replaceAll('/', '-')}`,
                name: `wire in the ${limbOfRun(run)[0] ?? run[0]!.name}`,
                stock,
                size,
                strands,
                bonded: false,
                path: pathThrough(armature, run).map((p) => [p[0], p[1], p[2]]),
                bones: run.map((b) => b.id),
                allowances: [
                  { what: 'bound along the other wire', length: 12 * across },
                  { what: 'end loop', length: 6 * across },
                ],
              },
            }))
            .concat(
              twins.map(({ run }): Change => ({
                path: ['armature', 'edits', run[0]!.id, 'joinFrom'],
                value: 'bound-glued',
              })),
            ),
        },
      ];
    });
  });
}

function joinChoices(piece: Piece, bones: readonly Bone[]): StrengthChoice[] {
  const weak = bones.filter(
    (b) => joinEfficiency(b.joinFrom) < 0.9 && piece.armature.members.some((m) => m.bones.includes(b.id)),
  );
  return byTwin(weak)
    .slice(0, mostMembers)
    .map((twins): StrengthChoice => {
      const first = twins[0]!;
      return {
        id: `join/${twinKey(first.id)}`,
        group: `join/${twinKey(first.id)}`,
        effort: 0.3 * twins.length,
        label: `The join of the ${bothSides(first.name, twins.length)} set in epoxy putty`,
        changes: twins.map((b): Change => ({ path: ['armature', 'edits', b.id, 'joinFrom'], value: 'epoxied' })),
      };
    });
}

function propChoices(piece: Piece, bones: readonly Bone[], report: PieceReport): StrengthChoice[] {
  // A prop helps while it is wet: only for what fails then.
  const wet = new Set(report.members.filter((m) => m.stage.includes('wet')).map((m) => m.id));
  const propped = piece.build.armature.props;
  const ends = bones.filter((b) => wet.has(b.id) && !propped.some((p) => p.node === b.to));
  const inner = new Set(ends.map((b) => b.from));
  return byTwin(ends.filter((b) => !inner.has(b.to)))
    .slice(0, 3)
    .map((twins): StrengthChoice => ({
      id: `prop/${twinKey(twins[0]!.id)}`,
      group: `prop/${twinKey(twins[0]!.id)}`,
      effort: 0.25 * twins.length,
      label: `Prop under the end of the ${bothSides(twins[0]!.name, twins.length)} until it is dry`,
      changes: twins.map((b, i): Change => ({
        path: ['armature', 'props', propped.length + i],
        value: {
          id: `prop-${b.to.replaceAll('/', '-')}`,
          name: `prop under the ${b.name}`,
          node: b.to,
          until: 'through-dry',
        },
      })),
    }));
}

function coreChoices(piece: Piece): StrengthChoice[] {
  const out: StrengthChoice[] = [];
  const core = (id: string, bulk: string, label: string, effort: number) => {
    if (piece.bulk.id !== bulk)
      out.push({ id: `core/${id}`, group: 'core', label, changes: parameter(label, { bulk }).changes, effort });
  };
  if (piece.face.solid) core('hollow', 'paper-firm', 'Not solid: filled with firm paper', 1);
  else if (piece.bulk.density > 60) core('foam', 'foam-camping', 'Filled with closed-cell foam instead', 0.5);
  if (piece.bulk.id === 'paper-loose' || piece.bulk.id === 'foil-loose')
    core('firm', piece.bulk.id === 'paper-loose' ? 'paper-firm' : 'foil-packed', 'Core packed firm', 0.5);
  if (!piece.face.solid) {
    for (const [id, factor, words] of [
      ['three-quarters', 0.75, 'a quarter thinner'],
      ['half', 0.5, 'half as thick'],
    ] as const) {
      const edit = allThinner(piece, factor, `Clay ${words}`);
      out.push({ id: `clay/${id}`, group: 'clay', label: edit.label, changes: edit.changes, effort: 0 });
    }
  }
  return out;
}

function baseChoices(piece: Piece, report: PieceReport, units: UnitSystem): StrengthChoice[] {
  const { base } = piece.armature;
  const out: StrengthChoice[] = [];
  const target = piece.build.brief.limits.tipAngle + 0.5;
  if (base.standing === 'own') {
    return report.stance.tipAngle < piece.build.brief.limits.tipAngle
      ? [
          {
            id: 'on-a-board',
            group: 'board',
            label: 'Fixed to a board',
            changes: parameter('', { standing: 'flat' }).changes,
            effort: 0.5,
          },
        ]
      : [];
  }
  if (report.stance.tipAngle < piece.build.brief.limits.tipAngle) {
    for (const factor of [1.25, 1.6]) {
      const [w, d] = [base.width * factor, base.depth * factor].map((v) => Math.ceil(v * 100) / 100) as [
        number,
        number,
      ];
      out.push({
        id: `board/${factor}`,
        group: 'board',
        label: `A board ${formatLength(w, units)} by ${formatLength(d, units)}`,
        changes: parameter('', { boardWidth: w, boardDepth: d }).changes,
        effort: 0.2,
      });
    }
    const back =
      report.stance.towards === 'front' ? 0.42 * base.depth : report.stance.towards === 'back' ? -0.42 * base.depth : 0;
    const kg =
      Math.ceil(
        (base.ballast +
          counterweightAt(
            report.stance,
            groundUnder(base),
            [base.at[0], base.at[1] + back, -base.thickness / 2],
            target,
          )) *
          10,
      ) / 10;
    if (Number.isFinite(kg) && kg <= 500)
      out.push({
        id: 'ballast',
        group: 'ballast',
        label: `${formatMass(kg, units)} fixed to the board${back > 0 ? ', at its back' : back < 0 ? ', at its front' : ''}`,
        changes: parameter('', { ballast: kg, ballastBack: back }).changes,
        effort: 0.3,
      });
  }
  if (Math.max(report.base.screwUtilisation, report.base.boardUtilisation) >= soundBelow) {
    const board = piece.stockOf(base.stock);
    const next = board?.sizes.find((s) => 'height' in s.section && s.section.height > base.thickness * 1.05);
    const high = next && 'height' in next.section ? next.section.height : 0;
    if (next)
      out.push({
        id: 'thicker-board',
        group: 'thickness',
        label: `A ${next.label} board, longer screws`,
        changes: parameter('', { boardSize: next.id, screwLength: Math.min(0.1, high - 0.002) }).changes,
        effort: 0.2,
      });
    const screw = Math.min(0.012, base.screws.diameter + 0.001);
    out.push({
      id: 'screws',
      group: 'screws',
      label: `Screws ${sensible(screw * 1000)} mm thick`,
      changes: parameter('', { screwDiameter: screw }).changes,
      effort: 0.1,
    });
  }
  return out;
}
