import type { Mass } from '../../document';
import { add, type Vec3 } from '../../quantity';
import { choice, count, length, type MeasuresOf } from '../measure';
import { rotate, rotationOf } from '../turn';
import { ball, limb, shell, softestFirst, startForm, type FormType, type MadeForm } from './start-form';

/** A hollow piece that sits on a body: its clay is the shell itself, as thick as its region's coats, open below. */
const shellMeasures = {
  sits: choice(
    'Sits on',
    [
      { id: 'shoulder', name: 'the shoulder' },
      { id: 'chest', name: 'the chest' },
    ],
    'shoulder',
  ),
  breadth: length('Across', 0.04, 0.8, 0.2),
  depth: length('Front to back', 0.04, 0.8, 0.22),
  height: length('High', 0.02, 0.6, 0.13),
  armGirth: length('Wearer’s upper arm, round', 0.15, 0.6, 0.32),
  padding: length('Room for padding under it', 0.002, 0.06, 0.012),
  pattern: choice(
    'Raised on it',
    [
      { id: 'none', name: 'nothing' },
      { id: 'ridges', name: 'ridges' },
      { id: 'whorl', name: 'a whorl, as a sea snail’s' },
      { id: 'scales', name: 'rows of scales' },
    ],
    'ridges',
  ),
  ridges: count('Ridges, turns or rows', 0, 7, 3),
  ridgeHeight: length('They stand out', 0.001, 0.06, 0.009),
  rim: length('Bead round the rim, thick', 0, 0.06, 0.014),
  spike: length('Spike or spire', 0, 0.4, 0.05),
  standHeight: length('Held above the bench while it is made', 0.01, 0.6, 0.12),
};
type Shell = MeasuresOf<typeof shellMeasures>;

const types: readonly FormType[] = [
  { id: 'pauldron', name: 'a pauldron with ridges', measures: {} },
  {
    id: 'whelk',
    name: 'a whelk on the shoulder',
    measures: {
      breadth: 0.19,
      depth: 0.24,
      height: 0.13,
      pattern: 'whorl',
      ridges: 3,
      ridgeHeight: 0.013,
      spike: 0.07,
    },
  },
  {
    id: 'scales',
    name: 'a pauldron of scales',
    measures: { pattern: 'scales', ridges: 5, ridgeHeight: 0.006, spike: 0 },
  },
  {
    id: 'breastplate',
    name: 'a breast plate',
    measures: {
      sits: 'chest',
      breadth: 0.36,
      depth: 0.22,
      height: 0.4,
      pattern: 'ridges',
      ridges: 3,
      ridgeHeight: 0.008,
      spike: 0,
    },
  },
];

function make(m: Shell): MadeForm {
  const chest = m.sits === 'chest';
  const a = m.breadth / 2,
    b = m.depth / 2;
  // On the chest the bowl faces forward: its open side is turned to the body.
  const turn: Vec3 = chest ? [90, 0, 0] : [0, 0, 0];
  const radii: Vec3 = chest ? [a, m.height / 2, b] : [a, b, m.height];
  const middle: Vec3 = [0, 0, m.standHeight + (chest ? m.height / 2 : 0.02)];
  const rotation = rotationOf(turn);
  /** On the bowl's outside: degrees down from its top and round it, and how far out of it, metres. */
  const on = (down: number, round: number, out = 0): Vec3 => {
    const p = (down * Math.PI) / 180,
      q = (round * Math.PI) / 180;
    const own: Vec3 = [
      (radii[0] + out) * Math.sin(p) * Math.cos(q),
      (radii[1] + out) * Math.sin(p) * Math.sin(q),
      (radii[2] + out) * Math.cos(p),
    ];
    return add(middle, rotate(rotation, own));
  };
  const part = (id: string, name: string, region: string, blend = 0.004) => ({
    id,
    name,
    region,
    joint: 'piece',
    blend,
  });
  const bead = (id: string, name: string, from: Vec3, to: Vec3, r: number, q = r): Mass =>
    limb(part(id, name, 'ridges', 0.001), from, to, r, q);
  const masses: Mass[] = [shell({ ...part('bowl', 'bowl of the shell', 'shell'), turn }, middle, radii, 0)];
  const h = m.ridgeHeight;
  /** Thickest in the middle of a ridge of six lengths. */
  const swell = (k: number) => h * (0.55 + 0.45 * Math.sin((Math.PI * k) / 6));
  if (m.rim > 0.002) {
    const r = m.rim / 2;
    for (let k = 0; k < 20; k++)
      masses.push(
        bead(
          `rim-${k + 1}`,
          `bead of the rim, part ${k + 1}`,
          on(88, k * 18, -0.5 * r),
          on(88, (k + 1) * 18, -0.5 * r),
          r,
        ),
      );
  }
  if (m.pattern === 'ridges')
    for (let i = 0; i < m.ridges; i++) {
      // Side by side across it, each laid along the bowl from front to back.
      const aside = (((i + 1) / (m.ridges + 1)) * 2 - 1) * 64;
      const place = (t: number): Vec3 => {
        const x = Math.sin((aside * Math.PI) / 180),
          y = Math.sin((t * Math.PI) / 180) * Math.cos((aside * Math.PI) / 180);
        const down = (Math.asin(Math.min(1, Math.hypot(x, y))) * 180) / Math.PI;
        return on(down, (Math.atan2(y, x) * 180) / Math.PI, -0.3 * h);
      };
      for (let k = 0; k < 6; k++)
        masses.push(
          bead(
            `ridge-${i + 1}-${k + 1}`,
            `ridge ${i + 1}, part ${k + 1}`,
            place(-66 + 22 * k),
            place(-44 + 22 * k),
            swell(k),
            swell(k + 1),
          ),
        );
    }
  if (m.pattern === 'whorl') {
    const parts = 14 * m.ridges;
    const place = (k: number): Vec3 => on(8 + (74 * k) / parts, (k * 360) / 14, -0.3 * h);
    for (let k = 0; k < parts; k++) {
      const r = h * (0.55 + (0.6 * k) / parts);
      masses.push(bead(`whorl-${k + 1}`, `whorl, part ${k + 1}`, place(k), place(k + 1), r, r * 1.02));
      if (k % 2 === 1)
        masses.push(
          ball(part(`knob-${k + 1}`, `knob ${(k + 1) / 2} of the whorl`, 'ridges'), place(k), [
            r * 1.5,
            r * 1.5,
            r * 1.5,
          ]),
        );
    }
  }
  if (m.pattern === 'scales')
    for (let i = 0; i < m.ridges; i++) {
      const down = 22 + (60 * i) / Math.max(1, m.ridges - 1);
      const many = Math.round(5 + 2.2 * i);
      for (let k = 0; k < many; k++) {
        const round = (360 * (k + (i % 2) / 2)) / many;
        const wide = (Math.PI * (radii[0] + radii[1]) * Math.sin((down * Math.PI) / 180)) / many;
        const place = on(down, round, -0.2 * h);
        masses.push(
          limb(
            part(`scale-${i + 1}-${k + 1}`, `scale ${k + 1} of row ${i + 1}`, 'ridges', 0.002),
            on(down - 6, round, -0.6 * h),
            place,
            Math.min(h, wide * 0.3),
            Math.min(h * 1.6, wide * 0.42),
          ),
        );
      }
    }
  const apex = on(0, 0);
  if (m.spike > 0.002) {
    const way: Vec3 = chest ? [0, -m.spike, 0] : [a * 0.25, 0, m.spike];
    masses.push(
      ball(part('boss', 'boss', 'ridges'), apex, [0.018, 0.018, 0.014]),
      limb(part('spike', 'spike', 'ridges'), apex, add(apex, way), 0.013, 0.0036),
    );
  }
  return {
    // The wearer first: what is merged late reaches no further than its own edge, and the room for padding stays open.
    masses: [
      ...wearer(m, middle, radii, chest),
      ...pads(on, m.padding + (chest ? 0.06 : 0.014)),
      ...softestFirst(masses),
    ],
    envelopes: [],
    joints: [
      { id: 'base', name: 'foot of the stand', parent: null, at: [0, chest ? 0.035 : 0, 0], ground: true },
      {
        id: 'piece',
        name: 'piece on its stand',
        parent: 'base',
        at: add(middle, chest ? [0, 0.035, 0] : [0, 0, m.height * 0.5]),
      },
    ],
    landmarks: [{ id: 'rim', name: 'rim', joint: 'piece', at: add(middle, [0, -b, 0]), half: a * 1.15 }],
  };
}

/** Wads of padding between the wearer and the inside of the shell; their ends are thin where they touch it. */
function pads(on: (down: number, round: number, out: number) => Vec3, deep: number): Mass[] {
  return [45, 135, 225, 315].map((round, k) =>
    limb(
      {
        id: `pad-${k + 1}`,
        name: `pad ${k + 1}`,
        region: 'wearer',
        joint: 'piece',
        blend: 0.002,
        role: 'bare',
      },
      on(26, round, -deep - 0.006),
      on(26, round, -0.0055),
      0.009,
      0.004,
    ),
  );
}

/** What it sits on: the wearer's shoulder with the arm, or the chest, by as much smaller as is padding. Its form while it is made. */
function wearer(m: Shell, middle: Vec3, radii: Vec3, chest: boolean): Mass[] {
  const part = (id: string, name: string, blend = 0.03) => ({
    id,
    name,
    region: 'wearer',
    joint: 'piece',
    blend,
    role: 'bare' as const,
  });
  // Clay goes inward from the outside of the bowl: a centimetre is more than any shell has.
  const room = m.padding + 0.006;
  if (chest)
    return [
      ball(part('wearer-chest', 'chest of the wearer'), add(middle, [0, 0.03, 0]), [
        Math.max(0.02, radii[0] - room),
        Math.max(0.02, radii[2] - room),
        Math.max(0.02, radii[1] - room),
      ]),
    ];
  const arm = m.armGirth / (2 * Math.PI);
  const broad = Math.max(
    0.015,
    Math.min(radii[0] - room, radii[1] - room, arm * 1.4, radii[2] - room, middle[2] - 0.004),
  );
  const top = Math.max(0.6 * broad, radii[2] - room - broad * 0.8);
  const thick = Math.min(arm, broad);
  return [
    limb(part('wearer-shoulder', 'shoulder of the wearer'), middle, add(middle, [0, 0, top]), broad, broad * 0.8),
    limb(
      part('wearer-arm', 'upper arm of the wearer'),
      add(middle, [0.01, 0, 0]),
      add(middle, [0.02, 0, -Math.max(0, Math.min(0.1, middle[2] - thick - 0.004))]),
      thick,
      thick * 0.96,
    ),
  ];
}

export const wornShell = startForm({
  kind: 'worn-shell',
  version: 2,
  name: 'shell worn on shoulder or chest',
  when: 'A pauldron, a breast plate: clay over foil that is pulled out when it is hard.',
  usualSize: 1,
  types,
  finelyMade: true,
  measures: shellMeasures,
  make,
});
