import { gaugeDiameter, type Range } from '../quantity';
import type { Stock, StockSize } from './schema';

/** Wire, rod, pipe, timber and boards: ordinary handbook figures. */
const MPa = 1e6;
const GPa = 1e9;

function mpa(nominal: number, low = nominal * 0.9, high = nominal * 1.1): Range {
  return { low: low * MPa, nominal: nominal * MPa, high: high * MPa };
}

function rounds(...mm: readonly number[]): StockSize[] {
  return mm.map((d) => ({ id: `${d}mm`, label: `${d} mm`, section: { shape: 'round', diameter: d / 1000 } }));
}

function gauges(system: 'AWG' | 'SWG', from: number, to: number, step: number): StockSize[] {
  const out: StockSize[] = [];
  for (let n = from; n >= to; n -= step) {
    const diameter = gaugeDiameter(system, n);
    if (diameter === undefined) continue;
    out.push({
      id: `${system.toLowerCase()}-${n}`,
      label: `${n} ${system}, ${(diameter * 1000).toFixed(2)} mm`,
      section: { shape: 'round', diameter },
    });
  }
  return out;
}

function inches(...sixteenths: readonly number[]): StockSize[] {
  const names: Record<number, string> = { 1: '1/16', 2: '1/8', 3: '3/16', 4: '1/4', 6: '3/8' };
  return sixteenths.map((n) => {
    const diameter = (n / 16) * 0.0254;
    return {
      id: `${n}-16in`,
      label: `${names[n] ?? `${n}/16`} in, ${(diameter * 1000).toFixed(1)} mm`,
      section: { shape: 'round' as const, diameter },
    };
  });
}

function boards(...mm: readonly number[]): StockSize[] {
  // A board's section is given for one metre of width; what is used is its thickness.
  return mm.map((t) => ({ id: `${t}mm`, label: `${t} mm`, section: { shape: 'flat', width: 1, height: t / 1000 } }));
}

function flats(...pairs: readonly (readonly [number, number])[]): StockSize[] {
  return pairs.map(([w, h]) => ({
    id: `${w}x${h}mm`,
    label: `${w} x ${h} mm`,
    section: { shape: 'flat', width: w / 1000, height: h / 1000 },
  }));
}

/** Nominal pipe: the number is a name, the outside diameter is what counts. */
const nominalPipe: readonly (readonly [string, string, number, number])[] = [
  ['3-8', '3/8', 17.1, 2.31],
  ['1-2', '1/2', 21.3, 2.77],
  ['3-4', '3/4', 26.7, 2.87],
  ['1', '1', 33.4, 3.38],
  ['1-1-4', '1 1/4', 42.2, 3.56],
  ['1-1-2', '1 1/2', 48.3, 3.68],
  ['2', '2', 60.3, 3.91],
];

function pipes(wallOf: (wall: number) => number): StockSize[] {
  return nominalPipe.map(([id, name, od, wall]) => ({
    id,
    label: `nominal ${name} (${od} mm outside)`,
    section: { shape: 'tube', diameter: od / 1000, wall: wallOf(wall) / 1000 },
  }));
}

function squareTubes(...pairs: readonly (readonly [number, number])[]): StockSize[] {
  return pairs.map(([w, t]) => ({
    id: `${w}x${t}mm`,
    label: `${w} mm square, ${t} mm wall`,
    section: { shape: 'square-tube', width: w / 1000, wall: t / 1000 },
  }));
}

/** Threaded rod carries on its stress area, so the diameter here is that of the stress area. */
function threads(...rows: readonly (readonly [number, number])[]): StockSize[] {
  return rows.map(([m, areaMm2]) => ({
    id: `m${m}`,
    label: `M${m}`,
    section: { shape: 'round', diameter: Math.sqrt((4 * areaMm2) / Math.PI) / 1000 },
  }));
}

const metal = { allowed: 1, brittle: false } as const;
const timber = { allowed: 1 / 3, brittle: true } as const;

export const stockList: readonly Stock[] = [
  {
    id: 'aluminium-annealed',
    name: 'aluminium wire, annealed',
    youngs: 69 * GPa,
    density: 2700,
    strength: mpa(45, 30, 70),
    ...metal,
    sizes: [
      ...rounds(1, 1.5, 2, 2.5, 3, 3.2, 4, 4.8, 6, 6.4, 9.5),
      ...gauges('AWG', 18, 4, 2),
      ...inches(1, 2, 3, 4, 6),
    ],
    note: 'Never rusts. Bends in the hand up to about 5 mm; every bend hardens it and a few sharp ones in one place break it.',
  },
  {
    id: 'aluminium-half-hard',
    name: 'aluminium wire, half hard',
    youngs: 69 * GPa,
    density: 2700,
    strength: mpa(95),
    ...metal,
    sizes: rounds(1.5, 2, 2.5, 3, 4, 5, 6),
    note: 'Twice the strength of annealed, and wants pliers.',
  },
  {
    id: 'steel-galvanised',
    name: 'steel wire, soft galvanised',
    youngs: 200 * GPa,
    density: 7850,
    strength: mpa(250, 230, 300),
    ...metal,
    sizes: [...rounds(0.5, 0.7, 1, 1.5, 2, 2.5, 3, 4), ...gauges('SWG', 25, 8, 1)],
    note: 'The zinc holds for a while in damp clay; cut ends rust.',
  },
  {
    id: 'steel-hard',
    name: 'steel wire, hard drawn',
    youngs: 200 * GPa,
    density: 7850,
    strength: mpa(600),
    ...metal,
    sizes: rounds(1, 1.5, 2, 2.5, 3, 4, 5),
    note: 'Springs back after bending.',
  },
  {
    id: 'steel-black',
    name: 'steel wire, black annealed',
    youngs: 200 * GPa,
    density: 7850,
    strength: mpa(230),
    ...metal,
    sizes: rounds(0.7, 0.9, 1.2, 1.5, 2, 2.5, 3),
    note: 'For binding. Rusts in damp clay and stains it.',
  },
  {
    id: 'copper-annealed',
    name: 'copper wire, annealed',
    youngs: 117 * GPa,
    density: 8960,
    strength: mpa(60, 33, 70),
    ...metal,
    sizes: rounds(0.5, 1, 1.5, 2, 2.5, 3, 4),
    note: 'Turns green in damp and salt.',
  },
  {
    id: 'brass-rod',
    name: 'brass rod',
    youngs: 100 * GPa,
    density: 8500,
    strength: mpa(200),
    ...metal,
    sizes: rounds(1.5, 2, 3, 4, 5, 6, 8, 10),
    note: 'Solders well.',
  },
  {
    id: 'mild-steel',
    name: 'mild steel rod and bar',
    youngs: 200 * GPa,
    density: 7850,
    strength: mpa(235),
    ...metal,
    sizes: [
      ...rounds(3, 4, 5, 6, 8, 10, 12, 16, 20, 25),
      ...flats([20, 3], [25, 5], [40, 5], [10, 10], [20, 20], [40, 40]),
    ],
    note: 'Can be welded.',
  },
  {
    id: 'stainless-rod',
    name: 'stainless rod',
    youngs: 193 * GPa,
    density: 8000,
    strength: mpa(215),
    ...metal,
    sizes: rounds(1.5, 2, 3, 4, 5, 6, 8, 10, 12),
    note: 'Does not stain damp clay.',
  },
  {
    id: 'threaded-rod',
    name: 'threaded rod',
    youngs: 200 * GPa,
    density: 7850,
    strength: mpa(240),
    ...metal,
    sizes: threads([4, 8.78], [5, 14.2], [6, 20.1], [8, 36.6], [10, 58], [12, 84.3], [16, 157], [20, 245]),
    note: 'Clamped between two nuts it holds a board without screws.',
  },
  {
    id: 'steel-pipe',
    name: 'steel pipe',
    youngs: 200 * GPa,
    density: 7850,
    strength: mpa(205),
    ...metal,
    sizes: pipes((wall) => wall),
    note: 'Screws into a floor flange. Rusts in damp clay.',
  },
  {
    id: 'steel-square-tube',
    name: 'steel square tube',
    youngs: 200 * GPa,
    density: 7850,
    strength: mpa(235),
    ...metal,
    sizes: squareTubes([15, 1.5], [20, 2], [25, 2], [30, 2], [40, 3], [50, 3]),
    note: 'Can be welded.',
  },
  {
    id: 'pvc-pipe',
    name: 'PVC pipe',
    youngs: 2.8 * GPa,
    density: 1400,
    strength: mpa(50, 14, 55),
    allowed: 14 / 50,
    brittle: false,
    sizes: pipes((wall) => Math.min(3.9, Math.max(2.8, wall))),
    note: 'Goes soft at 75 degrees and creeps under a load that stays on.',
  },
  {
    id: 'hardwood-dowel',
    name: 'hardwood dowel',
    youngs: 12 * GPa,
    density: 680,
    strength: mpa(95),
    ...timber,
    sizes: rounds(3, 4, 6, 8, 10, 12, 16, 20, 25, 32, 40),
    note: 'Swells in damp clay and splits it.',
  },
  {
    id: 'bamboo',
    name: 'bamboo skewer or cane',
    youngs: 14 * GPa,
    density: 700,
    strength: mpa(120),
    ...timber,
    sizes: rounds(3, 4, 6, 8, 10, 12, 16, 20),
    note: 'Strong along, splits across.',
  },
  {
    id: 'softwood-batten',
    name: 'softwood batten',
    youngs: 9.5 * GPa,
    density: 450,
    strength: mpa(65),
    ...timber,
    sizes: flats([20, 20], [20, 45], [45, 45], [45, 95]),
    note: 'Screws hold along its side, poorly in its end.',
  },
  {
    id: 'plywood',
    name: 'plywood',
    youngs: 8 * GPa,
    density: 640,
    strength: mpa(40),
    ...timber,
    sizes: boards(6, 9, 12, 15, 18, 24),
    note: 'The usual base board.',
  },
  {
    id: 'mdf',
    name: 'MDF',
    youngs: 3 * GPa,
    density: 750,
    strength: mpa(30),
    ...timber,
    sizes: boards(6, 9, 12, 16, 18, 25),
    note: 'Swells where it gets wet. Its dust needs a respirator.',
  },
  {
    id: 'chipboard',
    name: 'faced chipboard',
    youngs: 2.5 * GPa,
    density: 680,
    strength: mpa(13),
    ...timber,
    sizes: boards(15, 16, 18, 22, 25),
    note: 'The facing wipes clean; screws hold worst in it.',
  },
];

export const stocks: ReadonlyMap<string, Stock> = new Map(stockList.map((s) => [s.id, s]));
