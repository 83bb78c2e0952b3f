/** The names this machine answers to; a page elsewhere that has its address under another name is turned away. */
export function ownHost(host: string): boolean {
  const name = host
    .replace(/:\d+$/, '')
    .replace(/^\[|\]$/g, '')
    .toLowerCase();
  return ['127.0.0.1', 'localhost', '::1', (process.env['SOSTEGNO_HOST'] ?? '127.0.0.1').toLowerCase()].includes(name);
}

/** Addresses that nobody but this machine reaches. */
export function onlyThisMachine(host: string): boolean {
  return /^(127(\.\d{1,3}){3}|::1|localhost)$/i.test(host);
}
