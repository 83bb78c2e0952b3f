import { groundUnder } from '../load';
import { finding, type BareFinding, type BareReport } from './finding';
import { clayFindings } from './clay-findings';
import { cutsToFree } from './off-the-armature';
import { moveFindings } from './move-findings';
import { outsideEnvelopes } from './proportion';
import {
  formatDate,
  formatDuration,
  formatLength,
  formatMass,
  formatTemperature,
  isoDateOf,
  secondsOf,
  sensible,
  type UnitSystem,
} from '../quantity';
import type { Piece } from './piece';
import { statusOf, type MemberReport, type RegionReport, type Status, type Worst } from './report';

const day = 86400;

/** Every judgement there is on a piece, sound ones too, the worst first within each station. */
export function findingsOf(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  return [
    ...briefFindings(piece, report, units),
    ...formFindings(report, units),
    ...armatureFindings(piece),
    ...offFindings(piece, units),
    ...coverFindings(piece, report, units),
    ...proportionFindings(piece, units),
    ...loadFindings(piece, report, units),
    ...clayFindings(piece, report, units),
    ...dryingFindings(piece, report, units),
    ...moveFindings(piece, report, units),
  ];
}

/** The worst of what its load does to it, standing, hung or worn: by verdict, then by how far over its limit it is. */
export function worstOf(findings: readonly BareFinding[]): Worst | null {
  const rank: Record<Status, number> = { fails: 3, watch: 2, unknown: 1, sound: 0 };
  const over = (f: BareFinding) =>
    f.smallerIsWorse ? f.limit / Math.max(1e-9, f.measured) : f.measured / Math.max(1e-9, f.limit);
  const all = findings.filter((f) => f.station === 'load' || ['hanging', 'wall', 'worn', 'straps'].includes(f.id));
  const worst = all.reduce<BareFinding | null>(
    (w, f) => (w === null || rank[f.status] > rank[w.status] || (f.status === w.status && over(f) > over(w)) ? f : w),
    null,
  );
  if (!worst) return null;
  const when = worst.moment ? `, ${momentPhrase(worst.moment)}` : '';
  const why = worst.cause ? `, from ${worst.cause}` : '';
  const figure = worst.status === 'sound' ? 'Nothing is near its limit; nearest is' : 'Worst of all';
  return {
    finding: worst.id,
    status: worst.status,
    sentence: `${figure}: ${worst.place}${when}${why}. ${worst.sentence}`,
  };
}

function briefFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const { limits, deadline, startDate } = piece.build.brief;
  const out: BareFinding[] = [];
  if (limits.weight !== null) {
    // What leaves the piece, and the board it leaves behind, are not its weight.
    const { mass } = report.finished;
    const gone = report.summary.dry - mass;
    const share = mass / limits.weight;
    out.push(
      finding(
        'brief',
        'weight',
        statusOf(share, 0.9),
        'whole piece',
        share > 1
          ? `Finished, it weighs ${formatMass(mass, units)}: over the ${formatMass(limits.weight, units)} you allow.`
          : `Finished, it weighs ${formatMass(mass, units)}, within the ${formatMass(limits.weight, units)} you allow.`,
        `Clay is ${formatMass(report.ledger.clayDry, units)} of it when dry; what is inside it and under it is the rest.`,
        {
          measured: mass,
          limit: limits.weight,
          unit: 'kg',
          range: { low: report.weightRange.low - gone, nominal: mass, high: report.weightRange.high - gone },
        },
      ),
    );
  }
  if (deadline !== null) {
    const available = (secondsOf(deadline) - secondsOf(startDate)) / day;
    const after = report.summary.readyAfter;
    const needed = after === null ? Infinity : after / day;
    const high = report.readyRange ? report.readyRange.high / day : needed;
    const status: Status = needed > available ? 'fails' : high > available ? 'watch' : 'sound';
    const ready = after === null ? null : isoDateOf(secondsOf(startDate) + after);
    out.push(
      finding(
        'brief',
        'deadline',
        status,
        'whole piece',
        ready === null
          ? `It will not be ready by ${formatDate(deadline)}: this clay does not become hard in this room.`
          : status === 'fails'
            ? `Ready on ${formatDate(ready)}: after the ${formatDate(deadline)} you need it.`
            : status === 'watch'
              ? `Likely ready on ${formatDate(ready)}, but it may run past ${formatDate(deadline)}.`
              : `Ready on ${formatDate(ready)}, before ${formatDate(deadline)}.`,
        `From ${formatDate(startDate)}, when the clay goes on, there are ${sensible(available)} days; drying or curing alone takes ${Number.isFinite(needed) ? sensible(needed, 2) : 'more'}.`,
        {
          measured: needed,
          limit: available,
          unit: 'days',
          range: report.readyRange ? { low: report.readyRange.low / day, nominal: needed, high } : null,
        },
      ),
    );
  }
  return out;
}

function formFindings(report: BareReport, units: UnitSystem): BareFinding[] {
  const share = report.size.volume > 0 ? report.size.volumeError / report.size.volume : Infinity;
  return [
    finding(
      'form',
      'volume-error',
      statusOf(share, 0.01, 0.05),
      'whole form',
      `It stands ${formatLength(report.size.height, units)} high and encloses ${sensible(report.size.volume * 1000)} l.`,
      `Measured on cells of ${formatLength(report.size.step, units)}; the volume is good to ${sensible(share * 100, 2)} %.`,
      { measured: share, limit: 0.05, unit: 'share' },
    ),
  ];
}

function armatureFindings(piece: Piece): BareFinding[] {
  const out: BareFinding[] = piece.lostEdits.map((id) =>
    finding(
      'armature',
      `lost-edit/${id}`,
      'watch',
      id,
      `Your change to "${id}" has nothing to hold on to any more.`,
      'The school or the form no longer makes a part of that name. Remove the change, or bring the part back.',
      { measured: 1, limit: 0, unit: 'count' },
    ),
  );
  const served = new Set(piece.armature.members.flatMap((m) => m.bones));
  const empty = piece.armature.bones.filter((b) => !served.has(b.id));
  for (const b of empty) {
    out.push(
      finding(
        'armature',
        `no-metal/${b.id}`,
        'watch',
        b.name,
        `Nothing but bulk and clay runs along the ${b.name}.`,
        'Soft fillings carry little and lose it over a night; a wire costs grams.',
        { measured: 1, limit: 0, unit: 'count' },
      ),
    );
  }
  if (out.length === 0) {
    out.push(
      finding(
        'armature',
        'makeable',
        'sound',
        'armature',
        `${piece.armature.members.length} members on ${piece.armature.bones.length} bones, all with something to carry them.`,
        'Every bone has wire, pipe or timber along it.',
        { measured: 0, limit: 0, unit: 'count' },
      ),
    );
  }
  return out;
}

/** Where a member lies too near the face, worst first; one finding says that none does. */
function coverFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const thin = report.cover.filter((c) => c.least < c.wanted).sort((a, b) => a.least / a.wanted - b.least / b.wanted);
  if (thin.length === 0) {
    const nearest = report.cover.reduce((least, c) => Math.min(least, c.least), Infinity);
    return [
      finding(
        'armature',
        'cover',
        'sound',
        'armature',
        Number.isFinite(nearest)
          ? `No member lies nearer the face than ${formatLength(nearest, units)}.`
          : 'No member lies within the form.',
        'There should be twice the wire, half the clay and 6 mm at least between a member and the face.',
        { measured: 0, limit: 1, unit: 'count' },
      ),
    ];
  }
  const told = thin.slice(0, mostThinTold).map((c) => {
    const mass = piece.form.masses[c.mass];
    const place = mass?.name ?? 'form';
    const region = report.regions.find((r) => r.id === mass?.region);
    // Right over a rigid wire hardly any of the shrinkage is let go.
    const crack =
      region?.coats.reduce((most, k) => Math.max(most, rigidOver * k.crack.perRestraint + k.crack.differential), 0) ??
      0;
    const splits = crack > 1 ? ` Over it the crack index is ${sensible(crack, 2)}.` : '';
    return finding(
      'armature',
      `cover/${c.member}`,
      c.least < 0 ? 'fails' : 'watch',
      place,
      c.least < 0
        ? `The ${c.name} stands out of the ${place} by ${formatLength(-c.least, units)}.`
        : `The ${c.name} has only ${formatLength(c.least, units)} over it in the ${place}.`,
      `It should have ${formatLength(c.wanted, units)}: twice its wire (a pipe counts as 8 mm), half the clay and 6 mm at least. ${formatLength(Math.max(c.short, 0.004), units)} of it has less.${splits}`,
      { measured: c.least, limit: c.wanted, unit: 'metres', smallerIsWorse: true },
    );
  });
  const rest = thin.slice(mostThinTold);
  if (rest.length === 0) return told;
  return [
    ...told,
    finding(
      'armature',
      'cover',
      rest.some((c) => c.least < 0) ? 'fails' : 'watch',
      'armature',
      `${rest.length} more ${rest.length === 1 ? 'member lies' : 'members lie'} too near the face.`,
      'The table of members gives the cover of each. A thinner wire everywhere helps all of them.',
      { measured: rest.length, limit: 0, unit: 'count' },
    ),
  ];
}

const rigidOver = 0.9;
/** The worst are told one by one; the table of members lists them all. */
const mostThinTold = 4;

/** Masses and wires that leave the bounds of proportion: a loop wider than the skull, a jaw below the chin. */
function proportionFindings(piece: Piece, units: UnitSystem): BareFinding[] {
  return outsideEnvelopes(piece.form, piece.armature.members).map((o) =>
    finding(
      o.member ? 'armature' : 'form',
      `proportion/${o.envelope}/${o.id}`,
      'watch',
      o.name,
      o.member
        ? `The ${o.name} is wider than the ${o.envelopeName}.`
        : `The ${o.name} stands outside the ${o.envelopeName}.`,
      `By ${formatLength(o.by, units)} at the most, measured against the proportions of the form. Leave it if it is meant.`,
      { measured: o.by, limit: 0, unit: 'metres' },
    ),
  );
}

function memberSentence(m: MemberReport, status: Status): string {
  const ratio = sensible(m.utilisation, 2);
  if (status === 'fails') return `The ${m.name} gives way: it is asked for ${ratio} times what it can safely bear.`;
  if (status === 'watch') return `The ${m.name} holds, with little to spare: ${ratio} of what it can safely bear.`;
  return `The ${m.name} holds easily, at ${ratio} of what it can safely bear.`;
}

function memberReason(m: MemberReport, units: UnitSystem): string {
  const parts = [
    ['metal, timber and hard skin', m.metalShare],
    ['bulk', m.bulkShare],
    ['the clay itself', m.clayShare],
  ] as const;
  const main = parts
    .filter(([, v]) => v > 0)
    .map(([k, v]) => `${k} ${sensible(v, 2)}`)
    .join(', ');
  const sag = m.sag > 0.0005 ? ` Its outer joint moves ${formatLength(m.sag, units)}.` : '';
  const set =
    m.set > 0
      ? m.set >= 99
        ? ' The wire folds.'
        : ` A soft wire would keep ${sensible(m.set * 100, 2)} % of that bend.`
      : '';
  const buckling =
    m.buckling >= m.utilisation && m.buckling > 0.3
      ? ' It is slender: it would bow out sideways under the weight.'
      : '';
  return `Worst ${momentPhrase(m.moment)}: it bends with ${sensible(m.demand, 2)} Nm, ${formatMass(m.carries, units)} of it right on this bone; it resists with ${sensible(m.capacity, 2)} Nm (${main || 'nothing'}).${sag}${set}${buckling}`;
}

function momentPhrase(name: string): string {
  const phrases: Record<string, string> = {
    'bare armature': 'while bare',
    dry: 'when dry',
    finished: 'when finished',
    'on the road': 'on the road',
    'worn or overhead': 'worn or overhead',
  };
  return phrases[name] ?? `with ${name}`;
}

function tipMoment(report: BareReport): { moment?: string; cause?: string } {
  const at = report.stances.find((x) => x.tipAngle === report.stance.tipAngle);
  return at ? { moment: at.name, cause: `what hangs over its ${report.stance.towards}` } : {};
}

function loadFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const out: BareFinding[] = [];
  const worst = [...report.members].sort((a, b) => b.utilisation - a.utilisation);
  for (const m of worst.filter((x, i) => i === 0 || x.status !== 'sound').slice(0, 8)) {
    out.push(
      finding('load', `member/${m.id}`, m.status, m.name, memberSentence(m, m.status), memberReason(m, units), {
        measured: m.utilisation,
        limit: 1,
        unit: 'ratio',
        range: m.utilisationRange,
        moment: m.moment,
        cause: m.cause,
      }),
    );
  }
  out.push(...sagFindings(piece, report, units));
  const { stance } = report;
  const target = piece.build.brief.limits.tipAngle;
  const tipStatus: Status = stance.tipAngle < target * (2 / 3) ? 'fails' : stance.tipAngle < target ? 'watch' : 'sound';
  out.push(
    finding(
      'load',
      'tip',
      tipStatus,
      'base',
      stance.tipAngle < 0
        ? `It falls to the ${stance.towards} by itself.`
        : `It tips to the ${stance.towards} when leaned ${sensible(stance.tipAngle, 2)}°${tipStatus === 'sound' ? ', well clear of a knock' : `; you asked for ${sensible(target)}°`}.`,
      `The centre of gravity is ${formatLength(stance.centre[2] - groundUnder(piece.armature.base), units)} above the table and ${formatLength(stance.edgeDistance, units)} inside the ${stance.towards} edge of ${piece.armature.base.standing === 'own' ? 'what it stands on' : 'the base'}; a level push of ${sensible(stance.push, 2)} N at the crown takes it over.`,
      { measured: stance.tipAngle, limit: target, unit: 'degrees', smallerIsWorse: true, ...tipMoment(report) },
    ),
  );
  const { base } = report;
  const u = Math.max(base.screwUtilisation, base.boardUtilisation);
  const screws = base.screwUtilisation >= base.boardUtilisation;
  out.push(
    finding(
      'load',
      'base',
      statusOf(u),
      'base',
      piece.armature.base.standing === 'own'
        ? 'It stands on its own feet: nothing is screwed down.'
        : u > 1
          ? screws
            ? 'The flange screws pull out of the board.'
            : 'The board is too thin under the flange.'
          : screws
            ? 'The flange screws hold.'
            : 'The board holds the flange.',
      piece.armature.base.standing === 'own'
        ? 'Without a board only its own footprint keeps it from tipping.'
        : screws
          ? `The hardest-pulled screw takes ${sensible(base.screwPull, 2)} N; a fifth of what this board would hold it with is ${sensible(base.screwAllowed, 2)} N.`
          : `A strip of board round the flange bends with ${sensible(u, 2)} of what it may.`,
      { measured: u, limit: 1, unit: 'ratio', moment: report.baseMoment, cause: 'the pull of the upright on its foot' },
    ),
  );
  return out;
}

/** Clay kept damp: whether it lifts off its armature whole, or where it is cut. */
function offFindings(piece: Piece, units: UnitSystem): BareFinding[] {
  if (piece.clay.setting !== 'damp') return [];
  const cuts = cutsToFree(piece);
  const list = cuts
    .map(
      (c, i) =>
        `${i + 1}. the ${c.place} at ${formatLength(c.level, units)} over the board, to free the ${c.members.join(' and the ')}`,
    )
    .join('; ');
  return [
    finding(
      'armature',
      'off',
      cuts.length === 0 ? 'sound' : 'watch',
      'whole piece',
      cuts.length === 0
        ? 'It lifts off its armature whole.'
        : `To come off its armature it is cut in ${cuts.length + 1} pieces.`,
      cuts.length === 0
        ? 'Nothing inside is wider than what it leaves through. Loosen it while the clay is leathery.'
        : `In this order: ${list}. Hollow it, score and slip the cuts together again while it is leathery; or mould it where it stands and leave it whole.`,
      { measured: cuts.length, limit: 0, unit: 'count' },
    ),
  ];
}

const sagLimit = 0.02;

function sagFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const out: BareFinding[] = [];
  const wet = report.moments.filter((m) => m.moment.startsWith('clay'));
  const nameOf = new Map(piece.armature.bones.map((b) => [b.id, b.name]));
  let sag = { share: 0, metres: 0, bone: '', moment: '' };
  let skin = { strain: 0, bone: '' };
  for (const m of wet) {
    for (const b of m.bones) {
      if (b.sagShare > sag.share) sag = { share: b.sagShare, metres: b.sag, bone: b.bone, moment: m.name };
      if (b.skinStrain > skin.strain) skin = { strain: b.skinStrain, bone: b.bone };
    }
  }
  if (sag.share > sagLimit * 0.5) {
    const name = nameOf.get(sag.bone) ?? sag.bone;
    out.push(
      finding(
        'load',
        'sag',
        sag.share > sagLimit ? 'fails' : 'watch',
        name,
        `The ${name} ${sag.share > sagLimit ? 'will sag' : 'gives'} ${formatLength(sag.metres, units)} when the clay goes on.`,
        `That is ${sensible(sag.share * 100, 2)} % of its way from the base; past 2 % the pose is lost.`,
        {
          measured: sag.share,
          limit: sagLimit,
          unit: 'share',
          moment: sag.moment,
          cause: 'the weight of the wet clay',
        },
      ),
    );
  }
  const capacity = piece.mixed.drying?.capacityWet ?? 0.1;
  const strained = skin.strain / capacity;
  if (strained >= 0.6) {
    const name = nameOf.get(skin.bone) ?? skin.bone;
    out.push(
      finding(
        'load',
        'skin',
        statusOf(strained),
        name,
        `The fresh clay on the ${name} tears as it bends.`,
        `Bending stretches its skin by ${sensible(skin.strain * 100, 2)} %; fresh, it takes ${sensible(capacity * 100, 2)} %.`,
        { measured: strained, limit: 1, unit: 'ratio' },
      ),
    );
  }
  return out;
}

function crackWords(index: number): string {
  return index > 1.6 ? 'near certain' : index > 1 ? 'likely' : index >= 0.6 ? 'possible' : 'unlikely';
}

/** Off its form it shrinks freely: the sooner the better, once it can be held at all. */
function liftFinding(report: BareReport): BareFinding {
  const lifted = report.laying.lifted ?? 0;
  // Ears kept wrapped are carried by the rest: what counts is how firm most of the face is.
  const face = report.regions.reduce((sum, r) => sum + (r.windows.smooth.at === null ? 0 : r.area), 0);
  const firm = report.regions.reduce((sum, r) => sum + (r.windows.smooth.at ?? 0) * r.area, 0) / Math.max(1e-9, face);
  const late = report.regions.reduce((m, r) => Math.max(m, r.leatherHard ?? 0, r.touchDry ?? 0), 0);
  const status: Status = lifted > late ? 'watch' : lifted < firm * 0.7 ? 'watch' : 'sound';
  return finding(
    'drying',
    'lift',
    status,
    'whole piece',
    lifted > late
      ? `Lifted off ${formatDuration(lifted)} on, it is past leather-hard: most of the shrinking has been held.`
      : lifted < firm * 0.7
        ? `Lifted off ${formatDuration(lifted)} on, it is still too soft to keep its shape.`
        : `It comes off its form ${formatDuration(lifted)} after the clay goes on, and dries from both faces.`,
    `The skin is set enough to hold after about ${formatDuration(firm)}; leather-hard is over by ${formatDuration(late)}. A closed form is cut open along a seam for it, and the cut scored and slipped again.`,
    { measured: lifted / day, limit: late / day, unit: 'days' },
  );
}

function crackReason(piece: Piece, r: RegionReport): string {
  const coat = r.coats.reduce((m, c) => (c.crack.total > m.crack.total ? c : m));
  const held = piece.face.solid
    ? 'the bare metal'
    : coat.stage > 1 && coat.start > 0
      ? 'the dry clay under it'
      : `${piece.bulk.name}${piece.wrap.id === 'none' ? '' : ` under ${piece.wrap.name}`}`;
  const source =
    coat.crack.restrained >= coat.crack.differential
      ? `${held} holds back ${sensible(coat.restraint * 100, 2)} % of the shrinkage`
      : 'the skin dries and shrinks while the inside is still wet';
  return `Of ${sensible(r.crack, 2)}, ${sensible(coat.crack.restrained, 2)} is the core and ${sensible(coat.crack.differential, 2)} the dry skin over a wet inside. Mostly, ${source}. This clay shrinks ${sensible((piece.mixed.drying?.shrinkage ?? 0) * 100, 2)} %.`;
}

function dryingFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const out: BareFinding[] = [];
  const { clay, build } = piece;
  if (clay.setting === 'sets') {
    out.push(
      finding(
        'drying',
        'sets',
        'sound',
        'whole piece',
        `It sets, and does not dry: hard about ${sensible(report.cure?.cureHours ?? 24, 2)} h after the last batch.`,
        'Setting takes up its own volume: next to no shrinkage, so nothing pulls on the core.',
        { measured: 0, limit: 1, unit: 'ratio' },
      ),
    );
    return out;
  }
  if (clay.setting === 'damp') {
    const days = report.workableDays ?? 0;
    out.push(
      finding(
        'drying',
        'workable',
        days < 2 ? 'watch' : 'sound',
        'whole piece',
        `Left like this it stays workable for about ${sensible(days, 2)} days.`,
        'This clay is kept damp. A closed bag and a wet cloth buy weeks; never let it dry on the armature.',
        { measured: days, limit: 2, unit: 'days', smallerIsWorse: true },
      ),
    );
    return out;
  }
  if (clay.setting !== 'dries') {
    out.push(
      finding(
        'drying',
        'never-dries',
        'sound',
        'whole piece',
        clay.setting === 'bakes'
          ? 'It hardens in the oven, not in the air.'
          : 'It never dries: it can be worked for years.',
        clay.setting === 'bakes'
          ? 'Everything inside must stand 135 degrees.'
          : 'To keep the piece, mould and cast it.',
        { measured: 0, limit: 1, unit: 'ratio' },
      ),
    );
    return out;
  }
  const limit = build.brief.limits.crack;
  const ranked = [...report.regions].filter((r) => r.coats.length > 0).sort((a, b) => b.crack - a.crack);
  for (const r of ranked.filter((x, i) => i === 0 || statusOf(x.crack / limit) !== 'sound')) {
    const status = statusOf(r.crack, Math.min(0.6, limit * 0.6), limit);
    out.push(
      finding(
        'drying',
        `crack/${r.id}`,
        status,
        r.name,
        `Cracks over the ${r.name} are ${crackWords(r.crack)}.`,
        crackReason(piece, r),
        { measured: r.crack, limit, unit: 'ratio', range: r.crackRange },
      ),
    );
  }
  if (report.laying.lifted !== null) out.push(liftFinding(report));
  const slowest = [...report.regions]
    .filter((r) => r.coats.length > 0)
    .sort((a, b) => (b.throughDry ?? Infinity) - (a.throughDry ?? Infinity))[0];
  if (slowest) {
    const never = slowest.throughDry === null;
    const days = never ? Infinity : (slowest.throughDry as number) / day;
    out.push(
      finding(
        'drying',
        'through-dry',
        never ? 'fails' : days > 30 ? 'watch' : 'sound',
        slowest.name,
        never
          ? `The ${slowest.name} never dries through in this room.`
          : `Dry through after ${sensible(days, 2)} days, last of all at the ${slowest.name}.`,
        `${formatLength(slowest.thickness, units)} of ${clay.name} drying from ${report.laying.lifted !== null ? 'both faces once it is lifted' : (piece.faces[piece.regions.indexOf(slowest.id)]?.innerFace ?? 0) > 0 && !slowest.solid ? 'the outside, and a little through the core' : 'the outside only'} at ${formatTemperature(build.room.temperature, units)} and ${sensible(build.room.relativeHumidity * 100)} %${build.room.hours.length > 0 || build.room.record ? ', with the hours you gave it' : ''}.`,
        { measured: days, limit: 30, unit: 'days' },
      ),
    );
  }
  return out;
}
