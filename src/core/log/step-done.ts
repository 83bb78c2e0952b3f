import { z } from 'zod';
import { stepIdSchema, stepKindSchema } from '../document';
import { failure, formatWork, success } from '../quantity';
import { entryKind, hoursIn, type DoneStep } from './kind';
import { roomAsItWasSchema, type RoomAsItWas } from './room-as-it-was';

/** A step of the plan is done: the hours it takes usually, and took where they were told; kg of clay it laid. */
const hours = z.number().positive().max(400);

const schema = z.strictObject({
  step: stepIdSchema,
  name: z.string().trim().min(1).max(200),
  kind: stepKindSchema,
  usual: hours.optional(),
  took: hours.optional(),
  clay: z.number().positive().max(5000).optional(),
  /** kg of clay given back to the shelf. */
  returned: z.number().positive().max(5000).optional(),
  /** With clay: the room it began to dry in. */
  room: roomAsItWasSchema.optional(),
});

export const stepDone = entryKind({
  id: 'step',
  name: 'Step done',
  schema,
  fields: [
    { key: 'step', label: 'Which step', ask: 'choice', from: 'steps', none: 'choose' },
    {
      key: 'took',
      label: 'Hours it took in all, if you know',
      ask: 'number',
      example: { metric: '1.5', imperial: '1.5' },
    },
  ],
  read: (values, { steps, room }) => {
    const step = steps.find((s) => s.id === values['step']);
    if (!step) return failure('missing', 'step', 'Choose the step that is done.');
    const took = hoursIn(values, 'took');
    if (took === undefined) return failure('not-a-number', 'took', 'The hours it took are a number, such as 1.5.');
    return success(stepData(step, took, room));
  },
  fill: null,
  words: (d) => ({
    main: `Done: ${d.name}`,
    more: d.took ? `${formatWork(d.took)}, reckoned ${formatWork(d.usual ?? 0)}` : '',
  }),
});

export function stepData(s: DoneStep, took: number | null, room: RoomAsItWas | null): z.input<typeof schema> {
  return {
    step: s.id,
    name: s.name,
    kind: s.kind,
    usual: Math.max(0.01, Math.round(s.hours * 1000) / 1000),
    ...(took ? { took } : {}),
    ...(s.clay > 0 ? { clay: Math.round(s.clay * 1e5) / 1e5 } : {}),
    ...(s.clay > 0 && room ? { room } : {}),
    ...(s.returns ? { returned: Math.round(s.returns * 1e5) / 1e5 } : {}),
  };
}
