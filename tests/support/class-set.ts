import { planPartSchema, type ClassSet } from '../../src/core/document';

/** A class with two sessions a week. */
export function classSetOf(more: Partial<ClassSet>): ClassSet {
  return planPartSchema.parse({
    classSet: {
      people: 24,
      groups: 2,
      minutes: 90,
      pace: 2,
      sessions: [
        { day: 0, from: 900 },
        { day: 2, from: 900 },
        { day: 4, from: 900 },
      ],
      ...more,
    },
  }).classSet!;
}
