import { z } from 'zod';
import { joinIds } from '../catalogue';
import { DistanceField } from '../form';
import { add, mix, norm, subtract, type Vec3 } from '../quantity';
import { boardFields, boardParameters, boardUnder } from './base';
import { setOutCage } from './hoops';
import { mainChain, nearestSize } from './limbs';
import { heightOf, spanOfForm, type School, type SchoolContext } from './school';
import { SettingOut } from './setting-out';

/**
 * Board, foam and mesh: a large head in stacked foam on a beam that reaches out of a timber frame, under wire mesh tied
 * to hoops and stringers. A counterweight at the back of the frame keeps it from tipping on its nose.
 */
const parameters = z.strictObject({
  bulk: z.string().default('polystyrene-expanded'),
  wrap: z.string().default('mesh'),
  beamStock: z.string().default('steel-square-tube'),
  /** Empty lets the height of the form decide. */
  beamSize: z.string().default(''),
  beamStrands: z.number().int().min(1).max(4).default(1),
  frameStock: z.string().default('softwood-batten'),
  frameSize: z.string().default('45x95mm'),
  frameStrands: z.number().int().min(1).max(6).default(4),
  hoopStock: z.string().default('mild-steel'),
  hoopSize: z.string().default(''),
  hoops: z.number().int().min(3).max(24).default(8),
  around: z.number().int().min(4).max(24).default(12),
  beamJoin: z.enum(joinIds).default('bolted'),
  ...boardParameters,
});
export type BoardFoamMeshParameters = z.infer<typeof parameters>;

function make(context: SchoolContext, p: BoardFoamMeshParameters) {
  const { form } = context;
  const out = new SettingOut('frame');
  const { joints } = form.skeleton;
  const at = (id: string): Vec3 => joints.find((j) => j.id === id)?.at ?? [0, 0, 0];
  const chain = mainChain(joints);
  const [root = '', neck = '', ...rest] = chain;
  const everything = form.masses.map((m) => m.id);
  const foot = at(root),
    top = at(neck);
  const span = spanOfForm(form);
  const length = span.high[1] - span.low[1];
  // The stay comes down as far behind the upright as the frame is high, or half the piece where it stands low.
  const back: Vec3 = [foot[0], foot[1] + Math.max(0.25 * length, 0.75 * (top[2] - foot[2])), foot[2]];
  out.node('foot', foot, true);
  out.node('back', back, true);
  out.node('top', top);
  out.bone('upright', 'upright of the frame', 'foot', 'top', [], { joinFrom: p.beamJoin });
  out.bone('stay', 'stay of the frame', 'back', 'top', [], { joinFrom: p.beamJoin, joinTo: p.beamJoin });
  const timber = {
    stock: p.frameStock,
    size: p.frameSize,
    strands: p.frameStrands,
    bonded: true,
    bare: true,
    sizedBy: { stock: 'frameStock', size: 'frameSize', strands: 'frameStrands', together: true },
  } as const;
  out.member('upright', 'upright of the frame', {
    ...timber,
    path: [foot, top],
    bones: ['upright'],
    allowances: [{ what: 'lap at the board', length: 0.1 }],
  });
  out.member('stay', 'stay of the frame', {
    ...timber,
    path: [back, top],
    bones: ['stay'],
    allowances: [{ what: 'cut at an angle, both ends', length: 0.15 }],
  });
  const tip = rest[rest.length - 1] ?? neck,
    before = rest.length > 1 ? rest[rest.length - 2]! : neck;
  const beam = [
    { id: 'top', at: top },
    ...rest.map((id) => ({ id, at: id === tip ? mix(at(before), at(tip), 0.8) : at(id) })),
  ];
  for (const b of beam.slice(1)) out.node(b.id, b.at);
  const widest = Math.max(...[0, 1, 2].map((k) => span.high[k]! - span.low[k]!));
  const clay = Math.max(...form.regions.map((r) => context.clayOver(r)));
  const hoopSize = p.hoopSize || nearestSize(context, p.hoopStock, heightOf(form) / 200);
  const hoop = context.across(p.hoopStock, hoopSize);
  const bones = setOutCage(context, out, {
    prefix: 'cage',
    beam,
    hoops: p.hoops,
    around: p.around,
    under: clay + hoop * 1.5 + 0.01,
    stock: p.hoopStock,
    size: hoopSize,
    spokeEvery: Math.max(1, Math.round(p.around / 4)),
    masses: everything,
    most: widest,
    bent: context.toCarry,
  });
  setOutStalks(context, { stock: p.hoopStock, size: hoopSize, across: hoop }, out);
  const first = out.bones.findIndex((b) => b.id === out.id(bones[0] ?? ''));
  if (out.bones[first])
    out.bones[first] = { ...(out.bones[first] as (typeof out.bones)[number]), joinFrom: p.beamJoin };
  out.member('beam', 'beam through the piece', {
    stock: p.beamStock,
    size: p.beamSize || nearestSize(context, p.beamStock, heightOf(form) / 28),
    strands: p.beamStrands,
    sizedBy: { stock: 'beamStock', size: 'beamSize', strands: 'beamStrands', together: true },
    path: beam.map((b) => b.at),
    bones,
    bare: true,
    allowances: [{ what: 'bolted to the frame, behind its top', length: 0.3 }],
  });
  out.fitting('bolts', 'bolts through the frame, M10', 6, 0.09, top);
  const width = Math.max(0.4, (span.high[0] - span.low[0]) * 0.9);
  // The board runs from under the chin to behind the stay.
  const front = Math.min(foot[1], span.low[1] * 0.5),
    behind = Math.max(back[1], span.high[1]) + 0.1;
  const depth = p.boardDepth || Math.ceil((behind - front) * 100) / 100;
  const boardBack = p.boardBack || (front + behind) / 2;
  // Upright and stay are bolted to bearers across the board, which share their pull over half a metre.
  const plate = { diameter: 0.5, mass: 2.4, circle: 0.44, screws: 12 };
  return out.finish(
    boardUnder(context, { ...p, boardBack, boardDepth: depth }, add(foot, [0, 0, 0]), { width, depth }, plate),
    p,
  );
}

/** What stands out beyond the cage, a tusk or a horn, gets a bar of its own from the nearest joint of the cage to near its tip. */
function setOutStalks(
  context: SchoolContext,
  bar: { readonly stock: string; readonly size: string; readonly across: number },
  out: SettingOut,
): void {
  const { masses, countedWith } = context.form;
  const finely = countedWith.some((rep, i) => rep !== i);
  for (const [i, mass] of masses.entries()) {
    if (mass.shape.kind !== 'round-cone') continue;
    if (finely && !standsOut(context, i, bar.across)) continue;
    const from: Vec3 = mass.at,
      to = add(mass.at, mass.shape.reach);
    const away = (at: Vec3) =>
      out.nodes.reduce<{ id: string; d: number }>(
        (best, n) => {
          const d = norm(subtract(n.at, at));
          return d < best.d ? { id: n.id, d } : best;
        },
        { id: '', d: Infinity },
      );
    const tip = mix(from, to, 0.85);
    if (away(tip).d < 2.5 * Math.max(mass.shape.radiusFrom, mass.shape.radiusTo) || context.depthAt(tip) < bar.across)
      continue;
    const root = away(from);
    const id = `stalk-${mass.id.replaceAll('/', '-')}`;
    const apart = root.d > 1e-3;
    out.node(`${id}-tip`, tip);
    if (apart) {
      out.node(id, from);
      out.bones.push({
        id: out.id(`${id}-root`),
        name: `root of the bar in the ${mass.name}`,
        from: root.id,
        to: out.id(id),
        masses: [mass.id],
        joinFrom: 'welded',
        joinTo: 'welded',
      });
    }
    out.bones.push({
      id: out.id(id),
      name: `bar in the ${mass.name}`,
      from: apart ? out.id(id) : root.id,
      to: out.id(`${id}-tip`),
      masses: [mass.id],
      joinFrom: 'welded',
      joinTo: 'welded',
    });
    const start = out.nodes.find((n) => n.id === root.id)?.at ?? from;
    out.member(id, `bar in the ${mass.name}`, {
      stock: bar.stock,
      size: bar.size,
      sizedBy: { stock: 'hoopStock', size: 'hoopSize' },
      path: apart ? [start, from, tip] : [start, tip],
      bones: apart ? [`${id}-root`, id] : [id],
      allowances: [{ what: 'welded or bound to the cage', length: 0.08 }],
    });
  }
}

/** Of a finely made form: thick enough for a bar under its clay, and with its end outside of every other mass. */
function standsOut(context: SchoolContext, index: number, bar: number): boolean {
  const { masses } = context.form;
  const mass = masses[index]!;
  if (mass.shape.kind !== 'round-cone') return false;
  const { reach, radiusFrom, radiusTo } = mass.shape;
  const thick = 0.15 * radiusFrom + 0.85 * radiusTo;
  if (thick < context.clayOver(mass.region) + bar / 2) return false;
  const [x, y, z] = mix(mass.at, add(mass.at, reach), 0.85);
  const others = new DistanceField(masses.filter((_, i) => i !== index));
  return others.at(x, y, z, others.all()) > 0;
}

export const boardFoamMesh: School<BoardFoamMeshParameters> = {
  kind: 'board-foam-mesh',
  name: 'timber frame, foam and mesh',
  when: 'Large heads hung out in front of a frame: light inside, a key for the clay all over, weight at the back to balance.',
  how: 'A beam bolted to an upright and its stay runs through neck and head; hoops and stringers stand round it just under the clay, foam is stacked inside them and mesh tied over.',
  cuts: 'a lap of 100 mm at the board, 300 mm of beam behind the frame, 60 mm of overlap on a hoop, 80 mm turned over on a stringer or spoke, and 5 % for trim',
  traits: { posedLater: 'no', reused: 'the upright' },
  parameters,
  fields: [
    { kind: 'heading', label: 'Core' },
    { kind: 'bulk', key: 'bulk', label: 'Stacked from' },
    { kind: 'wrap', key: 'wrap', label: 'Covered with' },
    { kind: 'heading', label: 'Frame' },
    { kind: 'stock', key: 'frameStock', size: 'frameSize', label: 'Upright and stay', from: 'bar' },
    { kind: 'number', key: 'frameStrands', label: 'Timbers side by side' },
    { kind: 'stock', key: 'beamStock', size: 'beamSize', label: 'Beam', from: 'upright' },
    { kind: 'number', key: 'beamStrands', label: 'Tubes side by side' },
    { kind: 'join', key: 'beamJoin', label: 'Beam and frame joined by' },
    { kind: 'heading', label: 'Cage' },
    { kind: 'stock', key: 'hoopStock', size: 'hoopSize', label: 'Hoops and stringers', from: 'bar' },
    { kind: 'number', key: 'hoops', label: 'Hoops' },
    { kind: 'number', key: 'around', label: 'Stringers round it' },
    ...boardFields,
  ],
  fits: (form) => {
    const chain = mainChain(form.skeleton.joints);
    const root = form.skeleton.joints.find((j) => j.id === chain[0]);
    return form.kind === 'long-neck' && chain.length >= 3 && root?.ground === true;
  },
  make,
};
