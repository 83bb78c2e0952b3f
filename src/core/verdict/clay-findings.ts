import { formatDuration, formatLength, formatMass, formatTemperature, sensible, type UnitSystem } from '../quantity';
import { finding, type BareFinding, type BareReport } from './finding';
import type { Piece } from './piece';
import { statusOf, type StayingPut, type Status } from './report';

/** The clay itself: does it stay, is it laid as it is usually laid, do its neighbours and the oven suit it. */
export function clayFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const out = [
    ...conflictFindings(report),
    ...stayingFindings(piece, report, units),
    ...coatFindings(piece, report, units),
    ...heatFindings(report, units),
  ];
  if (out.length > 0) return out;
  return [
    finding(
      'clay',
      'quantity',
      'sound',
      'whole piece',
      `${formatMass(report.clay.onPiece, units)} of clay goes on.`,
      'Volume of the clay at the density it is laid with.',
      { measured: 0, limit: 1, unit: 'ratio' },
    ),
  ];
}

const capitalised = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function conflictFindings(report: BareReport): BareFinding[] {
  return report.conflicts.map((c) =>
    finding(
      'clay',
      `getting-on/${c.id}`,
      c.status,
      c.regions.length > 0 ? c.regions.map((r) => r.replaceAll('-', ' ')).join(', ') : 'whole piece',
      `${capitalised(c.left)} and ${c.right} do not get on: ${c.why}.`,
      `Instead: ${c.instead}.`,
      { measured: 1, limit: 0, unit: 'count' },
    ),
  );
}

function worstStaying(all: readonly StayingPut[]): StayingPut | null {
  const over = (s: StayingPut) => (s.hangs > 0 ? s.coat / s.hangs : Infinity);
  return all.reduce<StayingPut | null>((w, s) => (s.coat > 0 && (w === null || over(s) > over(w)) ? s : w), null);
}

function stayingFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const out: BareFinding[] = [];
  const warm = piece.clay.id.startsWith('oil-') ? ` at ${formatTemperature(piece.build.room.temperature, units)}` : '';
  const worst = piece.face.solid ? null : worstStaying(report.staying);
  if (worst) {
    const share = worst.coat / worst.hangs;
    const grip = piece.faces[piece.regions.indexOf(worst.region)]?.grip ?? piece.face.grip;
    out.push(
      finding(
        'clay',
        'staying-put',
        statusOf(share, 0.8),
        worst.name,
        share > 1
          ? `On the ${worst.name} the clay slides: ${formatLength(worst.coat, units)} is more than its face holds.`
          : 'The clay stays where it is put.',
        `${capitalised(piece.clay.name)}${warm} on a face of grip ${sensible(grip, 2)} hangs up to ${formatLength(worst.hangs, units)} thick upright.${worst.slidesFrom === null ? '' : ` It slides wherever the face is steeper than ${sensible(worst.slidesFrom, 2)}°: ${sensible(worst.steep * 100, 2)} % of it. Wrap it in twine or cloth, or lay wire mesh.`}`,
        { measured: share, limit: 1, unit: 'ratio' },
      ),
    );
  }
  const squat = report.staying
    .filter((s) => s.squat && s.squat.height > 0)
    .sort(
      (a, b) =>
        (b.squat as { height: number; stands: number }).height / (b.squat as { stands: number }).stands -
        (a.squat as { height: number; stands: number }).height / (a.squat as { stands: number }).stands,
    )[0];
  if (squat?.squat) {
    const share = squat.squat.height / squat.squat.stands;
    out.push(
      finding(
        'clay',
        'squat',
        statusOf(share, 0.8),
        squat.name,
        share > 1
          ? `Fresh, the ${squat.name} squats under its own weight.`
          : `Fresh, the ${squat.name} stands by itself.`,
        `It is ${formatLength(squat.squat.height, units)} high; ${piece.clay.name}${warm} stands ${formatLength(squat.squat.stands, units)} before its foot flows. The armature takes up some of it; build from the base upward and let each part stiffen.`,
        { measured: share, limit: 1, unit: 'ratio' },
      ),
    );
  }
  return out;
}

function coatFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const out: BareFinding[] = [];
  const most = piece.clay.usualThickness[1];
  const thickest = report.staying.reduce<StayingPut | null>((m, s) => (m === null || s.coat > m.coat ? s : m), null);
  if (!piece.face.solid && thickest && thickest.coat > most) {
    out.push(
      finding(
        'clay',
        'thick-coat',
        'watch',
        thickest.name,
        `${formatLength(thickest.coat, units)} in one coat is thicker than ${piece.clay.name} is usually laid.`,
        `Makers stay under ${formatLength(most, units)} a coat.`,
        { measured: thickest.coat, limit: most, unit: 'metres' },
      ),
    );
  }
  for (const seam of piece.build.regions.seams) {
    const strength = seamStrength[seam.made];
    const crack =
      seam.regions.reduce((m, id) => Math.max(m, report.regions.find((r) => r.id === id)?.crack ?? 0), 0) / strength;
    if (crack === 0) continue;
    out.push(
      finding(
        'clay',
        `seam/${seam.name}`,
        statusOf(crack, 0.6),
        seam.name,
        `Along the seam "${seam.name}" cracks are ${crack > 1 ? 'likely' : crack >= 0.6 ? 'possible' : 'unlikely'}.`,
        `Made ${seamWords[seam.made]}, it takes ${sensible(strength * 100)} % of what whole clay does; beside it the crack index is ${sensible(crack * strength, 2)}.`,
        { measured: crack, limit: 1, unit: 'ratio' },
      ),
    );
  }
  return out;
}

/** What a joint of two pieces of clay takes, of what whole clay takes: grips of the bond against that of scored and slipped clay, and nothing is as good as none. Ours. */
export const seamStrength = { 'scored-slipped': 0.9, slipped: 0.75, scored: 0.6, pressed: 0.4 } as const;
const seamWords = {
  'scored-slipped': 'scored and slipped',
  slipped: 'with slip alone',
  scored: 'scored, without slip',
  pressed: 'by pressing alone',
} as const;

function heatFindings(report: BareReport, units: UnitSystem): BareFinding[] {
  const out: BareFinding[] = [];
  const { warming, baking } = report.heat;
  if (warming) {
    out.push(
      finding(
        'clay',
        'warming',
        warming.burns ? 'watch' : 'sound',
        'whole piece',
        `To warm the clay takes ${formatDuration(warming.time)}, in ${warming.lumps} ${warming.lumps === 1 ? 'lump' : 'lumps'}.`,
        warming.governs === 'lump'
          ? `Heat takes that long to reach the middle of a lump; a stronger heater does not help, thinner lumps do.`
          : `The heater takes that long; lumps up to ${formatLength(warming.usefulLump, units)} are warm through by then.`,
        { measured: warming.time / 86400, limit: 1, unit: 'days' },
      ),
    );
  }
  if (baking) {
    const status: Status =
      baking.cannot.length > 0 ? 'fails' : baking.thickestCoat > baking.holdsInOven ? 'watch' : 'sound';
    const worst = baking.cannot[0];
    out.push(
      finding(
        'clay',
        'baking',
        status,
        'whole piece',
        worst
          ? `It cannot be baked with ${worst.name} inside.`
          : status === 'watch'
            ? 'In the oven it sags before it sets.'
            : `Baked ${baking.bakes.length === 1 ? 'once' : `${baking.bakes.length} times`}, ${baking.minutes} minutes in all.`,
        worst
          ? `${capitalised(worst.name)} stands ${formatTemperature(worst.standsTo, units)}, the oven is ${formatTemperature(baking.temperature, units)}.`
          : `${formatTemperature(baking.temperature, units)}, a quarter of an hour for each quarter inch of the thickest section. Soft in the oven, an upright face holds ${formatLength(baking.holdsInOven, units)}; lay it on its back on wadding, or prop it.`,
        { measured: baking.cannot.length, limit: 0, unit: 'count' },
      ),
    );
  }
  return out;
}
