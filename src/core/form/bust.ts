import { z } from 'zod';
import type { Mass } from './mass';

/**
 * A bust from a fraction of life size and a few measures a maker takes with callipers and tape, at life size.
 * Head landmarks: the eye line half way up; the breadth of a head is about two thirds of its height.
 */
const life = (low: number, high: number) => z.number().min(low).max(high);

export const bustMeasuresSchema = z.strictObject({
  /** Chin to crown. */
  headHeight: life(0.12, 0.4).default(0.232),
  headBreadth: life(0.08, 0.3).default(0.156),
  headDepth: life(0.1, 0.35).default(0.196),
  neckGirth: life(0.15, 0.7).default(0.37),
  /** Visible neck, chin to collar. */
  neckLength: life(0.01, 0.25).default(0.06),
  shoulderBreadth: life(0.2, 0.7).default(0.42),
  chestDepth: life(0.1, 0.4).default(0.22),
  /** Of the shoulders and chest, bottom edge to collar. */
  chestHeight: life(0.06, 0.45).default(0.17),
  /** How far the head hangs out in front of the neck's foot. */
  headForward: life(-0.1, 0.25).default(0.03),
  /** Bare upright under the chest. */
  standHeight: life(0.01, 0.5).default(0.07),
});
export type BustMeasures = z.infer<typeof bustMeasuresSchema>;

/** Heights above the board that both the masses and the armature are set out from, metres at full scale. */
export interface BustLevels {
  readonly bottom: number;
  readonly shoulder: number;
  readonly collar: number;
  readonly chin: number;
  readonly skull: number;
  readonly crown: number;
  readonly eyes: number;
}

export function bustLevels(m: BustMeasures, size: number): BustLevels {
  const bottom = m.standHeight * size;
  const collar = bottom + m.chestHeight * size;
  const chin = collar + m.neckLength * size;
  const crown = chin + m.headHeight * size;
  return {
    bottom, collar, chin, crown,
    shoulder: bottom + m.chestHeight * size * 0.62,
    skull: crown - m.headHeight * size * 0.37,
    eyes: chin + (m.headHeight * size) / 2,
  };
}

export function bustMasses(m: BustMeasures, size: number): Mass[] {
  const s = size;
  const at = bustLevels(m, s);
  const neck = (m.neckGirth * s) / (2 * Math.PI);
  const forward = -m.headForward * s;
  const skullRadii: [number, number, number] = [(m.headBreadth * s) / 2, (m.headDepth * s) / 2 * 0.95, m.headHeight * s * 0.37];
  const none: [number, number, number] = [0, 0, 0];
  const high = m.chestHeight * s;
  const deep = (m.chestDepth * s) / 2;
  const trunk: [number, number, number] = [m.shoulderBreadth * s * 0.34, deep, high / 2];
  // Shoulders slope from the collar down to the point of each shoulder, thinner than the chest is deep.
  const thick = Math.min(high * 0.34, deep * 0.62);
  const inner = m.shoulderBreadth * s * 0.13;
  const outer = (m.shoulderBreadth * s) / 2 - thick;
  const shoulder = (id: string, name: string, side: number): Mass => ({
    id, name, region: 'chest', at: [side * inner, 0.008 * s, at.collar - thick * 0.95], turn: none, blend: 0.05 * s,
    shape: { kind: 'round-cone', reach: [side * (outer - inner), -0.004 * s, at.bottom + high * 0.52 - at.collar + thick * 0.95 - high * 0.08], radiusFrom: thick * 0.9, radiusTo: thick },
  });
  return [
    {
      id: 'chest', name: 'chest', region: 'chest', at: [0, 0, at.bottom + high / 2 - 0.004 * s], turn: none, blend: 0.02 * s,
      shape: { kind: 'rounded-box', half: trunk, rounding: 0.8 * Math.min(...trunk) },
    },
    shoulder('shoulder-left', 'shoulder, left', 1),
    shoulder('shoulder-right', 'shoulder, right', -1),
    {
      id: 'neck', name: 'neck', region: 'neck', at: [0, 0.012 * s, at.collar - 0.03 * s], turn: none, blend: 0.045 * s,
      shape: {
        kind: 'round-cone', reach: [0, forward * 0.6 - 0.005 * s, at.chin - at.collar + 0.06 * s],
        radiusFrom: neck * 1.06, radiusTo: neck * 0.94,
      },
    },
    {
      id: 'skull', name: 'skull', region: 'head', at: [0, forward + m.headDepth * s * 0.04, at.crown - skullRadii[2]], turn: none,
      blend: 0.02 * s, shape: { kind: 'ellipsoid', radii: skullRadii },
    },
    {
      id: 'face', name: 'face and jaw', region: 'head',
      at: [0, forward - m.headDepth * s * 0.12, at.chin + m.headHeight * s * 0.39], turn: [-8, 0, 0], blend: 0.03 * s,
      shape: { kind: 'ellipsoid', radii: [m.headBreadth * s * 0.42, m.headDepth * s * 0.36, m.headHeight * s * 0.4] },
    },
  ];
}
