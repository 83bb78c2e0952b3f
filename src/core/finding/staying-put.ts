import { formatLength, formatTemperature, sensible } from '../quantity';
import { regionName, statusOf, type StayingPut } from '../piece';
import { parameter, setCoats } from './edits';
import { finding, type Judging, type Proposal, type Rule } from './finding';
import { capitalised } from './words';

/** Fresh clay stays on the face it is laid on, upright and under it, and does not slide. */
const over = (s: StayingPut) => (s.hangs > 0 ? s.coat / s.hangs : Infinity);

function worstOf(all: readonly StayingPut[]): StayingPut | null {
  return all.reduce<StayingPut | null>((w, s) => (s.coat > 0 && (w === null || over(s) > over(w)) ? s : w), null);
}

/** How warm it is, where that is what makes it soft. */
export function warmth({ piece, units }: Judging): string {
  return piece.clay.softens !== null ? ` at ${formatTemperature(piece.build.room.temperature, units)}` : '';
}

export const stayingPut: Rule = {
  id: 'staying-put',
  judge: (on) => {
    const { piece, report, units } = on;
    const worst = piece.face.solid ? null : worstOf(report.staying);
    if (!worst) return [];
    const share = over(worst);
    const name = regionName(worst.region);
    const grip = piece.faces[piece.regions.indexOf(worst.region)]?.grip ?? piece.face.grip;
    return [
      finding(
        'clay',
        'staying-put',
        statusOf(share, 0.8),
        name,
        share > 1
          ? `On the ${name} the clay slides: ${formatLength(worst.coat, units)} is more than its face holds.`
          : 'The clay stays where it is put.',
        `${capitalised(piece.clay.name)}${warmth(on)} on a face of grip ${sensible(grip, 2)} hangs up to ${formatLength(worst.hangs, units)} thick upright${piece.clay.setting === 'never' ? ' from one day to the next' : ''}.${worst.slidesFrom === null ? '' : ` It slides wherever the face is steeper than ${sensible(worst.slidesFrom, 2)}°: ${sensible(worst.steep * 100, 2)} % of it. Wrap it in twine or cloth, or lay wire mesh.`}`,
        { measured: share, limit: 1, unit: 'ratio' },
      ),
    ];
  },
  propose: ({ piece }) => [
    ...(piece.wrap.id === 'twine'
      ? []
      : [
          {
            id: 'twine',
            edit: parameter('Wind twine over the core', { wrap: 'twine' }),
            note: 'clay keys into it',
          },
        ]),
    ...oneMoreCoat(piece),
  ],
};

/** The same clay in one more coat, each thinner. */
export function oneMoreCoat(piece: Judging['piece']): Proposal[] {
  if (piece.coats.every((c) => c.length >= 4)) return [];
  return [
    {
      id: 'one-more-coat',
      edit: setCoats(piece.build, 'One more, thinner coat', piece.regions, (_, coats) => {
        const total = coats.reduce((sum, t) => sum + t, 0);
        return coats.length < 4 ? Array.from({ length: coats.length + 1 }, () => total / (coats.length + 1)) : coats;
      }),
      note: 'each dry before the next',
    },
  ];
}
