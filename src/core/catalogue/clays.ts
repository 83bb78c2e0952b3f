import type { ClayFamily, DryingCoefficients } from './schema';

/** Clays by generic family. Shrinkage and the water figures vary from maker to maker: the ranges stay with them. */
const kPa = 1e3;

function drying(
  w0: number,
  w_sl: number,
  w_m: number,
  rho_dry: number,
  D_wet: number,
  D_dry: number,
  shrinkage: number,
  capacityWet: number,
  capacityDry: number,
): DryingCoefficients {
  return { w0, w_sl, w_m, rho_dry, D_wet, D_dry, shrinkage, capacityWet, capacityDry };
}

const noCure = { workingMinutes: null, cureHours: null } as const;
const noDrying = { drying: null, shrinkageRange: null } as const;
const span = (low: number, nominal: number, high: number) => ({ low, nominal, high });
const earthen = drying(0.28, 0.13, 0.035, 1450, 8e-9, 8e-10, 0.06, 0.08, 0.004);

const families: readonly ClayFamily[] = [
  {
    id: 'earthen-air-dry',
    name: 'earthen air-dry clay',
    setting: 'dries',
    wetDensity: 1850,
    yieldStress: 8 * kPa,
    softens: null,
    standsTo: 150,
    traits: ['damp', 'water-borne', 'goes-back'],
    drying: earthen,
    plasticRange: 0.2,
    shrinkageRange: span(0.04, 0.06, 0.08),
    ...noCure,
    usualThickness: [0.005, 0.015],
    note: 'Score and slip every joint. Water turns it back to mud: seal it when dry.',
  },
  {
    id: 'paper-clay',
    name: 'paper clay',
    setting: 'dries',
    wetDensity: 1090,
    yieldStress: 2.5 * kPa,
    softens: null,
    standsTo: 150,
    traits: ['damp', 'water-borne', 'goes-back'],
    recipe: 'paper-clay',
    drying: drying(0.95, 0.25, 0.08, 560, 8e-9, 1.5e-9, 0.08, 0.15, 0.015),
    plasticRange: 0.5,
    shrinkageRange: span(0.05, 0.08, 0.12),
    ...noCure,
    usualThickness: [0.004, 0.012],
    note: 'Fibres bridge small cracks; patch with the same clay.',
  },
  {
    id: 'paper-strips',
    name: 'paper strips and paste',
    setting: 'dries',
    wetDensity: 900,
    yieldStress: 1.5 * kPa,
    softens: null,
    standsTo: 150,
    traits: ['damp', 'water-borne', 'goes-back'],
    drying: drying(1.0, 0.2, 0.08, 450, 8e-9, 2e-9, 0.04, 0.1, 0.02),
    plasticRange: 0.6,
    shrinkageRange: span(0.02, 0.04, 0.06),
    ...noCure,
    usualThickness: [0.001, 0.004],
    note: 'Many thin layers, each dry before the next.',
  },
  {
    id: 'foam-air-dry',
    name: 'foam-type air-dry clay',
    setting: 'dries',
    wetDensity: 500,
    yieldStress: 1.5 * kPa,
    softens: null,
    standsTo: 100,
    traits: ['damp', 'water-borne'],
    drying: drying(1.2, 0.2, 0.06, 230, 6e-9, 4e-10, 0.08, 0.12, 0.03),
    plasticRange: 0.6,
    shrinkageRange: span(0.05, 0.08, 0.1),
    ...noCure,
    usualThickness: [0.005, 0.012],
    note: 'Press it where it is to stay; seams do not close again.',
  },
  {
    id: 'cold-porcelain',
    name: 'cold porcelain',
    setting: 'dries',
    wetDensity: 1170,
    yieldStress: 3 * kPa,
    softens: null,
    standsTo: 80,
    traits: ['damp', 'water-borne'],
    recipe: 'cold-porcelain',
    drying: drying(0.5, 0.12, 0.08, 780, 2e-9, 1.5e-10, 0.11, 0.2, 0.02),
    plasticRange: 0.35,
    shrinkageRange: span(0.08, 0.11, 0.14),
    ...noCure,
    usualThickness: [0.001, 0.005],
    note: 'For small, thin work: thick parts take weeks.',
  },
  {
    id: 'epoxy-clay',
    name: 'epoxy clay',
    setting: 'sets',
    wetDensity: 1650,
    yieldStress: 4 * kPa,
    softens: null,
    standsTo: 120,
    traits: ['amine', 'epoxy'],
    ...noDrying,
    workingMinutes: span(60, 90, 180),
    cureHours: 24,
    usualThickness: [0.003, 0.01],
    note: 'Lay it as sheets and smooth it before it stiffens. Gloves and moving air until it is hard.',
  },
  ...(['soft', 'medium', 'firm'] as const).flatMap((grade, i): ClayFamily[] => {
    const yieldStress = ([25, 45, 80][i] ?? 45) * kPa;
    const standsTo = [40, 45, 50][i] ?? 45;
    const common = {
      setting: 'never' as const,
      yieldStress,
      softens: 8,
      standsTo,
      ...noDrying,
      ...noCure,
      usualThickness: [0.005, 0.05] as [number, number],
    };
    return [
      {
        id: `oil-${grade}`,
        name: `oil-based clay, ${grade}, sulphur-free`,
        traits: ['oil'],
        wetDensity: 1450,
        ...common,
        note: 'Never dries. Works warm; take all of it back.',
      },
      {
        id: `oil-${grade}-sulphur`,
        name: `oil-based clay, ${grade}, with sulphur`,
        traits: ['oil', 'sulphur'],
        wetDensity: 1750,
        ...common,
        note: 'Never dries. Its sulphur stops addition-cure silicone from setting.',
      },
    ];
  }),
  {
    id: 'water-based',
    name: 'water-based sculpting clay',
    setting: 'damp',
    wetDensity: 1900,
    yieldStress: 8 * kPa,
    softens: null,
    standsTo: 150,
    traits: ['damp', 'kept-damp', 'water-borne', 'goes-back'],
    drying: { ...earthen, w0: 0.31 },
    plasticRange: 0.2,
    shrinkageRange: span(0.04, 0.06, 0.08),
    ...noCure,
    usualThickness: [0.01, 0.05],
    note: 'Kept damp on purpose; it must come off the armature or be cast.',
  },
  {
    id: 'oven-polymer',
    name: 'oven polymer clay',
    setting: 'bakes',
    wetDensity: 1750,
    yieldStress: 20 * kPa,
    softens: null,
    standsTo: 150,
    traits: ['raw-polymer'],
    ...noDrying,
    ...noCure,
    usualThickness: [0.002, 0.01],
    note: 'Baked at 135 degrees over a core that stands it.',
  },
  {
    id: 'oven-polymer-light',
    name: 'oven polymer clay, lightweight',
    setting: 'bakes',
    wetDensity: 800,
    yieldStress: 10 * kPa,
    softens: null,
    standsTo: 150,
    traits: ['raw-polymer'],
    ...noDrying,
    ...noCure,
    usualThickness: [0.003, 0.015],
    note: 'An undercoat for epoxy or polymer.',
  },
];
/** kg, and what a pack usually costs in no currency; what is not named costs what hardens alike does. */
const packs: Readonly<Record<string, NonNullable<ClayFamily['pack']>>> = {
  'earthen-air-dry': { mass: 5, price: 9 },
  'paper-clay': { mass: 1, price: 4.5 },
  'paper-strips': { mass: 1, price: 2 },
  'foam-air-dry': { mass: 0.25, price: 6 },
  'cold-porcelain': { mass: 0.5, price: 6 },
  'epoxy-clay': { mass: 0.5, price: 14 },
  'water-based': { mass: 10, price: 9 },
  'oven-polymer': { mass: 0.5, price: 10 },
  'oven-polymer-light': { mass: 0.25, price: 7 },
};

export const clayList: readonly ClayFamily[] = families.map((c) => (packs[c.id] ? { ...c, pack: packs[c.id] } : c));

export const clays: ReadonlyMap<string, ClayFamily> = new Map(clayList.map((c) => [c.id, c]));
