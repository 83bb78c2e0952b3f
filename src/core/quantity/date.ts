/** Calendar arithmetic on plain ISO dates. Core has no clock: every date is given. */

/** Seconds since the epoch of midnight UTC of `isoDate`, which may carry a time. NaN when it is not a date. */
export function secondsOf(isoDate: string): number {
  const text = isoDate.length === 10 ? `${isoDate}T00:00:00Z` : isoDate;
  return Date.parse(text) / 1000;
}

export function isoDateOf(seconds: number): string {
  return new Date(seconds * 1000).toISOString().slice(0, 10);
}

const days = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];
const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** "Sat 12 Dec", the same on every machine whatever its locale. */
export function formatDate(isoDate: string): string {
  const date = new Date(secondsOf(isoDate.slice(0, 10)) * 1000);
  if (Number.isNaN(date.getTime())) return '–';
  return `${days[date.getUTCDay()]} ${date.getUTCDate()} ${months[date.getUTCMonth()]}`;
}
