/** An id of one's own. Where a page is not served safely the browser has no maker of them: they are made of its random bytes. */
export function newId(): string {
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID();
  const b = crypto.getRandomValues(new Uint8Array(16));
  b[6] = (b[6]! & 0x0f) | 0x40;
  b[8] = (b[8]! & 0x3f) | 0x80;
  const hex = [...b].map((v) => v.toString(16).padStart(2, '0')).join('');
  return [0, 8, 12, 16, 20].map((from, i) => hex.slice(from, [8, 12, 16, 20, 32][i])).join('-');
}
