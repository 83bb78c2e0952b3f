import type { Parting } from '../../core/parting';
import type { Vec3 } from '../../core/quantity';

/** Names of a mould's parts by the way they are drawn; left is the piece's own, its front looks the other way from its back. */
const sides: readonly { readonly name: string; readonly way: Vec3 }[] = [
  { name: 'front', way: [0, -1, 0] },
  { name: 'back', way: [0, 1, 0] },
  { name: 'left', way: [1, 0, 0] },
  { name: 'right', way: [-1, 0, 0] },
  { name: 'top', way: [0, 0, 1] },
  { name: 'under', way: [0, 0, -1] },
];

const along = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

export function partNames(directions: readonly Vec3[]): string[] {
  const plain = directions.map(
    (d) => sides.reduce((best, s) => (along(s.way, d) > along(best.way, d) ? s : best)).name,
  );
  const full = plain.map((name, i) => {
    if (plain.filter((n) => n === name).length === 1) return name;
    const own = sides.find((s) => s.name === name)!.way;
    const second = sides
      .filter((s) => Math.abs(along(s.way, own)) < 0.5)
      .reduce((best, s) => (along(s.way, directions[i]!) > along(best.way, directions[i]!) ? s : best));
    return `${name}, ${second.name}`;
  });
  return full.map((name, i) => {
    const before = full.slice(0, i).filter((n) => n === name).length;
    return before > 0 ? `${name}, ${before + 1}` : name;
  });
}

/** Names of a mould's cavities, from the piece's own left: a pair is a left and a right. */
export function cavityNames(places: readonly Vec3[]): string[] {
  const [first, second] = places;
  const pair = places.length === 2 && first![0] > 0 && second![0] < 0;
  return pair ? ['left', 'right'] : places.map((_, i) => String(i + 1));
}

/** The way a part is drawn, as one would say it. */
export function drawnWords(d: Vec3): string {
  const words = [
    [d[1] < 0 ? 'forward' : 'back', Math.abs(d[1])],
    [d[0] > 0 ? 'to its left' : 'to its right', Math.abs(d[0])],
    [d[2] > 0 ? 'up' : 'down', Math.abs(d[2])],
  ] as const;
  const told = words.filter(([, share]) => share > 0.3).sort((a, b) => b[1] - a[1]);
  return told.map(([word]) => word).join(' and ');
}

/** How the cast gets into its mould. What lies on the wall of it needs no vent; `stands`: it is open where the piece stood. */
export function filledWords(
  { behind, pour }: { readonly behind: number | null; readonly pour: Pick<Parting['pour'], 'up' | 'holes' | 'vents'> },
  hollow: boolean,
  stands: boolean,
): string {
  if (hollow)
    return behind !== null || stands
      ? 'The cast is laid or rolled round inside, through the open side; no vents are wanted.'
      : 'The cast is laid into its parts before they are closed, or rolled round inside through one hole.';
  const { up, holes, vents } = pour;
  const stood = drawnWords(up);
  const how =
    stood === 'up' ? 'as it stands' : stood === 'down' ? 'upside down' : `turned so that what looks ${stood} is on top`;
  const through =
    holes === 0
      ? 'through its open side'
      : holes === 1
        ? 'through one hole at the top'
        : `through ${holes} holes, one at the top of each cavity`;
  return `Pour it ${how}, ${through}${vents === 0 ? '; no vents are wanted' : `; ${vents === 1 ? 'one vent' : `${vents} vents`} where air would stay`}.`;
}
