import { hashText, type Build } from '../../core/document';
import { airAtHour, weekdayOf } from '../../core/drying';
import { asBriefed, type Evaluator } from '../../core/evaluate';
import { effectiveLog, firstClay, type LogEntry } from '../../core/log';
import { forecastOf, ResultCache } from '../../core/piece';
import { secondsOf } from '../../core/quantity';
import type { Device, DeviceReading } from './device';
import { SimulatedHygrometer, SimulatedScale } from './simulated';

/** The last benches that were asked about, so that a reading a second is not a reckoning a second. */
const known = new Map<string, { readonly of: string; readonly devices: Device[] }>();
const mostKnown = 50;

/**
 * The devices on the bench of a build. There are only simulated ones yet: their scale carries the build as it really
 * dries, which is never quite as forecast.
 */
export function simulatedDevices(
  buildId: string,
  build: Build,
  entries: readonly LogEntry[],
  evaluator: Evaluator,
): Device[] {
  const start = firstClay(build, effectiveLog(entries)) * 1000;
  const of = `${hashText(JSON.stringify(build))} ${start}`;
  const kept = known.get(buildId);
  if (kept?.of === of) return kept.devices;
  const seed = Number.parseInt(hashText(buildId).slice(0, 6), 36) % 100_000;
  const question = asBriefed(build);
  const piece = evaluator.piece(question);
  const forecast = piece.ok ? forecastOf(piece.value, new ResultCache()) : null;
  const base = piece.ok ? baseMass(question, evaluator) : 0;
  // What the bench will find out: this room and this batch, the same for as long as the build lives.
  const truth = {
    evaporation: 0.8 + 0.35 * ((seed % 97) / 97),
    diffusion: 0.8 + 0.4 * ((seed % 89) / 89),
    amount: 0.98 + 0.04 * ((seed % 83) / 83),
  };
  const mass = forecast
    ? forecast.mass({ transfer: truth.evaporation, diffusivity: truth.diffusion }, truth.amount)
    : () => 0;
  const gross = (now: number) => base + (now < start ? (forecast?.rest ?? 0) : mass((now - start) / 1000));
  const calendar = { room: build.room, weekday: weekdayOf(build.brief.startDate) };
  const room = (now: number) => airAtHour(calendar, (now / 1000 - secondsOf(build.brief.startDate)) / 3600);
  const devices = [new SimulatedScale(gross, seed), new SimulatedHygrometer(room, seed)];
  if (known.size >= mostKnown) known.clear();
  known.set(buildId, { of, devices });
  return devices;
}

function baseMass(question: Parameters<Evaluator['evaluate']>[0], evaluator: Evaluator): number {
  const report = evaluator.evaluate(question);
  return report.ok
    ? report.value.ledger.items
        .filter((i) => i.kind === 'base' || i.kind === 'ballast')
        .reduce((sum, i) => sum + i.wet, 0)
    : 0;
}

export interface StreamedReading {
  readonly id: string;
  readonly name: string;
  readonly kind: Device['kind'];
  readonly simulated: boolean;
  readonly reading: DeviceReading;
}

export async function readAll(devices: readonly Device[], now: number): Promise<StreamedReading[]> {
  return Promise.all(
    devices.map(async (d) => ({
      id: d.id,
      name: d.name,
      kind: d.kind,
      simulated: d.simulated,
      reading: await d.read(now),
    })),
  );
}
