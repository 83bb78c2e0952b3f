import type { DryingCoefficients } from '../catalogue';
import { strainCapacity, type DryingCourse } from './through-thickness';

/**
 * Whether a layer cracks: what the core holds back of the shrinkage, and the dry skin over a wet inside,
 * each against the strain the clay takes as it stiffens. After Hutchinson & Suo (1992) for the energy a thin
 * layer releases (hence the square root of thickness) and Bigot's curve for when shrinkage happens.
 * Left out: single defects, trapped air, seams that were not scored.
 */
const referenceThickness = 0.008;
const differentialShare = 0.35;

/** Restraint left after the piece is off its form. */
export const liftedOffRestraint = 0.04;
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
  const integral = Math.abs(fall) < 1e-9
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

export function crackIndex(clay: DryingCoefficients, thickness: number, course: DryingCourse, restraint: number): CrackIndex {
  const perRestraint = restrainedStrain(clay, thickness, course.finalShrinkageDone);
  const restrained = Math.min(1, restraint) * perRestraint;
  const differential = differentialShare * course.differentialPeak;
  return { perRestraint, restrained, differential, total: restrained + differential };
}

/** Linear strain held at shrinkage done `s`; shown beside the capacity in the explanation. */
export function strainAgainstCapacity(clay: DryingCoefficients, s: number): { strain: number; capacity: number } {
  return { strain: clay.shrinkage * s, capacity: strainCapacity(s, clay) };
}
