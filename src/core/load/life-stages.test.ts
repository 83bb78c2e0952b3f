import { situations } from '../document';
import { gravity as g } from '../quantity';
import { lifeStages, situationStages, type LifeStageInputs } from '.';

const input: LifeStageInputs = {
  situation: 'bench',
  hasBulk: true,
  coats: [[0.004, 0.006], [0.01]],
  wetDensity: 1600,
  dryDensity: 1200,
  dries: true,
};
const ids = (more: Partial<LifeStageInputs> = {}) => lifeStages({ ...input, ...more }).map((s) => s.id);
const stage = (id: string, more: Partial<LifeStageInputs> = {}) =>
  lifeStages({ ...input, ...more }).find((s) => s.id === id)!;

test('bare, bulk, each coat as it goes on, dry; then what it is made for', () => {
  expect(ids()).toEqual(['bare', 'bulk', 'clay-1', 'clay-2', 'dry']);
  expect(ids({ hasBulk: false, coats: [[0.01]] })).toEqual(['bare', 'clay-1', 'dry']);
  expect(ids({ situation: 'moved' }).at(-1)).toBe('moved');
  expect(ids({ situation: 'worn' }).at(-1)).toBe('worn');
  expect(stage('dry', { dries: false }).name).toBe('finished');
});

test('over the whole thickness: coats before it dry, its own wet, later ones not there', () => {
  const share = (kg: number) => expect.closeTo(kg, 9) as number;
  expect(stage('clay-1').clayDensity).toEqual([share(0.4 * 1600), share(1600)]);
  // The region with one coat is dry by then.
  expect(stage('clay-2').clayDensity).toEqual([share(0.4 * 1200 + 0.6 * 1600), share(1200)]);
  expect(stage('dry').clayDensity).toEqual([1200, 1200]);
  expect(stage('bare').clayDensity).toEqual([]);
  expect(stage('bulk')).toMatchObject({ bulkOn: true, clayDensity: [], wet: false });
  expect(stage('bare').bulkOn).toBe(false);
  expect(['clay-1', 'clay-2', 'dry'].map((id) => stage(id).wet)).toEqual([true, true, false]);
});

test('all props stand while the clay is wet, lasting ones when it is dry, none on the road', () => {
  expect(['bare', 'bulk', 'clay-1', 'clay-2', 'dry'].map((id) => stage(id).propped)).toEqual([
    'none',
    'none',
    'all',
    'all',
    'lasting',
  ]);
  expect(stage('moved', { situation: 'moved' }).propped).toBe('none');
  expect(stage('worn', { situation: 'worn' }).propped).toBe('none');
});

test('one and a half on the bench and while it is made, twice on the road, three times above people', () => {
  expect(lifeStages(input).map((s) => s.safety)).toEqual([1.5, 1.5, 1.5, 1.5, 1.5]);
  expect(stage('moved', { situation: 'moved' }).safety).toBe(2);
  expect(stage('worn', { situation: 'worn' }).safety).toBe(3);
  expect(stage('clay-1', { situation: 'worn' }).safety).toBe(1.5);
});

test('every way of being shaken has its name, and the worst of them is not lost', () => {
  const road = stage('moved', { situation: 'moved' });
  const by = Object.fromEntries(road.causes.map((c, i) => [c, road.accelerations[i]!.map((v) => v / g)]));
  expect(by).toEqual({
    braking: [0, -0.8, -1],
    'pulling away': [0, 0.5, -1],
    'a bend to the right': [0.5, 0, -1],
    'a bend to the left': [-0.5, 0, -1],
    'a bump': [0, 0, -2],
  });
  for (const s of lifeStages({ ...input, situation: 'worn' })) expect(s.causes).toHaveLength(s.accelerations.length);
});

test('finished, in each of the three situations, with its own factor, whichever it is meant for', () => {
  const all = situationStages(input);
  expect(all.map((s) => [s.id, s.safety, s.accelerations.length])).toEqual([
    ['bench', 1.5, 1],
    ['moved', 2, 5],
    ['worn', 3, 5],
  ]);
  expect(all.map((s) => s.name)).toEqual(situations.map((s) => s.name));
  for (const s of all)
    expect(s).toMatchObject({ bulkOn: true, wet: false, propped: 'none', clayDensity: [1200, 1200] });
});
