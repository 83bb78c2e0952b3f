import { ResultCache } from './result-cache';

test('what was worked out is there again, by shelf and key; of each shelf the last used stay', () => {
  const cache = new ResultCache(2);
  let made = 0;
  const ask = (key: string, shelf = 'grid') => cache.keep(shelf, key, () => ({ key, made: ++made }));
  const first = ask('a');
  expect(ask('a')).toBe(first);
  expect(ask('a', 'load')).not.toBe(first);
  ask('b');
  // Used again, it is the other that goes when a third comes.
  expect(ask('a')).toBe(first);
  ask('c');
  expect(ask('a')).toBe(first);
  expect(made).toBe(4);
  expect(ask('b').made).toBe(5);
});

test('of small things, of which a build has many, many more are kept', () => {
  const cache = new ResultCache(2);
  const ask = (k: number) => cache.keep('course', String(k), () => ({ k }));
  const first = ask(0);
  for (let k = 1; k < 80; k++) ask(k);
  expect(ask(0)).toBe(first);
});
