import { applyEdit, newBust, type Build, type Change } from '.';

const bust = newBust('b', '2026-12-01');
const make = (build: Build, ...changes: Change[]) => applyEdit(build, { label: 'test', changes });
const made = (build: Build, ...changes: Change[]): Build => {
  const next = make(build, ...changes);
  if (!next.ok) throw new Error(`${next.path} ${next.message}`);
  return next.value;
};

test('what is not touched stays the same object: what was worked out of it is found again', () => {
  const next = made(bust, { path: ['brief', 'note'], value: 'x' });
  for (const part of Object.keys(bust) as (keyof Build)[])
    expect([part, next[part] === bust[part]]).toEqual([part, part !== 'brief']);
});

test('a key is taken away by undefined, an item of a list too, and those after it move up', () => {
  const props = ['a', 'b', 'c'].map((id) => ({ id, name: id, node: `n-${id}`, until: 'always' }));
  const three = made(bust, { path: ['armature', 'props'], value: props });
  expect(made(three, { path: ['armature', 'props', 1], value: undefined }).armature.props.map((p) => p.id)).toEqual([
    'a',
    'c',
  ]);
  const own = made(bust, { path: ['regions', 'own', 'head'], value: { coats: [0.004] } });
  expect(made(own, { path: ['regions', 'own', 'head'], value: undefined }).regions.own).toEqual({});
  // Taken away twice is taken away once.
  expect(made(bust, { path: ['regions', 'own', 'head'], value: undefined }).regions.own).toEqual({});
});

test('several changes are one edit: all of them, or none', () => {
  const both = make(bust, { path: ['brief', 'note'], value: 'x' }, { path: ['form', 'start', 'size'], value: -1 });
  expect(both).toMatchObject({ ok: false, code: 'out-of-range', path: 'form.start.size' });
  expect(bust.brief.note).toBe('');
});

test.each([
  [[], 'bad-path', ''],
  [['__proto__', 'polluted'], 'bad-path', '__proto__.polluted'],
  [['brief', 'constructor'], 'bad-path', 'brief.constructor'],
  [['no-such-part', 'x'], 'out-of-range', 'no-such-part'],
  [['toString'], 'out-of-range', 'toString'],
] as const)('the path %j is refused', (path, code, where) => {
  expect(make(bust, { path: [...path], value: 1 })).toMatchObject({ ok: false, code, path: where });
  expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
});

test.each([
  [['brief', 'deadline'], '2026-02-30', 'brief.deadline'],
  [['brief', 'situation'], 'in orbit', 'brief.situation'],
  [['room', 'relativeHumidity'], 55, 'room.relativeHumidity'],
  [['regions', 'everywhere', 'coats'], [], 'regions.everywhere.coats'],
  [['regions', 'everywhere', 'coats', 0], 'thick', 'regions.everywhere.coats[0]'],
  [['armature', 'mount'], { kind: 'floats' }, 'armature.mount'],
  [['materials', 'waste'], -0.1, 'materials.waste'],
] as const)('%j as %j is refused at %s, with a reason', (path, value, where) => {
  const next = make(bust, { path: [...path], value });
  expect(next.ok).toBe(false);
  if (next.ok) return;
  expect(next.path.replaceAll(/\.(\d+)/g, '[$1]')).toContain(where);
  expect(next.message.length).toBeGreaterThan(5);
});
