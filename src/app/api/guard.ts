import { NextResponse } from 'next/server';
import { readJson, type Failure, type Result } from '../../core/quantity';
import { dataFolder, diskFailure, notWriting, ownHost, Unusable } from '../../server';

/** Thin edges of the server: who may write, how much is read, and which status a failure has. */
const statusOf: Record<string, number> = {
  'no-such-build': 404,
  'no-such-entry': 404,
  'too-large': 413,
  'not-a-picture': 415,
  'not-json': 400,
  'too-deep': 400,
  forbidden: 403,
  'read-only': 403,
  'id-taken': 409,
  busy: 503,
  'too-much-work': 422,
  'disk-full': 507,
  damaged: 500,
  newer: 500,
};

export function refuse(why: Failure): NextResponse {
  return NextResponse.json(
    { error: { code: why.code, path: why.path, message: why.message } },
    { status: statusOf[why.code] ?? 422 },
  );
}

export function answer<T>(result: Result<T>): NextResponse {
  return result.ok ? NextResponse.json(result.value ?? {}) : refuse(result);
}

type Handler<C> = (request: Request, context: C) => Promise<Response>;

/**
 * What every way in is wrapped in: reads and writes are for our own pages, a write waits for no restore, and what a disk
 * or a database says is told as a sentence.
 */
export function route<C = unknown>(handle: Handler<C>): Handler<C> {
  return async (request, context) => {
    try {
      if (!ownHost(request.headers.get('host') ?? '')) return refuse(elsewhere);
      if (request.method !== 'GET') {
        const closed = guardWrite(request) ?? (await notWriting());
        if (closed) return closed instanceof NextResponse ? closed : refuse(closed);
      }
      return await handle(request, context);
    } catch (error) {
      const why = error instanceof Unusable ? error.failure : diskFailure(error, dataFolder());
      if (why) return refuse(why);
      throw error;
    }
  };
}

const elsewhere: Failure = {
  ok: false,
  code: 'forbidden',
  path: 'the request',
  message: 'this machine is not asked by that name',
};

/** Writes come only from our own pages (or from no page at all, such as a script on this machine). */
export function guardWrite(request: Request): NextResponse | null {
  const host = request.headers.get('host') ?? '';
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const foreign =
    !ownHost(host) ||
    (origin !== null && (!URL.canParse(origin) || new URL(origin).host !== host)) ||
    (site !== null && site !== 'same-origin' && site !== 'none');
  return foreign
    ? refuse({ ok: false, code: 'forbidden', path: 'the request', message: 'this came from another site' })
    : null;
}

/** Reads at most `most` bytes; undefined when there is more. */
export async function readBounded(request: Request, most: number): Promise<Uint8Array | undefined> {
  const declared = Number(request.headers.get('content-length') ?? 0);
  if (declared > most) return undefined;
  const reader = request.body?.getReader();
  if (!reader) return new Uint8Array(0);
  const chunks: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > most) {
      await reader.cancel();
      return undefined;
    }
    chunks.push(value);
  }
  return Buffer.concat(chunks);
}

/** Reads and parses a JSON body, and hands it on. */
export async function withJson(
  request: Request,
  most: number,
  work: (body: unknown, text: string) => Promise<NextResponse>,
): Promise<NextResponse> {
  const bytes = await readBounded(request, most);
  if (!bytes)
    return refuse({
      ok: false,
      code: 'too-large',
      path: 'the request',
      message: `more than ${Math.round(most / 1e6)} MB`,
    });
  const text = Buffer.from(bytes).toString('utf8');
  const json = readJson(text === '' ? '{}' : text, 'the request');
  return json.ok ? work(json.value, text) : refuse(json);
}
