import { z } from 'zod';
import { failure, formatLength, parseLength, sensible, success } from '../quantity';
import { entryKind, textIn } from './kind';

/** Two marks pressed into the clay as it was laid, and how far apart they are now; metres. */
const length = z.number().positive().max(20);

export const shrinkMark = entryKind({
  id: 'shrink-mark',
  name: 'Shrinkage',
  schema: z
    .strictObject({ laid: length, now: length, where: z.string().max(80).default('') })
    .refine((d) => d.now <= d.laid * 1.1, {
      path: ['now'],
      message: 'marks do not move apart by a tenth as clay dries',
    }),
  fields: [
    {
      key: 'laid',
      label: 'Between the marks, as laid',
      ask: 'length',
      example: { metric: '100 mm', imperial: '4 in' },
    },
    { key: 'now', label: 'Now', ask: 'length', example: { metric: '96.5', imperial: '3 7/8' } },
    { key: 'where', label: 'Where on the piece', ask: 'place', most: 80 },
  ],
  read: (values, { units }) => {
    const bare = units === 'imperial' ? 'in' : 'mm';
    const laid = parseLength(textIn(values, 'laid'), bare),
      now = parseLength(textIn(values, 'now'), bare);
    if (!laid.ok) return { ...laid, path: 'laid' };
    if (!now.ok) return { ...now, path: 'now' };
    if (!(laid.value > 0 && now.value > 0 && now.value <= laid.value * 1.1))
      return failure('out-of-range', 'now', 'Marks come closer as clay dries: check both lengths.');
    return success({ laid: laid.value, now: now.value, where: textIn(values, 'where') });
  },
  fill: (d, units) => ({
    laid: formatLength(d.laid, units),
    now: formatLength(d.now, units),
    where: d.where,
  }),
  words: (d, units) => ({
    main: `${sensible((1 - d.now / d.laid) * 100, 2)} % shorter`,
    more: `${formatLength(d.laid, units)} → ${formatLength(d.now, units)}${d.where ? `, ${d.where}` : ''}`,
  }),
});
