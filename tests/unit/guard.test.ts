import { guardWrite, readBounded, refuse, withJson } from '../../src/app/api/guard';

const request = (headers: Record<string, string>, body?: string) =>
  new Request('http://127.0.0.1:3210/api/x', {
    method: 'POST',
    headers: { host: '127.0.0.1:3210', ...headers },
    ...(body === undefined ? {} : { body }),
  });

describe('who may write', () => {
  test.each([
    [{}, true],
    [{ origin: 'http://127.0.0.1:3210' }, true],
    [{ origin: 'http://127.0.0.1:9999' }, false],
    [{ origin: 'https://elsewhere.example' }, false],
    [{ origin: 'null' }, false],
    [{ origin: 'no address at all' }, false],
    [{ origin: '' }, false],
    [{ host: 'rebound.example:3210' }, false],
    [{ 'sec-fetch-site': 'cross-site' }, false],
    [{ 'sec-fetch-site': 'same-origin' }, true],
    [{ host: 'localhost:3210', origin: 'http://localhost:3210' }, true],
    [{ host: '[::1]:3210', origin: 'http://[::1]:3210' }, true],
  ])('%j: %s', (headers, allowed) =>
    expect(guardWrite(request(headers as unknown as Record<string, string>)) === null).toBe(allowed),
  );
});

test('a body is read up to its bound and no further', async () => {
  expect(await readBounded(request({}, 'abc'), 3)).toHaveLength(3);
  expect(await readBounded(request({}, 'abcd'), 3)).toBeUndefined();
  expect(await readBounded(request({ 'content-length': '99999' }, 'abc'), 10)).toBeUndefined();
});

test('failures become statuses with where and why', async () => {
  const answer = refuse({ ok: false, code: 'no-such-build', path: 'id', message: 'gone' });
  expect(answer.status).toBe(404);
  expect(await answer.json()).toEqual({ error: { code: 'no-such-build', path: 'id', message: 'gone' } });
  expect((await withJson(request({}, '{"a":'), 100, () => Promise.reject(new Error('not reached')))).status).toBe(400);
  expect(
    (await withJson(request({}, 'x'.repeat(200)), 100, () => Promise.reject(new Error('not reached')))).status,
  ).toBe(413);
  await expect(withJson(request({}, '{}'), 100, () => Promise.reject(new Error('a bug')))).rejects.toThrow('a bug');
});
