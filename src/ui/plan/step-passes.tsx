import { passesIn, type PlannedStep } from '../../core/plan';
import { formatDuration } from '../../core/quantity';

/** Passes over the face that are a step's work, each with its time, its tools and what it wipes out. */
export function StepPasses({
  step,
  className,
  boxes = false,
}: {
  step: PlannedStep;
  className: string;
  boxes?: boolean;
}) {
  const own = passesIn(step.passes ?? [], step.takes);
  if (own.length === 0) return null;
  return (
    <ol className={className} aria-label={`Passes of ${step.name}`}>
      {own.map(({ pass, hours }) => (
        <li key={pass.id}>
          {boxes && <span className="box" />} {pass.name}, {formatDuration(hours * 3600)}: {pass.tools}.
          {pass.wipes === 'nothing' ? '' : ` It takes away ${pass.wipes}.`}
        </li>
      ))}
    </ol>
  );
}
