import { startBuild } from '../../school';
import { asBriefed, Evaluator } from '../../evaluate';
import type { Build } from '../../document';
import { DistanceField, isBare, resolveForm, type ResolvedForm } from '..';
import { Callipers } from '../../../../tests/support/callipers';
import { wearersMeasures } from './wearer';

type Measures = Record<string, number | string | boolean>;
function begun(measures: Measures, kind = 'mask'): Build {
  const made = startBuild('A mask', '2026-12-01', kind, 1);
  if (!made.ok) throw new Error(made.message);
  return { ...made.value, form: { ...made.value.form, start: { ...made.value.form.start, measures } } };
}
function form(measures: Measures = {}): ResolvedForm {
  const f = resolveForm(begun(measures));
  if (!f.ok) throw new Error(`${f.path}: ${f.message}`);
  return f.value;
}
const bareForm = (f: ResolvedForm) =>
  f.masses.filter((m) => m.id.startsWith('form-')).map((m) => ({ ...m, role: 'bare' as const }));
const over = (f: ResolvedForm, coat: number) =>
  new DistanceField(
    f.masses,
    Float64Array.from(f.masses, (m) => (isBare(m) ? 0 : coat)),
    f.countedWith,
  );
const plain: Measures = { brow: 0, cheeks: 0, nose: 0, chin: 0, nostrils: false, eyeHole: 0, mouthHole: 0 };

test.each([0.53, 0.57, 0.62])('the life form has the wearer’s girth of %s m above the brows', (headGirth) => {
  const f = form({ headGirth });
  const level = f.landmarks.find((l) => l.id === 'girth')!.ends[0][2];
  const tape = new Callipers(new DistanceField(bareForm(f)));
  const read = tape.girth(level, 0.01, (id) => /ear/.test(id));
  expect([headGirth, read, Math.abs(read / headGirth - 1) < 0.03]).toEqual([headGirth, read, true]);
});

test('a wearer’s face goes along with head and height', () => {
  const small = wearersMeasures({ headGirth: 0.54, chinToCrown: 0.2, neckGirth: 0.34 });
  const large = wearersMeasures({ headGirth: 0.6, chinToCrown: 0.25, neckGirth: 0.4 });
  expect(large.eyesApart / small.eyesApart).toBeCloseTo(0.6 / 0.54, 9);
  expect(large.noseLength / small.noseLength).toBeCloseTo(0.25 / 0.2, 9);
});

test('the clay is as thick over the whole face as it is said to be', () => {
  const f = form(plain);
  const coat = 0.012;
  const face = new Callipers(over(f, coat)),
    bare = new Callipers(new DistanceField(bareForm(f)));
  const eyes = f.landmarks.find((l) => l.id === 'eyes')!.ends[0][2];
  let read = 0;
  // Forehead, cheeks, upper lip and chin, met square from the front.
  for (const [x, up] of [
    [0, 0.035],
    [0.02, 0.04],
    [0, 0.03],
    [0, -0.1],
  ] as const) {
    const z = eyes + up;
    const stands = bare.profile(z, x) - face.profile(z, x);
    read += 1;
    // Along the look the coat is at least as thick as square to the face.
    expect([up, stands > coat * 0.97, stands < coat * 1.6]).toEqual([up, true, true]);
  }
  expect(read).toBe(4);
});

test('through the holes of the eyes one sees the form, and beside them clay', () => {
  const coat = 0.012;
  const f = form();
  const field = over(f, coat);
  const look = new Callipers(field);
  const hole = f.masses.find((m) => m.id === 'eye-hole-left')!;
  const [x, , z] = hole.at;
  const seen = look.profile(z, x);
  const form0 = new Callipers(new DistanceField(bareForm(f))).profile(z, x);
  expect(seen).toBeCloseTo(form0, 4);
  const shut = new Callipers(over(form({ eyeHole: 0 }), coat)).profile(z, x);
  expect(form0 - shut).toBeGreaterThan(0.006);
});

test('a half mask leaves mouth and chin bare', () => {
  const covered = (m: Measures) =>
    new Set(
      form(m)
        .masses.filter((x) => x.role === 'core')
        .map((x) => x.id),
    );
  const whole = covered({}),
    half = covered({ cover: 'half' });
  expect(whole.has('form-chin')).toBe(true);
  expect(half.has('form-chin')).toBe(false);
  expect(half.has('form-nose-bridge')).toBe(true);
  expect([...half].every((id) => whole.has(id))).toBe(true);
});

test('clay on the mask only: the wearer’s form has none, and the openings take some away', () => {
  const report = (measures: Measures) => {
    const r = new Evaluator().evaluate(asBriefed(begun(measures)));
    if (!r.ok) throw new Error(r.message);
    return r.value;
  };
  const open = report({}),
    shut = report({ eyeHole: 0, mouthHole: 0, nostrils: false });
  const clay = (r: typeof open, id: string) => r.regions.find((x) => x.id === id)?.clayVolume ?? 0;
  expect(clay(open, 'head-form')).toBe(0);
  expect(clay(open, 'mask')).toBeLessThan(clay(shut, 'mask'));
  expect(clay(open, 'mask')).toBeGreaterThan(0.9 * clay(shut, 'mask'));
});

test('a pauldron stands clear of the shoulder by its padding', () => {
  const made = resolveForm(begun({ padding: 0.02 }, 'worn-shell'));
  if (!made.ok) throw new Error(made.message);
  const f = made.value;
  const wearer = new DistanceField(f.masses.filter((m) => m.region === 'wearer'));
  const bowl = f.masses.find((m) => m.id === 'bowl')!;
  const radii = (bowl.shape as { radii: [number, number, number] }).radii;
  for (const [p, q] of [
    [0, 0],
    [40, 20],
    [70, 100],
    [85, 200],
    [60, 300],
  ] as const) {
    const a = (p * Math.PI) / 180,
      b = (q * Math.PI) / 180;
    // On the inside of four millimetres of clay.
    const at = [Math.sin(a) * Math.cos(b), Math.sin(a) * Math.sin(b), Math.cos(a)].map(
      (v, k) => bowl.at[k]! + (radii[k]! - 0.004) * v,
    );
    expect(wearer.at(at[0]!, at[1]!, at[2]!, wearer.all())).toBeGreaterThan(0.0195);
  }
});

test('the post stands under the form, whatever is built out in front of it', () => {
  const built: readonly Measures[] = [{}, { muzzle: 0.2, horns: 0.3 }];
  for (const m of built) {
    const piece = new Evaluator().piece(asBriefed(begun(m)));
    if (!piece.ok) throw new Error(piece.message);
    const { armature, form: f } = piece.value;
    const stand = f.skeleton.joints.find((j) => j.id === 'stand')!.at;
    for (const p of armature.members.find((x) => x.name === 'post')!.path) {
      expect(p[0]).toBeCloseTo(0, 9);
      expect(p[1]).toBeCloseTo(stand[1], 9);
      expect(p[2]).toBeLessThanOrEqual(f.skeleton.joints.find((j) => j.id === 'crown')!.at[2] + 1e-9);
    }
  }
});

test('of a head on a frame only what stands out gets a bar: tusks do, lips and lids do not', () => {
  const bars = (type: string): string[] => {
    const made = startBuild('A head', '2026-12-01', 'long-neck', 1, type);
    if (!made.ok) throw new Error(made.message);
    const piece = new Evaluator().piece(asBriefed(made.value));
    if (!piece.ok) throw new Error(piece.message);
    return piece.value.armature.members.map((m) => m.name).filter((name) => name.startsWith('bar in the'));
  };
  expect(bars('walrus').filter((n) => n.includes('fang')).length).toBeGreaterThanOrEqual(2);
  expect(bars('giant').filter((n) => /lip|lid|brow|bag|fold/.test(n))).toEqual([]);
});

test('a helmet has clay over all the skull and none on the neck; its ears lie flat, its slit is open, its crest stands up', () => {
  const helmet: Measures = { ...plain, cover: 'head', bowl: 0.02, visor: 0.13, eyeHole: 0.022, crest: 0.04 };
  const f = form(helmet);
  const role = (id: string) => f.masses.find((m) => m.id === id)?.role;
  for (const id of ['form-cranium', 'form-occiput', 'form-temporal-left', 'form-chin', 'form-forehead'])
    expect([id, role(id)]).toEqual([id, 'core']);
  expect(role('form-neck')).toBe('bare');
  expect(f.masses.some((m) => /^form-ear/.test(m.id))).toBe(false);
  expect(role('visor')).toBe('opening');
  const coat = 0.006;
  const look = new Callipers(over(f, coat)),
    bare = new Callipers(new DistanceField(bareForm(f)));
  const eyes = f.landmarks.find((l) => l.id === 'eyes')!.ends[0][2];
  expect(look.profile(eyes, 0.03)).toBeCloseTo(bare.profile(eyes, 0.03), 3);
  expect(bare.profile(eyes + 0.04, 0) - look.profile(eyes + 0.04, 0)).toBeGreaterThan(0.019);
  const top = (m: Measures) => {
    const made = form(m);
    const field = over(made, coat);
    let z = 0.6;
    while (field.at(0, 0.01, z, field.all()) > 0) z -= 0.0005;
    return z;
  };
  expect(top(helmet) - top({ ...helmet, crest: 0 })).toBeGreaterThan(0.025);
});
