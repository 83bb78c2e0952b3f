import { applyEdit, type Build, type BuildEdit, type Change, type Layers } from '../build';
import { bundleAcross, sectionAcross } from '../armature';
import { clays } from '../catalogue';
import { coatsOf, layersOf } from '../clay';
import { counterweightAt, groundUnder } from '../load';
import { formatLength, formatMass, sensible, type UnitSystem, type Vec3 } from '../quantity';
import type { BareFinding, BareReport } from './finding';
import { sectionsIn } from './laying';
import type { Piece } from './piece';
import type { Remedy, Status } from './report';

/** Something a maker could do about a finding; its effect is found by doing it to a copy. */
interface Proposal {
  readonly id: string;
  readonly edit: BuildEdit;
  readonly note: string;
}

type Assess = (build: Build) => { report: BareReport; findings: readonly BareFinding[] } | null;

const leastGain = 0.02;
const mostRemedies = 5;

export function parameter(label: string, values: Readonly<Record<string, unknown>>): BuildEdit {
  return {
    label,
    changes: Object.entries(values).map(([k, value]): Change => ({
      path: ['armature', 'school', 'parameters', k],
      value,
    })),
  };
}

/** The region's other layers stay; stages that were chosen for other coats do not. */
function setCoats(build: Build, label: string, region: string, coats: readonly number[]): BuildEdit {
  const { stages: _, ...kept } = layersOf(build, region);
  return { label, changes: [{ path: ['regions', 'own', region], value: { ...kept, coats: [...coats] } }] };
}

export function allThinner(piece: Piece, factor: number, label: string): BuildEdit {
  const thin = (l: Layers) => ({
    ...l,
    coats: l.coats.map((t) => Math.max(0.0005, Math.round(t * factor * 1e4) / 1e4)),
  });
  const { regions } = piece.build;
  return {
    label,
    changes: [
      { path: ['regions', 'everywhere'], value: thin(regions.everywhere) },
      ...Object.entries(regions.own).map(([id, l]): Change => ({ path: ['regions', 'own', id], value: thin(l) })),
    ],
  };
}

/** Size changes take the clay's thickness with them; pipe and wire stay what they are. */
export function resizeEdit(build: Build, size: number): BuildEdit {
  const factor = size / build.form.start.size;
  const scaled = (l: Layers) => ({ ...l, coats: l.coats.map((t) => Math.min(0.3, Math.max(0.0005, t * factor))) });
  return {
    label: `Make it ${sensible(size * 100)} % of life size`,
    changes: [
      { path: ['form', 'start', 'size'], value: size },
      { path: ['regions', 'everywhere'], value: scaled(build.regions.everywhere) },
      ...Object.entries(build.regions.own).map(([id, l]): Change => ({
        path: ['regions', 'own', id],
        value: scaled(l),
      })),
    ],
  };
}

function crackProposals(piece: Piece, finding: BareFinding, units: UnitSystem): Proposal[] {
  const region = finding.id.slice('crack/'.length);
  const coats = coatsOf(piece.build, region);
  const total = coats.reduce((sum, t) => sum + t, 0);
  const out: Proposal[] = [];
  const solid = piece.face.solid;
  if (!solid && coats.length === 1 && total >= 0.003) {
    out.push({
      id: 'two-coats',
      edit: setCoats(piece.build, 'Two thinner coats', region, [total / 2, total / 2]),
      note: `${formatLength(total / 2, units)} each, the first dry before the second`,
    });
  }
  if (!solid)
    out.push({
      id: 'thinner',
      edit: setCoats(
        piece.build,
        'Thinner clay here',
        region,
        coats.map((t) => t * 0.7),
      ),
      note: `${formatLength(total * 0.7, units)} instead of ${formatLength(total, units)}`,
    });
  const object = piece.form.masses.some((m) => m.region === region && m.role === 'core');
  if (!object && piece.bulk.id !== 'paper-loose')
    out.push({
      id: 'softer-bulk',
      edit: parameter('Fill it with loose paper', { bulk: 'paper-loose' }),
      note: 'gives as the clay shrinks, carries less',
    });
  if (!solid && piece.wrap.id !== 'cloth')
    out.push({
      id: 'cloth',
      edit: parameter('Wrap the core in cloth strips', { wrap: 'cloth' }),
      note: 'lets the clay creep over the core',
    });
  if (!piece.build.stages.lift && piece.armature.comesOut) {
    out.push({
      id: 'lift',
      edit: {
        label: 'Lift it off its form when leather-hard',
        changes: [{ path: ['stages', 'lift'], value: { when: 'leather-hard', hours: 0 } }],
      },
      note: 'dries from both faces; a closed form is cut open for it',
    });
  }
  if (!piece.build.stages.apart && sectionsIn(piece).length > 1) {
    out.push({
      id: 'apart',
      edit: { label: 'Clad and dry its sections apart', changes: [{ path: ['stages', 'apart'], value: true }] },
      note: 'joined when dry, scored and slipped',
    });
  }
  if (piece.build.room.covers.length === 0) {
    out.push({
      id: 'cover',
      edit: {
        label: 'Loose plastic over it for three days',
        changes: [{ path: ['room', 'covers'], value: [{ kind: 'loose-plastic', from: 0, until: 72, regions: [] }] }],
      },
      note: 'evens the skin with the inside',
    });
  }
  if (piece.build.materials.waterWorkedIn > 0)
    out.push({
      id: 'less-water',
      edit: { label: 'Work no water in', changes: [{ path: ['materials', 'waterWorkedIn'], value: 0 }] },
      note: 'less to lose, less to shrink',
    });
  out.push(...clayProposals(piece, ['paper-clay', 'epoxy-clay']));
  return out;
}

function clayProposals(piece: Piece, ids: readonly string[]): Proposal[] {
  return ids
    .filter((id) => id !== piece.clay.id)
    .map((id) => ({
      id: `clay-${id}`,
      edit: { label: `Use ${clays.get(id)?.name ?? id}`, changes: [{ path: ['brief', 'clay'], value: id }] },
      note: 'another clay altogether: everything moves',
    }));
}

function memberProposals(piece: Piece, finding: BareFinding): Proposal[] {
  const boneId = finding.id.startsWith('member/')
    ? finding.id.slice('member/'.length)
    : piece.armature.bones.find((b) => b.name === finding.place)?.id;
  const bone = piece.armature.bones.find((b) => b.id === boneId);
  if (!bone) return [];
  const out: Proposal[] = [];
  const along = piece.armature.members.filter((m) => m.bones.includes(bone.id));
  const edits = (
    values: Readonly<Record<string, unknown>>,
    label: string,
    ids = along.map((m) => m.id),
  ): BuildEdit => ({
    label,
    changes: ids.flatMap((id) =>
      Object.entries(values).map(([k, value]): Change => ({ path: ['armature', 'edits', id, k], value })),
    ),
  });
  const first = along[0];
  const stock = first && piece.stockOf(first.stock);
  if (first && stock) {
    if (first.strands < 6)
      out.push({
        id: 'strand',
        edit: edits({ strands: first.strands + 1 }, `One more strand in the ${bone.name}`),
        note: `${first.strands + 1} instead of ${first.strands}`,
      });
    const across = (id: string) => {
      const s = stock.sizes.find((x) => x.id === id)?.section;
      return s ? ('diameter' in s ? s.diameter : s.width) : 0;
    };
    const now = across(first.size);
    const next = stock.sizes.filter((s) => across(s.id) > now * 1.05).sort((a, b) => across(a.id) - across(b.id))[0];
    if (next)
      out.push({
        id: 'thicker',
        edit: edits({ size: next.id }, `Go up to ${next.label}`),
        note: across(next.id) > 0.0055 && across(next.id) < 0.012 ? 'hard to bend by hand' : 'the next size made',
      });
  }
  if (bone.joinFrom !== 'welded' && bone.joinFrom !== 'threaded' && bone.joinFrom !== 'epoxied') {
    out.push({
      id: 'join',
      edit: {
        label: `Set the join of the ${bone.name} in epoxy putty`,
        changes: [{ path: ['armature', 'edits', bone.id, 'joinFrom'], value: 'epoxied' }],
      },
      note: 'a day to set; it cannot be moved after',
    });
  }
  if (!piece.build.armature.props.some((p) => p.node === bone.to)) {
    out.push({
      id: 'prop',
      note: 'a stick or a block under it, padded',
      edit: {
        label: `Prop the end of the ${bone.name} until it is dry`,
        changes: [
          {
            path: ['armature', 'props', piece.build.armature.props.length],
            value: {
              id: `prop-${bone.to.replaceAll('/', '-')}`,
              name: `prop under the ${bone.name}`,
              node: bone.to,
              until: 'through-dry',
            },
          },
        ],
      },
    });
  }
  if (piece.bulk.id === 'paper-loose')
    out.push({
      id: 'firmer-bulk',
      edit: parameter('Pack the paper firm', { bulk: 'paper-firm' }),
      note: 'heavier, holds the clay back more',
    });
  if (piece.bulk.id === 'none')
    out.push({
      id: 'bulk',
      edit: parameter('Fill it with firm paper', { bulk: 'paper-firm' }),
      note: 'far less clay to carry',
    });
  else
    out.push({
      id: 'thinner',
      edit: allThinner(piece, 0.75, 'Thinner clay everywhere'),
      note: 'three quarters of what is planned',
    });
  return out;
}

/** Bend it inward, or make it slimmer: the next size down, a strand less. */
function coverProposals(piece: Piece, finding: BareFinding, units: UnitSystem): Proposal[] {
  const member = piece.armature.members.find((m) => `cover/${m.id}` === finding.id);
  const stock = member && piece.stockOf(member.stock);
  if (!member || !stock) return [];
  const set = (label: string, values: Readonly<Record<string, unknown>>): BuildEdit => ({
    label,
    changes: Object.entries(values).map(([k, value]): Change => ({ path: ['armature', 'edits', member.id, k], value })),
  });
  const size = stock.sizes.find((s) => s.id === member.size);
  const strand = size ? sectionAcross(size.section) : 0;
  const depth = Math.min(0.5, finding.limit + bundleAcross(strand, member.strands) / 2);
  const bends = size?.section.shape === 'round' && strand <= 0.008 && !stock.brittle;
  const out: Proposal[] = !bends
    ? []
    : [
        {
          id: 'draw-in',
          edit: set(`Bend the ${member.name} inward`, { drawnIn: Math.ceil(depth * 2000) / 2000 }),
          note: `so that ${formatLength(finding.limit, units)} lies over it wherever there is room`,
        },
      ];
  const thinner = stock.sizes
    .filter((s) => sectionAcross(s.section) < strand * 0.95)
    .sort((a, b) => sectionAcross(b.section) - sectionAcross(a.section))[0];
  if (thinner)
    out.push({ id: 'slimmer', edit: set(`Go down to ${thinner.label}`, { size: thinner.id }), note: 'carries less' });
  else if (member.strands > 1)
    out.push({
      id: 'strand-less',
      edit: set('One strand less', { strands: member.strands - 1 }),
      note: `${member.strands - 1} instead of ${member.strands}; carries less`,
    });
  return out;
}

function tipProposals(piece: Piece, report: BareReport, units: UnitSystem): Proposal[] {
  const { base } = piece.armature;
  if (base.standing === 'own')
    return [
      {
        id: 'on-a-board',
        edit: parameter('Fix it to a board', { standing: 'flat' }),
        note: 'screwed or bolted through its feet',
      },
    ];
  const target = piece.build.brief.limits.tipAngle + 0.5;
  const { stance } = report;
  // On the far side of the board from where it tips, flat on it.
  const back = 0.42 * base.depth;
  const behind = stance.towards === 'front' ? back : stance.towards === 'back' ? -back : 0;
  const at: Vec3 = [base.at[0], base.at[1] + behind, -base.thickness / 2];
  const without = base.ballast > 0 && base.ballastAt[1] !== at[1] ? Infinity : base.ballast;
  const ballast = Math.ceil((without + counterweightAt(stance, groundUnder(base), at, target)) * 10) / 10;
  const wider = (x: number) => Math.ceil(x * 1.25 * 100) / 100;
  const out: Proposal[] = [
    {
      id: 'wider-base',
      edit: parameter('A wider base board', { boardWidth: wider(base.width), boardDepth: wider(base.depth) }),
      note: `${formatLength(wider(base.width), units)} by ${formatLength(wider(base.depth), units)}`,
    },
  ];
  if (Number.isFinite(ballast) && ballast > base.ballast && ballast < 500) {
    out.push({
      id: 'ballast',
      edit: parameter(
        `Fix ${formatMass(ballast, units)} ${behind > 0 ? 'at the back of' : behind < 0 ? 'at the front of' : 'under'} the board`,
        { ballast, ballastBack: behind },
      ),
      note: 'steel plate or bags of sand',
    });
  }
  return out;
}

function baseProposals(piece: Piece): Proposal[] {
  const { base } = piece.armature;
  const board = piece.stockOf(base.stock);
  const next = board?.sizes.find((s) => 'height' in s.section && s.section.height > base.thickness * 1.05);
  const out: Proposal[] = [];
  if (next)
    out.push({
      id: 'thicker-board',
      edit: parameter(`A ${next.label} board`, {
        boardSize: next.id,
        screwLength: Math.min(0.1, ('height' in next.section ? next.section.height : 0.018) - 0.002),
      }),
      note: 'longer screws with it',
    });
  out.push({
    id: 'larger-screws',
    edit: parameter('Screws one size up', { screwDiameter: Math.min(0.012, base.screws.diameter + 0.001) }),
    note: `${sensible((base.screws.diameter + 0.001) * 1000)} mm`,
  });
  return out;
}

function timeProposals(piece: Piece): Proposal[] {
  const { room } = piece.build;
  const out: Proposal[] = [];
  if (room.airSpeed < 1)
    out.push({
      id: 'fan',
      edit: { label: 'Run a fan beside it', changes: [{ path: ['room', 'airSpeed'], value: 1.5 }] },
      note: 'dries faster, and the skin ahead of the inside',
    });
  if (room.temperature < 24)
    out.push({
      id: 'warmer',
      edit: {
        label: 'Dry it somewhere 5 degrees warmer',
        changes: [{ path: ['room', 'temperature'], value: room.temperature + 5 }],
      },
      note: 'at the same humidity',
    });
  if (room.covers.length > 0)
    out.push({
      id: 'uncover',
      edit: { label: 'Leave it uncovered', changes: [{ path: ['room', 'covers'], value: [] }] },
      note: 'watch the skin',
    });
  if (!piece.face.solid)
    out.push({
      id: 'thinner',
      edit: allThinner(piece, 0.75, 'Thinner clay everywhere'),
      note: 'three quarters of what is planned',
    });
  else
    out.push({
      id: 'bulk',
      edit: parameter('Fill it with firm paper', { bulk: 'paper-firm' }),
      note: 'a coat dries in days, a lump in weeks',
    });
  out.push(...clayProposals(piece, ['epoxy-clay']));
  return out;
}

function weightProposals(piece: Piece): Proposal[] {
  const out: Proposal[] = [];
  if (piece.face.solid)
    out.push({
      id: 'bulk',
      edit: parameter('Fill it with loose paper', { bulk: 'paper-loose' }),
      note: 'the inside stops being clay',
    });
  else
    out.push({
      id: 'thinner',
      edit: allThinner(piece, 0.75, 'Thinner clay everywhere'),
      note: 'three quarters of what is planned',
    });
  if (piece.bulk.density > 100)
    out.push({
      id: 'lighter-bulk',
      edit: parameter('Fill it with loose paper', { bulk: 'paper-loose' }),
      note: 'the lightest that still carries clay',
    });
  out.push({
    id: 'smaller',
    edit: resizeEdit(piece.build, Math.round(piece.build.form.start.size * 90) / 100),
    note: 'a tenth smaller all over',
  });
  out.push(...clayProposals(piece, ['paper-clay', 'foam-air-dry']));
  return out;
}

function clayStationProposals(piece: Piece, finding: BareFinding): Proposal[] {
  const out: Proposal[] = [];
  if (finding.id === 'staying-put' && piece.wrap.id !== 'twine')
    out.push({
      id: 'twine',
      edit: parameter('Wind twine over the core', { wrap: 'twine' }),
      note: 'clay keys into it',
    });
  const region = piece.regions.find(
    (r) => Math.max(...coatsOf(piece.build, r)) >= finding.measured * 0.999 || finding.place !== '',
  );
  if (region) {
    const halves: Change[] = piece.regions.map((r) => {
      const coats = coatsOf(piece.build, r);
      const total = coats.reduce((sum, t) => sum + t, 0);
      return {
        path: ['regions', 'own', r],
        value: {
          ...layersOf(piece.build, r),
          stages: undefined,
          coats:
            coats.length < 4 ? Array.from({ length: coats.length + 1 }, () => total / (coats.length + 1)) : [...coats],
        },
      };
    });
    out.push({
      id: 'one-more-coat',
      edit: { label: 'One more, thinner coat', changes: halves },
      note: 'each dry before the next',
    });
  }
  return out;
}

function proposalsFor(piece: Piece, finding: BareFinding, report: BareReport, units: UnitSystem): Proposal[] {
  if (finding.id.startsWith('crack/')) return crackProposals(piece, finding, units);
  if (
    finding.id.startsWith('member/') ||
    finding.id.startsWith('no-metal/') ||
    finding.id === 'sag' ||
    finding.id === 'skin'
  )
    return memberProposals(piece, finding);
  if (finding.id.startsWith('lost-edit/')) {
    const id = finding.id.slice('lost-edit/'.length);
    const { form } = piece.build;
    const path = Object.hasOwn(form.edits, id)
      ? ['form', 'edits', id]
      : Object.hasOwn(form.pose, id)
        ? ['form', 'pose', id]
        : ['armature', 'edits', id];
    return [
      {
        id: 'drop',
        edit: { label: 'Remove the change', changes: [{ path, value: undefined }] },
        note: 'nothing else moves',
      },
    ];
  }
  if (finding.id.startsWith('cover/')) return coverProposals(piece, finding, units);
  if (finding.id === 'tip') return tipProposals(piece, report, units);
  if (finding.id === 'base') return baseProposals(piece);
  if (finding.id === 'deadline' || finding.id === 'through-dry') return timeProposals(piece);
  if (finding.id === 'weight') return weightProposals(piece);
  if (finding.station === 'clay') return clayStationProposals(piece, finding);
  return [];
}

/**
 * Tries each proposal on a copy of the build and keeps those that help, the most helpful first. What is promised is
 * the report of the copy, so pressing it gives exactly that.
 */
export function* remediesFor(
  piece: Piece,
  finding: BareFinding,
  report: BareReport,
  assess: Assess,
  units: UnitSystem,
): Generator<void, Remedy[]> {
  const out: Remedy[] = [];
  for (const p of proposalsFor(piece, finding, report, units)) {
    yield;
    const edited = applyEdit(piece.build, p.edit);
    if (!edited.ok) continue;
    const result = assess(edited.value);
    if (!result) continue;
    const after = result.findings.find((f) => f.id === finding.id);
    const measured = after ? after.measured : goneMeasure(finding, result.report);
    const gain = finding.smallerIsWorse ? measured - finding.measured : finding.measured - measured;
    const nowReached = finding.measured === Infinity && Number.isFinite(measured);
    if (!nowReached && !(gain > leastGain * Math.max(Math.abs(finding.measured), 1e-9))) continue;
    out.push({
      ...p,
      before: finding.measured,
      after: measured,
      statusAfter: after?.status ?? goneStatus(finding, result.report),
      promised: result.report.summary,
    });
  }
  const worse = (r: Remedy) => (finding.smallerIsWorse ? -r.after : r.after);
  return out.sort((a, b) => worse(a) - worse(b)).slice(0, mostRemedies);
}

/** One that is not raised by itself any more is sound, but for a wire that others have since come before. */
function goneStatus(finding: BareFinding, report: BareReport): Status {
  const cover = finding.id.startsWith('cover/')
    ? report.cover.find((c) => c.member === finding.id.slice('cover/'.length))
    : undefined;
  return !cover || cover.least >= cover.wanted ? 'sound' : cover.least < 0 ? 'fails' : 'watch';
}

/** A finding that is not raised any more has its figure read from the report, or counts as nothing. */
function goneMeasure(finding: BareFinding, report: BareReport): number {
  if (finding.id.startsWith('cover/'))
    return report.cover.find((c) => c.member === finding.id.slice('cover/'.length))?.least ?? Infinity;
  if (finding.id.startsWith('member/'))
    return report.members.find((m) => m.id === finding.id.slice('member/'.length))?.utilisation ?? 0;
  if (finding.id.startsWith('crack/'))
    return report.regions.find((r) => r.id === finding.id.slice('crack/'.length))?.crack ?? 0;
  return 0;
}
