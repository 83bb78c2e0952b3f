import { NextResponse } from 'next/server';
import type { Failure, Result } from '../../core/quantity';

/** Thin edges of the server: who may write, how much is read, and which status a failure has. */
const statusOf: Record<string, number> = {
  'no-such-build': 404,
  'no-such-entry': 404,
  'too-large': 413,
  'not-a-picture': 415,
  'not-json': 400,
  forbidden: 403,
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

/** Names this machine answers to; a page elsewhere that has this address under another name is turned away. */
function ownHost(host: string): boolean {
  const name = host
    .replace(/:\d+$/, '')
    .replace(/^\[|\]$/g, '')
    .toLowerCase();
  const bound = process.env['SOSTEGNO_HOST'] ?? '127.0.0.1';
  const local = ['127.0.0.1', 'localhost', '::1', bound.toLowerCase()];
  return local.includes(name) || bound === '0.0.0.0' || bound === '::';
}

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

/** Guards, reads and parses a JSON body, and hands it on. */
export async function withJson(
  request: Request,
  most: number,
  work: (body: unknown, text: string) => Promise<NextResponse>,
): Promise<NextResponse> {
  const refused = guardWrite(request);
  if (refused) return refused;
  const bytes = await readBounded(request, most);
  if (!bytes)
    return refuse({
      ok: false,
      code: 'too-large',
      path: 'the request',
      message: `more than ${Math.round(most / 1e6)} MB`,
    });
  const text = Buffer.from(bytes).toString('utf8');
  try {
    return await work(text === '' ? {} : (JSON.parse(text) as unknown), text);
  } catch (error) {
    if (error instanceof SyntaxError)
      return refuse({ ok: false, code: 'not-json', path: 'the request', message: `not JSON: ${error.message}` });
    throw error;
  }
}
