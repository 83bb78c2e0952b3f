/** Two-hue ramps, even to the eye; never a rainbow. Stops are [share, red, green, blue]. */
type Stop = readonly [number, number, number, number];

const loadStops: readonly Stop[] = [
  [0, 196, 205, 203],
  [0.4, 122, 148, 156],
  [0.66, 65, 80, 90],
  [1, 158, 61, 40],
];
/** In the evening what is idle must be the dim one. */
const loadStopsEvening: readonly Stop[] = [
  [0, 84, 94, 98],
  [0.4, 122, 148, 156],
  [0.66, 196, 208, 212],
  [1, 233, 122, 92],
];
const moistureStops: readonly Stop[] = [
  [0, 232, 220, 198],
  [0.5, 143, 152, 150],
  [1, 46, 68, 82],
];

/** Cover from nothing to plenty: bare iron shows as oxide, deep clay as plaster. */
const coverStops: readonly Stop[] = [
  [0, 150, 52, 34],
  [0.2, 190, 106, 74],
  [0.5, 217, 188, 156],
  [1, 240, 234, 222],
];
export const plentyOfCover = 0.03;

function read(stops: readonly Stop[], share: number): [number, number, number] {
  const s = Math.min(1, Math.max(0, share));
  for (let i = 1; i < stops.length; i++) {
    const a = stops[i - 1]!,
      b = stops[i]!;
    if (s > b[0]) continue;
    const f = (s - a[0]) / (b[0] - a[0]);
    return [a[1] + (b[1] - a[1]) * f, a[2] + (b[2] - a[2]) * f, a[3] + (b[3] - a[3]) * f];
  }
  const last = stops[stops.length - 1]!;
  return [last[1], last[2], last[3]];
}

/** Utilisation 0..1.5 as red, green, blue 0..1. */
export function loadColour(utilisation: number, evening = false): [number, number, number] {
  return read(evening ? loadStopsEvening : loadStops, utilisation / 1.5).map((c) => c / 255) as [
    number,
    number,
    number,
  ];
}

/** Share of the water still to leave, 0 dry .. 1 as laid. */
export function moistureColour(share: number): [number, number, number] {
  return read(moistureStops, share).map((c) => c / 255) as [number, number, number];
}

/** Cover in metres. */
export function coverColour(cover: number): [number, number, number] {
  return read(coverStops, cover / plentyOfCover).map((c) => c / 255) as [number, number, number];
}

export function rampCss(kind: 'load' | 'moisture' | 'cover', evening = false): string {
  const stops =
    kind === 'cover' ? coverStops : kind === 'moisture' ? moistureStops : evening ? loadStopsEvening : loadStops;
  return `linear-gradient(90deg, ${stops.map(([s, r, g, b]) => `rgb(${r} ${g} ${b}) ${s * 100}%`).join(', ')})`;
}
