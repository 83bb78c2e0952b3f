import { call, type Answered } from '../parts/http';

/** What is logged waits here until the server has it: a bench at the back of the workshop loses its connection. */
export interface LogEntry {
  readonly id: string;
  readonly kind: 'weigh-in' | 'shrink-mark' | 'photo' | 'note' | 'crack' | 'room' | 'void';
  readonly at: string;
  readonly data: Record<string, unknown>;
  readonly corrects: string | null;
}

const keyOf = (buildId: string) => `sostegno-outbox-${buildId}`;

export function waitingEntries(buildId: string): LogEntry[] {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(buildId)) ?? '[]') as unknown;
    return Array.isArray(kept) ? (kept as LogEntry[]) : [];
  } catch {
    return [];
  }
}

function keep(buildId: string, entries: readonly LogEntry[]): void {
  localStorage.setItem(keyOf(buildId), JSON.stringify(entries));
}

/** Puts an entry in the outbox and tries to send. An entry the server refuses comes straight back with its reason. */
export async function logEntry(buildId: string, entry: LogEntry): Promise<string | null> {
  keep(buildId, [...waitingEntries(buildId), entry]);
  const answer = await sendOne(buildId, entry);
  if (!answer.ok && !answer.offline) {
    keep(buildId, waitingEntries(buildId).filter((e) => e.id !== entry.id));
    return answer.message;
  }
  return null;
}

async function sendOne(buildId: string, entry: LogEntry): Promise<Answered<unknown>> {
  const answer = await call<unknown>('POST', `/api/builds/${buildId}/log`, entry);
  if (answer.ok) keep(buildId, waitingEntries(buildId).filter((e) => e.id !== entry.id));
  return answer;
}

/** Sends what waits, oldest first; stops at the first that cannot be sent. Returns how many still wait. */
export async function sendWaiting(buildId: string): Promise<number> {
  for (const entry of waitingEntries(buildId)) {
    const answer = await sendOne(buildId, entry);
    if (!answer.ok) break;
  }
  return waitingEntries(buildId).length;
}
