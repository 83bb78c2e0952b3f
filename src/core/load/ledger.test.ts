import { stocks } from '../catalogue';
import { setOutWell } from '../../../tests/support/set-out';
import { newBust } from '../document';
import { armatureItems } from '.';

const { armature } = setOutWell(newBust('b', '2026-12-01'));
const stockOf = (id: string) => stocks.get(id);
const items = armatureItems(armature, stockOf);
const of = (id: string) => items.find((i) => i.id === id)!;

test('the board weighs its size times its density, and lies under the table’s level by half its thickness', () => {
  const { width, depth, thickness, stock } = armature.base;
  expect(of('base/board').wet).toBeCloseTo(width * depth * thickness * stocks.get(stock)!.density, 9);
  expect(of('base/board').at[2]).toBeCloseTo(-thickness / 2, 12);
});

test('a member weighs its cut length, strands and all; a pipe its wall alone', () => {
  const pipe = armature.members.find((m) => m.id.endsWith('/pipe'))!;
  const long = Math.hypot(...[0, 1, 2].map((k) => pipe.path[1]![k]! - pipe.path[0]![k]!));
  // Nominal half inch: 21.3 mm outside, 2.8 mm thick; 13 mm go into the flange. Steel of 7850 kg/m3.
  const section = (Math.PI / 4) * (0.0213 ** 2 - (0.0213 - 2 * 0.0028) ** 2);
  expect(of(pipe.id).wet / (section * (long + 0.013) * 7850)).toBeCloseTo(1, 1);
});

test('fittings weigh their number; on its own feet there is no board, and ballast comes with the board', () => {
  const flange = armature.hardware.find((h) => h.name === 'floor flange')!;
  expect(of(flange.id).wet).toBe(flange.count * flange.massEach);
  // Two clamps of 22 g.
  const clamps = armature.hardware.find((h) => h.name === 'hose clamps')!;
  expect(clamps).toMatchObject({ count: 2, massEach: 0.022 });
  expect(of(clamps.id).wet).toBeCloseTo(0.044, 12);
  const loaded = { ...armature, base: { ...armature.base, ballast: 3, ballastAt: [0.1, 0] as const } };
  expect(armatureItems(loaded, stockOf).find((i) => i.kind === 'ballast')).toMatchObject({ wet: 3, dry: 3 });
  const bare = { ...loaded, base: { ...loaded.base, standing: 'own' as const } };
  expect(armatureItems(bare, stockOf).some((i) => i.kind === 'base' || i.kind === 'ballast')).toBe(false);
});

test('no stock, no weight: it is an error of the caller, and named', () => {
  expect(() => armatureItems(armature, () => undefined)).toThrow('no stock steel-pipe');
});
