import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import {
  applyEdit,
  hashOf,
  migrate,
  migrations,
  newBust,
  parseBuild,
  readBuild,
  schemaVersion,
  stableText,
  withSnapshot,
} from '.';

const bust = () => newBust('Test', '2026-12-01');
const fixtures = path.join(__dirname, '../../../tests/fixtures/builds');

describe('reading a build', () => {
  test('what is written is read back the same', () => {
    const read = parseBuild(JSON.stringify(bust()));
    expect(read.ok && hashOf(read.value)).toBe(hashOf(bust()));
  });
  test('defaults fill what an older file leaves out', () => {
    const { name, brief, form, armature } = bust();
    const read = readBuild({ schemaVersion: 1, name, brief: { startDate: brief.startDate }, form, armature });
    expect(read.ok && read.value.room.temperature).toBe(20);
  });
  test.each([
    ['{"schemaVersion":1', 'the file', 'not-json'],
    ['[]', 'the document', 'not-a-build'],
    ['{}', 'schemaVersion', 'no-version'],
    ['{"schemaVersion":99}', 'schemaVersion', 'newer-version'],
    ['{"schemaVersion":"1"}', 'schemaVersion', 'no-version'],
  ])('%s', (text, at, code) => expect(parseBuild(text)).toMatchObject({ ok: false, path: at, code }));
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- the point is to spoil a document
  test.each<[string, (b: Record<string, any>) => void, string]>([
    ['humidity in percent', (b) => Object.assign(b['room'], { relativeHumidity: 55 }), 'room.relativeHumidity'],
    ['no such day', (b) => Object.assign(b['brief'], { startDate: '2026-02-31' }), 'brief.startDate'],
    ['text where a number belongs', (b) => Object.assign(b['form'].start, { size: 'big' }), 'form.start.size'],
    ['a word of its own', (b) => Object.assign(b['room'], { mood: 'damp' }), 'room'],
    ['a coat of nothing', (b) => Object.assign(b['regions'].everywhere, { coats: [] }), 'regions.everywhere.coats'],
    ['NaN', (b) => Object.assign(b['room'], { temperature: NaN }), 'room.temperature'],
  ])('%s is refused where it stands', (_, spoil, at) => {
    const b = JSON.parse(JSON.stringify(bust())) as Record<string, unknown>;
    spoil(b);
    const read = readBuild(b);
    expect(read).toMatchObject({ ok: false, code: 'broken-part' });
    expect(read.ok ? '' : read.path).toBe(at);
  });
  test('a file of 9 MB is not even parsed', () =>
    expect(parseBuild(' '.repeat(9_000_000))).toMatchObject({ code: 'too-large' }));
});

describe('migrations', () => {
  test('steps run in order and the version follows', () => {
    const steps = [
      { from: 1, up: (d: Record<string, unknown>) => ({ ...d, room: { heat: d['heat'] } }) },
      { from: 2, up: (d: Record<string, unknown>) => ({ ...d, heat: undefined }) },
    ];
    expect(migrate({ schemaVersion: 1, heat: 20 }, 1, 3, steps)).toMatchObject({
      ok: true,
      value: { schemaVersion: 3, room: { heat: 20 } },
    });
    expect(migrate({ schemaVersion: 1 }, 1, 4, steps)).toMatchObject({ ok: false, code: 'no-migration' });
  });
  test('there is a step and a kept file for every version', () => {
    const kept = readdirSync(fixtures);
    for (let v = 1; v <= schemaVersion; v++) {
      const file = kept.find((f) => f.startsWith(`v${v}-`));
      expect(file).toBeDefined();
      if (v < schemaVersion) expect(migrations.some((m) => m.from === v)).toBe(true);
      expect(parseBuild(readFileSync(path.join(fixtures, file!), 'utf8'))).toMatchObject({ ok: true });
    }
  });
});

test('a build of version 6 is sized by hand; one that says otherwise says so still', () => {
  const file = (v: number) =>
    readFileSync(
      path.join(
        fixtures,
        readdirSync(fixtures).find((f) => f.startsWith(`v${v}-`))!,
      ),
      'utf8',
    );
  const sizing = (v: number) => {
    const read = parseBuild(file(v));
    return read.ok ? read.value.armature.sizing : read.message;
  };
  expect([1, 5, 6, 7].map(sizing)).toEqual(['by-hand', 'by-hand', 'by-hand', 'to-carry']);
});

test('a pack that version 7 had written over stays with the clay it was of; the usual one goes', () => {
  const read = (materials: object) => {
    const b = bust();
    const { packs: _, stockPrices: __, currency: ___, ...rest } = b.materials;
    const old = { ...b, schemaVersion: 7, materials: { ...rest, wirePricePerMetre: 1.2, ...materials } };
    const found = parseBuild(JSON.stringify(old));
    return found.ok ? found.value.materials.packs : found.message;
  };
  expect(read({ pack: { mass: 1, price: 4.5 } })).toEqual({});
  expect(read({ pack: { mass: 12.5, price: 30 } })).toEqual({ 'paper-clay': { mass: 12.5, price: 30 } });
  expect(read({})).toEqual({});
});

test('the two catch-all schools are called by what the form is really made by', () => {
  const school = (kind: string, form: string) => {
    const b = bust();
    const old = {
      ...b,
      schemaVersion: 2,
      form: { ...b.form, start: { ...b.form.start, kind: form } },
      armature: { school: { kind, parameters: { bulk: 'foil-firm' } } },
    };
    const read = readBuild(JSON.parse(JSON.stringify(old)));
    return read.ok ? read.value.armature.school : read.message;
  };
  expect(school('limb-wire', 'figure')).toEqual({ kind: 'wire-figure', parameters: { bulk: 'foil-firm' } });
  expect(
    ['mask', 'worn-shell', 'found-object', 'head'].map((f) => (school('on-a-form', f) as { kind: string }).kind),
  ).toEqual(['head-form', 'shell', 'object-core', 'object-core']);
  expect(school('stuffed', 'bust')).toMatchObject({ kind: 'stuffed' });
});

describe('edits', () => {
  test('set, add to a list, take away; the original is untouched', () => {
    const b = bust();
    const before = hashOf(b);
    const warm = applyEdit(b, { label: 'warmer', changes: [{ path: ['room', 'temperature'], value: 24 }] });
    expect(warm.ok && warm.value.room.temperature).toBe(24);
    const prop = { id: 'p', name: 'prop', node: 'stuffed/crown', until: 'always' };
    const propped = applyEdit(b, { label: 'prop', changes: [{ path: ['armature', 'props', 0], value: prop }] });
    if (!propped.ok) throw new Error(propped.message);
    expect(propped.value.armature.props).toHaveLength(1);
    const gone = applyEdit(propped.value, {
      label: 'gone',
      changes: [{ path: ['armature', 'props', 0], value: undefined }],
    });
    expect(gone.ok && hashOf(gone.value)).toBe(before);
    expect(hashOf(b)).toBe(before);
  });
  test('what breaks a limit is refused with its place', () => {
    expect(applyEdit(bust(), { label: 'x', changes: [{ path: ['room', 'temperature'], value: 900 }] })).toMatchObject({
      ok: false,
      path: 'room.temperature',
    });
    expect(
      applyEdit(bust(), { label: 'x', changes: [{ path: ['__proto__', 'polluted'], value: true }] }),
    ).toMatchObject({ ok: false, code: 'bad-path' });
    expect(({} as { polluted?: boolean }).polluted).toBeUndefined();
  });
});

test('the hash knows content, not the order of keys', () => {
  expect(hashOf({ a: 1, b: [1, 2] })).toBe(hashOf({ b: [1, 2], a: 1 }));
  expect(hashOf({ a: 1 })).not.toBe(hashOf({ a: 2 }));
  expect(stableText({ b: undefined, a: null })).toBe('{"a":null}');
});

test('a snapshot keeps the figures a build was worked out with, once', () => {
  const b = withSnapshot(bust(), { bulk: 'paper-loose', stocks: ['steel-pipe'] });
  expect(b.materials.values.clays['paper-clay']?.wetDensity).toBe(1090);
  const own = applyEdit(b, {
    label: 'own',
    changes: [{ path: ['materials', 'values', 'clays', 'paper-clay', 'wetDensity'], value: 1000 }],
  });
  if (!own.ok) throw new Error(own.message);
  expect(
    withSnapshot(own.value, { bulk: 'paper-loose', stocks: [] }).materials.values.clays['paper-clay']?.wetDensity,
  ).toBe(1000);
});

test('version 1 kept masses at full scale; they come to life size', () => {
  const { schemaVersion: _, ...rest } = newBust('Half', '2026-12-01', 0.5);
  const own = {
    id: 'curl',
    name: 'curl',
    region: 'head',
    at: [0, -0.02, 0.3],
    turn: [0, 0, 0],
    blend: 0.005,
    shape: { kind: 'round-cone', reach: [0, 0, 0.02], radiusFrom: 0.01, radiusTo: 0.008 },
  };
  const old = {
    ...rest,
    schemaVersion: 1,
    form: { start: rest.form.start, edits: { face: { at: [0, -0.04, 0.22] } }, added: [own] },
  };
  const read = readBuild(old);
  if (!read.ok) throw new Error(read.message);
  expect(read.value.form.added[0]).toMatchObject({
    at: [0, -0.04, 0.6],
    blend: 0.01,
    turn: [0, 0, 0],
    shape: { kind: 'round-cone', reach: [0, 0, 0.04], radiusFrom: 0.02, radiusTo: 0.016 },
  });
  expect(read.value.form.edits['face']).toEqual({ at: [0, -0.08, 0.44] });
  expect(old.form.added[0]?.at).toEqual([0, -0.02, 0.3]);
});

test('version 3 kept one cover and its hours; they come to a list, and a list of stages that said nothing goes', () => {
  const { schemaVersion: _, room, stages: __, finish: ___, ...rest } = newBust('Covered', '2026-12-01');
  const { hours: _h, record: _r, covers: _c, learned: _l, ...air } = room;
  const old = (cover: string, coverHours: number) => ({
    ...rest,
    schemaVersion: 3,
    regions: { everywhere: { coats: [0.01] }, own: {} },
    stages: [{ id: 'clay' }],
    finish: {},
    room: { ...air, cover, coverHours },
  });
  const read = readBuild(old('loose-plastic', 72));
  if (!read.ok) throw new Error(`${read.path} ${read.message}`);
  expect(read.value.room.covers).toEqual([{ kind: 'loose-plastic', from: 0, until: 72, regions: [] }]);
  expect(read.value.stages).toMatchObject({ startHour: 9, lift: null, apart: false });
  const bare = readBuild(old('none', 0));
  expect(bare.ok && bare.value.room.covers).toEqual([]);
});
