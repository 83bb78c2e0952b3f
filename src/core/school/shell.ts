import { z } from 'zod';
import { onAPost, postCuts, postFields, postParameters } from './post';
import { reachesOut, type School } from './school';

/**
 * Shell: clay over a form that it leaves again. Clay that dries is lifted off when leathery and dries on from both
 * faces; foil under epoxy clay is pulled out after the cure so that the piece sits on a body.
 */
const parameters = z.strictObject({
  bulk: z.string().default('foil-loose'),
  wrap: z.string().default('none'),
  ...postParameters,
});
export type ShellParameters = z.infer<typeof parameters>;

export const shell: School<ShellParameters> = {
  kind: 'shell',
  name: 'shell that leaves its form',
  when: 'Masks, armour and heads that end up hollow: light to wear, and free to shrink once it is off the form.',
  how: 'The clay goes over foil or a foam form on a post, as an even coat. When it is leathery or cured, what is inside comes out: the finished weight is the clay alone.',
  cuts: postCuts,
  traits: { posedLater: 'no', reused: 'all of it' },
  parameters,
  fields: [
    { kind: 'heading', label: 'The form under the clay' },
    { kind: 'bulk', key: 'bulk', label: 'Made of' },
    { kind: 'wrap', key: 'wrap', label: 'Wrapped in' },
    ...postFields,
  ],
  fits: (form) => form.head !== null || ['mask', 'worn-shell', 'free', 'long-neck'].includes(form.kind),
  unsuited: (form) =>
    reachesOut(form) ? 'A neck that reaches out so far needs what carries it to stay inside.' : null,
  make: (context, p) => onAPost(context, p, { comesOut: 'all' }),
};
