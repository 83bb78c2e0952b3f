import { asBriefed } from '../core/evaluate';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { Build } from '../core/document';
import { roomAsItIs, stepData, type LogKind } from '../core/log';
import { isoDateOf, success } from '../core/quantity';
import { Evaluator } from '../core/evaluate';
import { forecastOf, ResultCache } from '../core/piece';
import { addBuild } from './builds';
import { lamplighter, otherDemoBuilds } from './demo-builds';
import { addToLog } from './log';
import { addPhoto } from './pictures';
import { demoBuildsFlag, readFlag, writeFlag } from './settings';
import { moveStock } from './stock';
import { atomically } from './store';
import { readWorkshop, writeWorkshop } from './workshop';

const day = 86400;

/** Loads the demo data the first time, and again only when asked. Returns whether it did. */
export async function loadDemo(nowSeconds: number, again = false): Promise<boolean> {
  if (!again && (await readFlag('demo-loaded')) !== undefined) return false;
  // Whole or not at all: killed half way, the next start would load it a second time beside the half.
  const done = await atomically(async () => success(await putDemoIn(nowSeconds)));
  return done.ok;
}

async function putDemoIn(nowSeconds: number): Promise<void> {
  const start = nowSeconds - 3 * day;
  const build = lamplighter(isoDateOf(start), isoDateOf(start + 44 * day));
  const ids: string[] = [];
  for (const other of otherDemoBuilds(isoDateOf(nowSeconds + 2 * day), isoDateOf(nowSeconds + 60 * day)).reverse())
    ids.push((await addBuild(other, 'Demo data')).id);
  const { id } = await addBuild(build, 'Demo data');
  await writeFlag(demoBuildsFlag, [...ids, id].join());
  await logReadings(id, build, Math.floor(start / day) * day + 9 * 3600);
  await stockTheShelf(start - 2 * day);
  await sayWhenTheyWork(isoDateOf(nowSeconds + 12 * day), isoDateOf(nowSeconds + 13 * day));
  await writeFlag('demo-loaded', new Date(nowSeconds * 1000).toISOString());
}

/** Readings the workshop might have taken: a room a little damper than the brief says, and one slip of the pencil. */
async function logReadings(id: string, build: Build, start: number): Promise<void> {
  const evaluator = new Evaluator();
  const question = asBriefed(build);
  const report = evaluator.evaluate(question);
  const piece = evaluator.piece(question);
  const planned = evaluator.toPlan(question, { ranges: false });
  if (!report.ok || !piece.ok || !planned.ok) throw new Error('the demo build does not work out');
  const iso = (seconds: number) => new Date(seconds * 1000).toISOString();
  const board = report.value.ledger.items.filter((i) => i.kind === 'base').reduce((sum, i) => sum + i.wet, 0);
  const tare = Math.round(board * 1000) / 1000;
  const add = async (kind: LogKind, at: number, data: unknown, corrects: string | null = null) => {
    const entry = await addToLog(id, { id: randomUUID(), kind, at: iso(at), data, corrects });
    if (!entry.ok) throw new Error(`demo log: ${entry.path} ${entry.message}`);
    return entry.value.id;
  };
  // Water leaves a seventh slower than forecast.
  const mass = forecastOf(piece.value, new ResultCache())?.mass({ transfer: 0.86 });
  const gross = (t: number) => Math.round(((mass?.(t) ?? 0) + tare) * 200) / 200;
  const room = roomAsItIs(build.room);
  // The evenings before, and the long one on which the clay went on; some steps took longer than is usual.
  const took: Readonly<Record<string, readonly [number, number]>> = {
    'set-out': [-3.5, 0.8],
    armature: [-2.5, 2.2],
    bulk: [-1.5, 2.6],
  };
  for (const s of planned.value.steps) {
    const [days, hours] = took[s.id] ?? [0, null];
    const first = /^(lay|smooth)\//.test(s.id);
    if (hours === null && !first) continue;
    await add('step', start + days * day, stepData(s, hours, room));
  }
  const photoId = randomUUID();
  await addPhoto(id, photoId, await drawnPicture());
  await add('photo', start + 0.02 * day, { photoId, caption: 'After the clay: a drawing for want of a camera' });
  await add('room', start + 0.5 * day, { temperature: 18.4, relativeHumidity: 0.58 });
  await add('used', start + 0.01 * day, { item: 'clay/paper-clay', name: 'paper clay', amount: 6.1, unit: 'kg' });
  await add('note', start, {
    text: 'Clay on, ten millimetres over taped paper, twelve at the chest. Two of us, from six to midnight.',
  });
  const slip = await add('weigh-in', start + 0.1 * day, { gross: gross(0.1 * day) + 1, tare, finest: 0.005 });
  await add('weigh-in', start + 0.1 * day, { gross: gross(0.1 * day), tare, finest: 0.005 }, slip);
  for (const t of [0.5, 1, 1.5, 2, 2.4])
    await add('weigh-in', start + t * day, { gross: gross(t * day), tare, finest: 0.005 });
  await add('shrink-mark', start + 2.4 * day, { laid: 0.1, now: 0.0972, where: 'left cheek' });
  await add('crack', start + 2.4 * day, { where: 'under the jaw, left', width: 0.0004, length: 0.02, through: false });
  await add('note', start + 2.4 * day, {
    text: 'Hairline under the jaw on the left. Pressed closed with a damp finger.',
  });
}

/** A head on a board, drawn: the workshop is made up, and so is its picture. */
async function drawnPicture(): Promise<Buffer> {
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="900"><rect width="1200" height="900" fill="#cfc4b0"/><rect y="720" width="1200" height="180" fill="#8d7a5f"/>
    <path d="M380 720 Q400 590 520 560 L520 500 Q440 420 470 300 Q500 170 620 170 Q750 175 770 310 Q775 420 690 500 L695 560 Q820 590 840 720 Z" fill="#e9e2d4" stroke="#5b5348" stroke-width="6"/>
    <path d="M540 330 q30 -18 60 0 M650 330 q28 -18 56 0 M622 340 q-14 60 -8 76 q16 10 30 2 M580 455 q42 22 84 0" fill="none" stroke="#5b5348" stroke-width="6" stroke-linecap="round"/></svg>`;
  return sharp(Buffer.from(drawing)).jpeg({ quality: 80 }).toBuffer();
}

async function stockTheShelf(at: number): Promise<void> {
  const iso = new Date(at * 1000).toISOString();
  const moves: readonly (readonly [string, number, number])[] = [
    ['clay/paper-clay', 12, 51],
    ['clay/foam-air-dry', 1, 14],
    ['stock/aluminium-annealed/4.8mm', 12, 17],
    ['stock/aluminium-annealed/3mm', 25, 21],
  ];
  for (const [item, amount, price] of moves) {
    const done = await moveStock({ id: randomUUID(), item, kind: 'bought', amount, price, at: iso });
    if (!done.ok) throw new Error(`demo stock: ${done.path} ${done.message}`);
  }
}

/** Two of the workshop; a weekend away. Hours of one's own are not touched. */
async function sayWhenTheyWork(awayFrom: string, awayUntil: string): Promise<void> {
  const workshop = await readWorkshop();
  if (workshop.people.length > 0) return;
  const done = await writeWorkshop({
    ...workshop,
    people: [
      {
        id: 'first-hand',
        name: 'First hand',
        hours: [
          { days: [0, 1, 3], from: 1110, until: 1320 },
          { days: [5], from: 570, until: 1080 },
        ],
        away: [{ from: awayFrom, until: awayUntil }],
        other: [],
      },
      {
        id: 'second-hand',
        name: 'Second hand',
        hours: [
          { days: [3], from: 1140, until: 1320 },
          { days: [5], from: 600, until: 900 },
        ],
        away: [],
        other: [],
      },
    ],
  });
  if (!done.ok) throw new Error(`demo workshop: ${done.path} ${done.message}`);
}
