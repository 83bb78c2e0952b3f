import { z } from 'zod';
import { boardFields } from './base';
import { headFrameCuts, headFrameFields, headFrameParameters, setOutHeadFrame } from './head-frame';
import type { School } from './school';

/**
 * Stuffed: a wire head frame at nearly full size on a pipe, held by hose clamps, filled with crumpled paper or foil.
 * Saves most of the clay and lets it shrink; less firm under the tool.
 */
const parameters = z.strictObject({
  bulk: z.string().default('paper-loose'),
  wrap: z.string().default('tape'),
  /** Between the head frame and the face of the bulk, metres. */
  frameInset: z.number().min(0).max(0.1).default(0.006),
  ...headFrameParameters,
});
export type StuffedParameters = z.infer<typeof parameters>;

export const stuffed: School<StuffedParameters> = {
  kind: 'stuffed',
  name: 'stuffed frame on a pipe',
  when: 'Busts and heads in clay that dries: little clay, light, and a core that gives as the clay shrinks.',
  how: 'An upright with a flange, two loops for the head on the upright, a band, and a wire for each shoulder, from the measures of the form and the thickness of the clay.',
  cuts: headFrameCuts,
  traits: { posedLater: 'until the clay is on', reused: 'the upright' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Filled with' },
    { kind: 'wrap', key: 'wrap', label: 'Wrapped in' },
    ...headFrameFields,
    { kind: 'length', key: 'frameInset', label: 'Wire under the face of the core' },
    ...boardFields,
  ],
  fits: (form) => form.head !== null,
  make: (context, p) => {
    const { head } = context.form;
    if (!head) throw new Error('a stuffed frame is made for busts and heads');
    const inset = context.clayOver('head') + p.frameInset;
    const wire = context.across(p.frameStock, p.frameSize);
    const loops = { breadth: head.breadth / 2 - inset, depth: head.depth / 2 - inset, top: head.crown - inset };
    return setOutHeadFrame(context, head, p, 'stuffed', loops, inset + wire / 2).finish(p);
  },
};
