import { call } from './http';

/** What a page makes of an answer, or of none. */
const answer = (body: string, status = 200, headers: Record<string, string> = {}) => {
  const sent: [string, RequestInit | undefined][] = [];
  global.fetch = ((url: string, init?: RequestInit) => {
    sent.push([url, init]);
    return Promise.resolve(new Response(body, { status, headers }));
  }) as typeof fetch;
  return sent;
};

test('a good answer is its content, and whether this device had kept it', async () => {
  answer('{"a":1}');
  expect(await call('GET', '/x')).toEqual({ ok: true, value: { a: 1 }, kept: false });
  answer('{"a":1}', 200, { 'x-bench-kept': 'yes' });
  expect(await call('GET', '/x')).toMatchObject({ kept: true });
});

test('a refusal carries the server’s sentence and place; one without them its number', async () => {
  answer('{"error":{"message":"it is too wide","path":"form.size"}}', 400);
  expect(await call('PUT', '/x', {})).toEqual({
    ok: false,
    offline: false,
    status: 400,
    message: 'it is too wide',
    path: 'form.size',
  });
  answer('<html>', 502);
  expect(await call('GET', '/x')).toMatchObject({ ok: false, offline: false, message: 'the server answered 502' });
});

test('no answer at all is a server that could not be reached', async () => {
  global.fetch = (() => Promise.reject(new TypeError('network'))) as typeof fetch;
  expect(await call('POST', '/x', {})).toMatchObject({ ok: false, offline: true, status: 0 });
});

test('things go as JSON, text as it is, files as themselves; patience is a signal', async () => {
  const sent = answer('{}');
  await call('POST', '/x', { a: 1 });
  await call('POST', '/x', '{"b":2}');
  const file = new Blob(['x'], { type: 'image/png' });
  await call('POST', '/x', file, true, 5);
  await call('GET', '/x');
  expect(sent.map(([, init]) => init?.body)).toEqual(['{"a":1}', '{"b":2}', file, undefined]);
  expect(sent.map(([, init]) => (init?.headers as Record<string, string>)?.['content-type'])).toEqual([
    'application/json',
    'application/json',
    undefined,
    undefined,
  ]);
  expect([sent[2]![1]?.keepalive, sent[2]![1]?.signal instanceof AbortSignal, sent[3]![1]?.signal]).toEqual([
    true,
    true,
    undefined,
  ]);
});
