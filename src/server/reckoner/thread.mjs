// The thread beside the server in which builds are worked out: it reads TypeScript through tsx, and does one job at a time.
import { readlinkSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { parentPort, workerData } from 'node:worker_threads';
import { tsImport } from 'tsx/esm/api';

// What nobody waits for gives way to what somebody does; where a thread has no number of its own, they share.
if (workerData.lane === 'cards')
  try {
    os.setPriority(Number(path.basename(readlinkSync('/proc/thread-self'))), os.constants.priority.PRIORITY_LOW);
  } catch {
    // It runs as the others do.
  }

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
