import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

/** Stations are listed once; what the rules find is shown at one of them. Read as text: panels are for a browser. */
const listed = [
  ...readFileSync('src/ui/stations/stations.ts', 'utf8').matchAll(/\{ id: '([a-z]+)', name: '([^']+)', key: '(.)'/g),
].map(([, id, name, key]) => ({ id: id!, name: name!, key: key! }));
const shownAt = (text: string) =>
  [...text.matchAll(/finding\(\s*(?:[^'()]*\? )?'([a-z]+)'(?: : '([a-z]+)')?,\s*['`o]/g)].flatMap(([, a, b]) =>
    b ? [a!, b] : [a!],
  );

test('ten stations, each with a name and a key of its own, in the order of the work', () => {
  expect(listed).toHaveLength(10);
  for (const key of ['id', 'name', 'key'] as const) expect(new Set(listed.map((s) => s[key])).size).toBe(10);
  expect(listed.map((s) => s.key)).toEqual(['1', '2', '3', '4', '5', '6', '7', '8', '9', '0']);
});

test('every finding is shown at a station there is', () => {
  const folder = 'src/core/finding';
  const rules = readdirSync(folder).filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts'));
  const found = rules.flatMap((f) => shownAt(readFileSync(path.join(folder, f), 'utf8')));
  expect(found.length).toBeGreaterThan(30);
  const ids = new Set(listed.map((s) => s.id));
  expect(found.filter((id) => !ids.has(id))).toEqual([]);
});
