import { counterweightAt, groundUnder } from '../load';
import { formatForce, formatLength, formatMass, sensible, type UnitSystem, type Vec3 } from '../quantity';
import type { Piece, PieceReport, Status } from '../piece';
import { parameter } from './edits';
import { finding, type Proposal, type Rule } from './finding';

/** It stands: leaned as far as was asked, it does not tip over the edge of what it stands on. */
export const tip: Rule = {
  id: 'tip',
  judge: ({ piece, report, units }) => {
    const { stance } = report;
    const target = piece.build.brief.limits.tipAngle;
    const status: Status = stance.tipAngle < target * (2 / 3) ? 'fails' : stance.tipAngle < target ? 'watch' : 'sound';
    const at = report.stances.find((x) => x.tipAngle === stance.tipAngle);
    const { base } = piece.armature;
    return [
      finding(
        'load',
        'tip',
        status,
        'base',
        stance.tipAngle < 0
          ? `It falls to the ${stance.towards} by itself.`
          : `It tips to the ${stance.towards} when leaned ${sensible(stance.tipAngle, 2)}°${status === 'sound' ? ', well clear of a knock' : `; you asked for ${sensible(target)}°`}.`,
        `The centre of gravity is ${formatLength(stance.centre[2] - groundUnder(base), units)} above the table and ${formatLength(stance.edgeDistance, units)} inside the ${stance.towards} edge of ${base.standing === 'own' ? 'what it stands on' : 'the base'}; a level push of ${formatForce(stance.push, units)} at the crown takes it over.`,
        {
          measured: stance.tipAngle,
          limit: target,
          unit: 'degrees',
          smallerIsWorse: true,
          ...(at ? { stage: at.name, cause: `what hangs over its ${stance.towards}` } : {}),
        },
      ),
    ];
  },
  propose: ({ piece, report, units }) => steadier(piece, report, units),
};

/** A board several times as wide is another piece of furniture. */
const mostWider = 3;

function steadier(piece: Piece, report: PieceReport, units: UnitSystem): Proposal[] {
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
  // As far out as the edge has to lie under it, on every side alike.
  const half = (stance.towards === 'front' || stance.towards === 'back' ? base.depth : base.width) / 2;
  const wanted = Math.tan((target * Math.PI) / 180) * (stance.centre[2] - groundUnder(base));
  const factor = Math.max(1.05, 1 + (wanted - stance.edgeDistance) / half);
  const wider = (x: number) => Math.ceil(x * factor * 100) / 100;
  const out: Proposal[] = [];
  if (factor <= mostWider)
    out.push({
      id: 'wider-base',
      edit: parameter('A wider base board', { boardWidth: wider(base.width), boardDepth: wider(base.depth) }),
      note: `${formatLength(wider(base.width), units)} by ${formatLength(wider(base.depth), units)}`,
    });
  if (Number.isFinite(ballast) && ballast > base.ballast && ballast < 500)
    out.push({
      id: 'ballast',
      edit: parameter(
        `Fix ${formatMass(ballast, units)} ${behind > 0 ? 'at the back of' : behind < 0 ? 'at the front of' : 'under'} the board`,
        { ballast, ballastBack: behind },
      ),
      note: 'steel plate or bags of sand',
    });
  return out;
}
