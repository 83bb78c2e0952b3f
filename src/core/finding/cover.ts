import { bundleAcross, coverWanted, sectionAcross, sectionGeometry, type Member, type MemberCover } from '../armature';
import { sizesLike, type Stock, type StockSize } from '../catalogue';
import type { BuildEdit } from '../document';
import { isBare, massTarget, stretchMass, type Mass } from '../form';
import { compared, formatLength, mix, sensible, type UnitSystem, type Vec3 } from '../quantity';
import type { Piece, PieceReport, Status } from '../piece';
import { memberChanges } from './edits';
import { finding, type Judged, type Judging, type Part, type Proposal, type Rule } from './finding';
import { alike } from './group';
import { pairKey, placesInWords, several } from './words';

/** What lies between a member and the finished face: enough that it does not show in a mould, nor split the clay. */
interface ThinPart extends Part {
  readonly cover: MemberCover;
}

/**
 * Members with too little over them where clay lies: a head that a mask is made on bears none in its neck, and what runs
 * near its face there shows in nothing. A piece that bears no clay at all is moulded as it is.
 */
export function thinUnderClay({ piece, report }: Pick<Judging, 'piece' | 'report'>): MemberCover[] {
  const isClad = bearsClay(piece);
  return report.cover.flatMap((c) => {
    if (c.least >= c.wanted) return [];
    if (isClad(c.mass)) return [c];
    const worst = c.shortIn
      .filter((s) => isClad(s.mass))
      .sort((a, b) => compared(a.least / a.wanted) - compared(b.least / b.wanted))[0];
    return worst ? [{ ...c, ...worst }] : [];
  });
}

function bearsClay({ form: { masses } }: Piece): (mass: number) => boolean {
  const bears = (mass: number) => !isBare(masses[mass]);
  return masses.some((_, i) => bears(i)) ? bears : () => true;
}

export const cover: Rule = {
  id: 'cover',
  judge: ({ piece, report, units }) => {
    const thin = thinUnderClay({ piece, report });
    if (thin.length === 0) return nothingThin(piece, report, units);
    const parts = thin.map((c): ThinPart => ({
      id: `cover/${c.member}`,
      name: c.name,
      status: statusOfCover(c),
      measured: c.least,
      cover: c,
    }));
    const lots = alike(
      parts,
      (p) => pairKey(p.name),
      (a, b) => compared(b.measured / b.cover.wanted) - compared(a.measured / a.cover.wanted),
    );
    return lots.map((lot) => {
      const c = lot[0]!.cover;
      const place = placesInWords(lot.map((p) => piece.form.masses[p.cover.mass]?.name ?? 'form'));
      const names = placesInWords(lot.map((p) => p.name));
      const many = several(lot.map((p) => p.name));
      const splits = overIt(report, c.member);
      return finding(
        'armature',
        lot[0]!.id,
        lot[0]!.status,
        place,
        c.least < 0
          ? `The ${names} ${many ? 'stand' : 'stands'} out of the ${place} by ${formatLength(-c.least, units)}.`
          : `The ${names} ${many ? 'have' : 'has'} only ${formatLength(c.least, units)} over ${many ? 'them' : 'it'} in the ${place}.`,
        `It should have ${formatLength(c.wanted, units)}: twice its wire (a pipe counts as ${formatLength(0.008, units)}), half the clay and ${formatLength(0.006, units)} at least, or a third of a thinner limb. ${formatLength(Math.max(c.short, 0.004), units)} of it has less.${splits}`,
        {
          measured: c.least,
          limit: c.wanted,
          unit: 'metres',
          smallerIsWorse: true,
          parts: lot.map(({ id, name, status, measured }) => ({ id, name, status, measured })),
        },
      );
    });
  },
  propose: (on, found) => {
    const ids = found.parts.map((p) => p.id.slice('cover/'.length));
    return [...deeper(on, ids, found.limit), ...thickerLimb(on, ids)];
  },
  measure: ({ piece, report }, part) => {
    const ofPart = (all: readonly MemberCover[]) => all.find((c) => `cover/${c.member}` === part);
    const thin = ofPart(thinUnderClay({ piece, report }));
    if (thin) return { measured: thin.least, status: statusOfCover(thin) };
    const own = ofPart(report.cover);
    return own ? { measured: own.least, status: 'sound' } : { measured: Infinity, status: 'sound' };
  },
};

function statusOfCover(c: MemberCover): Status {
  return c.least >= c.wanted ? 'sound' : c.least < 0 ? 'fails' : 'watch';
}

/** The crack index right over it, where it lies in the clay: the same figure as on Drying. */
function overIt(report: PieceReport, memberId: string): string {
  const most = Math.max(
    0,
    ...report.regions.flatMap((r) => r.crackPlaces.filter((p) => p.member === memberId).map((p) => p.crack)),
  );
  return most > 0.6 ? ` Over it the crack index is ${sensible(most, 2)}.` : '';
}

function nothingThin(piece: Piece, report: PieceReport, units: UnitSystem): Judged[] {
  const within = piece.armature.members.filter((m) => !m.bare);
  // A core that nothing runs through has no wire to be covered: whether it holds is for others to say.
  if (within.length === 0) return [];
  const isClad = bearsClay(piece);
  const nearest = report.cover.reduce((least, c) => (isClad(c.mass) ? Math.min(least, c.least) : least), Infinity);
  const everyone = piece.field.all();
  const inside = within.some((m) => alongPath(m.path).some((p) => piece.field.at(p[0], p[1], p[2], everyone) < 0));
  return [
    finding(
      'armature',
      'cover',
      inside ? 'sound' : 'fails',
      'armature',
      Number.isFinite(nearest)
        ? `No member lies nearer the face than ${formatLength(nearest, units)}.`
        : inside
          ? 'What there is runs straight in, and comes near the face nowhere else.'
          : 'No member lies within the form.',
      inside
        ? `There should be twice the wire, half the clay and ${formatLength(0.006, units)} at least between a member and the face; in a thin limb a third of what it is across.`
        : 'What is to hold the clay stands beside it. Move the form over its armature, or set the armature out for it.',
      inside ? { measured: 0, limit: 1, unit: 'count' } : { measured: within.length, limit: 0, unit: 'count' },
    ),
  ];
}

/** Its corners and the middles between them. */
function alongPath(path: readonly Vec3[]): Vec3[] {
  return path.flatMap((p, i) => (i === 0 ? [p] : [0.25, 0.5, 0.75, 1].map((t) => mix(path[i - 1]!, p, t))));
}

/** Bend them inward, or make them slimmer: as stout as still keeps its cover. */
function deeper({ piece, report, units }: Judging, ids: readonly string[], wanted: number): Proposal[] {
  const members = ids
    .map((id) => piece.armature.members.find((m) => m.id === id))
    .filter((m): m is Member => m !== undefined);
  const first = members[0];
  const stock = first && piece.stockOf(first.stock);
  if (!first || !stock) return [];
  const place = placesInWords(members.map((m) => m.name));
  const set = (label: string, values: Readonly<Record<string, unknown>>): BuildEdit => ({
    label,
    changes: memberChanges(members, values),
  });
  const size = stock.sizes.find((s) => s.id === first.size);
  const strand = size ? sectionAcross(size.section) : 0;
  const depth = Math.min(0.5, wanted + bundleAcross(strand, first.strands) / 2);
  const bends = size?.section.shape === 'round' && strand <= 0.008 && !stock.brittle;
  const out: Proposal[] = !bends
    ? []
    : [
        {
          id: 'draw-in',
          edit: set(`Bend the ${place} inward`, { drawnIn: Math.ceil(depth * 2000) / 2000 }),
          note: `so that ${formatLength(wanted, units)} lies over it wherever there is room`,
        },
      ];
  const thinner = thatFits(
    stock,
    first,
    report.cover.filter((c) => ids.includes(c.member)),
    strand,
  );
  if (thinner) {
    const words = `${thinner.strands > 1 ? `${thinner.strands} strands of ` : ''}${thinner.size.label}`;
    out.push({
      id: 'slimmer',
      edit: set(`Thin the ${place} to ${words}`, { size: thinner.size.id, strands: thinner.strands }),
      note: thinner.covered ? 'the thickest that keeps its cover; carries less' : 'the next size down; carries less',
    });
  }
  return out;
}

/** A limb made thicker than this many times is another limb. */
const mostThicker = 2;
/** Where a mass blends into the next the face follows it by less: so much more is asked of it. */
const blended = 1.1;

/** Room over the wire by a thicker limb: each mass it lies too near the face in, across its length and both of a pair. */
function thickerLimb({ piece, report, units }: Judging, ids: readonly string[]): Proposal[] {
  const { build, form, armature } = piece;
  const short = report.cover
    .filter((c) => ids.includes(c.member))
    .flatMap((c) => c.shortIn)
    .flatMap(({ mass: index, least, wanted }) => {
      const mass = form.masses[index]!;
      const thinnest = thinnestOf(mass.shape);
      // Nobody lays on less than half a millimetre.
      return thinnest ? [{ mass, thinnest, lacks: Math.ceil((wanted - least) * 2000) / 2000 }] : [];
    });
  const most = Math.max(0, ...short.map((s) => s.lacks));
  // One of a pair follows the other: what is stretched twice over is stretched as the one that lacks most.
  const byTarget = new Map<string, { readonly mass: Mass; readonly stretch: Vec3; readonly factor: number }>();
  for (const { mass, thinnest, lacks } of short) {
    const target = massTarget(build, form, mass.id).id;
    const factor = Math.ceil(100 * (1 + (blended * lacks) / thinnest.radius)) / 100;
    if (factor > (byTarget.get(target)?.factor ?? 1))
      byTarget.set(target, { mass, factor, stretch: thinnest.across(factor) });
  }
  const grown = [...byTarget.values()];
  if (grown.length === 0 || grown.some((g) => g.factor > mostThicker)) return [];
  const wire = placesInWords(armature.members.filter((m) => ids.includes(m.id)).map((m) => m.name));
  const limb = placesInWords([...new Set(short.map((s) => s.mass.name))]);
  return [
    {
      id: 'thicker-limb',
      edit: {
        label: `Make the ${limb} ${formatLength(2 * most, units)} thicker`,
        changes: grown.flatMap(({ mass, stretch }) => stretchMass(build, form, mass, stretch).changes),
      },
      note: `so that there is room over the ${wire}; the form changes`,
    },
  ];
}

/** What a mass is through its thinnest, from its middle, and how it is stretched that way; null where it cannot be alone. */
function thinnestOf(shape: Mass['shape']): { readonly radius: number; readonly across: (by: number) => Vec3 } | null {
  const thinnest = (sides: readonly number[]) => {
    const axis = sides.indexOf(Math.min(...sides));
    return {
      radius: sides[axis]!,
      across: (by: number): Vec3 => [axis === 0 ? by : 1, axis === 1 ? by : 1, axis === 2 ? by : 1],
    };
  };
  switch (shape.kind) {
    case 'ellipsoid':
      return thinnest(shape.radii);
    case 'rounded-box':
      return thinnest(shape.half);
    case 'round-cone':
      return { radius: Math.min(shape.radiusFrom, shape.radiusTo), across: (by) => [by, by, 1] };
    case 'drum':
      return { radius: shape.radius, across: (by) => [by, by, 1] };
    case 'ring':
      return { radius: shape.thickness, across: (by) => [1, 1, by] };
    default:
      return null;
  }
}

/** The stoutest of its series, of no more strands, that keeps its cover where it has least now; or the next size down. */
function thatFits(
  stock: Stock,
  member: Member,
  cover: readonly MemberCover[],
  strand: number,
): { readonly size: StockSize; readonly strands: number; readonly covered: boolean } | null {
  const now = bundleAcross(strand, member.strands);
  const sizes = sizesLike(stock, member.size).filter((s) => sectionAcross(s.section) <= strand * 1.001);
  const fits = sizes
    .flatMap((size) => Array.from({ length: member.strands }, (_, n) => ({ size, strands: n + 1, covered: true })))
    .filter(({ size, strands }) => {
      const across = sectionAcross(size.section);
      const whole = bundleAcross(across, strands);
      // What the wire itself asked for falls with it; what the clay and the limb ask for stays.
      return (
        whole < now * 0.98 &&
        cover.every(
          (c) => c.least + (now - whole) / 2 >= (c.wanted > 2.001 * strand ? c.wanted : coverWanted(across, 0, 0)),
        )
      );
    });
  const bears = (f: { readonly size: StockSize; readonly strands: number }) =>
    f.strands * sectionGeometry(f.size.section).plasticModulus;
  const best = fits.reduce<(typeof fits)[number] | null>((w, f) => (w === null || bears(f) > bears(w) ? f : w), null);
  if (best) return best;
  const down = sizes
    .filter((s) => sectionAcross(s.section) < strand * 0.95)
    .sort((a, b) => sectionAcross(b.section) - sectionAcross(a.section))[0];
  if (down) return { size: down, strands: member.strands, covered: false };
  const same = sizes.find((s) => s.id === member.size);
  return same && member.strands > 1 ? { size: same, strands: member.strands - 1, covered: false } : null;
}

/** Bends what lies in the clay of some region inward, or thins it: what stops it from cracking along a wire. */
export function drawnIn(on: Judging, ids: readonly string[]): Proposal[] {
  const wanted = Math.max(0, ...on.report.cover.filter((c) => ids.includes(c.member)).map((c) => c.wanted));
  return wanted > 0 ? deeper(on, ids, wanted) : [];
}
