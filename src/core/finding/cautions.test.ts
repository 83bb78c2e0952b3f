import { startBuild } from '../school';
import { changed, judged, parameter } from '../../../tests/support/judged';
import { newBust } from '../document';
import { cautionsFor, engineerDecides, liftingCaution } from '.';

const bust = newBust('b', '2026-12-01');
const said = (clay: string, ...more: Parameters<typeof parameter>[]) =>
  cautionsFor(
    judged(changed(bust, { path: ['brief', 'clay'], value: clay }, ...more.map((m) => parameter(...m)))).piece,
  ).join('\n');

test.each([
  ['paper-clay', /respirator/],
  ['epoxy-clay', /gloves/],
  ['oven-polymer', /nothing hot in bare hands/],
  ['oil-medium', /burns skin/],
] as const)('%s brings its own caution, and none of the others’', (clay, own) => {
  const all = [/respirator/, /gloves/, /nothing hot in bare hands/, /burns skin/];
  expect(all.filter((c) => c.test(said(clay))).map(String)).toEqual([String(own)]);
});

test.each([
  ['polystyrene-extruded', /heat and solvent away/],
  ['foam-sprayed', /not in a closed room/],
  ['plaster-set', /never a hand or limb in setting plaster/],
  ['cement', /burns wet skin/],
  ['glassfibre-skin', /respirator where it is cut/],
] as const)('filled with %s', (bulk, own) => {
  expect(said('paper-clay', ['bulk', bulk])).toMatch(own);
  expect(said('paper-clay', ['bulk', 'paper-loose'])).not.toMatch(own);
});

test('what is wrapped round it or put over it counts as what fills it; so does cut wire', () => {
  const plaster = /setting plaster/;
  expect(said('paper-clay')).not.toMatch(plaster);
  expect(said('paper-clay', ['wrap', 'gauze'])).toMatch(plaster);
  // A wrap that is not there, round solid clay, is no plaster.
  expect(said('paper-clay', ['wrap', 'gauze'], ['bulk', 'none'])).not.toMatch(plaster);
  const over = changed(bust, { path: ['regions', 'everywhere', 'over'], value: ['shellac'] });
  expect(cautionsFor(judged(over).piece).join()).toMatch(/no flame/);
  expect(said('paper-clay')).toMatch(/eye protection, and turn the ends in/);
});

test('welded steel has its own; a pipe that is screwed together has not', () => {
  const made = startBuild('dragon', '2026-12-01', 'four-legged', 1.5);
  if (!made.ok) throw new Error(made.message);
  const welded = changed(made.value, {
    path: ['armature', 'school'],
    value: { kind: 'steel-mesh-foam', parameters: {} },
  });
  expect(cautionsFor(judged(welded).piece).join()).toMatch(/Welded or brazed steel/);
  expect(said('paper-clay')).not.toMatch(/Welded/);
});

test('worn or above people: a licensed engineer', () => {
  expect(said('paper-clay')).not.toMatch(/engineer/);
  const worn = judged(changed(bust, { path: ['brief', 'situation'], value: 'worn' })).piece;
  expect(cautionsFor(worn)[0]).toMatch(/licensed engineer or rigger and the local rules decide/);
  // A piece over two metres as well, whatever it is for.
  const tall = startBuild('tall', '2026-12-01', 'figure', 1.3);
  if (!tall.ok) throw new Error(tall.message);
  expect(judged(tall.value).report.size.height).toBeGreaterThan(2);
  expect(cautionsFor(judged(tall.value).piece)[0]).toMatch(/over 2 m high: a licensed engineer/);
});

test('lifting: a word from 12 kg, a hoist or a trolley from 23', () => {
  expect(liftingCaution(12)).toBeNull();
  expect(liftingCaution(12.1)).toMatch(/second pair of hands/);
  expect(liftingCaution(23)).toMatch(/second pair of hands/);
  expect(liftingCaution(23.1)).toMatch(/not by one alone.* a hoist or a trolley/);
});

test('where these figures stop being enough: hung, on a wall, worn, or over two metres', () => {
  const small = { size: { height: 0.5 } };
  const on = (kind: string) =>
    engineerDecides({ ...bust, armature: { ...bust.armature, mount: { kind } as never } }, small);
  expect(on('stands')).toBeNull();
  expect(on('hangs')).toMatch(/^It hangs where people pass: a licensed engineer or rigger/);
  expect(on('wall')).toMatch(/^It hangs where people pass/);
  expect(engineerDecides(changed(bust, { path: ['brief', 'situation'], value: 'worn' }), small)).toMatch(/worn/);
  expect(engineerDecides(bust, { ...small, size: { height: 2.01 } })).toMatch(/over 2 m high/);
  expect(engineerDecides(bust, { ...small, size: { height: 2 } })).toBeNull();
});

test('what stands outdoors has its own caution, and an engineer and the local rules decide', () => {
  const out = changed(bust, { path: ['brief', 'outdoors'], value: { gust: 25, held: 'weight' } });
  expect(cautionsFor(judged(out).piece).join()).toMatch(/take it in or lie it down before a storm/);
  expect(engineerDecides(out, { size: { height: 0.5 } })).toMatch(/outdoors.*licensed engineer.*local rules decide/);
  expect(cautionsFor(judged(bust).piece).join()).not.toMatch(/storm/);
  expect(engineerDecides(bust, { size: { height: 0.5 } })).toBeNull();
});
