import { evaporationAt, type RoomAir } from '../drying';
import { castKinds, mouldKinds } from '.';
import { dryForCast, plasterDries, plasterWarms, plasterWarmsAtMost } from './plaster';

const room: RoomAir = { temperature: 20, relativeHumidity: 0.5, speed: 0.1 };
const day = 86400;

test('its water by the mix: 1600 kg a m3 wet, 1150 dry', () => expect(1150 * 1.391).toBeCloseTo(1600, 0));

test('a wall of 25 mm gives its water off to both sides as fast as a wet face does, and a little slower at the end', () => {
  const water = 0.391 * 1150 * 0.025;
  const wet = water / (2 * evaporationAt(room, 1).flux);
  const dry = plasterDries(0.025, room)!;
  expect(dry).toBeGreaterThan(0.95 * wet);
  expect(dry).toBeLessThan(1.5 * wet);
  // As workshops have it: the better part of a week in a still room.
  expect(dry / day).toBeGreaterThan(2);
  expect(dry / day).toBeLessThan(9);
});

test('faster in moving air, slower in a damp room, twice as long where it is twice as thick', () => {
  const still = plasterDries(0.025, room)!;
  for (const other of [{ speed: 1 }, { relativeHumidity: 0.75 }, { temperature: 30 }]) {
    const air = { ...room, ...other };
    const asFast = evaporationAt(air, 1).flux / evaporationAt(room, 1).flux;
    // The last of it comes from within, at its own pace.
    const ratio = still / plasterDries(0.025, air)! / asFast;
    expect(ratio).toBeGreaterThan(0.8);
    expect(ratio).toBeLessThan(1.15);
  }
  // Twice the water, and four times as slow at the last of it.
  const thick = plasterDries(0.05, room)! / still;
  expect(thick).toBeGreaterThan(2);
  expect(thick).toBeLessThan(2.6);
});

test('heat: the peak of what is given off and lost, against steps of a second', () => {
  for (const thickness of [0.005, 0.012, 0.025, 0.06]) {
    const lost = 20 / (1600 * 2200 * thickness);
    let [given, warm, most] = [0, 0, 0];
    for (let t = 0; t < 6 * 3600; t++) {
      const now = plasterWarmsAtMost * (1 - Math.exp(-(t + 1) / 900));
      warm += now - given - warm * lost;
      given = now;
      most = Math.max(most, warm);
    }
    expect(plasterWarms(thickness) / most).toBeCloseTo(1, 2);
  }
  expect(plasterWarmsAtMost).toBeCloseTo(37, 0);
  expect(plasterWarms(10)).toBeGreaterThan(0.98 * plasterWarmsAtMost);
});

test('only latex waits for its mould, and only in plaster', () => {
  const dries = (kind: string, cast: string) =>
    dryForCast(
      mouldKinds.find((k) => k.id === kind)!,
      castKinds.find((c) => c.id === cast)!,
      0.02,
      room,
    );
  expect(dries('plaster-parts', 'latex-skin')).toBe(plasterDries(0.02, room));
  expect(dries('plaster-parts', 'wax')).toBe(0);
  expect(dries('rubber-skin', 'resin-hollow')).toBe(0);
});
