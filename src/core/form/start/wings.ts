import type { Mass } from '../../document';
import { add, cross, mix, norm, scale, subtract, unit, type Vec3 } from '../../quantity';
import { turnOf } from '../turn';
import type { Joint } from '../skeleton';
import { ball, limb } from './start-form';

export const wingHolds = [
  { id: 'none', name: 'none' },
  { id: 'folded', name: 'folded' },
  { id: 'spread', name: 'spread' },
] as const;
export const wingKinds = [
  { id: 'feathers', name: 'feathers' },
  { id: 'skin', name: 'skin over fingers' },
] as const;
export type WingKind = (typeof wingKinds)[number]['id'];

/** The shoulder of the left wing, what it hangs on, its reach to the tip, and how thick its arm is there. */
export interface WingOf {
  readonly root: Vec3;
  readonly joint: string;
  readonly reach: number;
  readonly thick: number;
}

/** A flat plate from one place to another, as broad as said across it, lying in the plane that `across` gives with it. */
function plate(c: Parameters<typeof ball>[0], from: Vec3, to: Vec3, across: Vec3, broad: number, thick: number): Mass {
  const x = unit(subtract(to, from));
  const z = unit(cross(x, across));
  const y = cross(z, x);
  // Columns are the plate's own axes.
  const turn = turnOf([x[0], y[0], z[0], x[1], y[1], z[1], x[2], y[2], z[2]]);
  return ball({ ...c, turn }, mix(from, to, 0.5), [norm(subtract(to, from)) / 2, broad / 2, thick / 2]);
}

const part = (id: string, name: string, joint: string, blend: number) => ({
  id: `${id}-left`,
  name: `${name}, left`,
  region: 'wings',
  joint,
  blend,
});

/** Held out to the side: arm and hand as a bird's or a bat's, with what fills the wing behind them. */
export function spreadWing(kind: WingKind, { root, joint, reach, thick }: WingOf): { masses: Mass[]; joints: Joint[] } {
  const at = (out: number, back: number, up: number): Vec3 => add(root, [out * reach, back * reach, up * reach]);
  const elbow = at(0.26, 0.1, 0.1);
  const wrist = at(0.5, -0.1, 0.22);
  const tip = at(0.97, 0.14, 0.2);
  const hand = mix(wrist, tip, 0.42);
  const flat = Math.max(thick * 0.5, reach * 0.014);
  const masses: Mass[] = [
    limb(part('wing-arm', 'upper arm of the wing', 'wing-left', thick * 0.5), root, elbow, thick, thick * 0.78),
    limb(
      part('wing-forearm', 'forearm of the wing', 'wing-elbow-left', thick * 0.3),
      elbow,
      wrist,
      thick * 0.78,
      thick * 0.62,
    ),
    limb(part('wing-hand', 'hand of the wing', 'pinion-left', thick * 0.3), wrist, hand, thick * 0.62, thick * 0.45),
  ];
  const blend = flat * 0.6;
  if (kind === 'feathers') {
    // Feathers fan from back along the body to out past the tip.
    const fan = [
      { id: 'tertial-1', from: mix(root, elbow, 0.3), to: at(0.08, 0.42, -0.02), on: 'wing-left' },
      { id: 'tertial-2', from: mix(root, elbow, 0.8), to: at(0.2, 0.46, 0.02), on: 'wing-left' },
      { id: 'secondary-1', from: mix(elbow, wrist, 0.2), to: at(0.32, 0.46, 0.06), on: 'wing-elbow-left' },
      { id: 'secondary-2', from: mix(elbow, wrist, 0.55), to: at(0.45, 0.44, 0.09), on: 'wing-elbow-left' },
      { id: 'secondary-3', from: mix(elbow, wrist, 0.9), to: at(0.58, 0.44, 0.12), on: 'wing-elbow-left' },
      { id: 'primary-1', from: mix(wrist, hand, 0.2), to: at(0.72, 0.42, 0.14), on: 'pinion-left' },
      { id: 'primary-2', from: mix(wrist, hand, 0.5), to: at(0.86, 0.36, 0.16), on: 'pinion-left' },
      { id: 'primary-3', from: mix(wrist, hand, 0.8), to: at(0.96, 0.26, 0.18), on: 'pinion-left' },
      { id: 'primary-4', from: hand, to: at(1, 0.13, 0.2), on: 'pinion-left' },
    ];
    for (const [k, f] of fan.entries()) {
      const way = subtract(f.to, f.from);
      masses.push(
        plate(
          part(`feather-${f.id}`, `feather ${k + 1} of the wing`, f.on, blend),
          add(f.from, scale(way, -0.12)),
          f.to,
          cross(way, [0, 0, 1]),
          Math.min(0.2 * reach, 0.42 * norm(way)),
          flat * 1.7,
        ),
      );
    }
    masses.push(
      plate(
        part('wing-plate', 'coverts of the wing', 'wing-elbow-left', blend),
        at(0.1, 0.13, 0.05),
        mix(wrist, hand, 0.5),
        [0, 1, -0.1],
        0.24 * reach,
        flat * 2,
      ),
    );
  } else {
    const fingers: readonly Vec3[] = [tip, at(0.86, 0.5, 0.06), at(0.54, 0.6, -0.02), at(0.06, 0.48, -0.1)];
    fingers
      .slice(0, 3)
      .forEach((end, k) =>
        masses.push(
          limb(
            part(`wing-finger-${k + 1}`, `finger ${k + 1} of the wing`, 'pinion-left', thick * 0.15),
            wrist,
            end,
            thick * 0.5,
            Math.max(thick * 0.22, flat * 0.5),
          ),
        ),
      );
    fingers.slice(1).forEach((end, k) => {
      const before = fingers[k]!;
      const edge = subtract(end, before);
      masses.push(
        plate(
          part(`wing-skin-${k + 1}`, `skin ${k + 1} of the wing`, k < 2 ? 'pinion-left' : 'wing-elbow-left', blend),
          mix(k < 2 ? wrist : mix(elbow, wrist, 0.4), mix(before, end, 0.5), -0.05),
          mix(before, end, 0.5),
          edge,
          norm(edge) * 0.92,
          flat * 1.3,
        ),
      );
    });
    masses.push(
      plate(
        part('wing-skin-arm', 'skin between arm and body', 'wing-left', blend),
        add(mix(root, elbow, 0.4), [0, -0.02 * reach, 0]),
        at(0.2, 0.34, -0.02),
        [1, 0, 0],
        0.34 * reach,
        flat * 1.3,
      ),
    );
  }
  const j = (id: string, name: string, parent: string, place: Vec3): Joint => ({ id, name, parent, at: place });
  return {
    masses,
    joints: [
      j('wing-left', 'shoulder of the wing, left', joint, root),
      j('wing-elbow-left', 'elbow of the wing, left', 'wing-left', elbow),
      j('pinion-left', 'bend of the wing, left', 'wing-elbow-left', wrist),
      j('wing-tip-left', 'hand of the wing, left', 'pinion-left', mix(wrist, hand, 0.9)),
    ],
  };
}

/** Laid along the body: `along` runs from the shoulder to the tail, `down` over the flank; both of length 1. */
export function foldedWing(
  kind: WingKind,
  { root, joint, reach, thick }: WingOf,
  along: Vec3,
  down: Vec3,
): { masses: Mass[]; joints: Joint[] } {
  const flat = Math.max(thick * 0.5, reach * 0.03);
  const at = (back: number, low: number, out = 0): Vec3 =>
    add(root, add(add(scale(along, back * reach), scale(down, low * reach)), [out * reach, 0, 0]));
  const masses: Mass[] = [
    plate(
      part('wing-plate', 'wing', joint, thick * 0.4),
      at(-0.08, 0.12),
      at(0.68, 0.2),
      down,
      0.44 * reach,
      flat * 2.6,
    ),
    limb(
      part('wing-edge', 'bend of the wing', joint, thick * 0.8),
      at(-0.05, 0.03),
      at(0.03, 0.25),
      thick * 0.42,
      thick * 0.36,
    ),
  ];
  if (kind === 'feathers')
    for (const [k, low] of [0.08, 0.17, 0.26, 0.34].entries())
      masses.push(
        plate(
          part(`feather-${k + 1}`, `feather ${k + 1} of the wing`, joint, flat * 0.3),
          at(0.3 - 0.03 * k, low, 0.01),
          at(1.0 - 0.13 * k, low * 0.75 + 0.03, -0.06),
          down,
          0.13 * reach,
          flat * 1.5,
        ),
      );
  else {
    const wrist = at(0.04, -0.1, 0.05);
    masses.push(
      limb(
        part('wing-arm', 'upper arm of the wing', joint, thick * 0.4),
        root,
        at(0.46, 0.16, 0.05),
        thick * 0.7,
        thick * 0.6,
      ),
      limb(
        part('wing-forearm', 'forearm of the wing', joint, thick * 0.2),
        at(0.46, 0.16, 0.05),
        wrist,
        thick * 0.6,
        thick * 0.5,
      ),
      ...[0, 1, 2].map((k) =>
        limb(
          part(`wing-finger-${k + 1}`, `finger ${k + 1} of the wing`, joint, thick * 0.2),
          wrist,
          at(0.98 - 0.12 * k, 0.08 + 0.1 * k, -0.02),
          thick * 0.45,
          thick * 0.25,
        ),
      ),
    );
  }
  return { masses, joints: [] };
}
