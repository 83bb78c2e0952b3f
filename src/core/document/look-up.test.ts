import { clays, stocks } from '../catalogue';
import {
  buildHash,
  findBulk,
  findClay,
  findStock,
  findWrap,
  hashOf,
  hashText,
  newBust,
  partHash,
  withSnapshot,
} from '.';

const bust = newBust('b', '2026-12-01');

describe('materials by id', () => {
  const kept = withSnapshot(bust, { bulk: 'paper-firm', stocks: ['mild-steel'] });
  test('a build’s own go before the catalogue’s', () => {
    const heavy = { ...clays.get('paper-clay')!, wetDensity: 1300 };
    const own = {
      ...kept,
      materials: { ...kept.materials, values: { ...kept.materials.values, clays: { 'paper-clay': heavy } } },
    };
    expect(findClay(own, 'paper-clay')).toMatchObject({ ok: true, value: { wetDensity: 1300 } });
    expect(findClay(kept, 'paper-clay')).toMatchObject({ ok: true, value: { wetDensity: 1090 } });
  });
  test('what there is not is named, with where it was asked for', () => {
    expect(findClay(bust, 'marzipan')).toMatchObject({ ok: false, path: 'brief.clay' });
    expect(findBulk(bust, 'feathers')).toMatchObject({ ok: false, path: 'armature.school.parameters.bulk' });
    expect(findWrap('silk')).toMatchObject({ ok: false, path: 'armature.school.parameters.wrap' });
    expect(findStock(bust, 'unobtainium')).toBeUndefined();
    // Names that every object has are no materials.
    for (const id of ['constructor', 'toString', '__proto__']) {
      expect(findClay(bust, id).ok).toBe(false);
      expect(findStock(bust, id)).toBeUndefined();
    }
  });
  test('what is used is kept with the build, once, and what was kept stays', () => {
    expect(Object.keys(kept.materials.values.stocks)).toContain('mild-steel');
    const again = withSnapshot(kept, { bulk: 'paper-firm', stocks: ['mild-steel', 'brass-rod', 'unobtainium'] });
    expect(again.materials.values.clays).toBe(kept.materials.values.clays);
    expect(again.materials.values.stocks['brass-rod']).toEqual(stocks.get('brass-rod'));
    expect(again.materials.values.stocks).not.toHaveProperty('unobtainium');
  });
});

describe('hashes', () => {
  test('the same content in any order is the same; anything else is not', () => {
    expect(hashOf({ a: 1, b: [1, 2] })).toBe(hashOf({ b: [1, 2], a: 1 }));
    expect(hashOf({ a: 1, b: undefined })).toBe(hashOf({ a: 1 }));
    for (const other of [{ a: 2 }, { a: '1' }, { a: [1] }, { b: 1 }, {}, null])
      expect(hashOf(other)).not.toBe(hashOf({ a: 1 }));
    expect(hashOf([1, 2])).not.toBe(hashOf([2, 1]));
  });
  test('a part by its content, a build by its parts', () => {
    expect(partHash(bust.room)).toBe(partHash({ ...bust.room }));
    expect(buildHash(bust)).toBe(buildHash({ ...bust, room: { ...bust.room } }));
    expect(buildHash({ ...bust, room: { ...bust.room, temperature: 25 } })).not.toBe(buildHash(bust));
  });
  test('forty thousand short texts, none alike', () => {
    const all = new Set(Array.from({ length: 40_000 }, (_, i) => hashText(`step ${i}`)));
    expect(all.size).toBe(40_000);
  });
});
