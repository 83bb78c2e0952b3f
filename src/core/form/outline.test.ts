import { referenceSchema } from '../document';
import { checkOutline, outlineLines } from '.';

const drawing =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 20">\n<defs/>\n<path d="M0 0L10 20" fill="url(#a)"/>\n</svg>';

test('a drawing is taken', () => expect(checkOutline(drawing)).toBeNull());

test.each([
  ['a script', '<script>alert(1)</script>', /script/],
  ['a script in capitals', '<SCRIPT href="x"/>', /script/],
  ['a handler', '<path onload="x()"/>', /run/],
  ['a link that runs', '<a href="javascript:x"/>', /script/],
  ['a page in it', '<foreignObject><b/></foreignObject>', /other than a drawing/],
  ['a picture from elsewhere', '<image href="https://example.invalid/a.png"/>', /outside itself/],
  ['a style from elsewhere', '<style>@import "a.css"</style>', /outside itself/],
  ['a fill from elsewhere', '<path fill="url(https://example.invalid)"/>', /outside itself/],
])('%s is refused with its line', (_, part, why) => {
  expect(checkOutline(drawing.replace('<defs/>', part))).toMatchObject({
    ok: false,
    path: 'line 2',
    message: expect.stringMatching(why),
  });
});
test('words of its own, no drawing, too much', () => {
  expect(checkOutline(`<!DOCTYPE svg [<!ENTITY a "b">]>${drawing}`)).toMatchObject({ ok: false, path: 'line 1' });
  expect(checkOutline('<html></html>')).toMatchObject({ code: 'not-an-outline' });
  expect(checkOutline(' '.repeat(2_000_001))).toMatchObject({ code: 'too-large' });
});

test('a declaration is looked through once, however many there are', () => {
  expect(checkOutline(`${'<!DOCTYPE'.repeat(200_000)}${drawing}`)).toBeNull();
  expect(checkOutline(`${'<!DOCTYPE svg>\n'.repeat(100_000)}<!doctype svg\n[${drawing}`)).toMatchObject({
    code: 'not-a-drawing',
    path: 'line 100001',
  });
});

test('lines are thinned, ends kept; nothing drawn is said', () => {
  const long = Array.from({ length: 20_001 }, (_, i) => i);
  const lines = outlineLines([long.slice(0, 20_000), [1, NaN, 2, 3]]);
  if (!lines.ok) throw new Error(lines.message);
  expect(lines.value).toHaveLength(1);
  expect(lines.value[0]?.length).toBeLessThanOrEqual(8000);
  expect(lines.value[0]?.slice(-2)).toEqual([19998, 19999]);
  expect(outlineLines([[1, 2]])).toMatchObject({ code: 'empty' });
});

test('a reference is a picture or an outline, and a picture is one a browser shows as it is', () => {
  const base = { id: 'ref-1', name: 'front', view: 'front', width: 100, height: 200, perPixel: 0.001, mark: [50, 190] };
  expect(referenceSchema.safeParse({ ...base, image: 'data:image/png;base64,AAAA' }).success).toBe(true);
  expect(referenceSchema.safeParse({ ...base, lines: [[0, 0, 1, 1]] }).success).toBe(true);
  expect(referenceSchema.safeParse(base).success).toBe(false);
  expect(referenceSchema.safeParse({ ...base, image: 'data:image/svg+xml;base64,AAAA' }).success).toBe(false);
  expect(referenceSchema.safeParse({ ...base, image: 'https://example.invalid/a.png' }).success).toBe(false);
});
