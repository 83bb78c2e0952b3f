import { z } from 'zod';
import { failure, formatExactMass, formatLength, parseLength, parseMass, parseNumber, success } from '../quantity';
import { entryKind, textIn } from './kind';

/** A cast taken from the mould: which it was, what it weighs, its wall, how sharp its detail still is, what went wrong. */
export const sharpnesses = [
  { id: 'sharp', name: 'as sharp as the first' },
  { id: 'softer', name: 'softer' },
  { id: 'gone', name: 'pores are gone' },
] as const;
type Sharpness = (typeof sharpnesses)[number]['id'];
const most = 10_000;

export const pull = entryKind({
  id: 'pull',
  name: 'A cast',
  schema: z.strictObject({
    number: z.number().int().min(1).max(most),
    /** kg. */
    weight: z.number().positive().max(5000).optional(),
    /** Metres. */
    wall: z.number().positive().max(1).optional(),
    detail: z.enum(['sharp', 'softer', 'gone']),
    faults: z.string().max(400).default(''),
    /** Its picture; the bytes are kept beside the log. */
    photoId: z.uuid().optional(),
  }),
  fields: [
    { key: 'number', label: 'Which from this mould', ask: 'number', example: { metric: '1', imperial: '1' } },
    { key: 'weight', label: 'Weighs', ask: 'mass', example: { metric: '0.42', imperial: '15 oz' } },
    { key: 'wall', label: 'Its wall', ask: 'length', example: { metric: '3 mm', imperial: '1/8 in' } },
    { key: 'detail', label: 'Its detail', ask: 'choice', choices: sharpnesses },
    { key: 'faults', label: 'What went wrong', ask: 'lines', most: 400 },
    { key: 'picture', label: 'Picture', ask: 'picture' },
  ],
  read: (values, { units }) => {
    const number = parseNumber(textIn(values, 'number'));
    if (number === undefined || !Number.isInteger(number) || number < 1 || number > most)
      return failure('not-a-number', 'number', 'Which cast it is: 1 for the first.');
    const weight = textIn(values, 'weight') === '' ? null : parseMass(textIn(values, 'weight'), bareMass(units));
    if (weight && !weight.ok) return { ...weight, path: 'weight' };
    const wall = textIn(values, 'wall') === '' ? null : parseLength(textIn(values, 'wall'), bareLength(units));
    if (wall && !wall.ok) return { ...wall, path: 'wall' };
    if (weight && !(weight.value > 0 && weight.value <= 5000))
      return failure('out-of-range', 'weight', 'That is no weight of a cast.');
    if (wall && !(wall.value > 0 && wall.value <= 1))
      return failure('out-of-range', 'wall', 'That is no wall of a cast.');
    const detail = sharpnesses.find((s) => s.id === values['detail'])?.id ?? sharpnesses[0].id;
    return success({
      number,
      ...(weight ? { weight: weight.value } : {}),
      ...(wall ? { wall: wall.value } : {}),
      detail,
      faults: textIn(values, 'faults'),
    });
  },
  fill: (d, units) => ({
    number: String(d.number),
    weight: d.weight === undefined ? '' : formatExactMass(d.weight, units),
    wall: d.wall === undefined ? '' : formatLength(d.wall, units),
    detail: d.detail,
    faults: d.faults,
  }),
  words: (d, units) => ({
    main: `Cast ${d.number}, ${nameOf(d.detail)}`,
    more: [
      ...(d.weight === undefined ? [] : [formatExactMass(d.weight, units)]),
      ...(d.wall === undefined ? [] : [`wall ${formatLength(d.wall, units)}`]),
      ...(d.faults === '' ? [] : [d.faults]),
    ].join(', '),
  }),
});

const nameOf = (id: Sharpness) => sharpnesses.find((s) => s.id === id)!.name;
const bareMass = (units: 'metric' | 'imperial') => (units === 'imperial' ? 'lb' : 'kg');
const bareLength = (units: 'metric' | 'imperial') => (units === 'imperial' ? 'in' : 'mm');
