import { hashOf, partHash, type Build } from '../document';
import type { WholeDrying } from '../drying';
import type { PieceHistory } from './piece';
import { correctedTimes, type CorrectedTime, type DriedAs } from './quick-against-full';

/**
 * What the last drying of the whole piece found, small enough to be kept with a build: by region what it said, and what
 * the quick answer said of the same build. For the build as it stands it is the answer; after an edit it corrects the
 * quick one, region by region.
 */
export interface FullFindings {
  /** Of what it was worked out from. */
  readonly key: string;
  readonly regions: readonly FullRegion[];
  readonly last: PlaceFound | null;
  readonly worst: PlaceFound | null;
}

export interface FullRegion {
  readonly id: string;
  /** Seconds after the first clay at which its last coat went on. */
  readonly start: number;
  /** What its clay was by then: what was found of a coat says nothing of solid clay. Not told of in findings kept before it was. */
  readonly as?: DriedAs;
  readonly quick: RegionFigures;
  readonly full: RegionFigures;
  readonly restrained: number;
  readonly differential: number;
}

/** Seconds after the first clay, null for never; and the crack index. */
export type RegionFigures = Readonly<Record<CorrectedTime, number | null>> & { readonly crack: number };

export interface PlaceFound {
  readonly region: string;
  readonly at: readonly [number, number, number];
  readonly time: number;
  readonly value: number;
}

/** What drying hangs on, of the build and of what the log knows: the same key, the same drying. */
export function dryingKey(build: Build, known: PieceHistory, step?: number): string {
  const { room, stages, regions, form, materials, armature, brief } = build;
  const parts = [room, stages, regions, form, materials, armature, known.room].map((p) => partHash(p));
  return hashOf([parts, known.fitted, brief.clay, brief.startDate, brief.limits.crack, step ?? 0]);
}

/** As much of a region's report as is kept beside. */
interface QuickRegion {
  readonly id: string;
  readonly coats: readonly unknown[];
  readonly lastStart: number;
  readonly as: DriedAs;
  readonly quick: RegionFigures;
}

/** Small enough to keep: of a whole drying and the quick report of the same build. */
export function fullFindings(key: string, whole: WholeDrying, quick: readonly QuickRegion[]): FullFindings {
  const place = (p: WholeDrying['last'] | null): PlaceFound | null =>
    p === null ? null : { region: p.region, at: p.at, time: p.time, value: p.value };
  return {
    key,
    last: place(whole.last),
    worst: place(whole.worst),
    regions: whole.regions.flatMap((f): FullRegion[] => {
      const q = quick.find((r) => r.id === f.id);
      if (!q || q.coats.length === 0) return [];
      return [
        {
          id: f.id,
          start: q.lastStart,
          as: q.as,
          quick: q.quick,
          full: {
            touch: f.touchDry,
            leather: f.leatherHard,
            hold: f.hold,
            through: f.throughDry,
            steady: f.steady,
            crack: f.crack,
          },
          restrained: f.restrained,
          differential: f.differential,
        },
      ];
    }),
  };
}

/** Full over quick, counted from when the last coat went on; nothing where either never gets there. */
export function ratiosOf({ start, quick, full }: FullRegion): Partial<Record<CorrectedTime | 'crack', number>> {
  const out: Partial<Record<CorrectedTime | 'crack', number>> = {};
  for (const key of correctedTimes) {
    const q = quick[key],
      f = full[key];
    if (q !== null && f !== null && q > start && f > start) out[key] = (f - start) / (q - start);
  }
  if (quick.crack > 0.01) out.crack = full.crack / quick.crack;
  return out;
}
