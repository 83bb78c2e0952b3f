import type { PlannedStep } from '../../core/plan';
import { formatMass, type UnitSystem } from '../../core/quantity';

/** How much a step puts on besides clay, and how much clay it gives back. */
export function StepAmounts({
  step: { material, returns },
  units,
  className,
}: {
  step: PlannedStep;
  units: UnitSystem;
  className: string;
}) {
  return (
    <>
      {material && (
        <div className={className}>
          About {formatMass(material.mass, units)} of {material.name}.
        </div>
      )}
      {returns !== undefined && <div className={className}>Gives back about {formatMass(returns, units)} of clay.</div>}
    </>
  );
}
