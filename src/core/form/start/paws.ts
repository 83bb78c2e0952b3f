import type { Mass } from '../../document';
import { add, type Vec3 } from '../../quantity';
import { ball, drum, limb } from './start-form';

/** What an animal's leg ends in. */
export const pawKinds = [
  { id: 'paws', name: 'paws' },
  { id: 'claws', name: 'paws with claws' },
  { id: 'hooves', name: 'hooves' },
  { id: 'webbed', name: 'webbed' },
] as const;
export type PawKind = (typeof pawKinds)[number]['id'];

/** Which way it points and where it hangs. `id` and `name` say whose it is: "fore", "forefoot". */
interface PawOf {
  readonly id: string;
  readonly name: string;
  readonly joint: string;
  readonly region: string;
}

/** A paw flat on the ground under a place, of the left side; `thick` is the radius of the leg that comes down into it. */
export function pawMasses(kind: PawKind, under: Vec3, thick: number, of: PawOf): Mass[] {
  const part = (id: string, name: string, blend: number) => ({
    id: `${of.id}-${id}-left`,
    name: `${name} of the ${of.name}, left`,
    region: of.region,
    joint: of.joint,
    blend: blend * thick,
  });
  const ground: Vec3 = [under[0], under[1], 0];
  const at = (out: number, forward: number, up: number): Vec3 =>
    add(ground, [out * thick, -forward * thick, up * thick]);
  if (kind === 'hooves')
    return [
      ball(part('pastern', 'pastern', 0.6), at(0, 0.15, 1.75), [thick * 1.02, thick * 1.05, thick]),
      drum(part('hoof', 'hoof', 0.25), at(0, 0.3, 0.7), thick * 1.25, thick * 0.7, thick * 0.25),
    ];
  const wide = kind === 'webbed' ? 1.5 : 1;
  const masses = [
    ball(part('pad', 'pad', 0.7), at(0, 0.35, 0.85), [thick * 1.15 * wide, thick * 1.5, thick * 0.85]),
    limb(part('heel', 'heel', 0.7), at(0, -0.25, 1), at(0, 0.4, 1), thick * 0.95, thick * 0.95),
  ];
  for (const k of [0, 1, 2, 3]) {
    const side = (k - 1.5) / 1.5;
    const out = side * 0.95 * wide;
    const forward = 2.15 - 0.45 * side * side;
    masses.push(
      limb(
        part(`toe-${k + 1}`, `toe ${k + 1}`, 0.18),
        at(out * 0.75, forward - 0.75, 0.66),
        at(out * 1.08, forward, 0.48),
        thick * 0.44,
        thick * 0.48,
      ),
    );
    if (kind === 'claws')
      masses.push(
        limb(
          part(`claw-${k + 1}`, `claw ${k + 1}`, 0.08),
          at(out * 1.1, forward + 0.3, 0.62),
          at(out * 1.2, forward + 1.15, 0.2),
          thick * 0.2,
          thick * 0.1,
        ),
      );
  }
  if (kind === 'webbed')
    masses.push(ball(part('web', 'web', 0.2), at(0, 1.55, 0.34), [thick * 1.55, thick * 0.85, thick * 0.32]));
  return masses;
}
