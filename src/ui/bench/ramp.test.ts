import { coverColour, loadColour, moistureColour, plentyOfCover, rampCss } from './ramp';

/** How light it looks: relative luminance of the web's contrast rules, linearised. */
const light = (c: readonly number[]) => {
  const [r, g, b] = c.map((v) => (v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
const shares = Array.from({ length: 21 }, (_, i) => i / 20);

test('below its limit a member gets darker the more it carries, by day; in the evening lighter', () => {
  const upTo = shares.map((s) => s * 0.99);
  const day = upTo.map((u) => light(loadColour(u))),
    evening = upTo.map((u) => light(loadColour(u, true)));
  day.slice(1).forEach((v, i) => expect(v).toBeLessThan(day[i]! + 1e-9));
  evening.slice(1).forEach((v, i) => expect(v).toBeGreaterThan(evening[i]! - 1e-9));
});

test('past its limit it turns red: more red than green and blue, as nothing below is', () => {
  const redder = ([r, g, b]: readonly number[]) => r! > 1.3 * Math.max(g!, b!);
  expect([1.3, 1.5, 9].every((u) => redder(loadColour(u)) && redder(loadColour(u, true)))).toBe(true);
  expect([0, 0.3, 0.6, 0.9].some((u) => redder(loadColour(u)) || redder(loadColour(u, true)))).toBe(false);
});

test('wet is dark and dry is light; deep clay is light and bare iron is not', () => {
  const wet = shares.map((s) => light(moistureColour(s)));
  wet.slice(1).forEach((v, i) => expect(v).toBeLessThan(wet[i]!));
  const cover = shares.map((s) => light(coverColour(s * plentyOfCover)));
  cover.slice(1).forEach((v, i) => expect(v).toBeGreaterThan(cover[i]!));
});

test('outside its ends a ramp stays at them', () => {
  expect(loadColour(-1)).toEqual(loadColour(0));
  expect(loadColour(50)).toEqual(loadColour(1.5));
  expect(coverColour(-0.01)).toEqual(coverColour(0));
  expect(moistureColour(2)).toEqual(moistureColour(1));
});

test('the key beside the picture is drawn from the same stops', () => {
  for (const [kind, colour] of [
    ['load', loadColour(0)],
    ['moisture', moistureColour(0)],
    ['cover', coverColour(0)],
  ] as const) {
    const [r, g, b] = colour.map((v) => Math.round(v * 255));
    expect(rampCss(kind)).toContain(`rgb(${r} ${g} ${b}) 0%`);
    expect(rampCss(kind)).toMatch(/100%\)$/);
  }
  expect(rampCss('load', true)).not.toBe(rampCss('load'));
});
