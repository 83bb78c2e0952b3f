// The thread in which the shelf's cards are worked out: it reads TypeScript through tsx, and answers one card at a time.
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { parentPort, workerData } from 'node:worker_threads';
import { tsImport } from 'tsx/esm/api';

const file = pathToFileURL(path.join(workerData.root, 'src', 'server', 'card-reckoner.ts')).href;
const { cardFor } = await tsImport(file, import.meta.url);
parentPort.on('message', (request) => parentPort.postMessage({ card: cardFor(request) }));
