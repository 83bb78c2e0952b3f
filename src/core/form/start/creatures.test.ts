import { startBuild } from '../../school';
import { asBriefed, Evaluator } from '../../evaluate';
import type { Vec3 } from '../../quantity';
import { inverse, rotate, rotationOf } from '../turn';
import { DistanceField, findStartForm, massBox, resolveForm, startForms, type ResolvedForm } from '..';

type Measures = Record<string, number | string | boolean>;
function form(kind: string, measures: Measures = {}): ResolvedForm {
  const made = startBuild('A creature', '2026-12-01', kind, 1);
  if (!made.ok) throw new Error(made.message);
  const start = { ...made.value.form.start, measures };
  const f = resolveForm({ ...made.value, form: { ...made.value.form, start } });
  if (!f.ok) throw new Error(`${f.path}: ${f.message}`);
  return f.value;
}
const typed = (kind: string, id: string): Measures => ({
  ...findStartForm(kind)!.types!.find((t) => t.id === id)!.measures,
});
const at = (f: ResolvedForm, id: string): Vec3 => f.masses.find((m) => m.id === id)!.at;
const end = (f: ResolvedForm, pattern: RegExp, side: 'low' | 'high', k: 0 | 1 | 2) =>
  f.masses
    .filter((m) => pattern.test(m.id))
    .map((m) => massBox(m)[side][k])
    .reduce((a, b) => (side === 'low' ? Math.min(a, b) : Math.max(a, b)));

/** Litres at life size, set down from what such an animal weighs (about a kilogram a litre) before the forms were run. */
const litres: Readonly<Record<string, readonly [number, number]>> = {
  'four-legged/dog': [25, 50],
  'four-legged/cat': [3, 6.5],
  'four-legged/otter': [8, 16],
  'four-legged/bear': [250, 500],
  'four-legged/horse': [400, 700],
  'four-legged/stag': [130, 260],
  // Feathers stand off: a bird is some two to four times as much as it weighs.
  'bird-like/heron': [4, 11],
  'bird-like/raven': [2.5, 6],
  'bird-like/owl': [6, 14],
  'bird-like/swan': [25, 65],
  'bird-like/eagle': [10, 32],
};
test.each(Object.entries(litres))('%s is as large as one', (name, [low, high]) => {
  const [kind, type] = name.split('/') as [string, string];
  const made = startBuild('A creature', '2026-12-01', kind, 1, type);
  if (!made.ok) throw new Error(made.message);
  const report = new Evaluator().evaluate(asBriefed(made.value));
  if (!report.ok) throw new Error(report.message);
  const found = report.value.size.volume * 1000;
  expect([found, found > low && found < high]).toEqual([found, true]);
});

test('types are told apart by their measures, each within its bounds, the first as the form starts', () => {
  for (const f of startForms) {
    if (!f.types) continue;
    expect([f.kind, new Set(f.types.map((t) => t.id)).size]).toEqual([f.kind, f.types.length]);
    for (const t of f.types)
      expect([f.kind, t.id, f.schema.safeParse(t.measures).success]).toEqual([f.kind, t.id, true]);
    expect([f.kind, f.types[0]!.measures]).toEqual([f.kind, {}]);
  }
});

describe('an animal’s head', () => {
  test('a longer muzzle moves no ear; a broader skull takes the cheeks along', () => {
    const plain = form('four-legged'),
      broad = form('four-legged', { headBreadth: 0.75 });
    const long = form('four-legged', { muzzleBreadth: 0.9 });
    expect(at(long, 'ear-left')).toEqual(at(plain, 'ear-left'));
    expect(at(broad, 'cheek-left')[0]).toBeGreaterThan(at(plain, 'cheek-left')[0] * 1.2);
  });
  test('its mouth opens about its own hinge: the chin drops and the nose stays', () => {
    const shut = form('four-legged'),
      open = form('four-legged', { mouthOpen: 30 });
    expect(at(shut, 'chin')[2] - at(open, 'chin')[2]).toBeGreaterThan(0.03);
    expect(at(open, 'nose-pad')).toEqual(at(shut, 'nose-pad'));
    const hinge = (f: ResolvedForm) => at(f, 'lower-jaw');
    expect(Math.hypot(...hinge(open).map((v, k) => v - hinge(shut)[k]!))).toBeLessThan(0.012);
  });
  test('ears, horns and tusks as asked for', () => {
    const has = (m: Measures, id: RegExp) => form('four-legged', m).masses.some((x) => id.test(x.id));
    expect(has({ ears: 'none' }, /^ear-/)).toBe(false);
    for (const horns of ['straight', 'curled', 'antlers'])
      expect([horns, has({ horns }, /^(horn|antler)-/)]).toEqual([horns, true]);
    expect(has({ fangs: 0.3 }, /^fang-/)).toBe(true);
    expect(end(form('long-neck', typed('long-neck', 'walrus')), /^fang-tip/, 'low', 2)).toBeGreaterThan(0.1);
  });
});

describe('legs and feet', () => {
  test.each(['paws', 'claws', 'hooves', 'webbed'])('%s stand on the ground, all four', (feet) => {
    const f = form('four-legged', { feet });
    for (const leg of ['fore', 'hind']) {
      const lowest = end(f, new RegExp(`^${leg}-.*-left$`), 'low', 2);
      expect([leg, Math.abs(lowest) < 0.006]).toEqual([leg, true]);
    }
  });
  test('the wire through a leg lies within it, from hip to paw', () => {
    const f = form('four-legged');
    const field = new DistanceField(f.masses, undefined, f.countedWith);
    const chain = ['hip-left', 'stifle-left', 'hock-left'].map((id) => f.skeleton.joints.find((j) => j.id === id)!.at);
    for (let i = 1; i < chain.length; i++)
      for (let t = 0; t <= 1; t += 0.1) {
        const p = [0, 1, 2].map((k) => chain[i - 1]![k]! * (1 - t) + chain[i]![k]! * t) as unknown as Vec3;
        expect(field.at(p[0], p[1], p[2], field.all())).toBeLessThan(-0.02);
      }
  });
});

describe('birds', () => {
  test('the beak is thick enough for the wire that ends in it', () => {
    const f = form('bird-like');
    const field = new DistanceField(f.masses, undefined, f.countedWith);
    const p = f.skeleton.joints.find((j) => j.id === 'beak')!.at;
    expect(-field.at(p[0], p[1], p[2], field.all())).toBeGreaterThan(0.008);
    expect(at(f, 'beak')[1]).toBeGreaterThan(p[1]);
  });
  test('wings reach as far as asked for when spread, and lie on the body when folded', () => {
    const spread = form('bird-like', { wing: 'spread', wingSpan: 1.4 });
    expect(end(spread, /^(feather|wing)/, 'high', 0)).toBeGreaterThan(0.66);
    expect(end(spread, /^(feather|wing)/, 'high', 0)).toBeLessThan(0.78);
    const folded = form('bird-like');
    expect(end(folded, /^(feather|wing)/, 'high', 0)).toBeLessThan(0.16);
    expect(folded.skeleton.joints.some((j) => j.id.startsWith('pinion'))).toBe(false);
    const skin = form('bird-like', { wing: 'spread', wingKind: 'skin' });
    expect(skin.masses.some((m) => /^wing-finger/.test(m.id))).toBe(true);
  });
  test('however upright it is asked for, neither its tail nor its body goes into the ground', () => {
    for (const type of ['raven', 'owl', 'eagle', 'dragon']) {
      const f = form('bird-like', { ...typed('bird-like', type), lean: 75 });
      expect([type, end(f, /^(tail|rump|body|keel)/, 'low', 2) > -0.012]).toEqual([type, true]);
    }
  });
});

describe('in a ring', () => {
  test('what sits in it is inside it, joined to it, and held by a joint in the ring', () => {
    for (const t of findStartForm('ringed')!.types!) {
      const f = form('ringed', { ...t.measures });
      const top = end(f, /^ring-part/, 'high', 2);
      expect([t.id, end(f, /^sitter-/, 'high', 2) < top]).toEqual([t.id, true]);
      expect(f.skeleton.joints.filter((j) => j.parent === null).length).toBe(1);
      expect(f.skeleton.joints.find((j) => j.id.startsWith('sitter-'))!.parent).toBe('ring');
    }
  });
});

describe('a relief', () => {
  /** How far it stands out of the tile's face, square to it: the tile stands two degrees off upright. */
  const proud = (measures: Measures) => {
    const f = form('relief', { leans: 88, ...measures });
    const normal: Vec3 = [0, -Math.cos((2 * Math.PI) / 180), Math.sin((2 * Math.PI) / 180)];
    const reach = (m: (typeof f.masses)[number]) => {
      const middle = m.at.reduce((sum, v, k) => sum + v * normal[k]!, 0);
      if (m.shape.kind !== 'ellipsoid') return middle;
      const own = rotate(inverse(rotationOf(m.turn)), normal);
      return middle + Math.hypot(...m.shape.radii.map((r, k) => r * own[k]!));
    };
    const tile = f.masses.find((m) => m.id === 'tile')!;
    const face = reach(tile) + (tile.shape as { half: number[] }).half[1]!;
    return Math.max(...f.masses.filter((m) => m.region === 'relief').map(reach)) - face;
  };
  test('half the depth stands out half as far, face and hand, from the front and in profile', () => {
    const shown: readonly Measures[] = [{}, { turned: 90 }, { turned: 40 }, { subject: 'hand' }];
    for (const m of shown) expect(proud({ ...m, depth: 0.4 }) / proud({ ...m, depth: 0.8 })).toBeCloseTo(0.5, 3);
  });
  test('what it shows fits its tile, and nothing comes through the back', () => {
    for (const t of findStartForm('relief')!.types!) {
      const f = form('relief', { ...t.measures, leans: 88, subjectHeight: 0.9 });
      const tile = massBox(f.masses.find((m) => m.id === 'tile')!);
      for (const m of f.masses.filter((x) => x.region === 'relief')) {
        const b = massBox(m);
        expect([t.id, m.id, b.low[0] > tile.low[0] - 0.002 && b.high[0] < tile.high[0] + 0.002]).toEqual([
          t.id,
          m.id,
          true,
        ]);
        expect([t.id, m.id, b.low[2] > tile.low[2] - 0.012 && b.high[2] < tile.high[2] + 0.012]).toEqual([
          t.id,
          m.id,
          true,
        ]);
        expect([t.id, m.id, b.high[1] < tile.high[1]]).toEqual([t.id, m.id, true]);
      }
    }
  });
});
