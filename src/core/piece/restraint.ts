import { bundleAcross, coverOnFace, sectionAcross, sectionsIn, tooThinOver, type Member } from '../armature';
import { freeEndShare, furtherCoatRestraint, rigidRestraint, slidesBelow } from '../drying';
import type { Piece } from './piece';

/**
 * What holds the clay back while it dries and shrinks, as a share of its shrinkage: the core under a first coat, dry
 * clay under a further one, and a member that lies close under the face. Less where a film slips, and where sections
 * clad by themselves have free ends.
 */

/** A form open on one side lets a film slip; one that closes on itself grips the clay whatever is on it. */
export const openForms: ReadonlySet<string> = new Set(['mask', 'worn-shell']);
const filmSlips = 0.5;

/** Of a region's first coat, by its index. */
export function restraintOnCore(piece: Piece, region: number): number {
  const { stages, form } = piece.build;
  const slips = stages.film && openForms.has(form.start.kind) ? filmSlips : 1;
  const core = piece.faces[region]?.restraint ?? piece.face.restraint;
  const slides = stages.apart && core < slidesBelow && sectionsIn(piece.armature).length > 1 ? freeEndShare : 1;
  return core * slips * slides;
}

/** A further coat lies on dry clay, whatever the core is. */
export function restraintOfCoat(onCore: number, further: boolean): number {
  return further ? furtherCoatRestraint : onCore;
}

/** Right over a member with nothing but clay between, hardly any of the shrinkage is let go. */
export function overMember(restraint: number): number {
  return Math.max(restraint, rigidRestraint);
}

/**
 * At places on the face, three coordinates each: by the coat, and wholly where a member lies close under it. `thickness`
 * is each region's clay, `step` the side of a cell; metres.
 */
export function restraintsAt(
  piece: Piece,
  places: Float32Array,
  regions: Uint8Array,
  thickness: readonly number[],
  step: number,
  further: (region: number) => boolean,
): Float32Array {
  const byRegion = piece.regions.map((_, r) => restraintOfCoat(restraintOnCore(piece, r), further(r)));
  const out = Float32Array.from(regions, (r) => byRegion[r]!);
  const tooNear = new Set(piece.cover.filter((c) => c.least < c.wanted).map((c) => c.member));
  for (const m of piece.armature.members.filter((x) => tooNear.has(x.id))) {
    const strand = strandOf(piece, m);
    const cover = coverOnFace(places, [m], () => bundleAcross(strand, m.strands));
    for (let f = 0; f < out.length; f++) {
      // Places are middles of cells, half a cell under the face.
      const thin = tooThinOver(cover[f]! + step / 2, strand, thickness[regions[f]!] ?? 0);
      if (thin && !further(regions[f]!)) out[f] = overMember(out[f]!);
    }
  }
  return out;
}

function strandOf(piece: Piece, m: Member): number {
  const size = piece.stockOf(m.stock)?.sizes.find((s) => s.id === m.size);
  return size ? sectionAcross(size.section) : 0.004;
}
