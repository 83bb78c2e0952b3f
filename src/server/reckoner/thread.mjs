// The thread beside the server in which builds are worked out: it reads TypeScript through tsx, and does one job at a time.
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { parentPort, workerData } from 'node:worker_threads';
import { tsImport } from 'tsx/esm/api';

const file = pathToFileURL(path.join(workerData.root, 'src', 'server', 'reckoner', 'jobs.ts')).href;
const { workOn } = await tsImport(file, import.meta.url);
parentPort.on('message', async ({ name, ask }) => {
  let answer;
  try {
    answer = await workOn(name, ask);
  } catch (error) {
    answer = { ok: false, code: 'failed', path: 'the build', message: `it could not be worked out (${error.message})` };
  }
  parentPort.postMessage(answer);
});
