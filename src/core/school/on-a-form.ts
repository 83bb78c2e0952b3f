import { z } from 'zod';
import type { Armature } from '../armature';
import { joinIds } from '../catalogue';
import type { Vec3 } from '../quantity';
import { boardParameters, boardUnder } from './base';
import { spanOfForm, type School, type SchoolContext } from './school';

/**
 * On a form: the clay lies on something that is there already (a head form, a bottle, a ball of foil), and that
 * stands on a post fixed to the board. No wire at all.
 */
const parametersSchema = z.strictObject({
  /** What the form under the clay is made of. */
  bulk: z.string().default('polystyrene-extruded'),
  wrap: z.string().default('none'),
  postStock: z.string().default('hardwood-dowel'),
  postSize: z.string().default('25mm'),
  join: z.enum(joinIds).default('epoxied'),
  ...boardParameters,
});
export type OnAFormParameters = z.infer<typeof parametersSchema>;

function make(context: SchoolContext, p: OnAFormParameters): Armature {
  const { form } = context;
  const span = spanOfForm(form);
  const middle = (k: 0 | 1): number => (span.low[k] + span.high[k]) / 2;
  const foot: Vec3 = [middle(0), middle(1), 0];
  const high = span.high[2] - span.low[2];
  const rim: Vec3 = [foot[0], foot[1], Math.max(0.01, span.low[2])];
  const top: Vec3 = [foot[0], foot[1], rim[2] + 0.6 * high];
  const everything = form.masses.map((m) => m.id);
  const plate = Math.max(0.03, 2 * context.across(p.postStock, p.postSize));
  return {
    nodes: [{ id: 'form/foot', at: foot, held: true }, { id: 'form/rim', at: rim, held: false }, { id: 'form/top', at: top, held: false }],
    bones: [
      { id: 'form/post', name: 'post under the form', from: 'form/foot', to: 'form/rim', masses: [], joinFrom: p.join, joinTo: 'welded' },
      { id: 'form/inside', name: 'post inside the form', from: 'form/rim', to: 'form/top', masses: everything, joinFrom: 'welded', joinTo: 'welded' },
    ],
    members: [{
      id: 'form/post', name: 'post', stock: p.postStock, size: p.postSize, strands: 1, bonded: false, path: [foot, rim, top], bones: ['form/post', 'form/inside'],
      allowances: [{ what: 'let into the board', length: context.across(p.boardStock, p.boardSize) }],
    }],
    base: boardUnder(context, p, foot, { width: Math.max(0.12, (span.high[0] - span.low[0]) * 1.1), depth: Math.max(0.12, (span.high[1] - span.low[1]) * 1.1) }, { diameter: plate, mass: 0, circle: plate * 0.8, screws: 4 }),
    hardware: [], bulk: p.bulk, wrap: p.wrap,
  };
}

export const onAForm: School<OnAFormParameters> = {
  kind: 'on-a-form',
  name: 'over a form on a post',
  when: 'Masks, shells and pieces on a found object: what carries the clay is there before the clay.',
  parameters: parametersSchema,
  fits: () => true,
  make,
};
