import { z } from 'zod';
import { failure, success } from '../quantity';
import { entryKind, textIn } from './kind';

export const note = entryKind({
  id: 'note',
  name: 'Note',
  schema: z.strictObject({
    text: z.string().trim().min(1).max(4000),
    /** What went wrong, or well: shown with the pieces that come after. */
    forNext: z.boolean().optional(),
  }),
  fields: [
    { key: 'text', label: 'Note', ask: 'lines', most: 4000 },
    { key: 'forNext', label: 'For the next piece too', ask: 'yes-no' },
  ],
  read: (values) => {
    const text = textIn(values, 'text');
    if (text === '') return failure('missing', 'text', 'Write something first.');
    return success(values['forNext'] === true ? { text, forNext: true } : { text });
  },
  fill: (d) => ({ text: d.text, forNext: d.forNext === true }),
  words: (d) => ({ main: d.text, more: d.forNext ? 'for the next piece too' : '' }),
});

/** A note that was kept for the next piece, and the piece it was written at. */
export interface NoteForNext {
  readonly id: string;
  readonly text: string;
  /** ISO, UTC. */
  readonly at: string;
  readonly build: string;
  readonly name: string;
  readonly sameClay: boolean;
}
