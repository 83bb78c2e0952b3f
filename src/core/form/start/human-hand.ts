import type { Mass } from '../../document';
import { add, cross, scale, type Vec3 } from '../../quantity';
import { limb } from './start-form';

/**
 * A hand of palm and jointed fingers, held as a few words say. Bones are those of Buryanov and Kotiuk, "Proportions of
 * hand segments", Int. J. Morphol. 28 (2010) 755-758: millimetres of a hand from the wrist to the tip of the middle finger.
 */
interface Finger {
  readonly id: string;
  readonly name: string;
  /** Wrist to knuckle, then the bones beyond it. */
  readonly metacarpal: number;
  readonly bones: readonly [number, number, number];
  /** Of the knuckle, across the hand: towards the thumb above 0. */
  readonly across: number;
  /** Degrees it splays from the hand's line when open. */
  readonly splay: number;
  readonly thick: number;
}
const fingers: readonly Finger[] = [
  { id: 'index', name: 'first finger', metacarpal: 68.1, bones: [39.8, 22.4, 15.8], across: 27, splay: 8, thick: 8.6 },
  { id: 'middle', name: 'middle finger', metacarpal: 64.6, bones: [44.6, 26.3, 17.4], across: 8, splay: 1, thick: 8.8 },
  { id: 'ring', name: 'ring finger', metacarpal: 58, bones: [41.4, 25.7, 17.3], across: -11, splay: -6, thick: 8.2 },
  {
    id: 'little',
    name: 'little finger',
    metacarpal: 53.7,
    bones: [32.7, 18.1, 16],
    across: -28,
    splay: -14,
    thick: 7.2,
  },
];
const thumb = { metacarpal: 46.2, bones: [31.6, 21.7] as const, thick: 10 };
/** The carpal bones lie between the wrist and the metacarpals; skin and pad stand past the last bone. */
const carpus = 26;
const pad = 6;
/** Of the hand above: wrist to the tip of the middle finger, and its breadth over the knuckles. */
const ownLength = carpus + 64.6 + 44.6 + 26.3 + 17.4 + pad;
const ownBreadth = 88;

export const handHolds = [
  { id: 'relaxed', name: 'hanging loose' },
  { id: 'open', name: 'open' },
  { id: 'fist', name: 'a fist' },
  { id: 'holding', name: 'round a staff' },
  { id: 'pointing', name: 'pointing' },
] as const;
export type HandHold = (typeof handHolds)[number]['id'];

/** Degrees each joint of a finger bends toward the palm; a share of the splay; how far the thumb comes over the palm. */
interface Held {
  readonly bends: readonly [number, number, number];
  readonly index?: readonly [number, number, number];
  readonly splay: number;
  readonly thumbOver: number;
  readonly thumbBends: readonly [number, number];
}
const held: Readonly<Record<HandHold, Held>> = {
  relaxed: { bends: [22, 28, 18], splay: 0.4, thumbOver: 30, thumbBends: [12, 12] },
  open: { bends: [3, 4, 3], splay: 1, thumbOver: 5, thumbBends: [4, 4] },
  fist: { bends: [78, 92, 62], splay: 0, thumbOver: 58, thumbBends: [34, 46] },
  holding: { bends: [58, 62, 42], splay: 0.1, thumbOver: 62, thumbBends: [26, 34] },
  pointing: { bends: [78, 92, 62], index: [2, 3, 2], splay: 0, thumbOver: 52, thumbBends: [30, 40] },
};

export interface HandPlace {
  readonly wrist: Vec3;
  /** Along the hand, away from the arm; and out of the palm. Each of length 1, square to the other. */
  readonly along: Vec3;
  readonly palm: Vec3;
  readonly joint: string;
  readonly region: string;
}

/**
 * `length` from the wrist to the tip of the middle finger when it is straight; metres. Of the left hand. `plump` is how
 * thick it is against the usual.
 */
export function handMasses(place: HandPlace, length: number, hold: HandHold, plump = 1): Mass[] {
  const u = length / (ownLength / 1000);
  const mm = u / 1000;
  // Of a left hand the thumb lies that way.
  const toThumb = cross(place.palm, place.along);
  const { bends, index, splay, thumbOver, thumbBends } = held[hold];
  const at = (along: number, across: number, out = 0): Vec3 =>
    add(
      place.wrist,
      add(scale(place.along, along * mm), add(scale(toThumb, across * mm), scale(place.palm, out * mm))),
    );
  const part = (id: string, name: string, blend: number) => ({
    id: `${id}-left`,
    name: `${name}, left`,
    region: place.region,
    joint: place.joint,
    blend: blend * mm,
  });
  const bone = (c: Parameters<typeof limb>[0], from: Vec3, to: Vec3, thickFrom: number, thickTo: number) =>
    limb(c, from, to, thickFrom * plump, thickTo * plump);
  const masses: Mass[] = [
    bone(part('hand-heel', 'heel of the hand', 8), at(0, 0), at(carpus + 6, -12, 2), 19 * mm, 17 * mm),
    bone(
      part('hand-palm-thumb', 'palm towards the thumb', 8),
      at(carpus - 6, 12, 1),
      at(carpus + 58, 19, 0),
      17 * mm,
      14 * mm,
    ),
    bone(part('hand-palm', 'palm', 8), at(carpus - 4, -8, 1), at(carpus + 48, -16, 0), 17 * mm, 13 * mm),
    bone(part('hand-back', 'back of the hand', 8), at(carpus + 10, 2, -3), at(carpus + 58, 2, -2), 15 * mm, 12 * mm),
  ];
  const run = (
    id: string,
    name: string,
    from: readonly [number, number, number],
    thick: number,
    bones: readonly number[],
    angles: readonly number[],
    aside: number,
  ) => {
    let [a, b, c] = from;
    let turn = 0;
    const side = (aside * Math.PI) / 180;
    bones.forEach((own, k) => {
      turn += ((angles[k] ?? 0) * Math.PI) / 180;
      const last = k === bones.length - 1;
      // The pad of the tip is part of the last round end.
      const long = last ? own + pad - thick * 0.8 : own;
      const next: [number, number, number] = [
        a + long * Math.cos(turn) * Math.cos(side),
        b + long * Math.cos(turn) * Math.sin(side),
        c + long * Math.sin(turn),
      ];
      masses.push(
        bone(
          part(`${id}-${k + 1}`, `${name}, ${['first', 'second', 'last'][last ? 2 : k] ?? ''} bone`, 2.5),
          at(a, b, c),
          at(...next),
          thick * (1 - 0.07 * k) * mm,
          thick * (0.95 - 0.08 * k) * mm,
        ),
      );
      [a, b, c] = next;
    });
  };
  for (const f of fingers)
    run(
      `finger-${f.id}`,
      f.name,
      [carpus + f.metacarpal, f.across, 0],
      f.thick,
      f.bones,
      f.id === 'index' && index ? index : bends,
      f.splay * splay,
    );
  // The thumb starts beside the wrist and swings from the hand's side over the palm.
  const over = (thumbOver * Math.PI) / 180;
  const out = ((46 - thumbOver * 0.45) * Math.PI) / 180;
  const root: [number, number, number] = [carpus * 0.5, 18, 4];
  const knuckle: [number, number, number] = [
    root[0] + thumb.metacarpal * Math.cos(out),
    root[1] + thumb.metacarpal * Math.sin(out) * Math.cos(over),
    root[2] + thumb.metacarpal * Math.sin(out) * Math.sin(over) + 6,
  ];
  masses.push(bone(part('thumb-ball', 'ball of the thumb', 6), at(...root), at(...knuckle), 15 * mm, 11.5 * mm));
  let from = knuckle;
  let way = out;
  thumb.bones.forEach((own, k) => {
    way -= ((thumbBends[k] ?? 0) * Math.PI) / 180;
    const long = k === 1 ? own + pad - thumb.thick * 0.8 : own;
    const to: [number, number, number] = [
      from[0] + long * Math.cos(way),
      from[1] + long * Math.sin(way) * Math.cos(over),
      from[2] + long * Math.sin(way) * Math.sin(over),
    ];
    masses.push(
      bone(
        part(`thumb-${k + 1}`, `thumb, ${k === 0 ? 'first' : 'last'} bone`, 2.5),
        at(...from),
        at(...to),
        thumb.thick * (1 - 0.08 * k) * mm,
        thumb.thick * (0.94 - 0.12 * k) * mm,
      ),
    );
    from = to;
  });
  return masses;
}

/** In the middle of the palm, where it is thickest: what a wire through the wrist can reach. */
export function palmMiddle({ wrist, along, palm }: Pick<HandPlace, 'wrist' | 'along' | 'palm'>, length: number): Vec3 {
  const mm = length / ownLength;
  const toThumb = cross(palm, along);
  return add(wrist, add(scale(along, (carpus + 4) * mm), add(scale(toThumb, -11 * mm), scale(palm, 2 * mm))));
}

/** Breadth over the knuckles of a hand of that length. */
export const handBreadth = (length: number): number => (length * ownBreadth) / ownLength;
