import { SimulatedHygrometer, SimulatedScale, type Device } from '../../src/server';

const second = 1000,
  day = 86_400_000;
const start = Date.UTC(2026, 11, 1, 9);

async function readings(
  device: Device,
  count: number,
  every = second,
): Promise<{ silent: number; values: Record<string, number>[] }> {
  const values: Record<string, number>[] = [];
  let silent = 0;
  for (let i = 0; i < count; i++) {
    const r = await device.read(start + i * every);
    if (r.ok) values.push({ ...r.values });
    else {
      silent += 1;
      expect(r.why).toMatch(/does not answer/);
    }
  }
  return { silent, values };
}

test('the scale shows what stands on it, with flicker, drift and silences of the size told', async () => {
  const scale = new SimulatedScale(() => 7.5, 42, { noise: 0.002, drift: 0.004, silent: 0.1, finest: 0.005 });
  const { silent, values } = await readings(scale, 3000);
  const gross = values.map((v) => v['gross']!);
  const mean = gross.reduce((s, v) => s + v, 0) / gross.length;
  expect(Math.abs(mean - 7.5)).toBeLessThan(0.006);
  expect(Math.max(...gross) - Math.min(...gross)).toBeGreaterThan(0.004);
  expect(Math.max(...gross) - Math.min(...gross)).toBeLessThan(0.04);
  for (const g of gross.slice(0, 50)) expect(Math.abs(g / 0.005 - Math.round(g / 0.005))).toBeLessThan(1e-6);
  expect(silent / 3000).toBeGreaterThan(0.05);
  expect(silent / 3000).toBeLessThan(0.16);
});

test('it follows the piece as it dries', async () => {
  const scale = new SimulatedScale((now) => 8 - (0.5 * (now - start)) / day, 7);
  const { values } = await readings(scale, 20, day / 10);
  const gross = values.map((v) => v['gross']!);
  expect(gross[0]! - gross[gross.length - 1]!).toBeGreaterThan(0.8);
});

test('asked twice for the same moment it says the same', async () => {
  const scale = new SimulatedScale(() => 3.2, 5);
  expect(await scale.read(start)).toEqual(await scale.read(start));
});

test('the hygrometer stays within what a room can be', async () => {
  const { values } = await readings(
    new SimulatedHygrometer(() => ({ temperature: 19, relativeHumidity: 0.985 }), 3),
    400,
  );
  for (const v of values) {
    expect(Math.abs(v['temperature']! - 19)).toBeLessThan(1);
    expect(v['relativeHumidity']).toBeLessThanOrEqual(0.99);
  }
});
