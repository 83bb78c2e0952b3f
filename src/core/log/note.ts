import { z } from 'zod';
import { failure, success } from '../quantity';
import { entryKind, textIn } from './kind';

export const note = entryKind({
  id: 'note',
  name: 'Note',
  schema: z.strictObject({ text: z.string().trim().min(1).max(4000) }),
  fields: [{ key: 'text', label: 'Note', ask: 'lines', most: 4000 }],
  read: (values) => {
    const text = textIn(values, 'text');
    return text === '' ? failure('missing', 'text', 'Write something first.') : success({ text });
  },
  fill: (d) => ({ text: d.text }),
  words: (d) => ({ main: d.text, more: '' }),
});
