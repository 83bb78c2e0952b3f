import { checkRods } from '../../../tests/support/rods';
import { asBriefed } from '.';
import type { Build } from '../document';
import { counterweightAt, groundUnder, screwWithdrawal } from '../load';
import type { Vec3 } from '../quantity';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { Evaluator, type Report } from '.';
import type { Piece } from '../piece';

/** Figures of whole builds beside a few lines of arithmetic from the weights alone. */
const g = 9.81;
const demo = (name: string): Build => otherDemoBuilds('2026-12-01', '2026-12-24').find((b) => b.name.includes(name))!;
function worked(build: Build): { report: Report; piece: Piece } {
  const evaluator = new Evaluator();
  const report = evaluator.evaluate(asBriefed(build)),
    piece = evaluator.piece(asBriefed(build));
  if (!report.ok) throw new Error(report.message);
  if (!piece.ok) throw new Error(piece.message);
  return { report: report.value, piece: piece.value };
}

/** Weight of all that hangs on the frame, and its level moment about a place, all clay on and wet. */
function hanging(report: Report, about: Vec3): { mass: number; x: number; y: number } {
  const items = report.ledger.items.filter((i) => ['clay', 'bulk', 'wrap', 'member'].includes(i.kind));
  return {
    mass: items.reduce((s, i) => s + i.wet, 0),
    x: items.reduce((s, i) => s + i.wet * g * (i.at[0] - about[0]), 0),
    y: items.reduce((s, i) => s + i.wet * g * (i.at[1] - about[1]), 0),
  };
}

test('a doubled 2 mm annealed wire, 200 mm level under 80 g of wet clay', () => {
  const arm = checkRods({
    places: { shoulder: [0, 0, 0], wrist: [0.2, 0, 0] },
    held: ['shoulder'],
    rods: [{ id: 'arm', from: 'shoulder', to: 'wrist', stock: 'aluminium-annealed', size: '2mm', strands: 2 }],
    weights: [{ rod: 'arm', kg: 0.08, spread: true }],
  }).bones[0];
  // M = 0.08 x 9.81 x 0.1 = 0.0785 Nm; two wires take 2 x 45 MPa x 2^3/6 mm3 = 0.12 Nm; 1.5 x 0.0785/0.12 = 0.98.
  expect(arm?.demand).toBeCloseTo(0.08 * g * 0.1, 6);
  expect(arm?.capacity).toBeCloseTo(0.12, 9);
  expect(arm?.utilisation).toBeCloseTo(0.981, 3);
  // Spread evenly, w L^4 / 8 EI with EI = 2 x 69 GPa x pi 2^4/64 mm4 = 0.108: 7.2 mm. Six lumps stand for the spread.
  const ei = 2 * 69e9 * ((Math.PI * 0.002 ** 4) / 64) + 1e-3;
  expect(arm?.sag).toBeCloseTo((((0.08 * g) / 0.2) * 0.2 ** 4) / (8 * ei), 4);
});

test('the Lamplighter’s flange screws', () => {
  const { report, piece } = worked(lamplighter('2026-12-01', null));
  const foot = piece.armature.base.flangeAt;
  const { y } = hanging(report, foot);
  const moment = report.lifeStages.find((m) => m.stage === 'clay-1')?.footMoment ?? 0;
  // All of it leans forward: the moment at the foot is weight times how far its centre lies before the pipe.
  // Under it the pipe sways, by a hundredth or two of that: no less than by hand, hardly more.
  expect(moment / Math.abs(y)).toBeGreaterThanOrEqual(0.999);
  expect(moment / Math.abs(y)).toBeLessThan(1.03);
  const near = 0.045 - 0.035 / Math.SQRT2,
    far = 0.045 + 0.035 / Math.SQRT2;
  const most = Math.max(...report.lifeStages.map((m) => m.footMoment));
  expect(report.base.screwPull).toBeCloseTo((most * far) / (2 * (near ** 2 + far ** 2)), 6);
  // 0.9 x 108.25 x 0.64^2 x 4 x 16 / 5 = 511 N for plywood.
  expect(report.base.screwAllowed).toBeCloseTo(screwWithdrawal('plywood', 0.64, 0.004, 0.016) / 5, 9);
  expect(report.base.screwAllowed).toBeCloseTo(510.8, 0);
  expect(report.base.screwUtilisation).toBeLessThan(0.6);
});

test('an Acrobat on one foot', () => {
  const { report, piece } = worked(demo('Acrobats'));
  const feet = piece.armature.nodes.filter((n) => n.held);
  expect(feet).toHaveLength(1);
  const { mass, x, y } = hanging(report, feet[0]!.at!);
  const last = report.lifeStages.find((m) => m.stage === 'clay-2');
  expect(last?.footForce).toBeLessThan(mass * g * 1.001);
  // The ledger has both coats wet; the second goes on over a dry first, so the moment is a little less.
  expect(last?.footMoment).toBeLessThan(Math.hypot(x, y) * 1.001);
  expect(last?.footMoment).toBeGreaterThan(Math.hypot(x, y) * 0.75);
  // It stands on the board: the lean is that of the whole weight within the board's edges.
  expect(report.stance.tipAngle).toBeGreaterThan(15);
});

test('the Walrus’s counterweight', () => {
  const walrus = demo('Walrus');
  const without = {
    ...walrus,
    armature: {
      ...walrus.armature,
      school: {
        ...walrus.armature.school,
        parameters: { ...walrus.armature.school.parameters, ballast: 0, boardDepth: 1.3, boardBack: 0.2 },
      },
    },
  };
  const { report, piece } = worked(without);
  const { base } = piece.armature;
  const ground = groundUnder(base);
  const front = base.at[1] - base.depth / 2 + 0.05;
  const items = report.ledger.items;
  const mass = items.reduce((s, i) => s + i.wet, 0);
  const inFront = items.reduce((s, i) => s + i.wet * (i.at[1] - front), 0) / mass,
    high = items.reduce((s, i) => s + i.wet * (i.at[2] - ground), 0) / mass;
  // Lean about the front casters: atan(distance to them / height).
  expect(report.stance.towards).toBe('front');
  expect(report.stance.tipAngle).toBeCloseTo((Math.atan2(inFront, high) * 180) / Math.PI, 1);
  const target = 20,
    slope = Math.tan((target * Math.PI) / 180);
  const at: Vec3 = [0, base.at[1] + 0.5, -base.thickness / 2];
  const kg = counterweightAt(report.stance, ground, at, target);
  // (M d + m d_c) / (M h + m h_c) = tan 20, for m.
  expect(kg).toBeCloseTo((mass * (slope * high - inFront)) / (at[1] - front - slope * (at[2] - ground)), 0);
  const held = worked({
    ...without,
    armature: {
      ...without.armature,
      school: {
        ...without.armature.school,
        parameters: { ...without.armature.school.parameters, ballast: kg, ballastBack: 0.5 },
      },
    },
  });
  expect(held.report.stance.tipAngle).toBeCloseTo(target, 1);
});
