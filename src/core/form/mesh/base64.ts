/** Bytes as base64 and back, with nothing but the language: core runs in workers, servers and tests alike. */
const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const valueOf = new Uint8Array(128);
for (let i = 0; i < 64; i++) valueOf[letters.charCodeAt(i)] = i;

export function toBase64(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += 3) {
    const n = (bytes[i]! << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    parts.push(
      letters[n >> 18]!,
      letters[(n >> 12) & 63]!,
      i + 1 < bytes.length ? letters[(n >> 6) & 63]! : '=',
      i + 2 < bytes.length ? letters[n & 63]! : '=',
    );
  }
  return parts.join('');
}

/** Letters that are not base64 count as nought: the schema has been there first. */
export function fromBase64(text: string): Uint8Array {
  const padding = text.endsWith('==') ? 2 : text.endsWith('=') ? 1 : 0;
  const out = new Uint8Array(Math.max(0, (text.length / 4) * 3 - padding));
  const value = (i: number) => valueOf[text.charCodeAt(i) & 127]!;
  for (let i = 0, at = 0; i < text.length; i += 4, at += 3) {
    const n = (value(i) << 18) | (value(i + 1) << 12) | (value(i + 2) << 6) | value(i + 3);
    out[at] = n >> 16;
    if (at + 1 < out.length) out[at + 1] = (n >> 8) & 255;
    if (at + 2 < out.length) out[at + 2] = n & 255;
  }
  return out;
}
