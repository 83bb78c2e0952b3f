import { z } from 'zod';
import type { Allowance, Armature, Bone, Member } from '../armature';
import { joinIds } from '../catalogue';
import type { Vec3 } from '../quantity';
import { boardParameters, boardUnder } from './base';
import { arc, type School, type SchoolContext } from './school';

/**
 * Stuffed: a wire head frame at nearly full size on a pipe, held by hose clamps, filled with crumpled paper or foil.
 * Saves most of the clay and lets it shrink; less firm under the tool. With no bulk at all it is a dense bust on a bare pipe.
 */
const parametersSchema = z.strictObject({
  bulk: z.string().default('paper-loose'),
  wrap: z.string().default('tape'),
  pipeStock: z.string().default('steel-pipe'),
  pipeSize: z.string().default('1-2'),
  frameStock: z.string().default('aluminium-annealed'),
  frameSize: z.string().default('4mm'),
  frameStrands: z.number().int().min(1).max(6).default(1),
  shoulderStock: z.string().default('aluminium-annealed'),
  shoulderSize: z.string().default('4mm'),
  shoulderStrands: z.number().int().min(1).max(6).default(2),
  neckJoin: z.enum(joinIds).default('hose-clamp'),
  shoulderJoin: z.enum(joinIds).default('bound-glued'),
  /** Between the head frame and the face of the bulk, metres. */
  frameInset: z.number().min(0).max(0.1).default(0.006),
  ...boardParameters,
});
export type StuffedParameters = z.infer<typeof parametersSchema>;

const flange = { diameter: 0.09, mass: 0.32, screwCircle: 0.07, screws: 4 };
const clampTail = 0.085;
const clampMass = 0.022;

type Bust = NonNullable<SchoolContext['form']['bust']>;

function make(context: SchoolContext, p: StuffedParameters): Armature {
  const { form } = context;
  if (!form.bust) throw new Error('a stuffed frame is made for busts');
  const { measures, levels } = form.bust;
  const s = form.size;
  const inHead = (at: Vec3): Vec3 => form.skeleton.carry('head', at);
  const y = 0.012 * s;
  const forward = -measures.headForward * s;
  const pipeTop: Vec3 = [0, y, levels.chin + 0.03 * measures.headHeight * s];
  const skull: Vec3 = [0, forward + measures.headDepth * s * 0.02, levels.skull];
  const inset = context.clayOver('head') + p.frameInset;
  const top = levels.crown - inset;
  const crown: Vec3 = [0, skull[1], top];
  const reach = (measures.shoulderBreadth * s) / 2 - context.clayOver('chest') - 0.035 * s;
  const drop = levels.shoulder - 0.03 * s;
  const shoulder: Vec3 = [0, y, levels.shoulder];
  const held: Vec3 = [0, y, 0];

  const nodes = [
    { id: 'stuffed/foot', at: held, held: true },
    { id: 'stuffed/shoulder', at: shoulder, held: false },
    { id: 'stuffed/pipe-top', at: pipeTop, held: false },
    { id: 'stuffed/skull', at: inHead(skull), held: false },
    { id: 'stuffed/crown', at: inHead(crown), held: false },
    { id: 'stuffed/shoulder-left', at: [reach, y, drop] as Vec3, held: false },
    { id: 'stuffed/shoulder-right', at: [-reach, y, drop] as Vec3, held: false },
  ];
  const bone = (id: string, name: string, from: string, to: string, masses: string[], joinFrom: Bone['joinFrom'] = 'welded'): Bone => (
    { id: `stuffed/${id}`, name, from: `stuffed/${from}`, to: `stuffed/${to}`, masses, joinFrom, joinTo: 'welded' }
  );
  const bones = [
    bone('upright-foot', 'foot of the upright', 'foot', 'shoulder', ['chest', 'shoulder-left', 'shoulder-right'], 'threaded'),
    bone('upright-neck', 'upright at the neck', 'shoulder', 'pipe-top', ['chest', 'shoulder-left', 'shoulder-right', 'neck']),
    bone('head-frame', 'head frame', 'pipe-top', 'skull', ['neck', 'face', 'skull'], p.neckJoin),
    bone('head-crown', 'crown of the head frame', 'skull', 'crown', ['face', 'skull']),
    bone('shoulder-left', 'left shoulder wire', 'shoulder', 'shoulder-left', ['chest', 'shoulder-left'], p.shoulderJoin),
    bone('shoulder-right', 'right shoulder wire', 'shoulder', 'shoulder-right', ['chest', 'shoulder-right'], p.shoulderJoin),
  ];
  return {
    nodes, bones,
    members: makeMembers(context, form.bust, p, { pipeTop, skull, top, inset, reach, drop, shoulder, held }),
    base: boardUnder(context, p, held, { width: measures.shoulderBreadth * s * 0.8, depth: measures.chestDepth * s * 1.25 }, {
      diameter: flange.diameter, mass: flange.mass, circle: flange.screwCircle, screws: flange.screws,
    }),
    hardware: [
      { id: 'stuffed/flange', name: 'floor flange', count: 1, massEach: flange.mass, at: held },
      { id: 'stuffed/clamps', name: 'hose clamps', count: 2, massEach: clampMass, at: [0, y, pipeTop[2] - 0.04] },
    ],
    bulk: p.bulk, wrap: p.wrap,
  };
}

interface Marks {
  readonly pipeTop: Vec3; readonly skull: Vec3; readonly top: number; readonly inset: number;
  readonly reach: number; readonly drop: number; readonly shoulder: Vec3; readonly held: Vec3;
}

function makeMembers(context: SchoolContext, { measures, levels }: Bust, p: StuffedParameters, at: Marks): Member[] {
  const s = context.form.size;
  const inHead = (place: Vec3): Vec3 => context.form.skeleton.carry('head', place);
  const pipe = context.across(p.pipeStock, p.pipeSize);
  const wire = context.across(p.frameStock, p.frameSize);
  const tails: Allowance[] = [{ what: 'two tails under the hose clamps', length: 2 * clampTail }];
  const rise = at.top - at.skull[2];
  const breadth = (measures.headBreadth * s) / 2 - at.inset;
  const depth = (measures.headDepth * s) / 2 - at.inset;
  const loop = (across: Vec3): Vec3[] => {
    const edge = pipe / 2 + wire / 2;
    const side = scaleTo(across, edge);
    return [
      [at.pipeTop[0] + side[0], at.pipeTop[1] + side[1], at.pipeTop[2]],
      ...arc([at.skull[0], at.skull[1], at.skull[2]], across, [0, 0, rise], -35, 215, 24).map(inHead),
      [at.pipeTop[0] - side[0], at.pipeTop[1] - side[1], at.pipeTop[2]],
    ];
  };
  const frameBones = ['stuffed/head-frame', 'stuffed/head-frame', 'stuffed/head-crown', 'stuffed/head-crown'];
  // Bent to follow the form: a plain ellipse would leave it at the nape and under the jaw.
  const frame = { stock: p.frameStock, size: p.frameSize, strands: p.frameStrands, bonded: false, drawnIn: at.inset + wire / 2 };
  const bandHeight = levels.skull - 0.02 * s;
  const shoulderWire = { stock: p.shoulderStock, size: p.shoulderSize, strands: p.shoulderStrands, bonded: false };
  const tip = { what: 'end loop', length: 10 * context.across(p.shoulderStock, p.shoulderSize) };
  const wrap = { what: 'one turn round the pipe', length: Math.PI * pipe };
  const twist: Allowance[] = p.shoulderStrands > 1
    ? [{ what: 'twisting the strands, three turns', length: 24 * context.across(p.shoulderStock, p.shoulderSize) }] : [];
  const side = (name: string, id: string, sign: number): Member => ({
    id: `stuffed/${id}`, name, ...shoulderWire, bones: [`stuffed/${id}`], allowances: [wrap, tip, ...twist],
    path: [at.shoulder, [sign * at.reach * 0.55, at.shoulder[1], at.shoulder[2] + 0.006 * s], [sign * at.reach, at.shoulder[1], at.drop]],
  });
  return [
    {
      id: 'stuffed/pipe', name: 'upright pipe', stock: p.pipeStock, size: p.pipeSize, strands: 1, bonded: false,
      path: [at.held, at.pipeTop], bones: ['stuffed/upright-foot', 'stuffed/upright-neck'],
      allowances: [{ what: 'thread into the flange', length: 0.013 }],
    },
    { id: 'stuffed/loop-front', name: 'head loop, ear to ear', ...frame, path: loop([Math.max(0.01, breadth), 0, 0]), bones: frameBones, allowances: tails },
    { id: 'stuffed/loop-side', name: 'head loop, brow to nape', ...frame, path: loop([0, Math.max(0.01, depth), 0]), bones: frameBones, allowances: tails },
    {
      id: 'stuffed/head-band', name: 'band round the head', ...frame, strands: 1, bones: [],
      path: arc([0, at.skull[1], bandHeight], [Math.max(0.01, breadth), 0, 0], [0, Math.max(0.01, depth), 0], 0, 360, 32).map(inHead),
      allowances: [{ what: 'overlap, bound', length: 0.04 }],
    },
    side('left shoulder wire', 'shoulder-left', 1),
    side('right shoulder wire', 'shoulder-right', -1),
  ];
}

function scaleTo(v: Vec3, length: number): Vec3 {
  const n = Math.hypot(v[0], v[1], v[2]) || 1;
  return [(v[0] / n) * length, (v[1] / n) * length, (v[2] / n) * length];
}

export const stuffed: School<StuffedParameters> = {
  kind: 'stuffed',
  name: 'stuffed frame on a pipe',
  when: 'Busts and heads in clay that dries: little clay, light, and a core that gives as the clay shrinks.',
  parameters: parametersSchema,
  fits: (form) => form.bust !== null,
  make,
};
