import { z } from 'zod';
import { traitNames } from './traits';

/** Shapes of catalogue records. The same shapes serve the user's own materials, so every figure is bounded. */
export const slugSchema = z
  .string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'lower-case words joined by hyphens')
  .max(60);

const positive = (most: number) => z.number().positive().max(most);

export const rangeSchema = z
  .strictObject({ low: z.number(), nominal: z.number(), high: z.number() })
  .refine((r) => r.low <= r.nominal && r.nominal <= r.high, 'low, nominal and high must rise');

/** Coefficients of drying and shrinkage, by the names of the model. SI; moisture on dry solids. */
export const dryingCoefficientsSchema = z
  .strictObject({
    /** Moisture as supplied, kg water per kg solids. */
    w0: positive(5),
    /** Shrinkage limit: below this moisture it no longer shrinks. */
    w_sl: z.number().min(0).max(5),
    /** Scale of the water-activity curve a_w = 1 - exp(-w/w_m). */
    w_m: positive(1),
    /** kg of solids per m3 of wet clay. */
    rho_dry: positive(5000),
    D_wet: positive(1e-6),
    D_dry: positive(1e-6),
    /** Free linear shrinkage from w0 to w_sl. */
    shrinkage: z.number().min(0).max(0.4),
    /** Tensile strain it takes before it cracks, wet and dry. */
    capacityWet: positive(2),
    capacityDry: positive(2),
  })
  .refine((c) => c.w_sl < c.w0, { path: ['w_sl'], message: 'the shrinkage limit must lie below w0' })
  .refine((c) => c.D_dry <= c.D_wet, { path: ['D_dry'], message: 'D_dry cannot exceed D_wet' });

export type DryingCoefficients = z.infer<typeof dryingCoefficientsSchema>;

/** How a clay becomes hard, or that it never does. */
export const settingSchema = z.enum(['dries', 'sets', 'never', 'damp', 'bakes']);

export const clayFamilySchema = z
  .strictObject({
    id: slugSchema,
    name: z.string().min(1).max(80),
    setting: settingSchema,
    /** kg/m3 as laid. */
    wetDensity: positive(5000),
    /** Pa, at 20 degrees. */
    yieldStress: positive(1e6),
    /** Degrees of warmth by which its yield stress falls to 1/e; null where warmth does not soften it. */
    softens: positive(200).nullable(),
    /** degrees C it stands when finished. */
    standsTo: z.number().min(20).max(2000),
    /** What others may not stand about it. */
    traits: z.array(z.enum(traitNames)).max(20),
    /** The mixture it is made from by hand, where it is. */
    recipe: slugSchema.optional(),
    drying: dryingCoefficientsSchema.nullable(),
    /** kg of water to a kg of solids between the clay as supplied and slip. */
    plasticRange: positive(5).optional(),
    /** The range of `drying.shrinkage`. */
    shrinkageRange: rangeSchema.nullable(),
    /** Minutes at 21 degrees, for clays that set. */
    workingMinutes: rangeSchema.nullable(),
    cureHours: positive(1000).nullable(),
    /** The pack it is usually sold in, kg, and what that usually costs. */
    pack: z.strictObject({ mass: positive(1000), price: z.number().min(0).max(1e5) }).optional(),
    /** Usual thickness of a coat, metres. */
    usualThickness: z.tuple([positive(1), positive(1)]),
    note: z.string().max(500),
    /** Where a figure of the user's own comes from. */
    source: z.string().max(300).optional(),
  })
  .refine((c) => (c.setting === 'dries' || c.setting === 'damp') === (c.drying !== null), {
    path: ['drying'],
    message: 'a clay that dries needs drying coefficients, and only such a clay',
  })
  .refine((c) => (c.setting === 'sets') === (c.workingMinutes !== null && c.cureHours !== null), {
    path: ['workingMinutes'],
    message: 'a clay that sets needs a working time and a cure, and only such a clay',
  });
export type ClayFamily = z.infer<typeof clayFamilySchema>;

export const bulkKindSchema = z.strictObject({
  id: slugSchema,
  name: z.string().min(1).max(80),
  /** kg/m3 in place. */
  density: positive(5000),
  /** Pa. */
  stiffness: z.number().min(0).max(1e11),
  /** Pa, crushing. */
  crushing: z.number().min(0).max(1e9),
  /** What it holds back of the clay's shrinkage, 0..1. */
  restraint: z.number().min(0).max(1),
  /** Share of the outer evaporation its face lets through, 0 sealed. */
  innerFace: z.number().min(0).max(1),
  /** kg of water a kg of it holds when it is full, where its face lets any through. */
  drinks: z.number().min(0).max(5).default(0.25),
  /** Grip of bare clay on it, as a share of half the yield stress. */
  grip: z.number().min(0).max(3),
  /** Highest temperature it stands, degrees C. */
  standsTo: z.number().min(20).max(2000),
  damp: z.string().max(120),
  note: z.string().max(300),
});
export type BulkKind = z.infer<typeof bulkKindSchema>;

export const wrapSchema = z.strictObject({
  id: slugSchema,
  name: z.string().min(1).max(60),
  restraintFactor: z.number().min(0).max(1),
  grip: z.number().min(0).max(3).nullable(),
  /** True where it closes the bulk's own pores. */
  seals: z.boolean(),
  /** kg of water a kg of it holds when it is full; 0 for what takes none. */
  drinks: z.number().min(0).max(5).optional(),
  /** kg to a m2 of what it covers. */
  perArea: z.number().min(0).max(50),
  /** Takes the bulk's place as what holds the clay back, where it is hard. */
  restraint: z.number().min(0).max(1).optional(),
  /** A hard skin that carries, brittle: thickness in metres, Pa. */
  skin: z.strictObject({ thickness: positive(0.1), youngs: positive(1e11), strength: positive(1e9) }).optional(),
});
export type Wrap = z.infer<typeof wrapSchema>;

const lengthSize = positive(1);
export const sectionSchema = z.discriminatedUnion('shape', [
  z.strictObject({ shape: z.literal('round'), diameter: lengthSize }),
  z.strictObject({ shape: z.literal('tube'), diameter: lengthSize, wall: lengthSize }),
  z.strictObject({ shape: z.literal('flat'), width: lengthSize, height: lengthSize }),
  z.strictObject({ shape: z.literal('square-tube'), width: lengthSize, wall: lengthSize }),
]);
export type SectionShape = z.infer<typeof sectionSchema>;

export const stockSizeSchema = z.strictObject({
  id: z.string().min(1).max(30),
  label: z.string().min(1).max(40),
  section: sectionSchema,
});
export type StockSize = z.infer<typeof stockSizeSchema>;

export const stockSchema = z.strictObject({
  id: slugSchema,
  name: z.string().min(1).max(80),
  /** Pa. */
  youngs: positive(1e12),
  density: positive(30000),
  /** Pa: yield for metal, bending strength for timber. */
  strength: rangeSchema,
  /** Share of `strength` a design may use: 1 for metal, a third for timber. */
  allowed: z.number().positive().max(1),
  /** Wood and its like break before they bend; metals add plastically. */
  brittle: z.boolean(),
  sizes: z.array(stockSizeSchema).min(1),
  note: z.string().max(300),
});
export type Stock = z.infer<typeof stockSchema>;
