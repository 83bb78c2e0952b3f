import { z } from 'zod';
import { stepIdSchema } from '../document';
import { failure, formatDuration } from '../quantity';
import { entryKind } from './kind';

/** A clock that was set going (a batch, a coat, an oven) runs from its entry's own time; another entry stops it. */
const notByHand = () => failure('not-by-hand', 'kind', 'Clocks are set on the bench card.');

export const clock = entryKind({
  id: 'clock',
  name: 'Clock',
  schema: z.strictObject({
    name: z.string().trim().min(1).max(80),
    seconds: z
      .number()
      .positive()
      .max(40 * 86400),
    /** What was mixed when it was set: for which step, kg. */
    batch: z.strictObject({ step: stepIdSchema, mass: z.number().positive().max(5000) }).optional(),
  }),
  fields: [],
  read: notByHand,
  fill: null,
  words: (d) => ({ main: `Clock: ${d.name}`, more: formatDuration(d.seconds) }),
});

export const clockStop = entryKind({
  id: 'clock-stop',
  name: 'Clock stopped',
  schema: z.strictObject({ clock: z.uuid() }),
  fields: [],
  read: notByHand,
  fill: null,
  words: () => ({ main: 'Clock stopped', more: '' }),
  points: ['clock'],
});
