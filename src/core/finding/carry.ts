import { compareStatus, type CarriedReport, type Status } from '../piece';
import { formatMass, sensible } from '../quantity';
import { carriedParts, isRolled, itOrPart } from './carried';
import { parameter } from './edits';
import { finding, type Proposal, type Rule } from './finding';

/** Lifted by hand: by one person, by two or three, or not (NIOSH 1994, revised lifting equation; HSE 2016, L23). */
export const carry: Rule = {
  id: 'carry',
  judge: ({ piece, report, units }) => {
    const { carried, inParts } = carriedParts(report);

    const { hoist } = piece.build.brief.travel;
    const rolled = (c: CarriedReport) => isRolled(report.handling, c);
    const statusOf = (c: CarriedReport): Status =>
      c.lift.people === 1 ? 'sound' : rolled(c) || hoist || Number.isFinite(c.lift.people) ? 'watch' : 'fails';
    const worst = carried.reduce((w, c) => {
      const order = compareStatus(statusOf(c), statusOf(w));
      return order > 0 || (order === 0 && c.lift.index > w.lift.index) ? c : w;
    });
    const { people, limit, index } = worst.lift;
    const rolls = rolled(worst);
    const who = rolls
      ? 'it is rolled on its casters, not lifted'
      : people === 1
        ? 'one person lifts it'
        : Number.isFinite(people)
          ? `${people} people lift it together`
          : hoist
            ? 'the hoist lifts it, no hands do'
            : 'it needs a hoist, a trolley or sections';
    return [
      finding(
        'move',
        'carry',
        statusOf(worst),
        worst.name,
        `${itOrPart(worst.name)} weighs ${formatMass(worst.mass, units)}: ${who}.`,
        `Held against the body and lifted from the floor to a table, one person should take ${limit > 0 ? formatMass(limit, units) : 'nothing this wide'}; this is ${Number.isFinite(index) ? sensible(index, 2) : 'far over'} of it.${people === 1 ? '' : ' Two together bear two thirds of what both would alone, three half.'}${inParts ? ` It is carried in ${carried.length} parts.` : ''}${inParts ? '' : ' It does not come apart: a limb that is bolted, sleeved or socketed on, under Joins, would.'}`,
        { measured: Number.isFinite(index) ? index : 99, limit: 1, unit: 'ratio' },
      ),
    ];
  },
  propose: ({ piece, report }) => {
    const { base } = piece.armature;
    const { carried, inParts } = carriedParts(report);
    if (carried.every((c) => Number.isFinite(c.lift.people))) return [];
    const out: Proposal[] = [];
    if (base.standing !== 'casters' && base.standing !== 'own' && !inParts)
      out.push({
        id: 'casters',
        edit: parameter('Stand it on casters', { standing: 'casters' }),
        note: 'locked or chocked wherever it stands',
      });
    out.push({
      id: 'hoist',
      edit: {
        label: 'Have a hoist at both ends',
        changes: [{ path: ['brief', 'travel', 'hoist'], value: true }],
      },
      note: 'rated for it, slung by the armature; nobody under it',
    });
    return out;
  },
};
