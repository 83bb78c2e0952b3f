import { createWriteStream, mkdtempSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { largestPackedBuild, unpackBuild, workName } from '../../../../server';
import { answer, refuse, route } from '../../guard';

/** A build with its log and pictures. It goes to a file of its own as it comes, and no further than its bound. */
export const POST = route(async (request) => {
  const tooLarge = refuse({
    ok: false,
    code: 'too-large',
    path: 'the file',
    message: `a build with its pictures is at most ${largestPackedBuild / 1e6} MB`,
  });
  if (Number(request.headers.get('content-length') ?? 0) > largestPackedBuild) return tooLarge;
  const folder = mkdtempSync(path.join(os.tmpdir(), workName('in')));
  try {
    const file = path.join(folder, 'build.tar.gz');
    let size = 0;
    const bounded = async function* (source: AsyncIterable<Uint8Array>) {
      for await (const chunk of source) {
        size += chunk.length;
        if (size > largestPackedBuild) return;
        yield chunk;
      }
    };
    await pipeline(
      request.body ? Readable.fromWeb(request.body as Parameters<typeof Readable.fromWeb>[0]) : Readable.from([]),
      bounded,
      createWriteStream(file),
    );
    return size > largestPackedBuild ? tooLarge : answer(await unpackBuild(file));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
});
