import { z } from 'zod';
import { bulkKindSchema, clayFamilySchema, slugSchema, stockSchema } from '../catalogue';

/**
 * How the clay is mixed and bought, and the catalogue values this build was worked out with: an old build keeps its
 * figures until asked to take the newer ones. The user's own materials and corrections live here too.
 */
export const materialsSchema = z.strictObject({
  /** kg of water to a kg of clay as supplied. */
  waterWorkedIn: z.number().min(0).max(0.6).default(0),
  /** Share bought beyond what goes on. */
  waste: z.number().min(0).max(1).default(0.1),
  /** Mixed by the maker by its recipe, where it has one, not bought ready. */
  mixOwn: z.boolean().default(false),
  /** What its prices are in. */
  currency: z.string().trim().min(1).max(6).default('EUR'),
  /** By clay, the pack a maker buys it in; the usual one where nothing is said. */
  packs: z
    .record(
      slugSchema,
      z.strictObject({
        mass: z.number().min(0.01).max(1000),
        price: z.number().min(0).max(1e5),
      }),
    )
    .default({}),
  /** kg of the clay that is on the shelf already. */
  clayOnShelf: z.number().min(0).max(10_000).default(0),
  /** The slab roller or board sheets are cut from, metres. */
  sheet: z
    .strictObject({ width: z.number().min(0.02).max(5), length: z.number().min(0.02).max(20) })
    .prefault({ width: 0.3, length: 0.4 }),
  /** How soft clay is warmed: the heater's rating in watts, how thick the lumps are, degrees C wanted. */
  warming: z
    .strictObject({
      watts: z.number().min(5).max(20_000),
      lump: z.number().min(0.005).max(0.5),
      to: z.number().min(20).max(90),
    })
    .prefault({ watts: 150, lump: 0.05, to: 40 }),
  /** By stock and size, the price of a metre; the usual one where nothing is said. */
  stockPrices: z.record(z.string().max(100), z.number().min(0).max(1e4)).default({}),
  /** By stock and size, as "mild-steel/6mm": the length it is bought in, and the lengths that are there already. */
  sold: z.record(z.string().max(100), z.number().min(0.05).max(200)).default({}),
  onHand: z.record(z.string().max(100), z.array(z.number().min(0.01).max(200)).max(40)).default({}),
  values: z
    .strictObject({
      clays: z.record(z.string().max(60), clayFamilySchema).default({}),
      bulks: z.record(z.string().max(60), bulkKindSchema).default({}),
      stocks: z.record(z.string().max(60), stockSchema).default({}),
    })
    .prefault({}),
});
export type Materials = z.infer<typeof materialsSchema>;
