import { backups, restoreRace } from './backups';
import { disks } from './disks';
import { files } from './files';
import { kills } from './kills';
import { heavy, load } from './load';

/**
 * Bad days on purpose, on this machine alone: kills, races, full disks, torn backups, spoilt files, many people. Every part
 * is bounded, and starts and ends servers of its own; `npm run drills -- kills 20` runs one part, with its own count.
 */
const parts: Readonly<Record<string, (count: number | undefined) => Promise<void>>> = {
  backups: () => backups(),
  disks: () => disks(),
  race: (n = 3) => restoreRace(n),
  files: (n = 20_000) => files(n),
  heavy: () => heavy(),
  load: (n = 60) => load(n, 60),
  kills: (n = 100) => kills(n),
};

const [only, count] = process.argv.slice(2);
if (only !== undefined && !Object.hasOwn(parts, only)) {
  process.stderr.write(`there is no drill "${only}": ${Object.keys(parts).join(', ')}\n`);
  process.exit(2);
}
for (const [name, part] of Object.entries(parts))
  if (only === undefined || only === name) await part(count === undefined ? undefined : Number(count));
process.exit(0);
