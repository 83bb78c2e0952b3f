import type { Mass } from '../../document';
import type { Vec3 } from '../../quantity';
import { ball, block, limb } from './start-form';

/**
 * A foot flat on the ground, about the place under its ankle: toes forward (y below 0), outward to its own left. Set
 * out in millimetres of one 262 long, heel to longest toe, and 95 broad over the knuckles: 0.152 and 0.055 of a height
 * of 1.72 m (Drillis and Contini, *Body Segment Parameters*, New York University 1966).
 */
export const ownFootLength = 0.262;

export const footWear = [
  { id: 'bare', name: 'bare, with toes' },
  { id: 'shod', name: 'in a shoe' },
] as const;
export type FootWear = (typeof footWear)[number]['id'];

/** Knuckle and tip of each toe, forward and outward, and how thick it is there. */
const toes = [
  { id: 'big', name: 'big toe', from: [124, -25], to: [188, -21], thick: [15.5, 11.5] },
  { id: 'second', name: 'second toe', from: [126, -4], to: [189, 0], thick: [10.5, 8] },
  { id: 'third', name: 'third toe', from: [121, 10], to: [178, 16], thick: [10, 7.5] },
  { id: 'fourth', name: 'fourth toe', from: [112, 23], to: [163, 30], thick: [9.5, 7.2] },
  { id: 'little', name: 'little toe', from: [101, 34], to: [145, 41], thick: [9.5, 7] },
] as const;

/** Of the left foot, at its own length, on no joint and in no region yet. */
export function footMasses(wear: FootWear): Mass[] {
  const mm = 1e-3;
  const part = (id: string, name: string, blend: number) => ({
    id: `${id}-left`,
    name: `${name}, left`,
    region: 'feet',
    joint: 'ankle-left',
    blend: blend * mm,
  });
  const at = (forward: number, outward: number, up: number): Vec3 => [outward * mm, -forward * mm, up * mm];
  const run = (
    id: string,
    name: string,
    blend: number,
    from: readonly [number, number, number],
    to: readonly [number, number, number],
    thick: readonly [number, number],
  ) => limb(part(id, name, blend), at(...from), at(...to), thick[0] * mm, thick[1] * mm);
  const ankle = [
    run('heel', 'heel', 14, [-43, 1, 30], [-2, 2, 38], [30, 32]),
    run('instep', 'instep', 14, [2, 0, 62], [100, -8, 25], [31, 20]),
    ball(part('inner-ankle', 'inner ankle', 12), at(5, -27, 76), [11 * mm, 15 * mm, 17 * mm]),
    ball(part('outer-ankle', 'outer ankle', 12), at(-6, 27, 66), [11 * mm, 14 * mm, 17 * mm]),
  ];
  if (wear === 'shod')
    return [
      ...ankle,
      ball(part('shoe-toe', 'toe of the shoe', 16), at(120, 4, 32), [52 * mm, 88 * mm, 32 * mm]),
      run('shoe-side', 'side of the shoe', 16, [-30, 2, 32], [112, 4, 30], [37, 34]),
      block(part('sole', 'sole', 3), at(62, 3, 8), [46 * mm, 138 * mm, 8 * mm], 8 * mm),
      block(part('shoe-heel', 'heel of the shoe', 3), at(-40, 2, 12), [36 * mm, 36 * mm, 12 * mm], 8 * mm),
    ];
  return [
    ...ankle,
    run('inner-edge', 'inner edge of the foot', 9, [26, -18, 34], [122, -26, 21], [19, 20.5]),
    run('middle-foot', 'middle of the foot', 9, [36, 4, 36], [120, 6, 17], [23, 17]),
    run('outer-edge', 'outer edge of the foot', 9, [-16, 16, 24], [98, 32, 15.5], [24, 15.5]),
    ...toes.map((t) =>
      run(`toe-${t.id}`, t.name, 3, [t.from[0], t.from[1], t.thick[0] + 0.5], [t.to[0], t.to[1], t.thick[1]], t.thick),
    ),
  ];
}
