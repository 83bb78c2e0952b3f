import { clayToWarm, timeWords, whenWords, type BuildPlan } from '../../core/plan';
import { formatMass, type UnitSystem } from '../../core/quantity';

/** How much clay has to be put to warm for a day's work, and when; nothing where none is warmed. */
export function WarmClay({
  plan,
  date,
  zone,
  units,
  className,
}: {
  plan: BuildPlan;
  date: string;
  zone: string;
  units: UnitSystem;
  className: string;
}) {
  const warm = clayToWarm(plan).find((w) => w.date === date);
  if (!warm) return null;
  return (
    <p className={className} data-testid="warm-clay">
      {warm.planned
        ? `Of the clay ${formatMass(warm.mass, units)} is to be warm`
        : `Put ${formatMass(warm.mass, units)} of clay to warm by ${whenWords(warm.from, zone)}`}
      : it is laid from {timeWords(warm.by, zone)} on.
    </p>
  );
}
