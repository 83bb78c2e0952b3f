import { failure, success, type Result } from '../../core/quantity';

/** Day and clock of this machine. */
export function localParts(at: string): { readonly day: string; readonly time: string } {
  const date = new Date(at);
  const two = (n: number) => String(n).padStart(2, '0');
  return {
    day: `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`,
    time: `${two(date.getHours())}:${two(date.getMinutes())}`,
  };
}

/** As a field of date and time takes it. */
export function localTime(at: string): string {
  const { day, time } = localParts(at);
  return `${day}T${time}`;
}

/** What such a field says, ISO; null where it is empty. Nothing is logged before it has happened. */
export function timeOfField(text: string, now: number): Result<string | null> {
  if (text === '') return success(null);
  const at = new Date(text).getTime();
  if (Number.isNaN(at)) return failure('not-a-time', 'when', 'The time is a day and an hour.');
  if (at > now + 60_000) return failure('too-late', 'when', 'That is still to come: nothing is logged before it is.');
  return success(new Date(at).toISOString());
}
