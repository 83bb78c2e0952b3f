import { newBust } from '../../src/core/document';
import { longestMs, workOut } from '../../src/server/reckoner';
import { closeDatabase } from '../../src/server';

/** The real threads, which other tests do without. */
const worker = process.env['JEST_WORKER_ID'];
const usual = { ...longestMs };
beforeEach(() => {
  delete process.env['JEST_WORKER_ID'];
});
afterEach(async () => {
  await closeDatabase();
  process.env['JEST_WORKER_ID'] = worker;
  Object.assign(longestMs, usual);
});

test('what takes too long is stopped and said to be too much; the next is worked out by a new thread', async () => {
  const build = newBust('Heavy', '2026-12-01', 0.3);
  longestMs.asked = 5;
  expect(await workOut('check', { build })).toMatchObject({
    ok: false,
    code: 'too-much-work',
    message: expect.stringMatching(/took longer than 0.005 s and was stopped/),
  });
  longestMs.asked = usual.asked;
  const [one, two] = await Promise.all([
    workOut('check', { build }),
    workOut('needs', { id: 'x', build: { ...build, name: 'Second' } }),
  ]);
  expect(one).toEqual({ ok: true, value: null });
  expect(two.ok && two.value.length).toBeGreaterThan(2);
}, 60_000);

test('what fails in a thread is a failure of the build; the thread goes on', async () => {
  const build = newBust('Broken', '2026-12-01', 0.3);
  const broken = { ...build, form: null } as unknown as typeof build;
  expect(await workOut('check', { build: broken })).toMatchObject({ ok: false, code: 'failed', path: 'the build' });
  expect(await workOut('check', { build })).toEqual({ ok: true, value: null });
  // Who closes does not leave anybody waiting.
  const left = workOut('check', { build: { ...build, name: 'Left' } });
  await closeDatabase();
  expect(await left).toMatchObject({ ok: false, code: 'busy' });
}, 60_000);
