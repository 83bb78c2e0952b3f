import { asBriefed } from '../../core/evaluate';
import { hashText, parseBuild } from '../../core/document';
import { airAtHour, weekdayOf } from '../../core/drying';
import { secondsOf } from '../../core/quantity';
import { Evaluator } from '../../core/evaluate';
import { effectiveLog, firstClay } from '../../core/log';
import { forecastOf, ResultCache, type Piece } from '../../core/piece';
import * as db from '../../db';
import { database } from '../store';
import { entriesOf } from '../workshop';
import type { Device, DeviceReading } from './device';
import { SimulatedHygrometer, SimulatedScale } from './simulated';

export type { Device, DeviceReading } from './device';
export { SimulatedHygrometer, SimulatedScale, scaleFaults } from './simulated';

/**
 * The devices on the bench of a build. There are only simulated ones yet: their scale carries the build as it really
 * dries, which is never quite as forecast.
 */
export async function devicesFor(buildId: string): Promise<Device[] | null> {
  const row = await db.findBuild(await database(), buildId);
  if (!row) return null;
  const build = parseBuild(row.document);
  if (!build.ok) return null;
  const seed = Number.parseInt(hashText(buildId).slice(0, 6), 36) % 100_000;
  const piece = new Evaluator().piece(asBriefed(build.value));
  const forecast = piece.ok ? forecastOf(piece.value, new ResultCache()) : null;
  const base = piece.ok ? baseMass(piece.value) : 0;
  const log = effectiveLog(entriesOf(await db.listLog(await database(), buildId)));
  const start = firstClay(build.value, log) * 1000;
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
  const calendar = { room: build.value.room, weekday: weekdayOf(build.value.brief.startDate) };
  const room = (now: number) => airAtHour(calendar, (now / 1000 - secondsOf(build.value.brief.startDate)) / 3600);
  return [new SimulatedScale(gross, seed), new SimulatedHygrometer(room, seed)];
}

function baseMass(piece: Piece): number {
  const report = new Evaluator().evaluate(asBriefed(piece.build));
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
