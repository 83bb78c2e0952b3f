import { z } from 'zod';
import { slugSchema } from '../catalogue';

/**
 * The limbs of a mesh that was brought in: joints in its middle, parents first, in the shape's own axes and at life size.
 * Whatever lies about the lines from a joint to those that hang on it goes with that joint.
 */
const coordinate = z.number().min(-20).max(20);

/** What a joint is: where limbs meet; where one leaves what it hangs on; a bend; a thin place; an end; where it stands. */
export const limbJointKinds = ['body', 'root', 'bend', 'narrow', 'tip', 'foot'] as const;
export type LimbJointKind = (typeof limbJointKinds)[number];

export const limbJointSchema = z.strictObject({
  id: slugSchema.max(20),
  kind: z.enum(limbJointKinds),
  /** The limb it is of, as its maker calls it; what runs on from joints of one limb dries as one. */
  limb: z.string().trim().min(1).max(40),
  parent: z.string().max(20).nullable(),
  at: z.tuple([coordinate, coordinate, coordinate]),
  /** Of the largest ball about it that lies within, metres. */
  radius: z.number().min(1e-5).max(20),
  /** The joint on the left that this one is posed with, reflected. */
  twinOf: z.string().max(20).optional(),
});
export type LimbJoint = z.infer<typeof limbJointSchema>;

export const limbsSchema = z.array(limbJointSchema).min(2).max(120).superRefine(checkJoints);
export type Limbs = z.infer<typeof limbsSchema>;

function checkJoints(joints: readonly LimbJoint[], context: z.RefinementCtx): void {
  const before = new Set<string>();
  const all = new Set(joints.map((j) => j.id));
  joints.forEach((j, i) => {
    const wrong = (key: string, message: string) => context.addIssue({ code: 'custom', path: [i, key], message });
    if (before.has(j.id)) wrong('id', `two joints are called "${j.id}"`);
    if (j.parent === null ? i > 0 : !before.has(j.parent))
      wrong('parent', i > 0 ? 'every joint but the first hangs on one before it' : 'the first joint hangs on none');
    if (j.twinOf !== undefined && (j.twinOf === j.id || !all.has(j.twinOf)))
      wrong('twinOf', `there is no joint "${j.twinOf}" to follow`);
    before.add(j.id);
  });
}
