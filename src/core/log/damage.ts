import { z } from 'zod';
import { failure, formatLength, parseLength, success } from '../quantity';
import { entryKind, spotIn, textIn } from './kind';

/** A crack or other damage seen on the piece: where, how wide, whether it goes through; `at` in metres on the piece. */
const names = { crack: 'a crack', lifting: 'clay lifting off', dent: 'a dent', break: 'a break' } as const;
const titles = { crack: 'Crack', lifting: 'Lifting', dent: 'Dent', break: 'Break' } as const;
const what = z.enum(['crack', 'dent', 'break', 'lifting']);
const coordinate = z.number().min(-20).max(20);

export const damage = entryKind({
  id: 'crack',
  name: 'Damage',
  schema: z.strictObject({
    where: z.string().trim().min(1).max(80),
    width: z.number().min(0).max(0.1),
    length: z.number().min(0).max(5).default(0),
    through: z.boolean().default(false),
    what: what.default('crack'),
    at: z.tuple([coordinate, coordinate, coordinate]).optional(),
  }),
  fields: [
    {
      key: 'what',
      label: 'What it is',
      ask: 'choice',
      choices: Object.entries(names).map(([id, name]) => ({ id, name })),
    },
    { key: 'width', label: 'How wide', ask: 'length', example: { metric: '0.5 mm', imperial: '1/64 in' } },
    { key: 'through', label: 'It goes right through', ask: 'yes-no' },
    { key: 'where', label: 'Where on the piece', ask: 'place', most: 80 },
    { key: 'at', label: 'The place on the piece', ask: 'spot' },
  ],
  read: (values, { units }) => {
    const width = parseLength(textIn(values, 'width'), units === 'imperial' ? 'in' : 'mm');
    if (!width.ok) return { ...width, path: 'width' };
    const where = textIn(values, 'where');
    if (where === '') return failure('missing', 'where', 'Say where on the piece it is.');
    if (!(width.value >= 0 && width.value <= 0.1))
      return failure('out-of-range', 'width', 'A crack is at most 100 mm wide.');
    const at = spotIn(values, 'at');
    const kind = what.safeParse(values['what']);
    return success({
      where,
      width: width.value,
      through: values['through'] === true,
      what: kind.success ? kind.data : 'crack',
      ...(at ? { at: [...at] as [number, number, number] } : {}),
    });
  },
  fill: (d, units) => ({
    width: formatLength(d.width, units),
    where: d.where,
    through: d.through,
    what: d.what,
    at: d.at ?? null,
  }),
  words: (d, units) => ({
    main: `${titles[d.what]}: ${d.where}`,
    more: `${formatLength(d.width, units)} wide${d.through ? ', right through' : ''}${d.at ? ', marked on the piece' : ''}`,
  }),
});
