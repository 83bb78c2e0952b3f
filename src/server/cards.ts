import { hashText } from '../core/document';
import { emptyCard, type BuildCard } from '../core/evaluate';
import * as db from '../db';
import { planSurroundings } from './plan';
import { lastFullFindings } from './questions';
import { workOut } from './reckoner';
import { readFlag } from './settings';
import { beforeClosing, byItself, database, reckoningVersion } from './store';
import { entriesOf, learnedPaces } from './workshop';

/**
 * The shelf's cards. Each is worked out after its build is saved, in a thread of its own, and kept with what it was
 * worked out from: the builds, the logs, who works when, and the quarter of an hour. Where any of these has changed the
 * old card is shown as old, and a new one made.
 */
const quarter = 900;

/** What all cards hang on: the pieces on the go, which take hands from every other, and how fast the hands are. */
async function stamp(now: number): Promise<(row: db.ListedBuild) => string> {
  const store = await database();
  const [rows, logs, dryings, workshop, paces] = await Promise.all([
    db.listBuilds(store),
    db.logStamps(store),
    db.dryingStamps(store),
    readFlag('workshop'),
    learnedPaces(),
  ]);
  const own = (r: db.ListedBuild) => [r.id, r.updatedAt, logs.get(r.id) ?? '', dryings.get(r.id) ?? ''].join();
  const going = rows.filter((r) => r.active === 1 && r.archivedAt === null).map(own);
  const common = [
    reckoningVersion(),
    ...going,
    workshop ?? '',
    JSON.stringify(paces),
    Math.floor(now / quarter),
  ].join();
  return (row) => hashText([common, own(row)].join());
}

export interface CardOf {
  readonly row: db.ListedBuild;
  readonly card: BuildCard;
  /** It is of what stands now. */
  readonly fresh: boolean;
}

/** Cards that come with the list; the others are asked for when they are looked at. */
const mostAtOnce = 24;

/** Everything on the shelf, the first few not put away with the cards they have. */
export async function cards(now: number): Promise<CardOf[]> {
  const of = await stamp(now);
  const store = await database();
  const rows = await db.listBuilds(store);
  const first = rows.filter((r) => r.archivedAt === null).slice(0, mostAtOnce);
  const kept = await db.findCards(
    store,
    first.map((r) => r.id),
  );
  return rows.map((row) => cardOfRow(row, kept.get(row.id), of));
}

/** The cards of builds that are looked at; what is old of them is worked out anew, and there when they are next asked for. */
export async function cardsLookedAt(now: number, ids: readonly string[]): Promise<CardOf[]> {
  const of = await stamp(now);
  const store = await database();
  const kept = await db.findCards(store, ids);
  const rows = (await db.listBuilds(store)).filter((r) => kept.has(r.id));
  const old = rows.filter((r) => r.cardOf !== of(r)).map((r) => r.id);
  if (old.length > 0) void reckon(now, ...old);
  return rows.map((row) => cardOfRow(row, kept.get(row.id), of));
}

function cardOfRow(row: db.ListedBuild, text: string | undefined, of: (row: db.ListedBuild) => string): CardOf {
  if (text === undefined) return { row, card: emptyCard, fresh: false };
  const { card, fresh } = cardKept(text);
  return { row, card, fresh: fresh && row.cardOf === of(row) };
}

/** A card that cannot be read counts as one that is still to be made; what one of an earlier version lacks is not known yet. */
function cardKept(text: string): { readonly card: BuildCard; readonly fresh: boolean } {
  try {
    const kept = text === '' ? {} : (JSON.parse(text) as Partial<BuildCard>);
    return { card: { ...emptyCard, ...kept }, fresh: true };
  } catch {
    return { card: emptyCard, fresh: false };
  }
}

interface Holder {
  turn: Promise<void>;
  again: boolean;
  /** The builds the turn that is waiting is for. */
  wanted: Set<string>;
  /** Ends the turn that is going on after the card it is at. */
  stopped: boolean;
}
const holder = globalThis as unknown as { sostegnoCards?: Holder };
function state(): Holder {
  if (!holder.sostegnoCards) {
    holder.sostegnoCards = {
      turn: Promise.resolve(),
      again: false,
      wanted: new Set(),
      stopped: false,
    };
    beforeClosing(stopCards);
  }
  return holder.sostegnoCards;
}

/**
 * Works out the cards of builds that were saved, or are looked at and old. A save can make every card old: the others are
 * worked out when somebody looks at them. One turn at a time, and a turn that is waiting stands for all that come before
 * it begins.
 */
const wait = process.env['JEST_WORKER_ID'] === undefined ? 300 : 0;

export function reckon(now: number, ...ids: readonly string[]): Promise<void> {
  const s = state();
  s.wanted = new Set([...s.wanted, ...ids]);
  if (!s.again) {
    s.again = true;
    s.turn = byItself(() =>
      s.turn.then(async () => {
        // Saves come in runs: one turn serves all of a moment.
        if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
        s.again = false;
        const { wanted } = s;
        s.wanted = new Set();
        await turnOf(now, wanted).catch((error: Error) => process.stderr.write(`cards: ${error.message}\n`));
      }),
    );
  }
  return s.turn;
}

async function turnOf(now: number, wanted: ReadonlySet<string>): Promise<void> {
  if (state().stopped) return;
  const store = await database();
  const of = await stamp(now);
  // What was saved last is what is looked at first; and what is saved meanwhile begins a new turn.
  const rows = [...(await db.listBuilds(store))].sort((a, b) => (a.updatedAt < b.updatedAt ? 1 : -1));
  for (const row of rows) {
    if (state().stopped) return;
    if (state().again) {
      // What this turn has not come to is left to the next.
      state().wanted = new Set([...state().wanted, ...wanted]);
      return;
    }
    if (!wanted.has(row.id) || row.cardOf === of(row)) continue;
    const found = await db.findBuild(store, row.id);
    if (!found) continue;
    const made = await workOut(
      'card',
      {
        id: row.id,
        text: found.document,
        log: entriesOf(await db.listLog(store, row.id)),
        now,
        full: await lastFullFindings(row.id),
        surroundings: await planSurroundings(row.id),
      },
      'cards',
    );
    if (!made.ok && made.code === 'busy') return;
    const card = made.ok ? made.value : { ...emptyCard, problem: `${made.path}: ${made.message}` };
    await db.putCard(store, row.id, row.updatedAt, JSON.stringify(card), of(row));
  }
}

/** What is still to be worked out stays old, and is worked out when it is next asked for. */
async function stopCards(): Promise<void> {
  const s = state();
  s.stopped = true;
  await s.turn;
  s.stopped = false;
}
