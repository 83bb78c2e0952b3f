import {
  entryKinds,
  entryWords,
  handWritten,
  kindOf,
  readEntry,
  type DraftContext,
  type DraftValues,
  type LogKind,
} from '.';

const id = '5b0c8f8e-0d2c-4c3e-9a53-5b1f0f6f5a01';
const other = '5b0c8f8e-0d2c-4c3e-9a53-5b1f0f6f5a02';

const context = (units: DraftContext['units']): DraftContext => ({
  units,
  tare: 1.25,
  room: null,
  steps: [{ id: 'bulk', name: 'Stuff the core', kind: 'bulk', hours: 2, clay: 0 }],
  items: [{ item: 'clay/paper-clay', name: 'Paper clay', unit: 'kg' }],
  damage: [{ id: other, where: 'head' }],
});

/** What a hand would write in each kind that is written by hand, in either unit. */
const written: Partial<Record<LogKind, { metric: DraftValues; imperial: DraftValues }>> = {
  'weigh-in': { metric: { gross: '7.35', tare: '1.05' }, imperial: { gross: '16 lb 3 oz', tare: '2 lb' } },
  step: { metric: { step: 'bulk', took: '1.5' }, imperial: { step: 'bulk', took: '1.5 h' } },
  part: {
    metric: { step: 'bulk', worked: '1.5', left: '0.75' },
    imperial: { step: 'bulk', worked: '1.5 h', left: '' },
  },
  note: { metric: { text: 'Seam by the ear filled' }, imperial: { text: 'Seam by the ear filled' } },
  crack: {
    metric: { what: 'crack', width: '0.5', where: 'head', through: true, at: [0.01, 0.02, 0.3] },
    imperial: { what: 'crack', width: '1/64 in', where: 'head' },
  },
  'shrink-mark': { metric: { laid: '100', now: '96' }, imperial: { laid: '4', now: '3.8' } },
  room: { metric: { temperature: '18', humidity: '62' }, imperial: { temperature: '65', humidity: '62' } },
  pull: {
    metric: { number: '3', weight: '0.42', wall: '3', detail: 'softer', faults: 'a bubble at the lip' },
    imperial: { number: '3', weight: '15 oz', wall: '1/8 in', detail: 'sharp', faults: '' },
  },
  used: { metric: { item: 'clay/paper-clay', amount: '1.2' }, imperial: { item: 'clay/paper-clay', amount: '2.5' } },
};

describe.each(handWritten.filter((k) => k.id in written).map((k) => [k.id, k] as const))('%s', (kind, of) => {
  test.each(['metric', 'imperial'] as const)(
    'read as it is written, kept, told, and filled in again the same: %s',
    (units) => {
      const values = written[kind as LogKind]![units];
      const data = of.read(values, context(units));
      if (!data.ok) throw new Error(`${data.path}: ${data.message}`);
      const entry = readEntry({ id, kind, at: '2026-12-01T20:00:00+01:00', data: data.value });
      if (!entry.ok) throw new Error(`${entry.path}: ${entry.message}`);
      expect(entry.value.at).toBe('2026-12-01T19:00:00.000Z');
      expect(entryWords(entry.value, units).main).toMatch(/\S/);
      if (!of.fill) return;
      const again = of.read({ ...values, ...of.fill(entry.value.data, units) }, context(units));
      if (!again.ok) throw new Error(`${again.path}: ${again.message}`);
      for (const [key, value] of Object.entries(again.value as Record<string, unknown>)) {
        const was = (data.value as Record<string, unknown>)[key];
        // As exact as it is shown: a millimetre has two places, a weight its grams.
        if (typeof value === 'number' && key !== 'finest')
          expect(Math.abs(value - (was as number))).toBeLessThan(6e-3 * (1 + Math.abs(value)));
        else if (key !== 'finest') expect(value).toEqual(was);
      }
    },
  );
  test('left empty or spoilt, the field that is wrong is named', () => {
    const first = of.fields.find(
      (f) => ['mass', 'length', 'number', 'temperature', 'line', 'lines'].includes(f.ask) || f.from,
    );
    const values = { ...written[kind as LogKind]!.metric, [first!.key]: first!.ask === 'lines' ? '   ' : '' };
    const needed = of.read(values, context('metric'));
    if (needed.ok) {
      // What may be left out is; nonsense in it may not.
      const spoilt = of.read({ ...values, [first!.key]: 'a good deal' }, context('metric'));
      expect(spoilt).toMatchObject({ ok: false, path: first!.key });
    } else expect(of.fields.map((f) => f.key)).toContain(needed.path);
  });
});

test('every kind written by hand is tried above, but for the picture, the mend and what a page writes by itself', () => {
  expect(
    handWritten
      .map((k) => k.id)
      .filter((k) => !(k in written))
      .sort(),
  ).toEqual(['photo', 'repair']);
  expect(new Set(entryKinds.map((k) => k.id)).size).toBe(entryKinds.length);
  for (const k of entryKinds) expect(kindOf(k.id).id).toBe(k.id);
});

test('a picture has no id of its own until it is kept; a mend says of what, from the log or in words', () => {
  const photo = kindOf('photo').read({ caption: 'x' }, context('metric'));
  expect(photo.ok && readEntry({ id, kind: 'photo', at: '2026-12-01T20:00:00Z', data: photo.value })).toMatchObject({
    ok: false,
    path: 'data.photoId',
  });
  expect(kindOf('repair').read({ of: '', how: 'slip' }, context('metric'))).toMatchObject({ ok: false, path: 'where' });
  expect(kindOf('repair').read({ of: other, how: 'slip' }, context('metric'))).toMatchObject({
    ok: true,
    value: { of: other, where: 'head' },
  });
  expect(kindOf('repair').points).toEqual(['of']);
});

test('what comes from outside is held to its kind', () => {
  const entry = (kind: string, data: unknown, more: object = {}) =>
    readEntry({ id, kind, at: '2026-12-01T20:00:00Z', data, ...more });
  expect(entry('weigh-in', { gross: 1, tare: 2 })).toMatchObject({ ok: false, path: 'data.gross' });
  expect(entry('crack', { where: 'head', width: 5 })).toMatchObject({ ok: false, path: 'data.width' });
  expect(entry('room', { temperature: 900, relativeHumidity: 0.5 })).toMatchObject({ ok: false });
  expect(entry('weigh-in', { gross: 2, tare: 1, colour: 'red' })).toMatchObject({ ok: false });
  expect(entry('weigh-in', { gross: 2, tare: 1 }, { at: 'yesterday' })).toMatchObject({ ok: false, path: 'at' });
  expect(entry('weigh-in', { gross: 2, tare: 1 }, { corrects: 'the last' })).toMatchObject({
    ok: false,
    path: 'corrects',
  });
});
