'use client';
import { clayStateAt, repairOf } from '../../core/drying';
import { findClay } from '../../core/document';
import { secondsOf } from '../../core/quantity';
import { useBench } from '../bench/context';
import { lastStanding, type ReadEntry } from '../../core/log';

const stateWords = { soft: 'still soft', leathery: 'leathery', drying: 'drying', dry: 'dry' } as const;

/** What to do about the last crack that was logged and not struck. */
export function RepairAdvice({ entries }: { entries: readonly ReadEntry[] }) {
  const build = useBench((s) => s.build);
  const report = useBench((s) => s.report);
  const crack = lastStanding(entries, 'crack');
  if (!crack || !report) return null;
  const region =
    report.regions.find((r) => r.name === crack.data.where || r.id === crack.data.where) ?? report.regions[0];
  const clay = findClay(build, build.brief.clay);
  const start = report.logged.firstClay;
  const now = Date.now() / 1000 - start,
    seen = secondsOf(crack.at) - start;
  const state = clayStateAt(Math.max(now, seen), {
    smooth: region?.windows.smooth.at ?? null,
    leather: region?.windows.leather.at ?? null,
    through: region?.windows.through.at ?? null,
  });
  const repair = repairOf(
    { width: crack.data.width, through: crack.data.through },
    state,
    clay.ok ? `the same ${clay.value.name}` : 'the same clay',
  );
  return (
    <section aria-label="Mending the crack" className="mt-3">
      <h3>Mending: {crack.data.where}</h3>
      <p className="small muted">
        By now the clay is {stateWords[state]}. {repair.when === 'now' ? 'Do it now.' : 'Wait until it is dry through.'}
      </p>
      <ol className="small">
        {repair.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
    </section>
  );
}
