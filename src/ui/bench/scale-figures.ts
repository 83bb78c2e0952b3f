/** A hand and a person in outline, to judge a size by: metres across and up, from where they stand. */
type Points = readonly (readonly [number, number])[];

const handMm: Points = [
  [20, 0], [74, 0], [84, 58], [84, 100], [88, 150], [80, 164], [72, 150], [67, 110], [66, 170], [57, 184], [49, 170], [47, 110], [45, 176], [36, 191], [28, 176],
  [28, 106], [24, 160], [15, 175], [8, 160], [8, 96], [2, 72], [-26, 104], [-40, 98], [-36, 80], [-8, 34], [20, 0],
];
const halfPerson: Points = [
  [0, 1], [0.03, 0.993], [0.045, 0.96], [0.042, 0.915], [0.028, 0.885], [0.03, 0.862], [0.1, 0.838], [0.128, 0.81], [0.145, 0.64], [0.158, 0.47], [0.138, 0.445], [0.122, 0.6],
  [0.1, 0.73], [0.088, 0.62], [0.102, 0.51], [0.088, 0.28], [0.064, 0.045], [0.09, 0.012], [0.086, 0], [0.03, 0], [0.026, 0.26], [0.004, 0.47],
];
const personHeight = 1.72;

export function scaleFigure(pieceHeight: number): { readonly name: string; readonly points: Points; readonly width: number } {
  if (pieceHeight < 0.55) return { name: 'a hand, 190 mm', width: 0.13, points: handMm.map(([x, y]) => [x / 1000, y / 1000] as const) };
  const right = halfPerson.map(([x, y]) => [x * personHeight, y * personHeight] as const);
  const left = [...halfPerson].reverse().map(([x, y]) => [-x * personHeight, y * personHeight] as const);
  return { name: 'a person, 1.72 m', width: 0.6, points: [...right, ...left] };
}
