import { formatDate, formatLength, formatTemperature, sensible, type UnitSystem } from '../quantity';
import type { Piece } from '../piece';
import { otherClays, parameter, thinnerEverywhere } from './edits';
import { finding, type Proposal, type Rule } from './finding';

/** Dry through at last: when, where last of all, and whether ever. */
const day = 86400;
const longDrying = 30;

export const throughDry: Rule = {
  id: 'through-dry',
  judge: ({ piece, report, dates, units }) => {
    if (piece.clay.setting !== 'dries') return [];
    const clad = report.regions.filter((r) => r.coats.length > 0);
    const named = clad.find((r) => r.id === dates.lastDry);
    const slowest =
      clad.find((r) => r.throughDry === null) ??
      named ??
      [...clad].sort((a, b) => (b.throughDry ?? Infinity) - (a.throughDry ?? Infinity))[0];
    if (!slowest) return [];
    const never = slowest.throughDry === null;
    const days = slowest.throughDry === null ? Infinity : slowest.throughDry / day;
    const range = slowest.throughDryRange;
    const { room } = piece.build;
    const from =
      report.laying.lifted !== null
        ? 'both faces once it is lifted'
        : (piece.faces[piece.regions.indexOf(slowest.id)]?.innerFace ?? 0) > 0 && !slowest.solid
          ? 'the outside, and a little through the core'
          : 'the outside only';
    const on = dates.dryThrough ? `, on ${formatDate(dates.dryThrough.likely)}` : '';
    return [
      finding(
        'drying',
        'through-dry',
        never ? 'fails' : days > longDrying ? 'watch' : 'sound',
        slowest.name,
        never
          ? `The ${slowest.name} never dries through in this room.`
          : `Dry through ${sensible(days, 2)} days after its clay goes on${on}, last of all at the ${slowest.name}.`,
        `${formatLength(slowest.thickness, units)} of ${piece.clay.name} drying from ${from} at ${formatTemperature(room.temperature, units)} and ${sensible(room.relativeHumidity * 100)} %${room.hours.length > 0 || room.record ? ', with the hours you gave it' : ''}.`,
        {
          measured: days,
          limit: longDrying,
          unit: 'days',
          range: range && { low: range.low / day, nominal: range.nominal / day, high: range.high / day },
        },
      ),
    ];
  },
  propose: ({ piece, units }) => quicker(piece, units),
};

/** Ways to be dry sooner. */
export function quicker(piece: Piece, units: UnitSystem): Proposal[] {
  const { room } = piece.build;
  const out: Proposal[] = [];
  if (room.airSpeed < 1)
    out.push({
      id: 'fan',
      edit: { label: 'Run a fan beside it', changes: [{ path: ['room', 'airSpeed'], value: 1.5 }] },
      note: 'dries faster, and the skin ahead of the inside',
    });
  if (room.temperature < 24)
    out.push({
      id: 'warmer',
      edit: {
        label: `Dry it somewhere ${units === 'imperial' ? '9 °F' : '5 °C'} warmer`,
        changes: [{ path: ['room', 'temperature'], value: room.temperature + 5 }],
      },
      note: 'at the same humidity',
    });
  if (room.covers.length > 0)
    out.push({
      id: 'uncover',
      edit: { label: 'Leave it uncovered', changes: [{ path: ['room', 'covers'], value: [] }] },
      note: 'watch the skin',
    });
  if (!piece.face.solid) out.push(thinnerEverywhere(piece));
  else
    out.push({
      id: 'bulk',
      edit: parameter('Fill it with firm paper', { bulk: 'paper-firm' }),
      note: 'a coat dries in days, a lump in weeks',
    });
  out.push(...otherClays(piece, ['epoxy-clay']));
  return out;
}
