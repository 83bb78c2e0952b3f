import { z } from 'zod';
import { boardFields } from './base';
import { withoutWire, type School } from './school';
import { limbFields, limbParameters, setOutLimbs } from './wire-figure';

/**
 * Undercoat: foil on wire, covered with a light clay that is baked or dried hard before the final clay goes on. The
 * hard skin carries until it breaks, and holds the last coat back as it shrinks.
 */
const parameters = z.strictObject({
  bulk: z.string().default('foil-firm'),
  wrap: z.string().default('undercoat'),
  ...limbParameters,
});
export type UndercoatParameters = z.infer<typeof parameters>;

export const undercoat: School<UndercoatParameters> = {
  kind: 'undercoat',
  name: 'foil under a baked undercoat',
  when: 'Fine work in oven or epoxy clay: the shape is found and hardened first, so nothing moves under the last thin coat.',
  how: 'Wire along the limbs and foil on it, as for a wire figure; then a thin coat of light clay over everything, hardened before the finishing clay.',
  cuts: 'twelve diameters where a wire is bound along another, six for an end loop, a twelfth of the height for a foot, 3 % for twisting, and 5 % for trim',
  traits: { posedLater: 'no', reused: 'nothing' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Filled with' },
    { kind: 'wrap', key: 'wrap', label: 'Undercoat' },
    ...limbFields,
    ...boardFields,
  ],
  fits: (form) => form.skeleton.joints.length > 1,
  unsuited: withoutWire,
  make: (context, p) => setOutLimbs(context, p, 'undercoat').finish(),
};
