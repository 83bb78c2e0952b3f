/** What every making of the bust is set out from, at life size: the armature's own figures come from these. */
export interface BustSetting {
  readonly headHeight: number;
  readonly headBreadth: number;
  readonly headDepth: number;
  readonly headForward: number;
  readonly neckGirth: number;
  readonly neckLength: number;
  readonly shoulders: boolean;
  readonly arms: 'none' | 'upper' | 'whole';
  readonly shoulderBreadth: number;
  readonly chestDepth: number;
  readonly chestHeight: number;
  readonly standHeight: number;
}

/** Heights above the board that both the masses and the armature are set out from, metres. */
export interface BustLevels {
  readonly bottom: number;
  readonly shoulder: number;
  readonly collar: number;
  readonly chin: number;
  readonly skull: number;
  readonly crown: number;
  readonly eyes: number;
}

/** From the point of the shoulder to the lowest the arm comes, metres. */
const armReach: Readonly<Record<BustSetting['arms'], number>> = { none: 0, upper: 0.22, whole: 0.73 };

export function bustLevels(m: BustSetting, size = 1): BustLevels {
  // Arms hang clear of the board: the upright grows for them.
  const bottom = Math.max(m.standHeight, m.arms === 'none' ? 0 : armReach[m.arms] - m.chestHeight * 0.5) * size;
  const collar = bottom + m.chestHeight * size;
  const chin = collar + m.neckLength * size;
  const crown = chin + m.headHeight * size;
  return {
    bottom,
    collar,
    chin,
    crown,
    shoulder: bottom + m.chestHeight * size * 0.62,
    skull: crown - m.headHeight * size * 0.37,
    eyes: chin + (m.headHeight * size) / 2,
  };
}
