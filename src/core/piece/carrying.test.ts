import { changed, edited, judged, parameter } from '../../../tests/support/judged';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import type { Build } from '../document';
import { isBare } from '../form';
import { takeMould, type MouldKindId } from '../mould';
import { gravity as g } from '../quantity';
import { startBuild } from '../school';
import { finishedParts } from './carrying';

/** The finished piece and how it meets the world. */
const lamp = lamplighter('2026-12-01', null);
const bust = judged(lamp);
const demo = (name: string) => otherDemoBuilds('2026-12-01', '2027-03-01').find((b) => b.name === name)!;
const hung = (points: readonly (readonly number[])[]) =>
  judged(changed(lamp, { path: ['armature', 'mount'], value: { kind: 'hangs', points } }));

const moulded = (build: Build, kind: MouldKindId, cast: string): Build =>
  changed(edited(build, takeMould(build, kind)), { path: ['mould', 'cast'], value: cast });

test('standing it weighs all there is when dry, its board and ballast too', () => {
  const { report } = bust;
  expect(report.finished.mass).toBeCloseTo(report.ledger.dry, 9);
  const heavy = judged(changed(lamp, parameter('ballast', 3)));
  expect(heavy.report.finished.mass - report.finished.mass).toBeCloseTo(3, 6);
});

test('hung or on a wall it leaves its board, flange and ballast behind', () => {
  const { report, piece } = hung([[0, 0, 0.6]]);
  const stays = report.ledger.items.filter(
    (i) => i.kind === 'base' || i.kind === 'ballast' || i.id.endsWith('/flange'),
  );
  const left = stays.reduce((sum, i) => sum + i.dry, 0);
  expect(left).toBeGreaterThan(0.3);
  expect(report.finished.mass).toBeCloseTo(report.ledger.dry - left, 9);
  expect(finishedParts(piece, report.ledger).mass).toBe(report.finished.mass);
});

test('its lines bear its whole weight between them', () => {
  const { mount, finished } = hung([
    [-0.1, 0, 0.5],
    [0.1, 0, 0.5],
    [0, 0.1, 0.5],
  ]).report;
  if (mount.kind !== 'hangs') throw new Error(mount.kind);
  expect(mount.pulls.reduce((a, b) => a + b, 0)).toBeCloseTo(finished.mass * g, 6);
});

test('on a wall it stands out by as far as its weight lies before its back', () => {
  const { report, piece } = judged(
    changed(lamp, { path: ['armature', 'mount'], value: { kind: 'wall', height: 0.2, screws: 4, pull: 400 } }),
  );
  if (report.mount.kind !== 'wall') throw new Error(report.mount.kind);
  expect(report.mount.standsOut).toBeCloseTo(piece.extent.high[1] - report.finished.centre[1], 9);
  expect(report.mount.tension).toBeCloseTo((report.finished.mass * g * report.mount.standsOut) / 0.2 / 2, 6);
  expect(report.mount.shear).toBeCloseTo((report.finished.mass * g) / 4, 6);
});

test('carried on its board it is as wide as the wider of the two, and as high as both', () => {
  const wide = judged(changed(lamp, parameter('boardWidth', 0.9)));
  const { whole } = wide.report.handling;
  expect(whole.size.width).toBeCloseTo(0.9, 9);
  expect(whole.size.height).toBeCloseTo(wide.piece.extent.high[2] + wide.piece.armature.base.thickness, 9);
  // Nobody turns it over on its board: 0.9 m and 30 mm do not go through 0.76 m, whichever way it would go without.
  const narrow = judged(
    changed(lamp, parameter('boardWidth', 0.9), parameter('boardDepth', 0.9), {
      path: ['brief', 'travel', 'doorWidth'],
      value: 0.76,
    }),
  );
  expect(narrow.report.handling.whole.door).toBe(false);
});

test('worn, what matters is where it sits: a breastplate pulls from its back, a pauldron from its middle', () => {
  const on = (where: string) => {
    const { report, piece } = judged(
      changed(demo('Whelk pauldron'), {
        path: ['armature', 'mount'],
        value: { kind: 'worn', where, straps: [], hours: 3 },
      }),
    );
    if (report.mount.kind !== 'worn') throw new Error(report.mount.kind);
    return { mount: report.mount, piece };
  };
  const { mount, piece } = on('chest');
  const arm = piece.extent.high[1] - mount.centre[1];
  const across = mount.centre[0] - (piece.extent.low[0] + piece.extent.high[0]) / 2;
  expect(mount.leverage).toBeCloseTo(mount.mass * g * Math.hypot(arm, across), 6);
  expect(mount.towards).toBe('front');
  expect(on('shoulder').mount.leverage).toBeLessThan(mount.leverage);
  expect(on('back').mount.towards).toBe('back');
});

test('in parts, the parts weigh what the whole does, but for its board and its hardware', () => {
  const coral = judged(demo('Coral candelabrum'));
  const { parts, whole } = coral.report.handling;
  expect(parts.length).toBeGreaterThan(1);
  const sum = parts.reduce((m, p) => m + p.mass, 0);
  const left = coral.report.ledger.items
    .filter((i) => ['base', 'ballast', 'hardware'].includes(i.kind))
    .reduce((m, i) => m + i.dry, 0);
  expect(sum / (whole.mass - left)).toBeCloseTo(1, 1);
  for (const p of parts) expect(p.size.height).toBeLessThanOrEqual(whole.size.height);
});

test('a vehicle of one’s own is as large as it was measured', () => {
  const van = (height: number) =>
    judged(
      changed(
        lamp,
        { path: ['brief', 'travel', 'vehicle'], value: 'own' },
        { path: ['brief', 'travel', 'inside'], value: [2, 1.5, height] },
      ),
    ).report.handling;
  const high = bust.report.handling.whole.size.height;
  expect(van(high + 0.041)).toMatchObject({ vehicleName: 'your vehicle', whole: { vehicle: true } });
  expect(van(high + 0.039).whole.vehicle).toBe(false);
  expect(bust.report.handling).toMatchObject({ vehicleName: null, whole: { vehicle: null } });
});

test('where a mould is taken of it, what is worn or put up is the cast: its wall, not the clay under it', () => {
  const made = startBuild('Test', '2026-12-01', 'mask', 1, 'helmet');
  if (!made.ok) throw new Error(made.message);
  const mount = { kind: 'worn', where: 'head', straps: [] };
  const worn = changed(made.value, { path: ['armature', 'mount'], value: mount });
  const of = (build: Build) => {
    const { piece, report } = judged(build);
    if (report.mount.kind !== 'worn') throw new Error(report.mount.kind);
    return { piece, report, worn: report.mount };
  };
  const master = of(worn);
  expect(master.worn).toMatchObject({ ofCast: false, mass: master.report.finished.mass, most: master.worn.mass });
  const cast = of(moulded(worn, 'rubber-skin', 'resin-hollow'));
  // By hand: the face that bears clay, 4 mm of resin at 1060 kg/m3, shrunk by 0.004 and 0.005 each way.
  const { perMass } = cast.piece.volumes;
  const clad = perMass.reduce((sum, m, i) => sum + (isBare(cast.piece.form.masses[i]) ? 0 : m.area), 0);
  expect(cast.worn.ofCast).toBe(true);
  expect(cast.worn.mass).toBeCloseTo(clad * 0.004 * 1060 * (0.996 * 0.995) ** 2, 2);
  expect(cast.worn.mass).toBeLessThan(master.worn.mass / 5);
  expect(cast.worn.most).toBeGreaterThan(cast.worn.mass);
  // Pulls on its straps go with it.
  const strap = { id: 'a', name: 'a', at: [0, 0, 0.2] };
  const strapped = of(
    moulded(
      changed(worn, { path: ['armature', 'mount'], value: { ...mount, straps: [strap] } }),
      'rubber-skin',
      'resin-hollow',
    ),
  );
  expect(strapped.worn.straps[0]!.pull).toBeCloseTo(strapped.worn.mass * g, 6);
});

test('a relief that is cast is put on its wall as the cast', () => {
  const made = startBuild('Test', '2026-12-01', 'relief', 1);
  if (!made.ok) throw new Error(made.message);
  const hung = changed(made.value, { path: ['armature', 'mount'], value: { kind: 'wall', height: 0.2, screws: 4 } });
  const plaster = moulded(hung, 'rubber-block', 'plaster-solid');
  const [clay, cast] = [judged(hung).report.mount, judged(plaster).report.mount];
  if (clay.kind !== 'wall' || cast.kind !== 'wall') throw new Error('not on a wall');
  expect([clay.ofCast, cast.ofCast]).toEqual([false, true]);
  expect(cast.shear).not.toBeCloseTo(clay.shear, 2);
});
