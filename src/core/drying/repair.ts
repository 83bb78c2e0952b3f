/**
 * What to do about a crack that is there: by its width, whether it goes through, and how dry the clay is. Practice of
 * the bench, not a model: a crack is closed while it can be, and filled when the clay round it has done moving.
 */
export interface CrackSeen {
  /** Metres. */
  readonly width: number;
  readonly through: boolean;
}

export type ClayState = 'soft' | 'leathery' | 'drying' | 'dry';

export interface Repair {
  readonly when: 'now' | 'when-through-dry';
  readonly steps: readonly string[];
}

const hairline = 0.0005;
const wide = 0.002;

export function repairOf(crack: CrackSeen, state: ClayState, clay: string): Repair {
  if (state === 'soft')
    return {
      when: 'now',
      steps: [
        'Press it closed with a damp finger and compress the clay along it, from both sides towards the middle.',
        'Cover the place with loose plastic for a day so that it does not dry ahead of the rest.',
      ],
    };
  if (state === 'leathery') {
    return {
      when: 'now',
      steps: [
        'Open it with a knife to sound clay, a little wider below than at the face.',
        `Score both sides, slip them, and press in ${clay} a little stiffer than what is there.`,
        'Compress it, and keep it covered until the rest has caught up.',
      ],
    };
  }
  const wait = state === 'drying' ? ('when-through-dry' as const) : ('now' as const);
  const before =
    state === 'drying'
      ? [
          'Leave it until the piece is dry through: what still shrinks would open it again. Cover the place, so that it dries with the rest.',
        ]
      : [];
  if (crack.through || crack.width > wide) {
    return {
      when: wait,
      steps: [
        ...before,
        'Find what held the clay there first, a wire or a hard edge, or it comes again.',
        'Undercut both edges to a dovetail and dampen them, not more than they drink.',
        ...(crack.through
          ? ['Back it: a strip of cloth or gauze with binder behind the crack, or wadding in the hollow.']
          : []),
        `Fill with ${clay} mixed stiff, no deeper than 4 mm at a time, scored and slipped against the sides; the second fill when the first is dry.`,
        'Sand or scrape it level when it is dry: respirator, or damp.',
      ],
    };
  }
  if (crack.width > hairline) {
    return {
      when: wait,
      steps: [
        ...before,
        'Undercut it with the point of a knife, so that the fill keys in.',
        `Dampen it and press in ${clay} thinned with its own binder to a soft paste, a little proud.`,
        'Let it dry, fill once more if it sinks, and level it.',
      ],
    };
  }
  return {
    when: wait,
    steps: [
      ...before,
      `Brush in ${clay} thinned to cream with its binder in the water, along and across the crack.`,
      'Wipe the face, let it dry, and go over it once more.',
    ],
  };
}

/** State of the clay from shares of shrinking and water: as the stations word it. */
export function clayStateAt(
  time: number,
  states: { readonly smooth: number | null; readonly leather: number | null; readonly through: number | null },
): ClayState {
  if (states.through !== null && time >= states.through) return 'dry';
  if (states.leather !== null && time >= states.leather) return 'drying';
  if (states.smooth !== null && time >= states.smooth) return 'leathery';
  return 'soft';
}
