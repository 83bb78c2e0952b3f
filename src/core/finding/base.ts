import { formatForce, formatLength, sensible, type UnitSystem } from '../quantity';
import { hasFlange } from '../armature';
import { statusOf, type Piece } from '../piece';
import { parameter } from './edits';
import { finding, type Proposal, type Rule } from './finding';

/** What it is screwed to holds: the screws of its flange or its feet in the board, and the board under them. */
export const base: Rule = {
  id: 'base',
  judge: ({ piece, report, units }) => {
    const { base: check } = report;
    const u = Math.max(check.screwUtilisation, check.boardUtilisation);
    const screws = check.screwUtilisation >= check.boardUtilisation;
    const own = piece.armature.base.standing === 'own';
    const foot = hasFlange(piece.armature.base) ? 'flange' : 'foot';
    return [
      finding(
        'load',
        'base',
        statusOf(u),
        'base',
        own
          ? 'It stands on its own feet: nothing is screwed down.'
          : u > 1
            ? screws
              ? `The screws of its ${foot} pull out of the board.`
              : `The board is too thin under its ${foot}.`
            : screws
              ? `The screws of its ${foot} hold.`
              : `The board holds its ${foot}.`,
        own
          ? 'Without a board only its own footprint keeps it from tipping.'
          : screws
            ? `The hardest-pulled screw takes ${formatForce(check.screwPull, units)}; a fifth of what this board would hold it with is ${formatForce(check.screwAllowed, units)}.`
            : `A strip of board round the ${foot} bends with ${sensible(u, 2)} of what it may.`,
        {
          measured: u,
          limit: 1,
          unit: 'ratio',
          stage: report.baseStage,
          cause: 'the pull of the upright on its foot',
        },
      ),
    ];
  },
  propose: ({ piece, units }) => firmerBase(piece, units),
};

function firmerBase(piece: Piece, units: UnitSystem): Proposal[] {
  const { base: board } = piece.armature;
  const next = piece
    .stockOf(board.stock)
    ?.sizes.find((s) => 'height' in s.section && s.section.height > board.thickness * 1.05);
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
    edit: parameter('Screws one size up', { screwDiameter: Math.min(0.012, board.screws.diameter + 0.001) }),
    note: formatLength(board.screws.diameter + 0.001, units),
  });
  return out;
}
