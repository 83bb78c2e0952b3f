import type { StepKind } from '../document';
import type { PlannedStep } from './plan';

/**
 * Passes over the face, from rough to fine: what each is done with, how long a dm2 of it takes beside the others, and what
 * it wipes out of what came before. They are the work of a step that models, carves, smooths, sands or marks.
 */
export interface SurfacePass {
  readonly id: string;
  readonly name: string;
  readonly tools: string;
  /** To a dm2, beside the other passes of its step: of a step's hours it takes its share. */
  readonly minutes: number;
  readonly wipes: string;
}

/** By id; ids are unique among all clays. */
const passes: readonly SurfacePass[] = [
  // Clay that stays soft, and oven clay before it is baked.
  {
    id: 'block-planes',
    name: 'Block its planes',
    tools: 'wooden block, large loop',
    minutes: 5,
    wipes: 'finger marks of laying',
  },
  {
    id: 'rake-coarse',
    name: 'Rake it coarsely, crosswise',
    tools: 'toothed loop, 3 mm',
    minutes: 4,
    wipes: 'lumps and hollows',
  },
  {
    id: 'rake-fine',
    name: 'Rake it finely',
    tools: 'toothed loop, 1 mm',
    minutes: 4,
    wipes: 'the coarse rake’s furrows',
  },
  {
    id: 'brush-damp',
    name: 'Smooth it',
    tools: 'kidney, soft brush just damp, powder under a film for the last of it',
    minutes: 6,
    wipes: 'the fine rake, and every mark under half a millimetre',
  },
  {
    id: 'brush-oil',
    name: 'Smooth it',
    tools: 'kidney, stiff brush, thumb through a film',
    minutes: 6,
    wipes: 'the fine rake, and every mark under half a millimetre',
  },
  {
    id: 'folds-soft',
    name: 'Press in folds and wrinkles',
    tools: 'ball tool, needle through a film',
    minutes: 7,
    wipes: 'nothing',
  },
  {
    id: 'pores-soft',
    name: 'Stamp pores',
    tools: 'rubber texture stamps, stiff brush, sponge',
    minutes: 6,
    wipes: 'the sharpness of fine wrinkles',
  },
  {
    id: 'soften-oil',
    name: 'Soften their edges',
    tools: 'soft brush with a trace of solvent',
    minutes: 2,
    wipes: 'burrs, and the finest pores',
  },
  {
    id: 'soften-damp',
    name: 'Soften their edges',
    tools: 'soft brush with a trace of water',
    minutes: 2,
    wipes: 'burrs, and the finest pores',
  },
  {
    id: 'pores-again',
    name: 'Pores once more, where they went',
    tools: 'needle, texture stamps',
    minutes: 3,
    wipes: 'nothing',
  },
  // Clay that has dried or set.
  {
    id: 'rasp',
    name: 'Rasp and cut its planes',
    tools: 'rasp, knife, scraper',
    minutes: 6,
    wipes: 'finger marks of laying',
  },
  {
    id: 'fill-lows',
    name: 'Fill what lies low, and file it level',
    tools: 'the same clay, thin; file',
    minutes: 6,
    wipes: 'the rasp’s furrows',
  },
  { id: 'paper-120', name: 'Sand, 120', tools: 'abrasive paper 120 on a soft block', minutes: 3, wipes: 'file marks' },
  { id: 'paper-180', name: 'Sand, 180', tools: 'abrasive paper 180', minutes: 2, wipes: 'scratches of the 120' },
  { id: 'paper-220', name: 'Sand, 220', tools: 'abrasive paper 220', minutes: 2, wipes: 'scratches of the 180' },
  {
    id: 'paper-320',
    name: 'Sand, 320',
    tools: 'abrasive paper 320, wet where the clay stands water',
    minutes: 2,
    wipes: 'scratches of the 220, and every fine mark',
  },
  { id: 'folds-cut', name: 'Cut folds and wrinkles', tools: 'small gouge, riffler', minutes: 8, wipes: 'nothing' },
  { id: 'pores-cut', name: 'Prick pores', tools: 'needle, small burr', minutes: 6, wipes: 'nothing' },
];

type FacePass = Partial<Record<StepKind, readonly string[]>>;
const soft = (smooth: string, soften: string): FacePass => ({
  refining: ['block-planes', 'rake-coarse', 'rake-fine'],
  smoothing: [smooth],
  detail: ['folds-soft', 'pores-soft', soften, 'pores-again'],
});
const hard: FacePass = {
  refining: ['rasp', 'fill-lows'],
  sanding: ['paper-120', 'paper-180', 'paper-220', 'paper-320'],
  detail: ['folds-cut', 'pores-cut'],
};
const bySetting: Readonly<Record<string, FacePass>> = {
  never: soft('brush-oil', 'soften-oil'),
  damp: soft('brush-damp', 'soften-damp'),
  bakes: soft('brush-oil', 'soften-oil'),
  dries: hard,
  sets: hard,
};

/** Ids of the passes that are the work of such a step, in order. */
export function passesOf(setting: string, kind: StepKind): readonly string[] {
  return bySetting[setting]?.[kind] ?? [];
}

/** Every pass over the face in all the plan, in order, with the hours that are left of it. */
export function passesOver(
  steps: readonly Pick<PlannedStep, 'passes' | 'takes' | 'done'>[],
): { readonly pass: SurfacePass; readonly left: number }[] {
  const rows = new Map<string, { pass: SurfacePass; left: number }>();
  for (const s of steps)
    for (const { pass, hours } of passesIn(s.passes ?? [], s.takes)) {
      const left = (rows.get(pass.id)?.left ?? 0) + (s.done ? 0 : hours);
      rows.set(pass.id, { pass, left });
    }
  return [...rows.values()];
}

/** The passes of a step that takes so many hours, each with its own. */
export function passesIn(
  ids: readonly string[],
  hours: number,
): { readonly pass: SurfacePass; readonly hours: number }[] {
  const own = ids.flatMap((id) => passes.filter((p) => p.id === id));
  const all = own.reduce((sum, p) => sum + p.minutes, 0);
  return own.map((pass) => ({ pass, hours: (hours * pass.minutes) / all }));
}
