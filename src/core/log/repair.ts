import { z } from 'zod';
import { failure, success } from '../quantity';
import { entryKind, textIn } from './kind';

/** Mended: which entry, and how. */
export const repair = entryKind({
  id: 'repair',
  name: 'Mended',
  schema: z.strictObject({
    of: z.uuid().nullable().default(null),
    where: z.string().trim().min(1).max(80),
    how: z.string().trim().max(1000).default(''),
  }),
  fields: [
    { key: 'of', label: 'What was mended', ask: 'choice', from: 'damage', none: 'something not in the log' },
    { key: 'where', label: 'Where on the piece', ask: 'place', most: 80, when: (v) => (v['of'] ?? '') === '' },
    { key: 'how', label: 'How', ask: 'lines', most: 1000 },
  ],
  read: (values, { damage }) => {
    const of = damage.find((c) => c.id === values['of']);
    const where = of?.where ?? textIn(values, 'where');
    if (where === '') return failure('missing', 'where', 'Say what was mended, or where.');
    return success({ of: of?.id ?? null, where, how: textIn(values, 'how') });
  },
  fill: null,
  words: (d) => ({ main: `Mended: ${d.where}`, more: d.how }),
  points: ['of'],
});
