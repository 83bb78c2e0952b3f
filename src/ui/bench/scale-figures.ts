/** A hand and a person in outline, to judge a size by: metres across and up, from where they stand. */
type Points = readonly (readonly [number, number])[];

const handMm: Points = [
  [20, 0],
  [74, 0],
  [84, 58],
  [84, 100],
  [88, 150],
  [80, 164],
  [72, 150],
  [67, 110],
  [66, 170],
  [57, 184],
  [49, 170],
  [47, 110],
  [45, 176],
  [36, 191],
  [28, 176],
  [28, 106],
  [24, 160],
  [15, 175],
  [8, 160],
  [8, 96],
  [2, 72],
  [-26, 104],
  [-40, 98],
  [-36, 80],
  [-8, 34],
  [20, 0],
];
const halfPerson: Points = [
  [0, 1],
  [0.03, 0.993],
  [0.045, 0.96],
  [0.042, 0.915],
  [0.028, 0.885],
  [0.03, 0.862],
  [0.1, 0.838],
  [0.128, 0.81],
  [0.145, 0.64],
  [0.158, 0.47],
  [0.138, 0.445],
  [0.122, 0.6],
  [0.1, 0.73],
  [0.088, 0.62],
  [0.102, 0.51],
  [0.088, 0.28],
  [0.064, 0.045],
  [0.09, 0.012],
  [0.086, 0],
  [0.03, 0],
  [0.026, 0.26],
  [0.004, 0.47],
];
const personHeight = 1.72;

export function scaleFigure(pieceHeight: number): {
  readonly name: string;
  readonly points: Points;
  readonly width: number;
} {
  if (pieceHeight < 0.55)
    return { name: 'a hand, 190 mm', width: 0.13, points: handMm.map(([x, y]) => [x / 1000, y / 1000] as const) };
  const right = halfPerson.map(([x, y]) => [x * personHeight, y * personHeight] as const);
  const left = [...halfPerson].reverse().map(([x, y]) => [-x * personHeight, y * personHeight] as const);
  return { name: 'a person, 1.72 m', width: 0.6, points: [...right, ...left] };
}

type Ring = readonly (readonly [number, number, number])[];

/** A wearer as level rings of trunk, head and arms, metres; and where on it a piece sits. Ordinary adult measures. */
export function bodyOutline(where: 'head' | 'shoulder' | 'chest' | 'back' | 'hand'): {
  readonly rings: readonly Ring[];
  readonly arms: readonly (readonly Ring[])[];
  readonly seat: readonly [number, number, number];
} {
  // Height, half breadth, half depth, and how far back its middle lies.
  const levels: readonly (readonly [number, number, number, number])[] = [
    [0.02, 0.155, 0.11, 0],
    [0.12, 0.16, 0.115, 0],
    [0.24, 0.172, 0.12, 0],
    [0.32, 0.18, 0.112, 0.004],
    [0.37, 0.185, 0.095, 0.008],
    [0.4, 0.165, 0.08, 0.01],
    [0.43, 0.115, 0.068, 0.01],
    [0.46, 0.066, 0.06, 0.004],
    [0.52, 0.058, 0.06, -0.008],
    [0.555, 0.06, 0.085, -0.018],
    [0.61, 0.072, 0.096, -0.022],
    [0.67, 0.077, 0.098, -0.015],
    [0.72, 0.062, 0.078, -0.008],
    [0.745, 0.025, 0.03, -0.004],
  ];
  const ring = ([z, a, b, y]: readonly [number, number, number, number], x = 0): Ring =>
    Array.from({ length: 41 }, (_, i) => {
      const t = (2 * Math.PI * i) / 40;
      return [x + a * Math.cos(t), y + b * Math.sin(t), z] as const;
    });
  const arm = (sign: number) =>
    (
      [
        [0.4, 0.02, 0.03, 0.17],
        [0.385, 0.045, 0.05, 0.185],
        [0.34, 0.052, 0.058, 0.2],
        [0.2, 0.045, 0.052, 0.222],
        [0.02, 0.04, 0.046, 0.235],
      ] as const
    ).map(([z, a, b, x]) => ring([z, a, b, 0.008], sign * x));
  const seats = {
    head: [0, -0.015, 0.69],
    shoulder: [0.19, 0.006, 0.37],
    chest: [0, -0.115, 0.26],
    back: [0, 0.115, 0.28],
    hand: [0.235, 0, 0.02],
  } as const;
  return { rings: levels.map((l) => ring(l)), arms: [arm(1), arm(-1)], seat: seats[where] };
}
