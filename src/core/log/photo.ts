import { z } from 'zod';
import { success } from '../quantity';
import { entryKind, textIn } from './kind';

/** A picture from the bench; its bytes are kept beside the log under `photoId`. */
export const photo = entryKind({
  id: 'photo',
  name: 'Photo',
  schema: z.strictObject({ photoId: z.uuid(), caption: z.string().max(300).default('') }),
  fields: [
    { key: 'picture', label: 'Picture', ask: 'picture' },
    { key: 'caption', label: 'What it shows', ask: 'line', most: 300 },
  ],
  // Whoever has the picture gives it its id.
  read: (values) => success({ photoId: '', caption: textIn(values, 'caption') }),
  fill: null,
  words: (d) => ({ main: d.caption, more: '' }),
});
