import { z } from 'zod';
import { boardFields, boardParameters } from './base';
import { heightOf, type School } from './school';
import { setOutLimbs } from './wire-figure';

/**
 * Foil only: foil packed to the shape, no wire at all. For small or light pieces; under a heavy clay a limb of it sags
 * or tears off overnight.
 */
const parameters = z.strictObject({
  bulk: z.string().default('foil-packed'),
  wrap: z.string().default('none'),
  ...boardParameters,
});
export type FoilOnlyParameters = z.infer<typeof parameters>;

/** Forms with nothing long and thin, and how high a piece of any form may stand; metres. */
const compact = ['worn-shell', 'relief', 'found-object', 'free'];
const figurine = 0.12;

export const foilOnly: School<FoilOnlyParameters> = {
  kind: 'foil-only',
  name: 'foil alone',
  when: 'Small, light pieces with thick limbs: the quickest there is, and weak under a heavy clay.',
  how: 'Foil is packed tight to the shape and glued to the board; nothing runs through it. The bones are only where it is judged.',
  cuts: 'nothing is cut',
  traits: { posedLater: 'until the clay is on', reused: 'little' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Made of' },
    { kind: 'wrap', key: 'wrap', label: 'Wrapped in' },
    ...boardFields,
  ],
  fits: (form) => form.skeleton.joints.length > 1,
  unsuited: (form) =>
    compact.includes(form.kind) || heightOf(form) < figurine
      ? null
      : 'Foil alone carries small pieces and thick, short limbs: necks, arms and tails want a wire.',
  make: (context, p) =>
    setOutLimbs(
      context,
      { ...p, wireStock: 'aluminium-annealed', wireSize: '1mm', strands: 1, bonded: false, join: 'welded' },
      'foil',
      false,
    ).finish(),
};
