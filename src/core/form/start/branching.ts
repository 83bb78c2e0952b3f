import type { Mass } from '../../document';
import type { Vec3 } from '../../quantity';
import { angle, choice, count, length, share } from '../measure';
import { seeded } from '../../quantity';
import type { Joint } from '../skeleton';
import { ball, drum, limb, startForm } from './start-form';

/** Each branch is divided by what it carries: its section is the sum of theirs, as in a tree. */
export const branching = startForm({
  kind: 'branching',
  version: 2,
  types: [
    { id: 'coral', name: 'a coral', measures: {} },
    {
      id: 'candelabrum',
      name: 'a candelabrum',
      measures: { branches: 5, tips: 1, spread: 56, taper: 0.55, variation: 0, ends: 'cups', curve: 0.9, roots: 0.8 },
    },
    {
      id: 'tree',
      name: 'a tree',
      measures: { height: 0.7, trunk: 0.09, branches: 7, tips: 5, spread: 48, taper: 0.14, roots: 1, ends: 'plain' },
    },
    {
      id: 'antlers',
      name: 'an antler',
      measures: { branches: 3, tips: 2, spread: 62, taper: 0.25, curve: 1, roots: 0.3, ends: 'plain' },
    },
  ],
  name: 'branching piece',
  when: 'Coral, antlers, a tree, a candelabrum: a trunk that forks to its tips.',
  usualSize: 1,
  measures: {
    height: length('Height', 0.05, 4, 0.5),
    trunk: length('Trunk, thick at the foot', 0.005, 0.6, 0.06),
    branches: count('Branches off the trunk', 1, 15, 5, 'odd numbers look less like a railing'),
    tips: count('Tips on each branch', 1, 5, 3),
    spread: angle('Branches lean out', 5, 85, 40),
    taper: share('Thickness left at the tips, of the trunk’s', 0.1, 0.9, 0.3),
    variation: share('Variation', 0, 1, 0.5),
    curve: share('Branches curve up', 0, 1, 0.25),
    roots: share('Foot spreads into roots', 0, 1, 0.5),
    ends: choice(
      'Tips end',
      [
        { id: 'plain', name: 'plain' },
        { id: 'knobs', name: 'in a knob' },
        { id: 'cups', name: 'in a cup, for a candle' },
      ],
      'knobs',
    ),
    seed: count('Another arrangement', 1, 9999, 7),
  },
  make: (m) => {
    const random = seeded(m.seed);
    const vary = (by: number) => 1 + (random() - 0.5) * 2 * by * m.variation;
    const masses: Mass[] = [];
    const joints: Joint[] = [{ id: 'foot', name: 'foot of the trunk', parent: null, at: [0, 0, 0], ground: true }];
    const r0 = m.trunk / 2;
    const tipRadius = r0 * m.taper;
    const fork = m.height * 0.3;
    let below = 'foot',
      from: Vec3 = [0, 0, 0];
    for (let b = 0; b < m.branches; b++) {
      // Branches leave the trunk one above another, each a golden angle round from the last.
      const z = fork + (m.height * 0.35 * b) / Math.max(1, m.branches - 1);
      const at: Vec3 = [0, 0, z];
      const joint = `fork-${b + 1}`;
      joints.push({ id: joint, name: `fork ${b + 1}`, parent: below, at });
      const left = (m.branches - b) / m.branches;
      const thick = (share: number) => Math.max(tipRadius, r0 * Math.sqrt(share));
      masses.push(
        limb(
          { id: `trunk-${b + 1}`, name: `trunk, part ${b + 1}`, region: 'trunk', joint: below, blend: r0 * 0.15 },
          // Its round end stands on the ground, not in it.
          b === 0 ? [0, 0, Math.min(r0 * 1.1, fork * 0.8)] : from,
          at,
          thick(Math.min(1, left + 1 / m.branches)),
          thick(left),
        ),
      );
      below = joint;
      from = at;
      const round = b * 2.39996 + (random() - 0.5) * m.variation;
      const lean = ((m.spread * Math.PI) / 180) * vary(0.35);
      const reach = (m.height - z) * 0.6 * vary(0.3);
      const out: Vec3 = [Math.cos(round) * Math.sin(lean), Math.sin(round) * Math.sin(lean), Math.cos(lean)];
      const crotch: Vec3 = [out[0] * reach, out[1] * reach, z + out[2] * reach];
      const arm = thick(1 / m.branches);
      // It leaves the trunk flatter than it ends: the bend lies below the straight way.
      const sag = 0.22 * m.curve * reach;
      const bend: Vec3 = [
        out[0] * reach * 0.55 + Math.cos(round) * sag * 0.6,
        out[1] * reach * 0.55 + Math.sin(round) * sag * 0.6,
        z + out[2] * reach * 0.55 - sag,
      ];
      const bendRadius = Math.max(tipRadius, arm * 0.9);
      masses.push(
        limb(
          { id: `branch-${b + 1}`, name: `branch ${b + 1}`, region: 'branches', joint, blend: r0 * 0.4 },
          at,
          bend,
          arm,
          bendRadius,
        ),
        limb(
          {
            id: `branch-${b + 1}-end`,
            name: `end of branch ${b + 1}`,
            region: 'branches',
            joint: `bend-${b + 1}`,
            blend: r0 * 0.1,
          },
          bend,
          crotch,
          bendRadius,
          Math.max(tipRadius, arm * 0.8),
        ),
      );
      joints.push(
        { id: `bend-${b + 1}`, name: `bend of branch ${b + 1}`, parent: joint, at: bend },
        { id: `crotch-${b + 1}`, name: `crotch of branch ${b + 1}`, parent: `bend-${b + 1}`, at: crotch },
      );
      for (let t = 0; t < m.tips; t++) {
        const turn = round + (t - (m.tips - 1) / 2) * 0.9 * vary(0.4);
        const tilt = lean * (m.tips > 1 ? 0.75 : 0.5) * vary(0.4);
        const long = Math.max(arm * 2, (m.height - crotch[2]) * 0.85 * vary(0.3));
        const tip: Vec3 = [
          crotch[0] + Math.cos(turn) * Math.sin(tilt) * long,
          crotch[1] + Math.sin(turn) * Math.sin(tilt) * long,
          crotch[2] + Math.cos(tilt) * long,
        ];
        const id = `${b + 1}-${t + 1}`;
        masses.push(
          limb(
            {
              id: `tip-${id}`,
              name: `tip ${t + 1} of branch ${b + 1}`,
              region: 'tips',
              joint: `crotch-${b + 1}`,
              blend: r0 * 0.35,
            },
            crotch,
            tip,
            Math.max(tipRadius, arm * 0.75),
            tipRadius,
          ),
        );
        const end = { id: `end-${id}`, region: 'tips', joint: `crotch-${b + 1}`, blend: tipRadius * 0.5 };
        if (m.ends === 'knobs')
          masses.push(
            ball({ ...end, name: `knob ${t + 1} of branch ${b + 1}` }, tip, [
              tipRadius * 1.45,
              tipRadius * 1.45,
              tipRadius * 1.3,
            ]),
          );
        if (m.ends === 'cups') {
          const cup = Math.max(0.014, tipRadius * 1.5);
          masses.push(
            drum(
              { ...end, name: `cup ${t + 1} of branch ${b + 1}` },
              [tip[0], tip[1], tip[2] + cup * 0.5],
              cup,
              cup * 0.75,
              cup * 0.2,
            ),
          );
        }
        joints.push({ id: `tip-${id}`, name: `tip ${t + 1} of branch ${b + 1}`, parent: `crotch-${b + 1}`, at: tip });
      }
    }
    // The foot: a flare, and roots that run out along the ground.
    if (m.roots > 0.02) {
      masses.push(
        limb(
          { id: 'flare', name: 'flare of the foot', region: 'trunk', joint: 'foot', blend: r0 * 0.3 },
          [0, 0, r0 * (1.12 + 0.35 * m.roots)],
          [0, 0, Math.max(fork * 0.6, r0 * 2)],
          r0 * (1 + 0.35 * m.roots),
          r0 * 0.9,
        ),
      );
      for (let k = 0; k < 5; k++) {
        const a = k * 1.2566 + (random() - 0.5) * 0.5 * m.variation;
        const long = r0 * (1.2 + 2 * m.roots) * vary(0.2);
        masses.push(
          limb(
            { id: `root-${k + 1}`, name: `root ${k + 1}`, region: 'trunk', joint: 'foot', blend: r0 * 0.3 },
            [0, 0, r0 * 0.74],
            [Math.cos(a) * long, Math.sin(a) * long, r0 * 0.36],
            r0 * 0.6,
            r0 * 0.22,
          ),
        );
      }
    }
    return {
      masses,
      joints,
      landmarks: [{ id: 'height', name: 'full height', joint: 'foot', at: [0, 0, m.height], half: m.height * 0.3 }],
      envelopes: [],
    };
  },
});
