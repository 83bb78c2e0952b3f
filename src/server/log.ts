import { z } from 'zod';
import { stepIdSchema, stepKindSchema } from '../core/build';
import { logKinds, type LogEntry, type LogKind } from '../core/plan';
import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import { database } from './store';

/** The bench log: append-only. A correction is a new entry that points at the old and carries the right figures, or voids it. */
const at = z.iso.datetime({ offset: true });
const id = z.uuid();
const mass = z.number().min(0).max(5000);
const length = z.number().positive().max(20);

const placeOnPiece = z.tuple([z.number().min(-20).max(20), z.number().min(-20).max(20), z.number().min(-20).max(20)]);
const hours = z.number().positive().max(400);

const dataSchemas = {
  'weigh-in': z
    .strictObject({ gross: mass, tare: mass })
    .refine((d) => d.gross >= d.tare, { path: ['gross'], message: 'the reading is less than the tare' }),
  'shrink-mark': z
    .strictObject({ laid: length, now: length, where: z.string().max(80).default('') })
    .refine((d) => d.now <= d.laid * 1.1, {
      path: ['now'],
      message: 'marks do not move apart by a tenth as clay dries',
    }),
  photo: z.strictObject({ photoId: id, caption: z.string().max(300).default('') }),
  /** A crack or other damage seen on the piece: where, how wide, whether it goes through; `at` in metres on the piece. */
  crack: z.strictObject({
    where: z.string().trim().min(1).max(80),
    width: z.number().min(0).max(0.1),
    length: z.number().min(0).max(5).default(0),
    through: z.boolean().default(false),
    what: z.enum(['crack', 'dent', 'break', 'lifting']).default('crack'),
    at: placeOnPiece.optional(),
  }),
  /** Mended: which entry, and how. */
  repair: z.strictObject({
    of: id.nullable().default(null),
    where: z.string().trim().min(1).max(80),
    how: z.string().trim().max(1000).default(''),
  }),
  room: z.strictObject({ temperature: z.number().min(-20).max(70), relativeHumidity: z.number().min(0).max(1) }),
  note: z.strictObject({ text: z.string().trim().min(1).max(4000) }),
  /** A step of the plan is done: the hours it takes usually, and the hours it took where they were told; kg of clay it laid. */
  step: z.strictObject({
    step: stepIdSchema,
    name: z.string().trim().min(1).max(200),
    kind: stepKindSchema,
    usual: hours.optional(),
    took: hours.optional(),
    clay: z.number().positive().max(5000).optional(),
  }),
  /** Material used up, in the unit of the stock. */
  used: z.strictObject({
    item: z.string().min(1).max(120),
    name: z.string().max(120).default(''),
    amount: z.number().positive().max(1e5),
    unit: z.string().max(20).default(''),
  }),
  /** A clock was set going: a batch, a coat, an oven. It runs from the entry's own time. */
  clock: z.strictObject({
    name: z.string().trim().min(1).max(80),
    seconds: z
      .number()
      .positive()
      .max(40 * 86400),
  }),
  'clock-stop': z.strictObject({ clock: id }),
  void: z.strictObject({}),
} as const satisfies Record<LogKind, z.ZodType>;

const entrySchema = z.strictObject({
  id,
  kind: z.enum(logKinds),
  at,
  data: z.unknown(),
  corrects: id.nullable().default(null),
});

export async function readLog(buildId: string): Promise<LogEntry[]> {
  const rows = await db.listLog(await database(), buildId);
  return rows.map((r) => ({
    id: r.id,
    kind: r.kind as LogKind,
    at: r.at,
    data: JSON.parse(r.data) as Record<string, unknown>,
    corrects: r.corrects,
  }));
}

export async function addToLog(buildId: string, input: unknown): Promise<Result<LogEntry>> {
  const entry = entrySchema.safeParse(input);
  if (!entry.success) {
    const issue = entry.error.issues[0];
    return failure('bad-entry', issue?.path.join('.') ?? 'entry', issue?.message ?? 'is not valid');
  }
  const data = dataSchemas[entry.data.kind].safeParse(entry.data.data);
  if (!data.success) {
    const issue = data.error.issues[0];
    return failure('bad-entry', `data.${issue?.path.join('.') ?? ''}`, issue?.message ?? 'is not valid');
  }
  const store = await database();
  if (!(await db.findBuild(store, buildId))) return failure('no-such-build', 'id', 'there is no such build');
  if (entry.data.corrects !== null && !(await db.hasLogEntry(store, buildId, entry.data.corrects))) {
    return failure('no-such-entry', 'corrects', 'the entry it corrects is not in this log');
  }
  // One way of writing a time, so that times can be put in order as they stand.
  const kept: LogEntry = {
    ...entry.data,
    at: new Date(entry.data.at).toISOString(),
    data: data.data as Record<string, unknown>,
  };
  await db.addLogEntry(store, buildId, { ...kept, data: JSON.stringify(kept.data) }, new Date().toISOString());
  return success(kept);
}
