import { preload } from 'react-dom';

/** The log is asked for while the page's scripts are still coming; the page's own question then takes what has come. */
export function askForLog(id: string): void {
  preload(`/api/builds/${encodeURIComponent(id)}/log`, { as: 'fetch', crossOrigin: 'anonymous' });
}
