import { z } from 'zod';
import { describeIssue, planPartSchema, stepKindSchema, type StepKind } from '../document';
import { failure, success, type Result } from '../quantity';
import { workshopSchema, type Workshop } from './calendar';
import type { Pace } from './pace';
import type { BuildToPlan } from './plan';

/** What a plan of one build needs besides it and its log: who works when, how fast, and what else is on the go. */
export interface PlanSurroundings {
  readonly workshop: Workshop;
  readonly paces: Partial<Record<StepKind, Pace>>;
  readonly others: readonly BuildToPlan[];
}

const finite = z.number();
const range = z.strictObject({ low: finite, nominal: finite, high: finite });
const stepSchema = z.looseObject({
  id: z.string().max(160),
  name: z.string().max(300),
  kind: stepKindSchema,
  hours: finite.min(0).max(1e4),
  people: finite.int().min(1).max(20),
  tools: z.array(z.string()),
  after: z.array(z.looseObject({ task: z.string(), least: range, most: range.nullable(), why: z.string() })),
  wets: z.array(z.looseObject({ zone: z.string(), after: range })),
  holds: z.array(z.string()).nullable(),
});
const surroundingsSchema = z.looseObject({
  workshop: workshopSchema.prefault({}),
  paces: z
    .partialRecord(stepKindSchema, z.strictObject({ factor: finite.positive(), spread: finite, steps: finite }))
    .default({}),
  others: z
    .array(
      z.looseObject({
        id: z.string(),
        name: z.string(),
        steps: z.array(stepSchema).max(2000),
        plan: planPartSchema,
        hoursPerWeek: finite.min(0).max(168),
        deadline: z.string().nullable(),
        happened: z.array(z.strictObject({ step: z.string(), from: finite, until: finite })),
        begun: z
          .array(
            z.strictObject({
              step: z.string(),
              worked: finite.min(0),
              left: finite.min(0).nullable(),
              clay: finite.min(0),
              from: finite,
              until: finite,
            }),
          )
          .optional(),
      }),
    )
    .max(200)
    .default([]),
});

/** Reads them from a file; the path names what is wrong. */
export function readSurroundings(input: unknown): Result<PlanSurroundings> {
  const read = surroundingsSchema.safeParse(input);
  if (read.success) return success(read.data as unknown as PlanSurroundings);
  const { path, message } = describeIssue(read.error, 'workshop');
  return failure('broken-part', path, message);
}
