import { sectionsIn } from '../armature';
import { compared, formatLength, sensible } from '../quantity';
import type { Piece, RegionReport } from '../piece';
import { crackStatus, crackWords } from './crack-words';
import { drawnIn } from './cover';
import { otherClays, parameter, setCoats } from './edits';
import { finding, type Judging, type Part, type Proposal, type Rule } from './finding';
import { alike } from './group';
import { placesInWords } from './words';

interface CrackPart extends Part {
  readonly region: RegionReport;
}

export const crack: Rule = {
  id: 'crack',
  judge: ({ piece, report }) => {
    if (piece.clay.setting !== 'dries') return [];
    const limit = piece.build.brief.limits.crack;
    const clad = report.regions.filter((r) => r.coats.length > 0).sort((a, b) => compared(b.crack) - compared(a.crack));
    const parts = clad
      .map((r): CrackPart => ({
        id: `crack/${r.id}`,
        name: r.name,
        status: crackStatus(r.crack, limit),
        measured: r.crack,
        region: r,
      }))
      .filter((p, i) => i === 0 || p.status !== 'sound');
    // Laid alike on the same core they crack alike; what lies over a member is a place of its own.
    return alike(
      parts,
      ({ region: r }) => `${r.solid}:${r.coats.map((c) => c.thickness).join()}:${overMember(r)}`,
      (a, b) => compared(a.measured) - compared(b.measured),
    ).map((lot) => {
      const r = lot[0]!.region;
      const place = placesInWords(lot.map((p) => p.name));
      const over = overMember(r) ? `, along the ${placesInWords(r.crackPlaces.map((p) => p.name))}` : '';
      return finding(
        'drying',
        lot[0]!.id,
        lot[0]!.status,
        place,
        `Cracks over the ${place}${over} are ${crackWords(r.crack, limit)}.`,
        reasonOf(piece, r, lot.length > 1),
        {
          measured: r.crack,
          limit,
          unit: 'ratio',
          range: r.crackRange,
          parts: lot.map(({ id, name, status, measured }) => ({ id, name, status, measured })),
        },
      );
    });
  },
  propose: (on, found) =>
    gentler(
      on,
      found.parts.map((p) => p.id.slice('crack/'.length)),
    ),
  measure: ({ piece, report }, part) => {
    const own = report.regions.find((r) => `crack/${r.id}` === part);
    const index = piece.clay.setting === 'dries' ? (own?.crack ?? 0) : 0;
    return { measured: index, status: crackStatus(index, piece.build.brief.limits.crack) };
  },
};

/** Whether its worst place lies over a member. */
function overMember(r: RegionReport): boolean {
  return r.coats.some((c) => c.overMember && c.overMember.total > c.crack.total * 1.001);
}

const basisWords = {
  quick: '',
  corrected: ' By the quick answer, corrected by the last drying of the whole piece.',
  full: ' By the drying of the whole piece.',
} as const;

function reasonOf(piece: Piece, r: RegionReport, many: boolean): string {
  const { restrained, differential } = r.crackParts;
  const coat = r.coats.reduce((m, c) => (c.crack.total > m.crack.total ? c : m));
  const held = piece.face.solid
    ? 'the bare metal'
    : coat.stage > 1 && coat.start > 0
      ? 'the dry clay under it'
      : `${piece.bulk.name}${piece.wrap.id === 'none' ? '' : ` under ${piece.wrap.name}`}`;
  const source = overMember(r)
    ? 'a member lies in the clay there, and lets hardly any of it go'
    : restrained >= differential
      ? `${held} holds back ${sensible(coat.restraint * 100, 2)} % of the shrinkage`
      : 'the skin dries and shrinks while the inside is still wet';
  return `Of ${sensible(r.crack, 2)}${many ? ' at the worst of them' : ''}, ${sensible(restrained, 2)} is the core and ${sensible(differential, 2)} the dry skin over a wet inside. Mostly, ${source}. This clay shrinks ${sensible((piece.mixed.drying?.shrinkage ?? 0) * 100, 2)} %.${basisWords[r.basis]}`;
}

function gentler(on: Judging, regions: readonly string[]): Proposal[] {
  const { piece, report, units } = on;
  const own = report.regions.filter((r) => regions.includes(r.id));
  const first = own[0];
  if (!first) return [];
  const { build } = piece;
  const solid = piece.face.solid;
  const total = first.coats.reduce((sum, c) => sum + c.thickness, 0);
  const out: Proposal[] = [];
  const wires = [...new Set(own.flatMap((r) => r.crackPlaces.map((p) => p.member)))];
  if (own.some(overMember)) out.push(...drawnIn(on, wires));
  if (!solid && own.every((r) => r.coats.length === 1) && total >= 0.003)
    out.push({
      id: 'two-coats',
      edit: setCoats(build, 'Two thinner coats', regions, (_, c) => {
        const sum = c.reduce((s, t) => s + t, 0);
        return [sum / 2, sum / 2];
      }),
      note: `${formatLength(total / 2, units)} each, the first dry before the second`,
    });
  if (!solid)
    out.push({
      id: 'thinner',
      edit: setCoats(build, 'Thinner clay here', regions, (_, c) => c.map((t) => t * 0.7)),
      note: `${formatLength(total * 0.7, units)} instead of ${formatLength(total, units)}`,
    });
  const object = piece.form.masses.some((m) => regions.includes(m.region) && m.role === 'core');
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
  if (!build.stages.lift && piece.armature.comesOut)
    out.push({
      id: 'lift',
      edit: {
        label: 'Lift it off its form when leather-hard',
        changes: [{ path: ['stages', 'lift'], value: { when: 'leather-hard', hours: 0 } }],
      },
      note: 'dries from both faces; a closed form is cut open for it',
    });
  if (!build.stages.apart && sectionsIn(piece.armature).length > 1)
    out.push({
      id: 'apart',
      edit: { label: 'Clad and dry its sections apart', changes: [{ path: ['stages', 'apart'], value: true }] },
      note: 'joined when dry, scored and slipped',
    });
  if (build.room.covers.length === 0)
    out.push({
      id: 'cover',
      edit: {
        label: 'Loose plastic over it for three days',
        changes: [{ path: ['room', 'covers'], value: [{ kind: 'loose-plastic', from: 0, until: 72, regions: [] }] }],
      },
      note: 'evens the skin with the inside',
    });
  if (build.materials.waterWorkedIn > 0)
    out.push({
      id: 'less-water',
      edit: { label: 'Work no water in', changes: [{ path: ['materials', 'waterWorkedIn'], value: 0 }] },
      note: 'less to lose, less to shrink',
    });
  out.push(...otherClays(piece, ['paper-clay', 'epoxy-clay']));
  return out;
}
