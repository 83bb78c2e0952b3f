import type { Mass } from '../../document';
import { add, mix, norm, scale, type Vec3 } from '../../quantity';
import { massBox } from '../distance';
import { angle, choice, length, share, type MeasuresOf } from '../measure';
import { mirrorMass } from '../mirror';
import { stretchedOver } from '../squeeze';
import { triple } from '../stretch';
import { rotate, rotationOf } from '../turn';
import { headChoices, headOfType } from './head-types';
import { handHolds, handMasses } from './human-hand';
import { headMasses } from './human-head';
import { setIn } from './set-in';
import { ball, block, limb, startForm, type FormType, type MadeForm } from './start-form';

/** A face or a hand that stands out of a tile, its depth squeezed; the tile leans on a block as it is worked on. */
const reliefMeasures = {
  subject: choice(
    'What it shows',
    [
      { id: 'face', name: 'a face' },
      { id: 'hand', name: 'a hand' },
    ],
    'face',
  ),
  face: choice('Face of', headChoices, 'man'),
  turned: angle('Face turned aside, from facing you to a profile', 0, 90, 0),
  hold: choice('Hand', handHolds, 'open'),
  subjectHeight: length('Face or hand, high', 0.03, 1, 0.232),
  depth: share('Depth left, of the whole', 0.15, 1, 0.5),
  tileWidth: length('Tile, wide', 0.04, 1.5, 0.26),
  tileHeight: length('Tile, high', 0.04, 1.5, 0.34),
  tileThick: length('Tile, thick', 0.008, 0.2, 0.024),
  leans: angle('Tile stands, from lying to upright', 20, 88, 68),
};
type Relief = MeasuresOf<typeof reliefMeasures>;

const types: readonly FormType[] = [
  { id: 'face', name: 'a face, from the front', measures: {} },
  {
    id: 'profile',
    name: 'a profile, as on a medal',
    measures: { face: 'old-man', turned: 90, depth: 0.4, tileWidth: 0.32, tileHeight: 0.32 },
  },
  {
    id: 'hand',
    name: 'a hand',
    measures: { subject: 'hand', subjectHeight: 0.2, tileWidth: 0.2, tileHeight: 0.28, depth: 0.8 },
  },
  {
    id: 'beast',
    name: 'a beast, for a door or a fountain',
    measures: { face: 'beast', depth: 0.6, tileWidth: 0.36, tileHeight: 0.48 },
  },
];

/** Long masses flatten only as balls do: each as a row of them, from one end to the other. */
function asBalls(mass: Mass): Mass[] {
  if (mass.shape.kind !== 'round-cone') return [mass];
  const { radiusFrom, radiusTo } = mass.shape;
  const reach = rotate(rotationOf(mass.turn), mass.shape.reach);
  const long = norm(reach);
  const steps = Math.min(5, Math.max(2, Math.round(long / (1.2 * Math.max(radiusFrom, radiusTo)))));
  const flat = Math.hypot(reach[0], reach[1]);
  const along: Vec3 = [
    0,
    (-Math.atan2(reach[2], flat) * 180) / Math.PI,
    (Math.atan2(reach[1], reach[0]) * 180) / Math.PI,
  ];
  return Array.from({ length: steps + 1 }, (_, k): Mass => {
    const r = radiusFrom + ((radiusTo - radiusFrom) * k) / steps;
    const inner = k > 0 && k < steps;
    return ball(
      {
        id: k === 0 ? mass.id : `${mass.id}-${k + 1}`,
        name: k === 0 ? mass.name : `${mass.name}, part ${k + 1}`,
        region: mass.region,
        joint: 'relief',
        blend: mass.blend,
        turn: along,
      },
      add(mass.at, scale(reach, k / steps)),
      [inner ? Math.max(r, (0.8 * long) / steps) : r, r, r],
    );
  });
}

/** Squeezed from behind, its foremost place kept, until its back lies no deeper than said. */
function backWithin(mass: Mass, deepest: number): Mass {
  if (mass.shape.kind !== 'ellipsoid') return mass;
  const r = rotationOf(mass.turn);
  const { radii } = mass.shape;
  const reach = Math.hypot(r[3] * radii[0], r[4] * radii[1], r[5] * radii[2]);
  const over = mass.at[1] + reach - deepest;
  if (over <= 0) return mass;
  const by = Math.max(0.05, 1 - over / (2 * reach));
  const flat = stretchedOver({ ...mass, at: [mass.at[0], 0, mass.at[2]] }, [1, by, 1]);
  return { ...flat, blend: mass.blend, at: [mass.at[0], mass.at[1] - reach + by * reach, mass.at[2]] };
}

/** What it shows, life size: up along z, out of the tile towards y below 0, the tile's face at y = 0. Both sides written out. */
function subject(m: Relief): { masses: Mass[]; high: number } {
  if (m.subject === 'hand') {
    const high = 0.2;
    const hand = handMasses(
      { wrist: [0, -0.008, -0.42 * high], along: [0, 0, 1], palm: [0, 1, 0], joint: 'relief', region: 'relief' },
      0.9 * high,
      m.hold,
      1.1,
    );
    const wrist = limb(
      { id: 'wrist-left', name: 'wrist, left', region: 'relief', joint: 'relief', blend: 0.01 },
      [0, -0.002, -0.56 * high],
      [0, -0.006, -0.4 * high],
      0.026,
      0.024,
    );
    return { masses: named([wrist, ...hand]), high };
  }
  const own = headOfType(m.face);
  const both = headMasses(own, -own.headHeight / 2, 0).flatMap((mass) =>
    mass.id.endsWith('-left') ? [mass, mirrorMass(mass, (id) => id)] : [mass],
  );
  const r = own.jawBreadth * 0.36;
  const neck = limb(
    { id: 'neck', name: 'neck', region: 'relief', joint: 'relief', blend: 0.02 },
    [0, 0.012, -own.headHeight * 0.6],
    [0, 0.004, -own.headHeight * 0.36],
    r * 1.08,
    r,
  );
  const facing = setIn([neck, ...both], { at: [0, 0, 0], turn: [0, 0, -m.turned] });
  // From the front the tile cuts the head at the ears; in profile through its middle.
  const cut = (1 - m.turned / 90) * 0.012;
  return {
    masses: named(
      facing.map((mass) => ({ ...mass, at: [mass.at[0], mass.at[1] - cut, mass.at[2]] as [number, number, number] })),
    ),
    high: own.headHeight,
  };
}

/** Left and right are apart in a relief: no mass stands for two. */
function named(masses: readonly Mass[]): Mass[] {
  return masses.map((m) => ({
    ...m,
    id: m.id.replace(/^(.*)-(left|right)$/, '$2-$1'),
    region: 'relief',
    joint: 'relief',
  }));
}

/** How far it reaches up, down and to the further side, life size. */
function endsOf(masses: readonly Mass[]): { up: number; down: number; aside: number } {
  const boxes = masses.map((mass) => massBox(mass));
  return {
    up: Math.max(...boxes.map((b) => b.high[2])),
    down: Math.min(...boxes.map((b) => b.low[2])),
    aside: Math.max(...boxes.map((b) => Math.max(-b.low[0], b.high[0]))),
  };
}

function make(m: Relief): MadeForm {
  const { masses, high } = subject(m);
  // As high as asked for, or as fits the tile.
  const ends = endsOf(masses);
  const size = Math.min(
    m.subjectHeight / high,
    (0.94 * m.tileHeight) / (ends.up - ends.down),
    (0.94 * m.tileWidth) / (2 * ends.aside),
  );
  const half: Vec3 = [m.tileWidth / 2, m.tileThick / 2, m.tileHeight / 2];
  const flattened = masses
    .flatMap(asBalls)
    .map((mass) => stretchedOver(mass, [size, size * m.depth, size]))
    .filter((mass) => mass.at[1] < m.tileThick)
    .map((mass) => backWithin(mass, m.tileThick - 0.004));
  // About the middle of the tile's lower edge, front first.
  const up = -90 + m.leans;
  const lift = m.tileHeight / 2;
  const rise = (m.leans * Math.PI) / 180;
  const setting = {
    at: [0, 0.5 * m.tileThick, 0.006 + m.tileThick * Math.cos(rise)] as Vec3,
    turn: [up, 0, 0] as Vec3,
  };
  const tile = block(
    { id: 'tile', name: 'tile', region: 'tile', joint: 'relief', blend: 0.004 },
    [0, half[1], lift],
    half,
    Math.min(0.006, half[1] * 0.5),
  );
  const shown = flattened.map((mass) => ({
    ...mass,
    at: triple(add(mass.at, [0, 0, lift - (size * (ends.up + ends.down)) / 2])),
    blend: Math.min(mass.blend, 0.02 * size),
  }));
  // A block that it leans on stands behind it, up to six tenths of its height.
  const blockHigh = 0.6 * m.tileHeight * Math.sin(rise);
  const deep = Math.max(0.03, 0.16 * m.tileHeight);
  const front = 0.5 * m.tileThick + m.tileThick * Math.sin(rise) + (blockHigh - 0.01) / Math.tan(rise) - 0.008;
  const middle: Vec3 = [0, front + deep, blockHigh / 2];
  const wedge = block(
    { id: 'wedge', name: 'block behind the tile', region: 'wedge', joint: 'base', blend: 0.002, role: 'bare' },
    middle,
    [m.tileWidth * 0.3, deep, blockHigh / 2],
    0.004,
  );
  const placed = setIn([tile, ...shown], setting);
  const at = placed[0]!.at;
  return {
    masses: [wedge, ...placed],
    joints: [
      { id: 'base', name: 'foot of the block', parent: null, at: [0, middle[1], 0], ground: true },
      { id: 'relief', name: 'middle of the tile', parent: 'base', at: mix(at, middle, 0.3) },
    ],
    landmarks: [{ id: 'middle', name: 'half way up the tile', joint: 'relief', at, half: m.tileWidth * 0.56 }],
    envelopes: [],
  };
}

export const relief = startForm({
  kind: 'relief',
  name: 'relief on a tile',
  when: 'A face or a hand out of a flat ground: a plaque, a medal, a door piece.',
  usualSize: 1,
  types,
  finelyMade: true,
  measures: reliefMeasures,
  make,
});
