import { guardWrite, readBounded, refuse, route, withJson } from '../../src/app/api/guard';

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

describe('every way in', () => {
  const get = (host: string) => new Request('http://127.0.0.1:3210/api/x', { headers: { host } });
  const told = async (answer: Response) => (await answer.json()) as { error: { code: string; message: string } };
  const ok = route(async () => new Response('{}'));

  test('is for a name of this machine, reads too', async () => {
    for (const host of ['127.0.0.1:3210', 'localhost:3210', '[::1]:3210', 'LOCALHOST'])
      expect((await ok(get(host), {})).status).toBe(200);
    for (const host of ['rebound.example:3210', '127.0.0.1.example', '192.168.1.4:3210', '']) {
      const answer = await ok(get(host), {});
      expect(answer.status).toBe(403);
      expect((await told(answer)).error.message).toBe('this machine is not asked by that name');
    }
  });

  test('turns away a write from elsewhere before it is handled, and one nested without end', async () => {
    const handled = jest.fn(async () => new Response('{}'));
    expect((await route(handled)(request({ origin: 'https://elsewhere.example' }), {})).status).toBe(403);
    expect(handled).not.toHaveBeenCalled();
    const deep = `{"history":${'['.repeat(500)}${']'.repeat(500)}}`;
    expect((await withJson(request({}, deep), 2000, () => Promise.reject(new Error('not reached')))).status).toBe(400);
  });

  test.each([
    ['SQLITE_FULL', 507, /disk is full/],
    ['EROFS', 403, /cannot be written/],
    ['SQLITE_BUSY', 503, /try again/],
    ['SQLITE_CORRUPT', 500, /which backup to take/],
  ])('%s is answered %i, with a sentence', async (code, status, says) => {
    const answer = await route(() => Promise.reject(Object.assign(new Error(code), { code })))(get('localhost'), {});
    expect(answer.status).toBe(status);
    expect((await told(answer)).error.message).toMatch(says);
  });

  test('a mistake of ours stays one', async () => {
    await expect(route(() => Promise.reject(new Error('a bug')))(get('localhost'), {})).rejects.toThrow('a bug');
  });
});
