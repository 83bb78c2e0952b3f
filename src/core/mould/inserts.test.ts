import { seatOf, usualInserts } from './inserts';

test('eyes of 24 mm, 62 apart, in a skin that loses a tenth: 26.7 and 68.9', () => {
  const seat = seatOf({ size: 0.024, apart: 0.062 }, { low: 0.88, nominal: 0.9, high: 0.92 });
  expect(seat.size.nominal).toBeCloseTo(0.02667, 5);
  expect(seat.apart!.nominal).toBeCloseTo(0.06889, 5);
  expect(seat.size.low).toBeCloseTo(0.024 / 0.92, 9);
  expect(seat.size.high).toBeCloseTo(0.024 / 0.88, 9);
  expect(seatOf({ size: 0.01, apart: null }, { low: 1, nominal: 1, high: 1 }).apart).toBeNull();
});

test('the hinge is as far apart as the wearer’s head is broad', () => {
  const hinge = (girth?: number) => usualInserts(girth).find((i) => i.id === 'jaw-hinge')!.apart!;
  expect(hinge(0.57)).toBeGreaterThan(0.15);
  expect(hinge(0.57)).toBeLessThan(0.165);
  expect(hinge(0.6)).toBeGreaterThan(hinge(0.53));
  expect(hinge()).toBe(0.15);
});
