import { z } from 'zod';
import { failure, formatExactMass, formatMass, parseMass, success } from '../quantity';
import { entryKind, textIn } from './kind';
import { roomAsItWasSchema } from './room-as-it-was';

/** The piece on the scale: what the scale showed, what is not the piece, how fine it shows, the room it dried in. kg. */
const mass = z.number().min(0).max(5000);

/** A bench scale's usual finest, where the reading does not tell. */
export const usualFinest = 0.005;

export const weighIn = entryKind({
  id: 'weigh-in',
  name: 'Weigh',
  schema: z
    .strictObject({
      gross: mass,
      tare: mass,
      finest: z.number().positive().max(10).optional(),
      room: roomAsItWasSchema.optional(),
    })
    .refine((d) => d.gross >= d.tare, { path: ['gross'], message: 'the reading is less than the tare' }),
  fields: [
    { key: 'gross', label: 'On the scale', ask: 'mass', example: { metric: '6.85', imperial: '15 lb 2 oz' } },
    { key: 'tare', label: 'Tare: board, stand', ask: 'mass' },
  ],
  read: (values, { units, tare: usual, room }) => {
    const bare = units === 'imperial' ? 'lb' : 'kg';
    const typed = textIn(values, 'gross'),
      off = textIn(values, 'tare');
    const gross = parseMass(typed, bare);
    if (!gross.ok) return { ...gross, path: 'gross' };
    const tare = off === '' ? success(usual) : parseMass(off, bare);
    if (!tare.ok) return { ...tare, path: 'tare' };
    if (gross.value < tare.value)
      return failure('too-little', 'gross', 'The scale shows less than the tare: check both.');
    if (gross.value > 5000 || tare.value < 0)
      return failure('out-of-range', 'gross', 'That is no weight a bench holds.');
    return success({
      gross: gross.value,
      tare: tare.value,
      finest: finestOf(typed, bare),
      ...(room ? { room } : {}),
    });
  },
  fill: (d, units) => ({ gross: formatExactMass(d.gross, units), tare: formatExactMass(d.tare, units) }),
  words: (d, units) => ({
    main: formatExactMass(d.gross - d.tare, units),
    more: `${formatExactMass(d.gross, units)} on the scale, tare ${formatMass(d.tare, units)}`,
  }),
});

/** The finest a scale shows, kg, as far as what was written down tells: the last digit there is, or an ounce. */
export function finestOf(text: string, bare: 'kg' | 'lb'): number {
  const grams = /g\s*$/i.test(text) && !/kg\s*$/i.test(text);
  const ounces = /(oz|ounces?)\s*$/i.test(text);
  const decimals = /[.,](\d+)/.exec(text)?.[1]?.length ?? 0;
  const unit = grams ? 0.001 : ounces ? 0.0283495 : bare === 'lb' && !/kg/i.test(text) ? 0.4536 : 1;
  // Nobody weighs to whole kilograms or pounds: a round figure is one that was not written out.
  const last = unit * 10 ** -decimals;
  return last > 0.05 ? usualFinest : Math.max(1e-4, last);
}
