import { z } from 'zod';
import { coverWanted, type Allowance, type Armature } from '../armature';
import { joinIds, type JoinKindId } from '../catalogue';
import { headLimb, type HeadSetting } from '../form';
import type { Vec3 } from '../quantity';
import { boardParameters, boardUnder, type BoardParameters } from './base';
import { boneName, footBoard, limbsOf } from './limbs';
import { arc, massesOn, reachInside, spanOfForm, type SchoolContext, type SchoolField } from './school';
import { SettingOut } from './setting-out';
import { wireName, wireRuns } from './wire-that-fits';

/** A head frame of wire loops on a pipe, with a wire for each shoulder: what the stuffed and the dense schools share. */
export const headFrameParameters = {
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
  ...boardParameters,
};

export interface HeadFrameFigures extends BoardParameters {
  readonly pipeStock: string;
  readonly pipeSize: string;
  readonly frameStock: string;
  readonly frameSize: string;
  readonly frameStrands: number;
  readonly shoulderStock: string;
  readonly shoulderSize: string;
  readonly shoulderStrands: number;
  readonly neckJoin: JoinKindId;
  readonly shoulderJoin: JoinKindId;
}

export const headFrameFields: readonly SchoolField[] = [
  { kind: 'heading', label: 'Upright and wires' },
  { kind: 'stock', key: 'pipeStock', size: 'pipeSize', label: 'Upright', from: 'upright' },
  { kind: 'stock', key: 'frameStock', size: 'frameSize', label: 'Head frame', from: 'wire' },
  { kind: 'stock', key: 'shoulderStock', size: 'shoulderSize', label: 'Shoulder wires', from: 'wire' },
  { kind: 'join', key: 'neckJoin', label: 'Head frame joined by' },
  { kind: 'join', key: 'shoulderJoin', label: 'Shoulders joined by' },
];

const clampTail = 0.085;

export const headFrameCuts = `a tail of ${Math.round(clampTail * 1000)} mm under each hose clamp, a turn round the pipe (its girth), an end loop of ten diameters, a twist of eight diameters a turn, and 5 % for trim`;

const flange = { diameter: 0.09, mass: 0.32, circle: 0.07, screws: 4 };
const clampMass = 0.022;

/** How large the loops are: half their breadth and depth, and where their top is. */
export interface LoopSize {
  readonly breadth: number;
  readonly depth: number;
  readonly top: number;
}

interface Marks {
  readonly y: number;
  readonly pipeTop: Vec3;
  readonly skull: Vec3;
  readonly crown: Vec3;
  readonly held: Vec3;
  readonly shoulder: Vec3;
}

/** Sets the frame out. `drawnIn`: how deep under the finished face the loops are bent to, where they would come nearer. */
export function setOutHeadFrame(
  context: SchoolContext,
  head: HeadSetting,
  p: HeadFrameFigures,
  prefix: string,
  asked: LoopSize,
  drawnIn: number,
): { readonly out: SettingOut; readonly finish: (core: { bulk: string; wrap: string }) => Armature } {
  const { form } = context;
  const { size: s, bust } = form;
  const out = new SettingOut(prefix);
  const { mesh } = head;
  const loops = mesh ? withinMesh(context, mesh.middle, asked, drawnIn) : asked;
  // A mesh's head is read where it stands posed; a start form's is set out unposed and carried along.
  const inHead = (at: Vec3): Vec3 => (mesh ? at : form.skeleton.carry('head', at));
  const [x, y] = mesh ? uprightUnder(context, mesh.neck, head) : [0, 0.012 * s];
  const shoulder = bust ? bust.levels.shoulder : head.bottom + (mesh ? 0.6 : 0.25) * (head.chin - head.bottom);
  const at: Marks = {
    y,
    held: [x, y, 0],
    pipeTop: [x, y, pipeEnds(context, p, [x, y, shoulder], head.chin + 0.03 * head.height)],
    skull: mesh ? mesh.middle : [0, -head.forward + head.depth * 0.02, head.skull],
    crown: [mesh?.middle[0] ?? 0, mesh?.middle[1] ?? -head.forward + head.depth * 0.02, loops.top],
    shoulder: [x, y, shoulder],
  };
  out.node('foot', at.held, true);
  out.node('shoulder', at.shoulder);
  out.node('pipe-top', at.pipeTop);
  out.node('skull', inHead(at.skull));
  out.node('crown', inHead(at.crown));
  // The first making of the form had its masses by name; since, whatever hangs on a joint goes with it.
  const neck = mesh ? mesh.neckMasses : head.faced ? massesOn(form, ['neck']) : ['neck'];
  const onHead = mesh ? mesh.headMasses : head.faced ? massesOn(form, ['head', 'jaw']) : ['face', 'skull'];
  const trunk = mesh
    ? mesh.trunkMasses
    : !bust
      ? neck
      : head.faced
        ? massesOn(form, ['chest'])
        : ['chest', 'shoulder-left', 'shoulder-right'];
  out.bone('upright-foot', 'foot of the upright', 'foot', 'shoulder', trunk, { joinFrom: 'threaded' });
  out.bone('upright-neck', 'upright at the neck', 'shoulder', 'pipe-top', [
    ...trunk.filter((m) => !neck.includes(m)),
    ...neck,
  ]);
  out.bone('head-frame', 'head frame', 'pipe-top', 'skull', [...neck, ...onHead], { joinFrom: p.neckJoin });
  out.bone('head-crown', 'crown of the head frame', 'skull', 'crown', [
    ...onHead,
    ...massesOn(form, ['head']).filter((m) => !onHead.includes(m)),
  ]);
  loopsAndPipe(context, head, p, out, at, loops, drawnIn, inHead);
  if (bust) shouldersOf(context, p, out, at, bust, s, head.faced ? trunk : ['chest']);
  if (mesh) limbsOfMesh(context, p, out, at.shoulder);
  else if (form.masses.some((m) => m.id === 'upper-arm-left')) armsOf(context, p, out);
  out.adopt(form.masses, 'head-crown');
  out.fitting('flange', 'floor flange', 1, flange.mass, at.held);
  out.fitting('clamps', 'hose clamps', 2, clampMass, [x, y, at.pipeTop[2] - 0.04]);
  const needs = bust
    ? { width: bust.measures.shoulderBreadth * s * 0.8, depth: bust.measures.chestDepth * s * 1.25 }
    : mesh
      ? footBoard(spanOfForm(form))
      : { width: head.breadth * 1.4, depth: head.depth * 1.2 };
  return { out, finish: (core) => out.finish(boardUnder(context, p, at.held, needs, flange), core) };
}

/** Loops no larger than there is room for about the middle of a mesh's head. */
function withinMesh(context: SchoolContext, middle: Vec3, loops: LoopSize, leave: number): LoopSize {
  const most = 2 * Math.max(loops.breadth, loops.depth, loops.top - middle[2], 0.01);
  const room = (...ways: Vec3[]) => Math.min(...ways.map((w) => reachInside(context, middle, w, leave, most)));
  return {
    breadth: Math.min(loops.breadth, room([1, 0, 0], [-1, 0, 0])),
    depth: Math.min(loops.depth, room([0, 1, 0], [0, -1, 0])),
    top: Math.min(loops.top, middle[2] + room([0, 0, 1])),
  };
}

/** Where an upright goes up into the neck of a mesh: under the neck or over the foot, wherever it lies deepest all the way. */
function uprightUnder(context: SchoolContext, neck: Vec3, head: HeadSetting): [number, number] {
  const foot = context.form.skeleton.joints.find((j) => j.ground)?.at ?? neck;
  const share = (t: number): [number, number] => [neck[0] + t * (foot[0] - neck[0]), neck[1] + t * (foot[1] - neck[1])];
  const least = ([x, y]: [number, number]) =>
    Math.min(
      ...Array.from({ length: 12 }, (_, i) =>
        context.depthAt([x, y, head.bottom + ((i + 1) / 13) * (neck[2] - head.bottom)]),
      ),
      context.depthAt([x, y, neck[2]]),
    );
  return [0, 0.25, 0.5, 0.75, 1].map(share).reduce((best, t) => (least(t) > least(best) ? t : best));
}

/** Limbs of a mesh below its head: a wire to each from the upright, through its joints. */
function limbsOfMesh(context: SchoolContext, p: HeadFrameFigures, out: SettingOut, from: Vec3): void {
  const { form } = context;
  const { joints } = form.skeleton;
  const asked = { stock: p.shoulderStock, size: p.shoulderSize, strands: p.shoulderStrands, byHand: false };
  const byId = new Map(joints.map((j) => [j.id, j]));
  const chains = limbsOf(joints).flatMap(({ joints: chain }) => {
    const end = byId.get(chain[chain.length - 1]!)!;
    const own = chain.filter((id) => byId.get(id)!.limb === end.limb);
    return end.limb === headLimb || end.ground || own.length < 2 ? [] : [{ joints: own, first: false }];
  });
  for (const run of wireRuns(context, asked, chains)) {
    const wire = context.across(p.shoulderStock, run.size);
    const bones: string[] = [];
    let below = 'shoulder';
    run.joints.forEach((id, i) => {
      const before = run.joints[i - 1];
      if (!out.has(id)) out.node(id, byId.get(id)!.at);
      out.bone(
        id,
        before === undefined ? `upright to ${byId.get(id)!.limb ?? id}` : boneName(joints, before, id),
        below,
        id,
        massesOn(form, before === undefined ? [] : [before, id]),
        before === undefined ? { joinFrom: p.shoulderJoin } : {},
      );
      bones.push(id);
      below = id;
    });
    out.member(`wire-${run.joints[0]!}`, wireName(run.joints.map((id) => byId.get(id)!)), {
      stock: p.shoulderStock,
      size: run.size,
      strands: run.strands,
      sizedBy: { stock: 'shoulderStock', size: 'shoulderSize', strands: 'shoulderStrands' },
      path: [from, ...run.path],
      bones,
      allowances: [
        { what: 'one turn round the pipe', at: 'start', length: Math.PI * context.across(p.pipeStock, p.pipeSize) },
        { what: 'end loop', at: 'end', length: 10 * wire },
      ],
    });
  }
}

/**
 * Height at which the upright ends, m: behind the jaw, or lower where the neck leans out from over it and what is wanted
 * over a pipe would be missing. The wires of the head go on from there.
 */
function pipeEnds(context: SchoolContext, p: HeadFrameFigures, from: Vec3, jaw: number): number {
  const across = context.across(p.pipeStock, p.pipeSize);
  const leave = coverWanted(across, context.clayOver('neck')) + across / 2;
  const room = reachInside(context, from, [0, 0, 1], leave, jaw - from[2]);
  return room > 0 ? from[2] + room : jaw;
}

function loopsAndPipe(
  context: SchoolContext,
  head: HeadSetting,
  p: HeadFrameFigures,
  out: SettingOut,
  at: Marks,
  loops: LoopSize,
  drawnIn: number,
  inHead: (at: Vec3) => Vec3,
): void {
  const pipe = context.across(p.pipeStock, p.pipeSize);
  const wire = context.across(p.frameStock, p.frameSize);
  const tails: Allowance[] = [{ what: 'two tails under the hose clamps', length: 2 * clampTail }];
  const rise = loops.top - at.skull[2];
  // Degrees the loops come down below their middle, before they go in to the pipe.
  const under = head.faced || head.mesh ? 4 : 35;
  const loop = (across: Vec3): Vec3[] => {
    const side = scaleTo(across, pipe / 2 + wire / 2);
    const foot = (sign: number): Vec3 => [
      at.pipeTop[0] + sign * side[0],
      at.pipeTop[1] + sign * side[1],
      at.pipeTop[2],
    ];
    // Under a face the wires stay together in the middle of the neck until they are well inside the head.
    const knee = (sign: number): Vec3[] =>
      head.faced || head.mesh
        ? [
            inHead([
              sign * side[0],
              0.5 * (at.pipeTop[1] + at.skull[1]) + sign * side[1],
              head.chin + 0.3 * head.height,
            ]),
          ]
        : [];
    return [
      foot(1),
      ...knee(1),
      ...arc(at.skull, across, [0, 0, rise], -under, 180 + under, 24).map(inHead),
      ...knee(-1),
      foot(-1),
    ];
  };
  const bones = ['head-frame', 'head-frame', 'head-crown', 'head-crown'];
  // Bent to follow the form: a plain ellipse would leave it at the nape and under the jaw.
  const frame = {
    stock: p.frameStock,
    size: p.frameSize,
    strands: p.frameStrands,
    drawnIn,
    sizedBy: { stock: 'frameStock', size: 'frameSize', strands: 'frameStrands', together: true },
  } as const;
  const breadth: Vec3 = [Math.max(0.01, loops.breadth), 0, 0],
    depth: Vec3 = [0, Math.max(0.01, loops.depth), 0];
  out.member('pipe', 'upright pipe', {
    stock: p.pipeStock,
    size: p.pipeSize,
    sizedBy: { stock: 'pipeStock', size: 'pipeSize', together: true },
    path: [at.held, at.pipeTop],
    bones: ['upright-foot', 'upright-neck'],
    allowances: [{ what: 'thread into the flange', length: 0.013 }],
  });
  out.member('loop-front', 'head loop, ear to ear', { ...frame, path: loop(breadth), bones, allowances: tails });
  out.member('loop-side', 'head loop, brow to nape', { ...frame, path: loop(depth), bones, allowances: tails });
  out.member('head-band', 'band round the head', {
    ...frame,
    strands: 1,
    bones: [],
    path: arc([at.skull[0], at.skull[1], head.band], breadth, depth, 0, 360, 32).map(inHead),
    allowances: [{ what: 'overlap, bound', length: 0.04 }],
  });
}

function shouldersOf(
  context: SchoolContext,
  p: HeadFrameFigures,
  out: SettingOut,
  at: Marks,
  bust: NonNullable<SchoolContext['form']['bust']>,
  s: number,
  trunk: readonly string[],
): void {
  const reach = (bust.measures.shoulderBreadth * s) / 2 - context.clayOver('chest') - 0.035 * s;
  const drop = bust.levels.shoulder - 0.03 * s;
  const allowances: Allowance[] = [
    { what: 'one turn round the pipe', at: 'start', length: Math.PI * context.across(p.pipeStock, p.pipeSize) },
    { what: 'end loop', at: 'end', length: 10 * context.across(p.shoulderStock, p.shoulderSize) },
    ...(p.shoulderStrands > 1
      ? [{ what: 'twisting the strands, three turns', length: 24 * context.across(p.shoulderStock, p.shoulderSize) }]
      : []),
  ];
  for (const [side, sign] of [
    ['left', 1],
    ['right', -1],
  ] as const) {
    const id = `shoulder-${side}`;
    const end: Vec3 = [sign * reach, at.y, drop];
    out.node(id, end);
    out.bone(id, `${side} shoulder wire`, 'shoulder', id, [...trunk.filter((m) => m !== id), id], {
      joinFrom: p.shoulderJoin,
    });
    out.member(id, `${side} shoulder wire`, {
      stock: p.shoulderStock,
      size: p.shoulderSize,
      strands: p.shoulderStrands,
      sizedBy: { stock: 'shoulderStock', size: 'shoulderSize', strands: 'shoulderStrands' },
      bones: [id],
      allowances,
      path: [at.shoulder, [sign * reach * 0.55, at.y, at.shoulder[2] + 0.006 * s], end],
    });
  }
}

/** Arms of a bust: the shoulder wire's stock goes on through elbow and wrist, bound on at the shoulder. */
function armsOf(context: SchoolContext, p: HeadFrameFigures, out: SettingOut): void {
  const { form } = context;
  const place = new Map(form.skeleton.joints.map((j) => [j.id, j.at]));
  for (const side of ['left', 'right'] as const) {
    const top = place.get(`shoulder-${side}`);
    if (!top) continue;
    const joints = [`elbow-${side}`, `wrist-${side}`].filter((j) => place.has(j));
    const masses = form.masses.filter((m) => ['shoulder', 'elbow', 'wrist'].some((j) => m.joint === `${j}-${side}`));
    // A wire goes to the knuckles of a hand that has fingers; else the arm ends where its last mass does.
    const last = masses[masses.length - 1];
    const knuckle = masses.find((m) => m.id === `finger-middle-1-${side}`);
    const tip: Vec3 = knuckle
      ? [...knuckle.at]
      : last?.shape.kind === 'round-cone'
        ? [last.at[0] + last.shape.reach[0], last.at[1] + last.shape.reach[1], last.at[2] + last.shape.reach[2]]
        : (last?.at ?? top);
    const path = [place.get(`shoulder-${side}`)!, ...joints.map((j) => place.get(j)!), tip];
    const names = ['upper arm', 'forearm', 'hand'];
    const bones: string[] = [];
    let below = `shoulder-${side}`;
    path.forEach((at, i) => {
      const id = `arm-${side}-${i}`;
      out.node(id, at);
      const own = i === 0 ? [] : massesOn(form, [`${['shoulder', 'elbow', 'wrist'][i - 1] ?? ''}-${side}`]);
      out.bone(
        id,
        i === 0 ? `root of the ${side} arm` : `${names[i - 1] ?? 'arm'} wire, ${side}`,
        below,
        id,
        own,
        i === 0 ? { joinFrom: p.shoulderJoin } : {},
      );
      bones.push(id);
      below = id;
    });
    const start = out.nodes.find((n) => n.id === out.id(`shoulder-${side}`))?.at ?? top;
    const wire = context.across(p.shoulderStock, p.shoulderSize);
    out.member(`arm-${side}`, `${side} arm wire`, {
      stock: p.shoulderStock,
      size: p.shoulderSize,
      strands: p.shoulderStrands,
      sizedBy: { stock: 'shoulderStock', size: 'shoulderSize', strands: 'shoulderStrands' },
      path: [start, ...path],
      bones,
      allowances: [
        { what: 'bound along the shoulder wire', at: 'start', length: 12 * wire },
        { what: 'end loop', at: 'end', length: 6 * wire },
      ],
    });
  }
}

function scaleTo(v: Vec3, length: number): Vec3 {
  const n = Math.hypot(v[0], v[1], v[2]) || 1;
  return [(v[0] / n) * length, (v[1] / n) * length, (v[2] / n) * length];
}
