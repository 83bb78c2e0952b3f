import { parseBuild, type Build } from '../../core/document';
import { failure, success, type Result } from '../../core/quantity';
import * as db from '../../db';
import { workOut } from '../reckoner';
import { database } from '../store';
import { entriesOf } from '../workshop';
import type { StreamedReading } from './readings';

export type { Device, DeviceReading } from './device';
export { SimulatedHygrometer, SimulatedScale, scaleFaults } from './simulated';
export { readAll, simulatedDevices, type StreamedReading } from './readings';

/** Documents of benches that are looked at: read once a save, not once a second. */
const parsed = new Map<string, { readonly of: string; readonly build: Build }>();

/** What the devices on the bench of a build say; `now` in milliseconds since 1970. */
export async function readDevices(buildId: string, now: number): Promise<Result<StreamedReading[]>> {
  const store = await database();
  const row = await db.findBuild(store, buildId);
  if (!row) return failure('no-such-build', 'id', 'there is no such build');
  const of = `${row.revision} ${row.updatedAt}`;
  let kept = parsed.get(buildId);
  if (kept?.of !== of) {
    const build = parseBuild(row.document);
    if (!build.ok) return build;
    kept = { of, build: build.value };
    if (parsed.size >= 50) parsed.clear();
    parsed.set(buildId, kept);
  }
  const log = entriesOf(await db.listLog(store, buildId));
  return workOut('readings', { id: buildId, build: kept.build, log, now });
}

/** One reading of a bench serves all who look at it. */
interface Watched {
  readonly tell: Set<(readings: readonly StreamedReading[]) => void>;
  last: readonly StreamedReading[] | null;
  timer: ReturnType<typeof setTimeout> | undefined;
}
const holder = globalThis as unknown as { sostegnoBenches?: Map<string, Watched> };
const everyMs = 1000;

/** Hands the readings of a bench on, about once a second, until the function that comes back is called. */
export function watchDevices(buildId: string, tell: (readings: readonly StreamedReading[]) => void): () => void {
  const benches = (holder.sostegnoBenches ??= new Map<string, Watched>());
  let bench = benches.get(buildId);
  if (!bench) {
    bench = { tell: new Set(), last: null, timer: undefined };
    benches.set(buildId, bench);
  }
  const { tell: all } = bench;
  all.add(tell);
  if (bench.last) tell(bench.last);
  if (all.size === 1) void turn(buildId, bench);
  return () => {
    all.delete(tell);
    if (all.size > 0) return;
    clearTimeout(bench.timer);
    if (benches.get(buildId) === bench) benches.delete(buildId);
  };
}

async function turn(buildId: string, bench: Watched): Promise<void> {
  const read = await readDevices(buildId, Date.now()).catch(() => null);
  if (bench.tell.size === 0) return;
  if (read?.ok) {
    bench.last = read.value;
    for (const tell of bench.tell) tell(read.value);
  }
  bench.timer = setTimeout(() => void turn(buildId, bench), everyMs);
}

export async function hasBench(buildId: string): Promise<Result<null>> {
  return (await db.findBuild(await database(), buildId))
    ? success(null)
    : failure('no-such-build', 'id', 'there is no such build');
}
