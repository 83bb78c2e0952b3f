/** JSON with keys in order, so that equal documents give equal text. */
export function stableText(value: unknown): string {
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  if (Array.isArray(value)) return `[${value.map(stableText).join(',')}]`;
  const record = value as Record<string, unknown>;
  const keys = Object.keys(record)
    .filter((k) => record[k] !== undefined)
    .sort();
  return `{${keys.map((k) => `${JSON.stringify(k)}:${stableText(record[k])}`).join(',')}}`;
}

/** 53 bits of a text, for cache keys and for telling documents apart; not a defence against anyone. */
export function hashText(text: string): string {
  let a = 0xdeadbeef;
  let b = 0x41c6ce57;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 2654435761);
    b = Math.imul(b ^ c, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return (4294967296 * (2097151 & b) + (a >>> 0)).toString(36);
}

export function hashOf(value: unknown): string {
  return hashText(stableText(value));
}

const known = new WeakMap<object, string>();

/** The same for a part of a build, remembered by the object itself: documents are never edited in place. */
export function partHash(part: object): string {
  const kept = known.get(part);
  if (kept !== undefined) return kept;
  const made = hashOf(part);
  known.set(part, made);
  return made;
}

/** A whole build's hash from those of its parts: after an edit only what it touched is read again. */
export function buildHash(build: object): string {
  return hashText(
    Object.entries(build)
      .map(([k, v]) => `${k}=${typeof v === 'object' && v !== null ? partHash(v as object) : String(v)}`)
      .sort()
      .join(),
  );
}
