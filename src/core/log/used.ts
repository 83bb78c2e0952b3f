import { z } from 'zod';
import { failure, parseNumber, sensible, success } from '../quantity';
import { entryKind, textIn } from './kind';

/** Material used up, in the unit of the stock. */
export const used = entryKind({
  id: 'used',
  name: 'Used up',
  schema: z.strictObject({
    item: z.string().min(1).max(120),
    name: z.string().max(120).default(''),
    amount: z.number().positive().max(1e5),
    unit: z.string().max(20).default(''),
  }),
  fields: [
    { key: 'item', label: 'What was used', ask: 'choice', from: 'items', none: 'choose' },
    { key: 'amount', label: 'How much', ask: 'number' },
  ],
  read: (values, { items }) => {
    const item = items.find((i) => i.item === values['item']);
    if (!item) return failure('missing', 'item', 'Choose what was used.');
    const amount = parseNumber(textIn(values, 'amount').replace(/\s*(kg|m|pieces|litres|m2)$/i, ''));
    if (amount === undefined || !(amount > 0 && amount <= 1e5))
      return failure('not-a-number', 'amount', `How much: a number of ${item.unit}.`);
    return success({ item: item.item, name: item.name, amount, unit: item.unit });
  },
  fill: null,
  words: (d) => ({ main: `Used: ${d.name || d.item}`, more: `${sensible(d.amount, 3)} ${d.unit}` }),
});
