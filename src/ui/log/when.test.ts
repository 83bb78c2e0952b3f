import { localParts, localTime, timeOfField } from './when';

const now = Date.parse('2026-12-04T12:00:00Z');

test('a field of date and time says the moment it was filled with', () => {
  for (const at of ['2026-12-01T08:05:00.000Z', '2026-06-30T23:59:00.000Z']) {
    const back = timeOfField(localTime(at), Date.parse('2027-01-01'));
    expect(back).toEqual({ ok: true, value: at });
    expect(localTime(at)).toBe(`${localParts(at).day}T${localParts(at).time}`);
    expect(localTime(at)).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/);
  }
});

test('empty is no time of its own; nonsense and what is still to come are refused where they stand', () => {
  expect(timeOfField('', now)).toEqual({ ok: true, value: null });
  expect(timeOfField('yesterday', now)).toMatchObject({ ok: false, code: 'not-a-time', path: 'when' });
  expect(timeOfField('2026-12-04T12:02Z', now)).toMatchObject({ ok: false, code: 'too-late', path: 'when' });
  // A clock that runs half a minute ahead is no future.
  expect(timeOfField('2026-12-04T12:00:30Z', now)).toMatchObject({ ok: true });
});
