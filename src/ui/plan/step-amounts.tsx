import { batchesLeft, type PlannedStep } from '../../core/plan';
import { formatMass, type UnitSystem } from '../../core/quantity';

/** How much a step puts on besides clay, and how much clay it gives back. */
export function StepAmounts({
  step,
  batches = false,
  units,
  className,
}: {
  step: PlannedStep;
  /** Also how it is mixed, where no list of batches stands beside. */
  batches?: boolean;
  units: UnitSystem;
  className: string;
}) {
  const { material, returns, mixed } = step;
  const lots = batches ? batchesLeft(step).length : 0;
  return (
    <>
      {material && (
        <div className={className}>
          About {formatMass(material.mass, units)} of {material.name}
          {mixed && lots > 1 ? `, in ${lots} batches of up to ${formatMass(mixed.each, units)}` : ''}.
        </div>
      )}
      {returns !== undefined && <div className={className}>Gives back about {formatMass(returns, units)} of clay.</div>}
    </>
  );
}
