import { z } from 'zod';
import { onAPost, postCuts, postFields, postParameters } from './post';
import type { School } from './school';

/** Head form: a mask master built out over a life form that stands for the wearer's head, and is moulded on it. */
const parameters = z.strictObject({
  bulk: z.string().default('plaster-set'),
  wrap: z.string().default('none'),
  ...postParameters,
});
export type HeadFormParameters = z.infer<typeof parameters>;

export const headForm: School<HeadFormParameters> = {
  kind: 'head-form',
  name: 'mask on a head form',
  when: 'Mask masters: the wearer’s head in plaster or foam, built out evenly, moulded where it stands.',
  how: 'The life form stands on a post let into the board, at the wearer’s girths; the clay is built out over it and never leaves it until the mould is on.',
  cuts: postCuts,
  traits: { posedLater: 'no', reused: 'all of it' },
  parameters,
  fields: [
    { kind: 'heading', label: 'The head form' },
    { kind: 'bulk', key: 'bulk', label: 'Made of' },
    { kind: 'wrap', key: 'wrap', label: 'Covered with' },
    ...postFields,
  ],
  fits: (form) => form.kind === 'mask',
  make: (context, p) => onAPost(context, p),
};
