import type { Build } from '../document';
import { makePiece, ResultCache, type Piece } from '../piece';
import { alongPath, noSizes, partsToWire, withSizes } from '../school';
import { coreUnder } from './core-under-clay';
import { partsWired } from './parts-to-wire';
import { sizeToCarry } from './size-to-carry';

/** Figures of a beginning that are chosen where an armature is sized to carry. */
const chosenSizes = ['pipeSize', 'frameSize', 'shoulderSize'];

/**
 * A build as every new one begins: its armature sized to carry wherever nothing is set by hand, and its clay no thicker on
 * a thin limb than leaves a core in it.
 */
export function begunToCarry(build: Build): Build {
  const { armature } = build;
  const parameters = Object.fromEntries(
    Object.entries(armature.school.parameters).filter(
      // A form is carved of what its clay can stand; only an object that is found is what it is.
      ([key, value]) => !chosenSizes.includes(key) && value !== 'polystyrene-extruded',
    ),
  );
  const begun: Build = {
    ...build,
    armature: { ...armature, sizing: 'to-carry', school: { ...armature.school, parameters } },
  };
  const cache = new ResultCache();
  const piece = makePiece(begun, cache);
  if (!piece.ok) return begun;
  const wired = new Set(partsWired(begun, { ...noSizes, parameters: coreUnder(begun) }, cache));
  let thinned = thinOnThin(begun, piece.value, wired);
  // Less clay is less to carry: what is then chosen may be looked at once more.
  for (let pass = 0; pass < 2; pass++) {
    const before = thinned;
    thinned = thinOverWires(before, cache);
    if (thinned === before) break;
  }
  return thinned;
}

/** Where a wire that carries has no room but in the clay over it, no more is laid there than lies over it. */
function thinOverWires(build: Build, cache: ResultCache): Build {
  const piece = makePiece(withSizes(build, sizeToCarry(build, cache)), cache);
  if (!piece.ok || piece.value.clay.setting !== 'dries') return build;
  const own: Build['regions']['own'] = { ...build.regions.own };
  let any = false;
  piece.value.thinOver.forEach((places, r) => {
    const least = Math.min(...places.map((p) => p.least));
    const coat = Math.floor(least * 2e3) / 2e3;
    const region = piece.value.regions[r]!;
    if (!(coat >= leastCoat && coat < Infinity)) return;
    own[region] = { ...(own[region] ?? build.regions.everywhere), coats: [coat] };
    any = true;
  });
  return any ? { ...build, regions: { ...build.regions, own } } : build;
}

/** Of half of a thin limb, the most that is clay; and the least a coat is laid, metres. */
const mostClay = 0.4,
  leastCoat = 0.0015;

function thinOnThin(build: Build, piece: Piece, wired: ReadonlySet<string>): Build {
  const { everywhere } = build.regions;
  const usual = everywhere.coats.reduce((sum, t) => sum + t, 0);
  const own: Build['regions']['own'] = { ...build.regions.own };
  piece.regions.forEach((region, r) => {
    if (Object.hasOwn(own, region)) return;
    const halves = [...halvesOfLimbs(piece, r), ...halvesOfWired(piece, r, wired), ...halfOfPlate(piece, r)];
    if (halves.length === 0) return;
    const coat = Math.max(leastCoat, Math.round(mostClay * Math.min(...halves) * 2e3) / 2e3);
    if (coat < usual) own[region] = { ...everywhere, coats: [coat] };
  });
  return { ...build, regions: { ...build.regions, own } };
}

/** Half across every limb whose thinnest place lies in a region, metres. */
function halvesOfLimbs(piece: Piece, region: number): number[] {
  const everyone = piece.field.all();
  return piece
    .limbs()
    .filter(({ at, thinnest }) => {
      piece.field.at(at[0], at[1], at[2], everyone);
      return thinnest > 0 && piece.regionOfMass[piece.field.owner] === region;
    })
    .map((l) => l.thinnest / 2);
}

/** Half across a horn or a finger that a wire runs along, near its tip; metres. */
function halvesOfWired(
  { form, armature, field, regions }: Piece,
  region: number,
  wired: ReadonlySet<string>,
): number[] {
  const everyone = field.all();
  return partsToWire(form.masses, armature.nodes)
    .filter((p) => wired.has(p.id) && form.masses.find((m) => m.id === p.id)!.region === regions[region])
    .map((p) => {
      const [x, y, z] = alongPath(p.line, nearTip);
      return -field.at(x, y, z, everyone);
    })
    .filter((half) => half > 0);
}
const nearTip = 0.8;

/** Half of what is all clay and a good part of the whole, a tile or a panel: its volume over its face, metres. */
function halfOfPlate(piece: Piece, region: number): number[] {
  const parts = piece.volumes.perMass.filter((_, i) => piece.regionOfMass[i] === region);
  const sum = (of: (m: (typeof parts)[number]) => number) => parts.reduce((s, m) => s + of(m), 0);
  const half =
    sum((m) => m.clay + m.bulk) /
    Math.max(
      1e-12,
      sum((m) => m.area),
    );
  const share = sum((m) => m.clay + m.bulk) / Math.max(1e-12, piece.volumes.outerVolume);
  return sum((m) => m.bulk) < 0.1 * sum((m) => m.clay) && share > plateShare ? [half] : [];
}
/** Of the whole form: what is less is an ear or a tooth, and solid. */
const plateShare = 0.15;
