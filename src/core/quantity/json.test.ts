import { readJson } from './json';

test('reads what is written, says what is not JSON and where it is', () => {
  expect(readJson('{"a":[1,{"b":"]}"}]}')).toEqual({ ok: true, value: { a: [1, { b: ']}' }] } });
  expect(readJson('{"a":', 'log.json')).toMatchObject({ ok: false, code: 'not-json', path: 'log.json' });
});

test('sixty-four deep is read, one deeper is refused; brackets in a text do not count', () => {
  const deep = (n: number) => '['.repeat(n) + ']'.repeat(n);
  expect(readJson(deep(64)).ok).toBe(true);
  expect(readJson(deep(65))).toMatchObject({
    ok: false,
    code: 'too-deep',
    message: expect.stringMatching(/character 65$/),
  });
  expect(readJson('{"a":'.repeat(70) + '1' + '}'.repeat(70))).toMatchObject({ code: 'too-deep' });
  expect(readJson(JSON.stringify({ text: `${'['.repeat(500)}"\\"${'{'.repeat(500)}` })).ok).toBe(true);
  expect(readJson(`{"a\\\\":["\\"[","${'\\\\'.repeat(3)}",${'['.repeat(62)}${']'.repeat(62)}]}`).ok).toBe(true);
  expect(readJson(`{"a\\\\":["\\"[",${'['.repeat(63)}${']'.repeat(63)}]}`)).toMatchObject({ code: 'too-deep' });
  expect(readJson(`["${'\\\\'.repeat(100)}`)).toMatchObject({ code: 'not-json' });
  expect(readJson(`[${Array.from({ length: 500 }, () => '[]').join()}]`).ok).toBe(true);
  // Eight million brackets are not made into anything.
  expect(readJson('['.repeat(8_000_000))).toMatchObject({ code: 'too-deep' });
});
