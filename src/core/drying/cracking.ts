import type { DryingCoefficients } from '../catalogue';
import { strainCapacity, type DryingCourse } from './through-thickness';

/**
 * Whether a layer cracks: what the core holds back of the shrinkage, and the dry skin over a wet inside,
 * each against the strain the clay takes as it stiffens. After Hutchinson & Suo (1992) for the energy a thin
 * layer releases (hence the square root of thickness) and Bigot's curve for when shrinkage happens.
 * Left out: single defects, trapped air, seams that were not scored.
 */
const referenceThickness = 0.008;
export const differentialShare = 0.35;

/** Restraint left after the piece is off its form. */
export const liftedOffRestraint = 0.04;
/**
 * A sleeve of clay that is free to slide at one end is held back round its core but not along it: stress in one
 * direction instead of two, lower by Poisson's ratio of about 0.3. Only over a core that lets it slide.
 */
export const freeEndShare = 0.7;
/** Cores that hold back more than this grip the clay all along. */
export const slidesBelow = 0.6;
/** Bonded to something rigid: wood, metal, plaster, dry clay. */
export const rigidRestraint = 0.9;
/** A further coat over dry clay of its own kind, as a share of rigid: the slip bonds and a thin coat creeps. */
export const furtherCoatRestraint = 0.45 * rigidRestraint;

/**
 * Integral over drying of eps ds / e_t(s), for a core that holds back everything, of a layer `thickness` m thick.
 * Closed form: e_t is geometric in s. Includes the thin-layer factor.
 */
export function restrainedStrain(clay: DryingCoefficients, thickness: number, shrinkageDone: number): number {
  const fall = Math.log(clay.capacityWet / clay.capacityDry);
  const integral =
    Math.abs(fall) < 1e-9
      ? shrinkageDone / clay.capacityWet
      : ((clay.capacityWet / clay.capacityDry) ** shrinkageDone - 1) / (clay.capacityWet * fall);
  return (clay.shrinkage * integral) / Math.sqrt(referenceThickness / thickness);
}

export interface CrackIndex {
  /** Per unit of restraint. */
  readonly perRestraint: number;
  readonly restrained: number;
  readonly differential: number;
  readonly total: number;
}

/** From here, until the shrinkage done is `until`, the core holds back this share. The last reaches to the end. */
export interface RestraintSpell {
  readonly restraint: number;
  readonly until: number;
}

/** What a core that changes (a form that is lifted off, halves that are opened) holds back in all. */
export function restrainedOver(
  clay: DryingCoefficients,
  thickness: number,
  spells: readonly RestraintSpell[],
  shrinkageDone: number,
): number {
  let sum = 0,
    before = 0;
  for (const spell of spells) {
    const until = Math.min(spell.until, shrinkageDone);
    if (until <= before) continue;
    sum +=
      Math.min(1, spell.restraint) *
      (restrainedStrain(clay, thickness, until) - restrainedStrain(clay, thickness, before));
    before = until;
  }
  return sum;
}

export function crackIndex(
  clay: DryingCoefficients,
  thickness: number,
  course: DryingCourse,
  restraint: number | readonly RestraintSpell[],
): CrackIndex {
  const perRestraint = restrainedStrain(clay, thickness, course.finalShrinkageDone);
  const restrained =
    typeof restraint === 'number'
      ? Math.min(1, restraint) * perRestraint
      : restrainedOver(clay, thickness, restraint, course.finalShrinkageDone);
  const differential = differentialShare * course.differentialPeak;
  return { perRestraint, restrained, differential, total: restrained + differential };
}

/** Linear strain held at shrinkage done `s`; shown beside the capacity in the explanation. */
export function strainAgainstCapacity(clay: DryingCoefficients, s: number): { strain: number; capacity: number } {
  return { strain: clay.shrinkage * s, capacity: strainCapacity(s, clay) };
}
