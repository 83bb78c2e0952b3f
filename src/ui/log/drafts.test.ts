import { emptyDraft, logForms, readDraft, type Draft, type DraftLists, type FormKind } from './drafts';

const lists: DraftLists = {
  steps: [
    { id: 'sand/head', name: 'Sand the head', kind: 'sanding', hours: 0.5, clay: 0 },
  ] as unknown as DraftLists['steps'],
  items: [{ item: 'clay/paper-clay', name: 'paper clay', unit: 'kg' }],
  damage: [{ id: 'c-1', where: 'left ear' }],
};
const read = (kind: FormKind, more: Partial<Draft>, units: 'metric' | 'imperial' = 'metric') =>
  readDraft({ ...emptyDraft(kind, '1 kg'), ...more }, units, lists);

test.each<[FormKind, Partial<Draft>, Record<string, unknown>]>([
  ['weigh-in', { first: '6.85', second: '1.06 kg' }, { gross: 6.85, tare: 1.06 }],
  ['weigh-in', { first: '6.85', second: '' }, { gross: 6.85, tare: 0 }],
  ['shrink-mark', { first: '100', second: '96.5', text: 'cheek' }, { laid: 0.1, now: 0.0965, where: 'cheek' }],
  [
    'crack',
    { first: '0.5', text: ' jaw ', through: true, at: [0, -0.1, 0.4] },
    { where: 'jaw', width: 0.0005, through: true, what: 'crack', at: [0, -0.1, 0.4] },
  ],
  ['crack', { first: '2', text: 'ear', pick: 'dent' }, { where: 'ear', width: 0.002, through: false, what: 'dent' }],
  ['repair', { pick: 'c-1', text: 'paste' }, { of: 'c-1', where: 'left ear', how: 'paste' }],
  ['repair', { first: 'foot' }, { of: null, where: 'foot', how: '' }],
  [
    'step',
    { pick: 'sand/head', first: '1.5 h' },
    { step: 'sand/head', name: 'Sand the head', kind: 'sanding', usual: 0.5, took: 1.5 },
  ],
  ['step', { pick: 'sand/head' }, { step: 'sand/head', name: 'Sand the head', kind: 'sanding', usual: 0.5 }],
  ['room', { first: '19', second: '55 %' }, { temperature: 19, relativeHumidity: 0.55 }],
  [
    'used',
    { pick: 'clay/paper-clay', first: '0.4 kg' },
    { item: 'clay/paper-clay', name: 'paper clay', amount: 0.4, unit: 'kg' },
  ],
  ['note', { text: 'Pressed closed.' }, { text: 'Pressed closed.' }],
  ['photo', { text: 'Ear' }, { caption: 'Ear' }],
])('%s %j is read', (kind, more, data) => {
  const got = read(kind, more);
  expect(got).toEqual({ data });
});

test('in pounds, inches and Fahrenheit too', () => {
  expect(read('weigh-in', { first: '15 lb', second: '2' }, 'imperial')).toEqual({
    data: { gross: expect.closeTo(6.8039, 3), tare: expect.closeTo(0.9072, 3) },
  });
  expect(read('shrink-mark', { first: '4', second: '3 7/8' }, 'imperial')).toEqual({
    data: { laid: expect.closeTo(0.1016, 6), now: expect.closeTo(0.098425, 6), where: '' },
  });
  expect(read('room', { first: '68', second: '50' }, 'imperial')).toEqual({
    data: { temperature: expect.closeTo(20, 6), relativeHumidity: 0.5 },
  });
});

test.each<[FormKind, Partial<Draft>, RegExp]>([
  ['weigh-in', { first: '0.5', second: '1' }, /less than the tare/],
  ['weigh-in', { first: 'heavy', second: '1' }, /./],
  ['weigh-in', { first: '9000', second: '1' }, /no weight a bench holds/],
  ['shrink-mark', { first: '100', second: '150' }, /closer as clay dries/],
  ['crack', { first: '0.5', text: ' ' }, /where on the piece/],
  ['crack', { first: '500', text: 'ear' }, /at most 100 mm/],
  ['repair', {}, /what was mended/],
  ['step', { pick: 'no-such' }, /Choose the step/],
  ['step', { pick: 'sand/head', first: 'long' }, /a number, such as 1.5/],
  ['room', { first: '19', second: '140' }, /between 0 and 100/],
  ['room', { first: '190', second: '40' }, /no temperature of a room/],
  ['used', { pick: 'clay/paper-clay', first: '-2' }, /a number of kg/],
  ['used', { first: '2' }, /Choose what was used/],
  ['note', { text: '   ' }, /Write something/],
])('%s %j is refused in a sentence', (kind, more, why) => {
  const got = read(kind, more);
  expect('wrong' in got ? got.wrong : '').toMatch(why);
});

test('every form has an empty draft of its own', () => {
  for (const { id } of logForms)
    expect(emptyDraft(id, '1 kg')).toMatchObject({ kind: id, corrects: null, second: id === 'weigh-in' ? '1 kg' : '' });
});
