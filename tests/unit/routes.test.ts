import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { newBust } from '../../src/core/document';
import { addBuild, closeDatabase, readLog } from '../../src/server';

/** The server's edges: every address, who may write to it, and what it says to what it cannot take. */
type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;
type Route = Partial<Record<'GET' | 'POST' | 'PUT' | 'DELETE' | 'PATCH', Handler>>;

const root = path.join('src', 'app', 'api');
const files = readdirSync(root, { recursive: true, encoding: 'utf8' })
  .filter((f) => path.basename(f) === 'route.ts')
  .sort();
const routeOf = async (file: string) => (await import(path.resolve(root, file))) as Route;
const writes = ['POST', 'PUT', 'DELETE', 'PATCH'] as const;

const host = '127.0.0.1:3210';
interface Sent {
  readonly body?: BodyInit;
  readonly headers?: Record<string, string>;
  readonly query?: string;
  readonly params?: Record<string, string>;
}
async function send(file: string, method: keyof Route, { body, headers = {}, query = '', params = {} }: Sent = {}) {
  const handler = (await routeOf(file))[method];
  if (!handler) throw new Error(`${file} has no ${method}`);
  const request = new Request(`http://${host}/api/x${query}`, {
    method,
    headers: { host, ...headers },
    ...(body === undefined ? {} : { body }),
  });
  const response = await handler(request, { params: Promise.resolve(params) });
  const text = /event-stream|octet/.test(response.headers.get('content-type') ?? '') ? '' : await response.text();
  let json: unknown = null;
  try {
    json = JSON.parse(text);
  } catch {
    // Not everything is JSON.
  }
  return { status: response.status, text, json, headers: response.headers };
}
const sendJson = (file: string, method: keyof Route, value: unknown, more: Sent = {}) =>
  send(file, method, { body: JSON.stringify(value), ...more });
const error = (json: unknown) => (json as { error?: { code: string; path: string; message: string } })?.error;

let folder: string;
let id: string;
beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'sostegno-routes-'));
  process.env['SOSTEGNO_DATA'] = folder;
  id = (await addBuild(newBust('Routed', '2026-12-01', 0.4), 'test')).id;
});
afterEach(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});
const own = () => ({ params: { id } });
const nobody = { params: { id: randomUUID() } };

test('every address there is', () => {
  expect(files.length).toBeGreaterThan(15);
});

test.each(files)('%s: nothing is written for a page from elsewhere', async (file) => {
  const route = await routeOf(file);
  for (const method of writes) {
    if (!route[method]) continue;
    for (const headers of [
      { origin: 'https://elsewhere.example' },
      { 'sec-fetch-site': 'cross-site' },
      { host: 'rebound.example:3210' },
    ] as Record<string, string>[]) {
      const answer = await send(file, method, { body: '{}', headers, params: { id, photoId: randomUUID() } });
      expect([file, method, headers, answer.status, error(answer.json)?.code]).toEqual([
        file,
        method,
        headers,
        403,
        'forbidden',
      ]);
    }
  }
});

test.each([
  ['builds/route.ts', 'POST', 100_000],
  ['builds/[id]/route.ts', 'PUT', 12_000_000],
  ['builds/[id]/log/route.ts', 'POST', 50_000],
  ['builds/[id]/mark/route.ts', 'POST', 10_000],
  ['builds/[id]/on-the-go/route.ts', 'PUT', 1_000],
  ['settings/route.ts', 'PUT', 10_000],
  ['workshop/route.ts', 'PUT', 100_000],
  ['step-lists/route.ts', 'POST', 200_000],
  ['stock/route.ts', 'POST', 10_000],
] as const)('%s %s: what is longer than %d bytes, torn, or of another kind is refused', async (file, method, most) => {
  const long = await send(file, method, { body: `"${'x'.repeat(most + 10)}"`, ...own() });
  expect([long.status, error(long.json)?.message]).toEqual([413, expect.stringMatching(/\d/)]);
  const torn = await send(file, method, { body: '{"name":', ...own() });
  expect(torn.status).toBe(400);
  const odd = await sendJson(file, method, { nonsense: true }, own());
  expect(odd.status).toBeGreaterThanOrEqual(400);
  expect(odd.status).toBeLessThan(500);
  expect(error(odd.json)?.message).toMatch(/\S/);
});

describe('builds', () => {
  test('made from a few answers, found on the shelf, copied, put away', async () => {
    const made = await sendJson('builds/route.ts', 'POST', { name: 'New', startDate: '2026-12-01', size: 0.5 });
    expect(made.status).toBe(200);
    const { id: fresh } = made.json as { id: string };
    const list = (await send('builds/route.ts', 'GET')).json as { id: string; name: string }[];
    expect(list.map((b) => b.name).sort()).toEqual(['New', 'Routed']);
    const copy = await sendJson('builds/[id]/copy/route.ts', 'POST', {}, { params: { id: fresh } });
    expect((copy.json as { id: string }).id).not.toBe(fresh);
    expect((await sendJson('builds/[id]/mark/route.ts', 'POST', { mark: 'archive' }, own())).status).toBe(200);
    expect(error((await sendJson('builds/[id]/mark/route.ts', 'POST', { mark: 'burn' }, own())).json)?.path).toBe(
      'mark',
    );
  });

  test.each([
    [{ startDate: '2026-12-01', size: 1 }, 'name'],
    [{ name: 'x', startDate: '2026-12-01', size: 'large' }, 'size'],
    [{ name: 'x', startDate: 'soon', size: 1 }, /startDate/],
    [{ name: 'x', startDate: '2026-12-01', size: 1, form: 'cube' }, /form|start/],
  ])('%j is refused where it is wrong', async (body, where) => {
    const answer = await sendJson('builds/route.ts', 'POST', body);
    expect(answer.status).toBe(422);
    expect(error(answer.json)?.path).toMatch(where);
  });

  test('saved from the revision it was opened at; one that is not there is not found', async () => {
    const opened = (await send('builds/[id]/route.ts', 'GET', own())).json as { revision: number; build: object };
    const body = { revision: opened.revision, document: opened.build, history: { past: [], future: [] }, label: 'x' };
    expect((await sendJson('builds/[id]/route.ts', 'PUT', body, own())).status).toBe(200);
    expect((await sendJson('builds/[id]/route.ts', 'PUT', body, nobody)).status).toBe(404);
    for (const [file, method] of [
      ['builds/[id]/route.ts', 'GET'],
      ['builds/[id]/export/route.ts', 'GET'],
      ['builds/[id]/devices/route.ts', 'GET'],
    ] as const)
      expect([file, (await send(file, method, nobody)).status]).toEqual([file, 404]);
    expect((await sendJson('builds/[id]/copy/route.ts', 'POST', {}, nobody)).status).toBe(404);
    expect((await sendJson('builds/[id]/mark/route.ts', 'POST', { mark: 'archive' }, nobody)).status).toBe(404);
  });

  test('out as a file and in again', async () => {
    const out = await send('builds/[id]/export/route.ts', 'GET', own());
    expect(out.headers.get('content-disposition')).toMatch(/attachment; filename="[^"/\\]+\.json"/);
    const back = await send('builds/route.ts', 'POST', { body: out.text, query: '?file' });
    expect(back.status).toBe(200);
    expect((back.json as { id: string }).id).not.toBe(id);
    expect((await send('builds/route.ts', 'POST', { body: '{"schemaVersion":1}', query: '?file' })).status).toBe(422);
  });

  test('its plan goes out as a calendar or a table, and as nothing else', async () => {
    const as = (format: string, params = own().params) =>
      send('builds/[id]/plan/route.ts', 'GET', { query: `?as=${format}&zone=UTC`, params });
    const calendar = await as('ics');
    expect(calendar.text).toMatch(/^BEGIN:VCALENDAR/);
    expect(calendar.headers.get('content-type')).toMatch(/text\/calendar/);
    expect((await as('csv')).headers.get('content-disposition')).toBe('attachment; filename="routed-plan.csv"');
    expect((await as('pdf')).status).toBe(422);
    expect((await as('ics', nobody.params)).status).toBe(404);
    expect((await send('builds/[id]/plan/route.ts', 'GET', own())).json).toMatchObject({ others: [] });
  });
});

describe('the log', () => {
  const note = (text: string) => ({ id: randomUUID(), kind: 'note', at: '2026-12-01T10:00:00Z', data: { text } });
  test('written once, however often it is sent', async () => {
    const entry = note('x');
    for (let i = 0; i < 3; i++)
      expect((await sendJson('builds/[id]/log/route.ts', 'POST', entry, own())).status).toBe(200);
    expect(await readLog(id)).toHaveLength(1);
    expect((await send('builds/[id]/log/route.ts', 'GET', own())).json).toHaveLength(1);
  });
  test('what is wrong is refused by its field, and nothing is written', async () => {
    const bad = await sendJson('builds/[id]/log/route.ts', 'POST', { ...note('x'), data: {} }, own());
    expect([bad.status, error(bad.json)?.path]).toEqual([422, 'data.text']);
    expect((await sendJson('builds/[id]/log/route.ts', 'POST', note('x'), nobody)).status).toBe(404);
    expect(await readLog(id)).toEqual([]);
  });
  test('a picture that is none, or is not there', async () => {
    const photo = { params: { id, photoId: randomUUID() } };
    const none = await send('builds/[id]/photos/[photoId]/route.ts', 'POST', { body: 'not a picture', ...photo });
    expect(none.status).toBe(415);
    expect((await send('builds/[id]/photos/[photoId]/route.ts', 'GET', photo)).status).toBe(404);
  });
});

describe('a whole drying that is kept', () => {
  test('none is no content; what is no drying is refused', async () => {
    expect((await send('builds/[id]/drying/route.ts', 'GET', { ...own(), query: '?key=x' })).status).toBe(204);
    expect((await send('builds/[id]/drying/route.ts', 'GET', { ...own(), query: '?findings' })).json).toBeNull();
    const odd = await send('builds/[id]/drying/route.ts', 'PUT', { body: 'odd', ...own(), query: '?key=x&revision=1' });
    expect(odd.status).toBe(422);
  });
});

describe('the workshop', () => {
  test('settings: only those there are', async () => {
    const ways = { units: 'imperial', theme: 'evening', motion: false };
    expect((await sendJson('settings/route.ts', 'PUT', ways)).json).toEqual(ways);
    expect((await send('settings/route.ts', 'GET')).json).toEqual(ways);
    expect((await sendJson('settings/route.ts', 'PUT', { ...ways, units: 'cubits' })).status).toBe(422);
    expect((await send('settings/route.ts', 'GET')).json).toEqual(ways);
  });
  test('its clock is that of the page that asks first; hours that end before they begin are refused', async () => {
    expect((await send('workshop/route.ts', 'GET', { query: '?zone=Europe/Rome' })).json).toMatchObject({
      zone: 'Europe/Rome',
    });
    const person = { id: 'a', name: 'A', hours: [{ days: [0], from: 600, until: 500 }], away: [], other: [] };
    const bad = await sendJson('workshop/route.ts', 'PUT', { zone: 'UTC', people: [person] });
    expect(bad.status).toBe(422);
  });
  test('stock: a move for a build there is; lists of steps; what was learned', async () => {
    const move = { id: randomUUID(), item: 'clay/paper-clay', kind: 'bought', amount: 2, at: '2026-12-01T10:00:00Z' };
    expect((await sendJson('stock/route.ts', 'POST', move)).status).toBe(200);
    expect(
      (await sendJson('stock/route.ts', 'POST', { ...move, id: randomUUID(), buildId: randomUUID() })).status,
    ).toBe(404);
    const report = (await send('stock/route.ts', 'GET')).json as { lines: { item: string; onShelf: number }[] };
    expect(report.lines.find((l) => l.item === 'clay/paper-clay')?.onShelf).toBe(2);
    expect((await send('step-lists/route.ts', 'GET')).json).toEqual([]);
    expect((await send('learned/route.ts', 'GET')).json).toEqual([]);
  });
});
