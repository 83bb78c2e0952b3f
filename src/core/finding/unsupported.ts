import { whenHardWords } from '../catalogue';
import { distance, formatLength, formatMass, sensible, subtract, type Vec3 } from '../quantity';
import type { Piece, Status, Unsupported } from '../piece';
import { branchOff, jointName, twinKey } from '../school';
import { finding, type Part, type Proposal, type Rule } from './finding';
import { wireAlong } from './wire-along';

/** Clay and core that nothing holds, or that reach further beyond a wire, a pipe or a post than they bear. */
const fails = 1;
const watch = 2 / 3;

const statusOf = (utilisation: number): Status =>
  utilisation > fails ? 'fails' : utilisation > watch ? 'watch' : 'sound';

export const unsupported: Rule = {
  id: 'unsupported',
  judge: ({ piece, units }) => {
    const lots = piece.unsupported();
    const most = lots[0]?.utilisation ?? 0;
    if (statusOf(most) === 'sound')
      return [
        finding(
          'load',
          'unsupported',
          'sound',
          'whole piece',
          'All of it is held by a wire, a pipe, a post or the board.',
          'What lies beyond the nearest of them bears its own weight on the clay and core it hangs on, while it is wet.',
          { measured: most, limit: 1, unit: 'ratio' },
        ),
      ];
    const places = new Map<string, number>();
    return lots
      .filter((u) => statusOf(u.utilisation) !== 'sound')
      .map((u) => {
        const place = piece.form.masses[u.mass]?.name ?? 'form';
        const slug = slugOf(piece, u);
        const n = (places.get(slug) ?? 0) + 1;
        places.set(slug, n);
        const id = `unsupported/${slug}${n > 1 ? `-${n}` : ''}`;
        const status = statusOf(u.utilisation);
        const measured = Math.min(99, u.utilisation);
        const parts: Part[] = [{ id, name: place, status, measured }];
        const weight = formatMass(u.weight, units);
        const joined = Number.isFinite(u.away);
        return finding(
          'load',
          id,
          status,
          place,
          !joined
            ? `${weight} at the ${place} hang on nothing.`
            : status === 'fails'
              ? `${weight} at the ${place} reach too far beyond what holds them.`
              : `${weight} at the ${place} reach nearly too far beyond what holds them.`,
          !joined
            ? 'No wire, pipe or post that leads to the base comes into it, and it lies on nothing. Run one into it, or join it to what is held.'
            : `They reach ${formatLength(u.away, units)} through the piece from the nearest wire, pipe, post or board. What they hang on there is asked for ${sensible(u.utilisation, 2)} of what clay and core of that size bear while they are wet.`,
          { measured, limit: 1, unit: 'ratio', parts },
        );
      });
  },
  propose: ({ piece }, found) => {
    const lot = piece
      .unsupported()
      .find((u) => slugOf(piece, u) === found.id.slice('unsupported/'.length).replace(/-\d+$/, ''));
    const from = lot && nearest(piece, lot.at);
    if (!lot || !from) return [];
    // A wire twice as strong for each eight times the weight, roughly: what it carries then is judged by itself.
    const along = alongRemedies(piece, lot);
    const size = lot.weight > 3 ? '6mm' : lot.weight > 0.4 ? '4.8mm' : lot.weight > 0.05 ? '3mm' : '2mm';
    return [
      ...along,
      {
        id: 'wire-into',
        edit: branchOff(
          piece.build,
          piece.armature,
          from.id,
          subtract(lot.at, from.at),
          { stock: 'aluminium-annealed', size, strands: 1, bonded: false },
          [piece.form.masses[lot.mass]!.id],
        ),
        note: `an annealed aluminium wire from the ${jointName(from.id)}`,
      },
    ];
  },
};

/** Wires along it and along its twin on the other side, the stouter first: which has its cover is found by trying. */
function alongRemedies(piece: Piece, lot: Unsupported): Proposal[] {
  const { masses } = piece.form;
  const hard = whenHardWords(piece.clay.setting);
  const name = masses[lot.mass]!.name.replace(/, (left|right)$/, '');
  const twins = piece.unsupported().filter((u) => twinKey(masses[u.mass]!.id) === twinKey(masses[lot.mass]!.id));
  const places = [lot, ...twins.filter((u) => u !== lot)].map((u) => ({ at: u.at, mass: masses[u.mass]!.id }));
  const ways = [
    { size: '3mm', propped: false },
    { size: '2mm', propped: false },
    { size: '1.5mm', propped: false },
    { size: '2mm', propped: true },
  ];
  return ways.flatMap(({ size, propped }): Proposal[] => {
    const label = `Run a ${size.replace('mm', ' mm')} wire along the ${name}${propped ? ', its end on a prop' : ''}`;
    const edit = wireAlong(piece, places, size, label, propped);
    const note = `galvanised steel, bound and glued where it begins${propped ? `; propped ${hard === null ? 'for good' : `until ${hard}`}` : ''}`;
    return edit ? [{ id: `wire-along-${size.replace('.', '-')}${propped ? '-propped' : ''}`, edit, note }] : [];
  });
}

function slugOf(piece: Piece, u: Unsupported): string {
  return (piece.form.masses[u.mass]?.id ?? 'form').replaceAll('/', '-');
}

function nearest(piece: Piece, at: Vec3) {
  return piece.armature.nodes.reduce<(typeof piece.armature.nodes)[number] | undefined>(
    (best, n) => (best === undefined || distance(n.at, at) < distance(best.at, at) ? n : best),
    undefined,
  );
}
