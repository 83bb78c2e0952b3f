import { z } from 'zod';
import { onAPost, postCuts, postFields, postParameters } from './post';
import { limbCount, reachesOut, type School } from './school';

/** Object core: a bottle, jar, shoe, ball or carved foam stays inside and carries the clay; a post holds it to the board. */
const parameters = z.strictObject({
  bulk: z.string().default('polystyrene-extruded'),
  wrap: z.string().default('none'),
  ...postParameters,
});
export type ObjectCoreParameters = z.infer<typeof parameters>;

export const objectCore: School<ObjectCoreParameters> = {
  kind: 'object-core',
  name: 'object inside, on a post',
  when: 'Clay over a bottle, a jar, a shoe or carved foam that stays in the piece.',
  how: 'What carries the clay is there already. It stands on a post let into the board; its weight counts, its strength does not.',
  cuts: postCuts,
  traits: { posedLater: 'no', reused: 'nothing' },
  parameters,
  fields: [
    { kind: 'heading', label: 'The object' },
    { kind: 'bulk', key: 'bulk', label: 'Made of' },
    { kind: 'wrap', key: 'wrap', label: 'Wrapped in' },
    ...postFields,
  ],
  fits: () => true,
  unsuited: (form) =>
    (limbCount(form) >= 2 && form.skeleton.joints.length >= 8) || reachesOut(form)
      ? 'What reaches out of the object, limbs or a long neck, has nothing in it that carries.'
      : null,
  make: (context, p) => onAPost(context, p),
};
