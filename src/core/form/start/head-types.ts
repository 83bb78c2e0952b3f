import { headMeasures, type HeadMeasures } from './human-head';
import type { FormType } from './start-form';

/**
 * Heads by age, sex and build, and some that nobody has. The man and the woman are the means of Zhuang and Bradtmiller
 * (2005, see `human-head.ts`); the child of six goes by Snyder and others, *Anthropometry of Infants, Children, and
 * Youths to Age 18* (1977). The others are ours: measures pushed until the type is read at a glance.
 */
const metres = <T extends Record<string, number>>(millimetres: T): Record<keyof T, number> =>
  Object.fromEntries(Object.entries(millimetres).map(([key, mm]) => [key, Math.round(mm * 100) / 1e5])) as Record<
    keyof T,
    number
  >;

export const headTypes: readonly FormType[] = [
  { id: 'man', name: 'a man', measures: {} },
  {
    id: 'woman',
    name: 'a woman',
    measures: {
      ...metres({
        headHeight: 218,
        headBreadth: 146.8,
        headDepth: 187.5,
        faceHeight: 113.4,
        cheekbones: 135.1,
        jawBreadth: 110.1,
        eyesApart: 61.9,
        eyeBall: 24,
        brow: 2,
        noseLength: 48.2,
        noseBreadth: 33.2,
        nose: 19.8,
        mouthBreadth: 48,
        lips: 18.5,
        ears: 59,
        neckGirth: 325,
      }),
      years: 0.15,
      cheeks: 0.25,
    },
  },
  {
    id: 'child',
    name: 'a child of six',
    measures: {
      ...metres({
        headHeight: 193,
        headBreadth: 140,
        headDepth: 178,
        faceHeight: 93,
        cheekbones: 116,
        jawBreadth: 85,
        eyesApart: 54,
        eyeBall: 23,
        brow: 0,
        noseLength: 38,
        noseBreadth: 29,
        nose: 15,
        mouthBreadth: 39,
        lips: 15,
        ears: 54,
        neckGirth: 265,
      }),
      years: 0,
      cheeks: 0.7,
    },
  },
  {
    id: 'old-man',
    name: 'an old man',
    measures: {
      ...metres({
        brow: 9,
        noseLength: 56,
        noseBreadth: 40,
        nose: 25,
        lips: 11,
        ears: 74,
        eyeBall: 23.5,
        chinForward: 4,
        neckGirth: 365,
      }),
      years: 1,
      cheeks: -0.7,
    },
  },
  {
    id: 'crone',
    name: 'a crone',
    measures: {
      ...metres({
        headHeight: 215,
        headBreadth: 144,
        headDepth: 186,
        faceHeight: 116,
        cheekbones: 136,
        jawBreadth: 102,
        chinForward: 20,
        brow: 6,
        eyesApart: 59,
        eyeBall: 23,
        noseLength: 60,
        noseBreadth: 34,
        nose: 40,
        mouthBreadth: 44,
        lips: 7,
        ears: 70,
        neckGirth: 290,
      }),
      years: 1,
      cheeks: -1,
    },
  },
  {
    id: 'brute',
    name: 'a brute',
    measures: {
      ...metres({
        headHeight: 240,
        headBreadth: 160,
        headDepth: 202,
        faceHeight: 140,
        cheekbones: 163,
        jawBreadth: 158,
        chinForward: 14,
        brow: 17,
        eyesApart: 66,
        eyeBall: 22,
        noseLength: 56,
        noseBreadth: 54,
        nose: 20,
        mouthBreadth: 70,
        lips: 20,
        ears: 58,
        fangs: 0,
        neckGirth: 520,
      }),
      years: 0.6,
      cheeks: 0.2,
    },
  },
  {
    id: 'elf',
    name: 'an elf',
    measures: {
      ...metres({
        headHeight: 222,
        headBreadth: 142,
        headDepth: 184,
        faceHeight: 122,
        cheekbones: 140,
        jawBreadth: 96,
        chinForward: 2,
        brow: 2,
        eyesApart: 65,
        eyeBall: 27,
        noseLength: 52,
        noseBreadth: 29,
        nose: 20,
        mouthBreadth: 44,
        lips: 15,
        ears: 66,
        earPoint: 75,
        neckGirth: 300,
      }),
      years: 0.1,
      cheeks: -0.5,
    },
  },
  {
    id: 'skull',
    name: 'a skull',
    measures: {
      ...metres({
        headHeight: 222,
        headBreadth: 144,
        headDepth: 188,
        faceHeight: 118,
        cheekbones: 132,
        jawBreadth: 100,
        brow: 5,
        neckGirth: 250,
      }),
      years: 0,
      bone: true,
    },
  },
  {
    id: 'beast',
    name: 'a beast',
    measures: {
      ...metres({
        headHeight: 238,
        headBreadth: 164,
        headDepth: 206,
        faceHeight: 142,
        cheekbones: 170,
        jawBreadth: 146,
        brow: 18,
        eyesApart: 78,
        eyeBall: 29,
        noseLength: 64,
        noseBreadth: 56,
        nose: 12,
        mouthBreadth: 66,
        lips: 12,
        ears: 70,
        earPoint: 60,
        muzzle: 60,
        fangs: 22,
        horns: 190,
        neckGirth: 500,
      }),
      years: 0.5,
      cheeks: 0.3,
      mouthOpen: 14,
    },
  },
];

/** Every head there is, as a choice of whose. */
export const headChoices: readonly { readonly id: string; readonly name: string }[] = headTypes;

/** All measures of a head of a type, its mouth shut: for forms that take a head as a part. */
export function headOfType(id: string): HeadMeasures {
  const usual = Object.fromEntries(Object.entries(headMeasures).map(([key, m]) => [key, m.start]));
  return { ...usual, ...headTypes.find((t) => t.id === id)?.measures, mouthOpen: 0 } as unknown as HeadMeasures;
}
