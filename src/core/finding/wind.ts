import {
  formatArea,
  formatForce,
  formatLength,
  formatMass,
  formatSpeed,
  gravity,
  sensible,
  type UnitSystem,
} from '../quantity';
import { windFactor } from '../load';
import { statusOf, type Piece, type PieceReport } from '../piece';
import { parameter } from './edits';
import { finding, type Proposal, type Rule } from './finding';

/** Outdoors it stands in the gust it was given: it neither tips nor slides, or is guyed or bolted down; hung, it swings. */
export const wind: Rule = {
  id: 'wind',
  judge: ({ piece, report, units }) => {
    const { outdoors } = piece.build.brief;
    const { wind: w } = report;
    if (!w || !outdoors) return [];
    const { worst, stands, hangs } = w;
    const gust = formatSpeed(w.gust, units);
    const presses = `A gust of ${gust} presses with ${formatForce(worst.force, units)} on its ${formatArea(worst.area, units)} seen from ${worst.from}, ${formatLength(w.height, units)} over the ground.`;
    const decides = 'It is a sketch: local rules and an engineer decide.';
    if (hangs)
      return [
        finding(
          'load',
          'wind',
          'watch',
          'hanging points',
          `In a gust of ${gust} it swings ${sensible(hangs.swing, 2)}° and pulls ${formatForce(hangs.pull, units)} on its lines.`,
          `${presses} Tie it back from below, keep it clear of what it could strike, and take it down before a storm. ${decides}`,
          { measured: hangs.swing, limit: 0, unit: 'degrees', cause: 'the wind' },
        ),
      ];
    if (!stands)
      return [
        finding(
          'load',
          'wind',
          'watch',
          'whole piece',
          `In a gust of ${gust} the wind pulls at it with ${formatForce(worst.force, units)}.`,
          `${presses} What it is fixed to has to hold half as much again beside its weight. ${decides}`,
          { measured: worst.force / (report.stance.mass * gravity), limit: 0, unit: 'ratio', cause: 'the wind' },
        ),
      ];
    const tips = stands.tips >= stands.slides;
    const asked = Math.max(stands.tips, stands.slides);
    if (outdoors.held !== 'weight')
      return [
        finding(
          'load',
          'wind',
          'sound',
          'base',
          outdoors.held === 'guyed'
            ? `Guyed, it stands in a gust of ${gust}: each guy and its peg must hold ${formatForce(stands.guyPull, units)}.`
            : stands.anchorPull > 0
              ? `Bolted down, it stands in a gust of ${gust}: the bolts of one side hold down ${formatForce(stands.anchorPull, units)} together.`
              : `Bolted down, it stands in a gust of ${gust}; its own weight is enough.`,
          `${presses} ${outdoors.held === 'guyed' ? 'Four guys from the top at 45°, since one alone takes the wind;' : 'Into paving or a weight of its own, not into soft ground;'} the figure has half as much again in it. ${decides}`,
          { measured: 0, limit: 1, unit: 'ratio', cause: 'the wind' },
        ),
      ];
    return [
      finding(
        'load',
        'wind',
        statusOf(asked),
        'base',
        asked <= 1
          ? `It stands in a gust of ${gust} by its own weight.`
          : `A gust of ${gust} ${tips ? `from ${stands.tipsFrom} ` : ''}${asked > windFactor ? '' : 'nearly '}${tips ? 'tips it over' : 'pushes it along the ground'}.`,
        `${presses} With half as much again in hand it asks ${sensible(stands.tips, 2)} of what its weight holds against tipping and ${sensible(stands.slides, 2)} against sliding. ${decides}`,
        { measured: asked, limit: 1, unit: 'ratio', cause: tips ? `wind from ${stands.tipsFrom}` : 'the wind' },
      ),
    ];
  },
  propose: ({ piece, report, units }) => (report.wind?.stands ? steadier(piece, report, units) : []),
};

const mostBallast = 500;
const mostWider = 2.5;

function steadier(piece: Piece, report: PieceReport, units: UnitSystem): Proposal[] {
  const stands = report.wind!.stands!;
  const { outdoors } = piece.build.brief;
  const { base } = piece.armature;
  const held = (how: 'guyed' | 'bolted', label: string, note: string): Proposal => ({
    id: how,
    edit: { label, changes: [{ path: ['brief', 'outdoors'], value: { ...outdoors!, held: how } }] },
    note,
  });
  const kg = Math.ceil((base.ballast + stands.ballast) * 1.02 * 10) / 10;
  const out: Proposal[] = [
    held('guyed', 'Guy it from the top', `four guys, each and its peg good for ${formatForce(stands.guyPull, units)}`),
    held('bolted', 'Bolt its base down', 'to paving, or to a weight in the ground'),
  ];
  if (base.standing === 'own') return out;
  const wider = (v: number) => Math.ceil(v * Math.min(mostWider, 1.05 * stands.tips) * 50) / 50;
  if (stands.tips > 1 && stands.tips * 1.05 <= mostWider)
    out.push({
      id: 'wider-base',
      edit: parameter('A wider base board', { boardWidth: wider(base.width), boardDepth: wider(base.depth) }),
      note: `${formatLength(wider(base.width), units)} by ${formatLength(wider(base.depth), units)}`,
    });
  if (Number.isFinite(kg) && kg > base.ballast && kg < mostBallast)
    out.push({
      id: 'ballast',
      edit: parameter(`Fix ${formatMass(kg, units)} on the board`, { ballast: kg, ballastBack: 0 }),
      note: 'bags of sand or steel plate, strapped down',
    });
  if (base.standing === 'casters')
    out.push({
      id: 'off-casters',
      edit: parameter('Take it off its casters', { standing: 'flat' }),
      note: 'it stands on its board while it is out',
    });
  return out;
}
