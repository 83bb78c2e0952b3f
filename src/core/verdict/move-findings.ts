import { pushEach } from '../load';
import { formatForce, formatLength, formatMass, sensible, type UnitSystem } from '../quantity';
import { finding, type BareFinding, type BareReport } from './finding';
import type { Piece } from './piece';
import { statusOf, type CarriedReport } from './report';

/** Judgements on carrying it, getting it there, hanging and wearing it. */
export function moveFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const { handling } = report;
  const carried = handling.parts.length > 0 ? handling.parts : [handling.whole];
  return [
    ...mountFindings(report, units),
    liftFinding(piece, carried, handling.parts.length > 0, units),
    doorFinding(piece, carried, units),
    ...vehicleFindings(piece, report, carried, units),
    ...rampFindings(piece, report, units),
  ];
}

const orNothing = (name: string) => (name === 'whole piece' ? 'It' : `The part "${name}"`);

function liftFinding(
  piece: Piece,
  carried: readonly CarriedReport[],
  inParts: boolean,
  units: UnitSystem,
): BareFinding {
  const worst = carried.reduce((w, c) => (c.lift.index > w.lift.index ? c : w));
  const { people, limit, index } = worst.lift;
  const rolls = piece.armature.base.standing === 'casters' && !inParts && piece.build.armature.mount.kind === 'stands';
  const who = rolls
    ? 'it is rolled on its casters, not lifted'
    : people === 1
      ? 'one person lifts it'
      : Number.isFinite(people)
        ? `${people} people lift it together`
        : 'it needs a hoist, a trolley or sections';
  return finding(
    'move',
    'lift',
    people === 1 ? 'sound' : rolls || Number.isFinite(people) ? 'watch' : 'fails',
    worst.name,
    `${orNothing(worst.name)} weighs ${formatMass(worst.mass, units)}: ${who}.`,
    `Held against the body and lifted from the floor to a table, one person should take ${limit > 0 ? formatMass(limit, units) : 'nothing this wide'}; this is ${Number.isFinite(index) ? sensible(index, 2) : 'far over'} of it.${inParts ? ` It is carried in ${carried.length} parts.` : ''}${inParts ? '' : ' It does not come apart: a limb that is bolted, sleeved or socketed on, under Joins, would.'}`,
    { measured: Number.isFinite(index) ? index : 99, limit: 1, unit: 'ratio' },
  );
}

function doorFinding(piece: Piece, carried: readonly CarriedReport[], units: UnitSystem): BareFinding {
  const { doorWidth, doorHeight } = piece.build.brief.travel;
  const stuck = carried.filter((c) => !c.door);
  const first = stuck[0];
  const size = (c: CarriedReport) =>
    `${formatLength(c.size.width, units)} across, ${formatLength(c.size.depth, units)} deep and ${formatLength(c.size.height, units)} high`;
  const shown =
    first ??
    carried.reduce((w, c) => (Math.max(c.size.width, c.size.height) > Math.max(w.size.width, w.size.height) ? c : w));
  return finding(
    'move',
    'door',
    stuck.length > 0 ? 'fails' : 'sound',
    shown.name,
    first
      ? `${orNothing(first.name)} does not go through the door.`
      : `${carried.length > 1 ? 'Every part' : 'It'} goes through the door.`,
    `${shown.name === 'whole piece' ? 'It' : `"${shown.name}"`} is ${size(shown)}${shown.name === 'whole piece' && carried.length === 1 ? ', on its board where it stands on one' : ''}; the door is ${formatLength(doorWidth, units)} by ${formatLength(doorHeight, units)}, and 30 mm is kept free.`,
    { measured: stuck.length, limit: 0, unit: 'count' },
  );
}

function vehicleFindings(
  piece: Piece,
  report: BareReport,
  carried: readonly CarriedReport[],
  units: UnitSystem,
): BareFinding[] {
  const { vehicleName } = report.handling;
  if (vehicleName === null) return [];
  const stuck = carried.filter((c) => c.vehicle === false);
  const out = [
    finding(
      'move',
      'vehicle',
      stuck.length > 0 ? 'fails' : 'sound',
      stuck[0]?.name ?? 'whole piece',
      stuck[0]
        ? `${orNothing(stuck[0].name)} does not fit the ${vehicleName} standing up.`
        : `${carried.length > 1 ? 'Every part fits' : 'It fits'} the ${vehicleName} standing up.`,
      'Each part is taken as a box, upright, turned either way, with 40 mm free all round. Several parts may want several trips.',
      { measured: stuck.length, limit: 0, unit: 'count' },
    ),
  ];
  if (piece.build.brief.situation === 'bench') {
    out.push(
      finding(
        'move',
        'not-for-the-road',
        'watch',
        'whole piece',
        'It is to be driven, but judged as though it stood on a bench.',
        `Braking, bends and bumps ask for more: say under Brief that it is carried and driven, and the armature is judged for ${formatMass(report.finished.mass, units)} on the road.`,
        { measured: 1, limit: 0, unit: 'count' },
      ),
    );
  }
  return out;
}

function rampFindings(piece: Piece, report: BareReport, units: UnitSystem): BareFinding[] {
  const { ramp } = piece.build.brief.travel;
  if (ramp <= 0) return [];
  const { rampPush } = report.handling;
  const rolls = piece.armature.base.standing === 'casters';
  const people = Math.ceil(rampPush / pushEach);
  const tips = report.stance.tipAngle - ramp < 5;
  return [
    finding(
      'move',
      'ramp',
      tips || !rolls || people > 3 ? 'fails' : people > 1 ? 'watch' : 'sound',
      'base',
      tips
        ? `On a ramp of ${sensible(ramp)}° it is within ${sensible(Math.max(0, report.stance.tipAngle - ramp), 2)}° of tipping.`
        : rolls
          ? `Up the ramp it takes ${people === 1 ? 'one person' : `${people} people`} to push it.`
          : 'It has no casters for the ramp: it is carried.',
      `It pushes back with ${formatForce(rampPush, units)} on ${sensible(ramp)}°; count ${formatForce(pushEach, units)} for each pair of hands, and someone below it never.`,
      { measured: rampPush, limit: pushEach, unit: 'ratio' },
    ),
  ];
}

/** A twentieth of a newton metre is less than a hand's own weight does. */
export function leverWords(leverage: number, towards: string): string {
  return leverage < 0.05
    ? 'Its weight lies over the middle of what it sits on.'
    : `Its centre of gravity pulls to the ${towards} with ${sensible(leverage, 2)} Nm.`;
}

function mountFindings(report: BareReport, units: UnitSystem): BareFinding[] {
  const { mount } = report;
  if (mount.kind === 'stands') return [];
  if (mount.kind === 'hangs') {
    const most = Math.max(...mount.pulls);
    return [
      finding(
        'move',
        'hanging',
        mount.slack ? 'fails' : mount.tilt > 5 ? 'watch' : 'sound',
        'hanging points',
        mount.slack
          ? 'One of its lines would go slack: it turns over.'
          : mount.tilt > 0.5
            ? `It hangs turned by ${sensible(mount.tilt, 2)}° from how it was made.`
            : 'It hangs as it was made.',
        `The hardest-pulled point takes ${formatForce(most, units)} at rest. For anything above people a rigger or engineer decides; count ten times that on the line, and a second line.`,
        {
          measured: mount.tilt,
          limit: 5,
          unit: 'degrees',
          cause: 'its centre of gravity out of line with what holds it',
        },
      ),
    ];
  }
  if (mount.kind === 'wall') {
    const share = (3 * Math.hypot(mount.tension, mount.shear)) / mount.pull;
    return [
      finding(
        'move',
        'wall',
        statusOf(share),
        'wall plate',
        share > 1 ? 'The wall plate’s screws are too weak.' : 'The wall plate holds.',
        `It stands ${formatLength(mount.standsOut, units)} out; each upper screw is pulled with ${formatForce(mount.tension, units)} and each carries ${formatForce(mount.shear, units)}; three times that against ${formatForce(mount.pull, units)}.`,
        { measured: share, limit: 1, unit: 'ratio', cause: 'its weight standing out from the wall' },
      ),
    ];
  }
  const status = mount.mass >= mount.failsFrom ? 'fails' : mount.mass >= mount.watchFrom ? 'watch' : 'sound';
  const out = [
    finding(
      'move',
      'worn',
      status,
      'wearer',
      status === 'sound'
        ? `${formatMass(mount.mass, units)} is light enough to wear for ${sensible(mount.hours, 2)} h.`
        : status === 'watch'
          ? `${formatMass(mount.mass, units)} is felt after a while: rest in the ${sensible(mount.hours, 2)} h.`
          : `${formatMass(mount.mass, units)} is too much to wear for long.`,
      `For long wear there it is watched from ${formatMass(mount.watchFrom, units)} and stops at ${formatMass(mount.failsFrom, units)}. ${leverWords(mount.leverage, mount.towards)}`,
      { measured: mount.mass, limit: mount.failsFrom, unit: 'kg', cause: 'its weight on the body' },
    ),
  ];
  if (mount.straps.length === 0) {
    out.push(
      finding(
        'move',
        'straps',
        'watch',
        'straps',
        'Nothing holds it on the body yet.',
        'Set two straps or stitch points at least, one each side of its centre of gravity.',
        { measured: 0, limit: 2, unit: 'count', smallerIsWorse: true },
      ),
    );
    return out;
  }
  const worst = mount.straps.reduce((w, s) => (s.share > w.share ? s : w));
  const lifts = mount.straps.some((s) => s.share < -0.01);
  out.push(
    finding(
      'move',
      'straps',
      lifts ? 'fails' : mount.straps.length < 2 || worst.share > 0.7 ? 'watch' : 'sound',
      'straps',
      lifts
        ? 'Its weight lies outside its straps: it turns over on the body.'
        : `The ${worst.name} carries most of it: ${sensible(worst.share * 100, 2)} %.`,
      `${mount.straps.map((s) => `${s.name} ${formatForce(s.pull, units)}`).join(', ')} at rest; a jump asks for twice that. Pad what presses, and let it come off by itself when it is caught.`,
      { measured: worst.share, limit: 0.7, unit: 'share' },
    ),
  );
  return out;
}
