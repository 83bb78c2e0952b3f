import { z } from 'zod';
import { stepIdSchema, stepKindSchema } from '../document';
import { failure, formatWork, success } from '../quantity';
import { entryKind, hoursIn, type DoneStep } from './kind';
import { roomAsItWasSchema, type RoomAsItWas } from './room-as-it-was';

/** Part of a step: the hours worked at it in this sitting, and those that are left where the maker says so. */
const hours = z.number().positive().max(400);

const schema = z.strictObject({
  step: stepIdSchema,
  name: z.string().trim().min(1).max(200),
  kind: stepKindSchema,
  worked: hours,
  left: hours.optional(),
  /** kg laid in these hours. */
  clay: z.number().positive().max(5000).optional(),
  /** With clay: the room it began to dry in. */
  room: roomAsItWasSchema.optional(),
});

export const stepPart = entryKind({
  id: 'part',
  name: 'Part of a step',
  schema,
  fields: [
    { key: 'step', label: 'Which step', ask: 'choice', from: 'steps', none: 'choose' },
    { key: 'worked', label: 'Hours worked at it', ask: 'number', example: { metric: '2.5', imperial: '2.5' } },
    { key: 'left', label: 'Hours left, if you know', ask: 'number', example: { metric: '1.5', imperial: '1.5' } },
  ],
  read: (values, { steps, room }) => {
    const step = steps.find((s) => s.id === values['step']);
    if (!step) return failure('missing', 'step', 'Choose the step you worked at.');
    const worked = hoursIn(values, 'worked'),
      left = hoursIn(values, 'left');
    if (!worked) return failure('not-a-number', 'worked', 'The hours worked are a number, such as 2.5.');
    if (left === undefined) return failure('not-a-number', 'left', 'The hours left are a number, such as 1.5.');
    return success(partData(step, worked, left, room));
  },
  fill: null,
  words: (d) => ({
    main: `Part done: ${d.name}`,
    more: `${formatWork(d.worked)}${d.left === undefined ? '' : `, ${formatWork(d.left)} left`}`,
  }),
});

/** `s.hours` and `s.clay` are what there was left of it; the clay laid goes by the hours. */
export function partData(
  s: DoneStep,
  worked: number,
  left: number | null,
  room: RoomAsItWas | null,
): z.input<typeof schema> {
  const whole = left === null ? Math.max(s.hours, worked) : worked + left;
  const clay = Math.round(((s.clay * worked) / whole) * 1e5) / 1e5;
  return {
    step: s.id,
    name: s.name,
    kind: s.kind,
    worked: Math.max(0.01, Math.round(worked * 1000) / 1000),
    ...(left !== null ? { left } : {}),
    ...(clay > 0 ? { clay } : {}),
    ...(clay > 0 && room ? { room } : {}),
  };
}
