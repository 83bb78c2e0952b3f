import { z } from 'zod';
import { failure } from '../quantity';
import { entryKind } from './kind';

/** Strikes the entry it corrects. */
export const voided = entryKind({
  id: 'void',
  name: 'Struck out',
  schema: z.strictObject({}),
  fields: [],
  read: () => failure('not-by-hand', 'kind', 'An entry is struck where it stands.'),
  fill: null,
  words: () => ({ main: '', more: '' }),
});
