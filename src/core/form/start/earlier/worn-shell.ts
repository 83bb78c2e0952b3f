import type { Mass } from '../../../document';
import { choice, count, length } from '../../measure';
import { ball, limb, shell, startForm } from '../start-form';

/** A hollow piece that sits on a body: its clay is the shell itself, as thick as its region's coats, open below. */
export const wornShell = startForm({
  kind: 'worn-shell',
  name: 'shell worn on shoulder or chest',
  when: 'A pauldron, a breast plate, a gorget: clay over foil that is pulled out when it is hard.',
  usualSize: 1,
  measures: {
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
    ridges: count('Ridges', 0, 7, 3),
    ridgeHeight: length('Ridges stand out', 0.001, 0.06, 0.009),
    spike: length('Spike or spire', 0, 0.4, 0.05),
    standHeight: length('Held above the bench while it is made', 0.01, 0.6, 0.12),
  },
  make: (m) => {
    const a = m.breadth / 2,
      b = m.depth / 2;
    const chest = m.sits === 'chest';
    // On the chest the bowl faces forward: its open side is turned to the body.
    const turn = chest ? ([90, 0, 0] as const) : ([0, 0, 0] as const);
    const radii = chest ? ([a, m.height / 2 + b * 0.1, b] as const) : ([a, b, m.height] as const);
    const middle = m.standHeight + (chest ? m.height / 2 : 0);
    const c = (id: string, name: string, region: string) => ({ id, name, region, joint: 'piece', blend: 0.006, turn });
    const masses: Mass[] = [shell(c('bowl', 'bowl of the shell', 'shell'), [0, 0, middle], radii, 0)];
    const top = (share: number) => Math.sqrt(Math.max(0, 1 - share * share));
    for (let i = 0; i < m.ridges; i++) {
      const share = ((i + 1) / (m.ridges + 1)) * 1.5 - 0.75;
      const out = top(share);
      const r = m.ridgeHeight;
      if (chest) {
        const z = middle + share * radii[1];
        masses.push(
          limb(
            { ...c(`ridge-${i + 1}`, `ridge ${i + 1}`, 'ridges'), turn: [0, 0, 0] },
            [-a * out * 0.6, -b * out * 0.72, z],
            [a * out * 0.6, -b * out * 0.72, z],
            r,
            r,
          ),
        );
      } else {
        const x = share * a;
        masses.push(
          limb(
            { ...c(`ridge-${i + 1}`, `ridge ${i + 1}`, 'ridges') },
            [x, -b * out * 0.55, middle + m.height * out * 0.8],
            [x, b * out * 0.55, middle + m.height * out * 0.8],
            r,
            r,
          ),
        );
      }
    }
    const apex = chest ? ([0, -b, middle] as const) : ([0, 0, middle + m.height] as const);
    if (m.spike > 0.002) {
      const way = chest ? ([0, -b - m.spike, middle] as const) : ([a * 0.3, 0, middle + m.height + m.spike] as const);
      masses.push(
        ball({ ...c('boss', 'boss', 'ridges'), turn: [0, 0, 0] }, apex, [0.016, 0.016, 0.012]),
        limb({ ...c('spike', 'spike', 'ridges'), turn: [0, 0, 0] }, apex, way, 0.011, 0.003),
      );
    }
    return {
      masses,
      envelopes: [],
      joints: [
        { id: 'base', name: 'foot of the stand', parent: null, at: [0, 0, 0], ground: true },
        { id: 'piece', name: 'piece on its stand', parent: 'base', at: [0, 0, middle + (chest ? 0 : m.height * 0.6)] },
      ],
      landmarks: [{ id: 'rim', name: 'rim', joint: 'piece', at: [0, -b, middle], half: a * 1.15 }],
    };
  },
});
