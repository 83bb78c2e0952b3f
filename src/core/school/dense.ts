import { z } from 'zod';
import { boardFields } from './base';
import { headFrameCuts, headFrameFields, headFrameParameters, setOutHeadFrame } from './head-frame';
import type { School } from './school';

/**
 * Dense: two wire loops on a pipe and solid clay. Heavy and slow to dry, so it suits clay that is kept damp or never
 * dries; firm under the tool, posed after blocking in, and taken apart for the next piece. Crosses of wood hang in the
 * loops so that the clay's weight does not slide down on the pipe.
 */
const parameters = z.strictObject({
  bulk: z.string().default('none'),
  wrap: z.string().default('none'),
  /** Half breadth of the loops, of the skull's. */
  loopShare: z.number().min(0.25).max(0.85).default(0.62),
  crosses: z.number().int().min(0).max(12).default(3),
  ...headFrameParameters,
  frameSize: z.string().default('4.8mm'),
  shoulderSize: z.string().default('4.8mm'),
  neckJoin: headFrameParameters.neckJoin.removeDefault().default('bound-glued'),
});
export type DenseParameters = z.infer<typeof parameters>;

/** A cross of two dowels on a wire, kg. */
const crossMass = 0.012;

export const dense: School<DenseParameters> = {
  kind: 'dense',
  name: 'two loops on a pipe, solid clay',
  when: 'Heads in water-based or oil-based clay that are moulded and then reclaimed: firm under the tool, posed after blocking in, used again.',
  how: 'An upright with a flange and two loops well inside the skull, crossing at the crown; wooden crosses hang in them so that the clay cannot slide down. All the rest is clay.',
  cuts: headFrameCuts,
  traits: { posedLater: 'yes', reused: 'all of it' },
  parameters,
  fields: [
    ...headFrameFields,
    { kind: 'number', key: 'loopShare', label: 'Loops, of the skull' },
    { kind: 'number', key: 'crosses', label: 'Wooden crosses' },
    ...boardFields,
  ],
  fits: (form) => form.head !== null,
  make: (context, p) => {
    const { head } = context.form;
    if (!head) throw new Error('loops on a pipe are made for busts and heads');
    const inset = Math.min(head.breadth, head.depth) * 0.5 * (1 - p.loopShare);
    const loops = {
      breadth: (head.breadth / 2) * p.loopShare,
      depth: (head.depth / 2) * p.loopShare,
      top: head.crown - inset,
    };
    const { out, finish } = setOutHeadFrame(context, head, p, 'dense', loops, 0.5 * inset);
    if (p.crosses > 0)
      out.fitting('crosses', 'wooden crosses on wire', p.crosses, crossMass, [0, -head.forward, head.skull]);
    return finish({ bulk: p.bulk, wrap: p.wrap });
  },
};
