import { awayFromLine, hasBone, partsToWire, withSizes, type Sizes, type SlenderPart } from '../school';
import type { Build } from '../document';
import { makePiece, type Piece, type ResultCache, type Unsupported } from '../piece';

/** Asked of the clay a part hangs on: from here on a long thin part gets a wire, and past the other any part does. */
const nearsItsLimit = 2 / 3,
  fails = 1;
/** What hangs beyond a wire may need one of its own. */
const passes = 4;

/** Parts of the form that reach too far beyond the armature for their clay, and get wires of their own. */
export function partsWired(build: Build, sizes: Sizes, cache: ResultCache): readonly string[] {
  const along: string[] = [];
  if (build.armature.along) return along;
  for (let pass = 0; pass < passes; pass++) {
    const made = makePiece(withSizes(build, { ...sizes, along }), cache);
    if (!made.ok || made.value.armature.bones.length === 0) break;
    const more = made.value.unsupported().flatMap((lot) => partOf(made.value, lot, along));
    if (more.length === 0) break;
    along.push(...new Set(more));
  }
  return along;
}

/** What holds a lot best: the nearest long thin part that has no wire yet, or else what most of it lies in; both of a pair. */
function partOf({ form, armature }: Piece, lot: Unsupported, along: readonly string[]): string[] {
  if (lot.utilisation <= nearsItsLimit || !Number.isFinite(lot.away)) return [];
  const parts = partsToWire(form.masses, armature.nodes).filter((p) => !along.includes(p.id) && !hasBone(p, armature));
  const away = (p: (typeof parts)[number]) => awayFromLine(p.line, lot.at);
  const nearest = parts.reduce<(typeof parts)[number] | null>(
    (best, p) => (best === null || away(p) < away(best) ? p : best),
    null,
  );
  const owner = form.masses[lot.mass]?.id;
  const chosen =
    nearest && away(nearest) < lot.away
      ? nearest.id
      : lot.utilisation > fails && owner !== undefined && !along.includes(owner)
        ? owner
        : null;
  if (chosen === null) return [];
  return leadingTo(chosen, parts).flatMap((id) => bothSides(id, form.masses));
}

/** Metres within which a part begins on another's line. */
const leaves = 0.003;

/** A part, and those it leaves from that have no wire either: an antler before its tine. */
function leadingTo(id: string, parts: readonly SlenderPart[]): string[] {
  const out = [id];
  for (let at = parts.find((p) => p.id === id); at;) {
    const root = at.line[0]!;
    at = parts.find((p) => !out.includes(p.id) && awayFromLine(p.line, root) < leaves);
    if (at) out.unshift(at.id);
  }
  return out;
}

function bothSides(chosen: string, masses: Piece['form']['masses']): string[] {
  const twin = chosen.replace(/(left|right)$/, (side) => (side === 'left' ? 'right' : 'left'));
  return twin !== chosen && masses.some((m) => m.id === twin) ? [chosen, twin] : [chosen];
}
