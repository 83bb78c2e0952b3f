import { randomUUID } from 'node:crypto';
import type { Build } from '../core/build';
import { isoDateOf } from '../core/quantity';
import { clayMassAt, Evaluator, type Report } from '../core/verdict';
import { addBuild } from './builds';
import { lamplighter, otherDemoBuilds } from './demo-builds';
import { addToLog } from './log';
import { readFlag, writeFlag } from './settings';

const day = 86400;

/** Loads the demo data the first time, and again only when asked. Returns whether it did. */
export async function loadDemo(nowSeconds: number, again = false): Promise<boolean> {
  if (!again && (await readFlag('demo-loaded')) !== undefined) return false;
  const start = nowSeconds - 3 * day;
  const build = lamplighter(isoDateOf(start), isoDateOf(start + 20 * day));
  for (const other of otherDemoBuilds(isoDateOf(nowSeconds + 2 * day), isoDateOf(nowSeconds + 30 * day)).reverse()) await addBuild(other, 'Demo data');
  const { id } = await addBuild(build, 'Demo data');
  await logReadings(id, build, Math.floor(start / day) * day + 9 * 3600);
  await writeFlag('demo-loaded', new Date(nowSeconds * 1000).toISOString());
  return true;
}

/** Readings the workshop might have taken: a room a little damper than the brief says, and one slip of the pencil. */
async function logReadings(id: string, build: Build, start: number): Promise<void> {
  const evaluator = new Evaluator();
  const report = evaluator.evaluate(build);
  const piece = evaluator.piece(build);
  if (!report.ok || !piece.ok) throw new Error('the demo build does not work out');
  const iso = (seconds: number) => new Date(seconds * 1000).toISOString();
  const tare = report.value.ledger.items.filter((i) => i.kind === 'base').reduce((sum, i) => sum + i.wet, 0);
  const add = async (kind: string, at: number, data: unknown, corrects: string | null = null) => {
    const entry = await addToLog(id, { id: randomUUID(), kind, at: iso(at), data, corrects });
    if (!entry.ok) throw new Error(`demo log: ${entry.path} ${entry.message}`);
    return entry.value.id;
  };
  const rho = piece.value.mixed.drying?.rho_dry ?? 0;
  const gross = (t: number) => Math.round(massAt(report.value, rho, t * 0.87) * 100) / 100;
  await add('note', start, { text: 'Clay on, ten millimetres over taped paper, twelve at the chest. Two of us, from six to midnight.' });
  const slip = await add('weigh-in', start + 0.1 * day, { gross: gross(0.1 * day) + 1, tare });
  await add('weigh-in', start + 0.1 * day, { gross: gross(0.1 * day), tare }, slip);
  for (const t of [0.5, 1, 1.5, 2, 2.4]) await add('weigh-in', start + t * day, { gross: gross(t * day), tare });
  await add('shrink-mark', start + 2.4 * day, { laid: 0.1, now: 0.0972, where: 'left cheek' });
  await add('note', start + 2.4 * day, { text: 'Hairline under the jaw on the left. Pressed closed with a damp finger.' });
}

function massAt(report: Report, rhoDry: number, seconds: number): number {
  const rest = report.ledger.wet - report.ledger.clayWet;
  return rest + report.regions.reduce((sum, r) => {
    const m = clayMassAt(r, rhoDry, seconds);
    return sum + m.solids + m.water;
  }, 0);
}
