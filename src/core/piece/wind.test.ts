import { changed, judged } from '../../../tests/support/judged';
import { lamplighter } from '../../server/demo-builds';
import { readBuild } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { amountIndex, groundUnder, windPressure, windSides } from '../load';
import { norm, type Vec3 } from '../quantity';
import { lifeStagesOf, type Piece } from '.';

const indoors = lamplighter('2026-11-22', null);
const outdoors = (gust = 25, held: 'weight' | 'guyed' | 'bolted' = 'weight') =>
  changed(indoors, { path: ['brief', 'outdoors'], value: { gust, held } });
const findingsOf = (build: typeof indoors) => {
  const found = new Evaluator().evaluate(asBriefed(build));
  if (!found.ok) throw new Error(found.message);
  return found.value.findings;
};
const pieceOf = (build: typeof indoors): Piece => {
  const made = new Evaluator().piece(asBriefed(build));
  if (!made.ok) throw new Error(made.message);
  return made.value;
};

test('its outline is what a light from far away throws, counted another way', () => {
  const piece = pieceOf(outdoors());
  const { field, extent } = piece;
  const everyone = field.all();
  // A light along each way: lines 4 mm apart, walked through the form.
  const shadow = (way: readonly [number, number]): { area: number; height: number } => {
    const d = 0.004,
      reach = 0.5;
    let count = 0,
      height = 0;
    for (let u = -reach; u < reach; u += d)
      for (let z = extent.low[2] - d; z < extent.high[2] + d; z += d) {
        let hit = false;
        for (let s = -reach; s < reach && !hit;) {
          const away = field.at(-way[1] * u + way[0] * s, way[0] * u + way[1] * s, z, everyone);
          hit = away <= 0;
          s += Math.max(0.002, 0.6 * away);
        }
        if (hit) {
          count += 1;
          height += z;
        }
      }
    return { area: count * d * d, height: height / count };
  };
  for (const side of [0, 1, 2]) {
    const load = piece.outlines()[side]!;
    let area = 0,
      moment = 0;
    load.bones.forEach((_, b) => {
      const [from, to] = load.ends[b]!;
      for (let s = 0; s < 8; s++) {
        const i = amountIndex(load, b, s, 0);
        const share = s === 0 ? 0 : s === 7 ? 1 : (s - 0.5) / 6;
        area += load.amounts[i]!;
        moment += load.amounts[i]! * (from[2] + (to[2] - from[2]) * share) + load.amounts[i + 3]!;
      }
    });
    const twin = shadow(windSides[side]!.way);
    expect(Math.abs(area / twin.area - 1)).toBeLessThan(0.03);
    expect(Math.abs(moment / area - twin.height)).toBeLessThan(0.005);
  }
});

test('the frame is pushed by all of it: force and moment of the pushes are those of the drag', () => {
  const build = outdoors(30);
  const piece = pieceOf(build);
  const { report } = judged(build);
  const stage = lifeStagesOf(piece).find((s) => s.id === 'wind')!;
  expect(stage).toMatchObject({ safety: 3, wet: false, propped: 'lasting' });
  const { worst } = report.wind!;
  const side = windSides.findIndex((s) => s.from === worst.from);
  const at = new Map(piece.armature.nodes.map((n) => [n.id, n.at]));
  const force = [0, 0, 0];
  let turning = 0;
  for (const push of stage.pushes![side]!) {
    if (!('at' in push)) throw new Error('not on a member');
    const bone = piece.armature.bones.find((b) => b.id === push.member)!;
    const z = at.get(bone.from)![2] + (at.get(bone.to)![2] - at.get(bone.from)![2]) * push.at;
    push.force.forEach((f, k) => (force[k]! += f));
    const [x, y] = windSides[side]!.way;
    turning +=
      z * (push.force[0] * x + push.force[1] * y) + (-(push.moment?.[0] ?? 0) * y + (push.moment?.[1] ?? 0) * x);
  }
  expect(norm(force as unknown as Vec3)).toBeCloseTo(worst.force, 6);
  expect(worst.force).toBeCloseTo(windPressure(30) * worst.area, 6);
  expect(turning / worst.force).toBeCloseTo(worst.at[2], 6);
  expect(report.wind!.height).toBeCloseTo(worst.at[2] - groundUnder(piece.armature.base), 9);
});

test('a bust in a gale asks more of its frame than in a breeze, and is not let off by its guys', () => {
  const inWind = (gust: number, held?: 'guyed') =>
    Math.max(
      ...judged(outdoors(gust, held))
        .report.lifeStages.find((s) => s.stage === 'wind')!
        .bones.map((b) => b.utilisation),
    );
  expect(judged(indoors).report.wind).toBeNull();
  expect(judged(indoors).report.lifeStages.some((s) => s.stage === 'wind')).toBe(false);
  const calm = inWind(5),
    gale = inWind(25),
    storm = inWind(40);
  expect(gale).toBeGreaterThan(1.3 * calm);
  expect(storm).toBeGreaterThan(gale);
  expect(inWind(40, 'guyed')).toBe(storm);
});

test('in a storm it fails with its way of failing, and every remedy offered turns it', () => {
  const found = findingsOf(outdoors(35)).find((f) => f.id.startsWith('wind'))!;
  expect(found.status).toBe('fails');
  expect(found.sentence).toMatch(/tips it over|pushes it along/);
  expect(found.reason).toContain('an engineer decide');
  for (const held of ['guyed', 'bolted'] as const) {
    const again = findingsOf(outdoors(35, held)).find((f) => f.id.startsWith('wind'))!;
    expect(again.status).toBe('sound');
    expect(again.sentence).toMatch(/\d+ N/);
  }
});

test('rain and sun are judged with it, and an engineer is named', () => {
  const rain = findingsOf(outdoors()).filter((f) => /rain|sun/.test(f.sentence + f.reason));
  expect(rain.length).toBeGreaterThan(0);
  expect(findingsOf(indoors).filter((f) => /rain and sun/.test(f.sentence + f.reason))).toHaveLength(0);
});

test('a gust out of bounds is refused by its place', () => {
  const broken = { ...indoors, brief: { ...indoors.brief, outdoors: { gust: 200, held: 'weight' } } };
  expect(readBuild(broken)).toMatchObject({ ok: false, path: 'brief.outdoors.gust' });
});
