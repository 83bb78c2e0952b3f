import { formatMass } from '../quantity';
import { statusOf, type Piece } from '../piece';
import { otherClays, parameter, resizeEdit, thinnerEverywhere } from './edits';
import { finding, type Proposal, type Rule } from './finding';

/** Finished, it weighs no more than the brief allows. */
export const weight: Rule = {
  id: 'weight',
  judge: ({ piece, report, units }) => {
    const limit = piece.build.brief.limits.weight;
    if (limit === null) return [];
    // What leaves the piece, and the board it leaves behind, are not its weight.
    const { mass } = report.finished;
    const gone = report.summary.dry - mass;
    const share = mass / limit;
    return [
      finding(
        'brief',
        'weight',
        statusOf(share, 0.9),
        'whole piece',
        share > 1
          ? `Finished, it weighs ${formatMass(mass, units)}: over the ${formatMass(limit, units)} you allow.`
          : `Finished, it weighs ${formatMass(mass, units)}, within the ${formatMass(limit, units)} you allow.`,
        `Clay is ${formatMass(report.ledger.clayDry, units)} of it when dry; what is inside it and under it is the rest.`,
        {
          measured: mass,
          limit,
          unit: 'kg',
          range: { low: report.weightRange.low - gone, nominal: mass, high: report.weightRange.high - gone },
        },
      ),
    ];
  },
  propose: ({ piece }) => lighter(piece),
};

function lighter(piece: Piece): Proposal[] {
  const out: Proposal[] = [];
  if (piece.face.solid)
    out.push({
      id: 'bulk',
      edit: parameter('Fill it with loose paper', { bulk: 'paper-loose' }),
      note: 'the inside stops being clay',
    });
  else out.push(thinnerEverywhere(piece));
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
  out.push(...otherClays(piece, ['paper-clay', 'foam-air-dry']));
  return out;
}
