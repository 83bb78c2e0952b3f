import { startBuild } from '../school';
import { seeded } from '../quantity';
import {
  chooseStep,
  DistanceField,
  EarlierGrids,
  findStartForm,
  isBare,
  resolveForm,
  sampleForm,
  startForms,
  voxelise,
  type ResolvedForm,
  type VoxelGrid,
} from '.';
import type { Mass } from './mass';

const clay = 0.01;

function fieldOf(masses: readonly Mass[]): DistanceField {
  // A region and joint are counted together, as a piece counts them.
  const groups = masses.map((m) => masses.findIndex((o) => o.region === m.region && o.joint === m.joint));
  return new DistanceField(
    masses,
    Float64Array.from(masses, (m) => (isBare(m) ? 0 : clay)),
    Uint16Array.from(groups),
  );
}

function made(kind: string, measures: Readonly<Record<string, number | string | boolean>>): ResolvedForm {
  const build = startBuild('Edited', '2026-12-01', kind, findStartForm(kind)!.usualSize);
  if (!build.ok) throw new Error(build.message);
  const start = { ...build.value.form.start, measures: { ...build.value.form.start.measures, ...measures } };
  const form = resolveForm({ ...build.value, form: { ...build.value.form, start } });
  if (!form.ok) throw new Error(`${form.path} ${form.message}`);
  return form.value;
}

/** Cells in which two grids differ in any bit of their distance, or in their owner. */
function differing(one: VoxelGrid, other: VoxelGrid): number {
  expect(one.blocks).toEqual(other.blocks);
  expect(one.origin).toEqual(other.origin);
  expect(one.evaluated).toBe(other.evaluated);
  expect(Buffer.compare(Buffer.from(one.slots.buffer), Buffer.from(other.slots.buffer))).toBe(0);
  let count = 0;
  for (let i = 0; i < one.evaluated * 512; i++)
    if (one.distances[i] !== other.distances[i] || one.owners[i] !== other.owners[i]) count++;
  return count;
}

const kinds = startForms.map((f) => f.kind).filter((k) => k !== 'free');

test.each(kinds)('%s: what is taken over from the last grid is the same as made anew, bit by bit', (kind) => {
  const random = seeded(kinds.indexOf(kind) + 1);
  const numbers = Object.entries(findStartForm(kind)!.measures).filter(([, m]) => 'low' in m && m.kind !== 'count');
  const earlier = new EarlierGrids();
  let measures: Record<string, number> = {};
  for (let i = 0; i < 10; i++) {
    if (i > 0) {
      const [key, m] = numbers[Math.floor(random() * numbers.length)]!;
      if (m.kind === 'choice' || m.kind === 'yes-no') continue;
      const at = measures[key] ?? m.start;
      measures = { ...measures, [key]: Math.min(m.high, Math.max(m.low, at + (random() - 0.5) * 0.1 * (at || 0.2))) };
    }
    const { masses } = made(kind, measures);
    const again = sampleForm(fieldOf(masses), 0.02, earlier);
    expect(differing(again, sampleForm(fieldOf(masses), 0.02))).toBe(0);
  }
});

test.each([
  ['bust', true],
  ['bust', false],
  ['four-legged', true],
  ['relief', true],
] as const)('%s, counted together: %s: what is left out changes no bit of a cell', (kind, together) => {
  const { masses } = made(kind, {});
  // Few masses, and many told apart, are merged another way.
  const field = together ? fieldOf(masses) : new DistanceField(masses);
  const step = chooseStep(field) * 1.3,
    depth = 0.02;
  const fast = voxelise(field, { step, depth }),
    slow = voxelise(field, { step, depth, everyCell: true });
  let compared = 0;
  fast.slots.forEach((slot, b) => {
    if (slot < 0) return;
    for (let part = 0; part < 8; part++) {
      const cells = Array.from(
        { length: 64 },
        (_, c) =>
          (part & 1) * 4 + (c & 3) + 8 * (((part >> 1) & 1) * 4 + ((c >> 2) & 3)) + 64 * ((part >> 2) * 4 + (c >> 4)),
      );
      const is = cells.map((c) => fast.distances[slot * 512 + c]!),
        shouldBe = cells.map((c) => slow.distances[slow.slots[b]! * 512 + c]!);
      // A cube that lies all outside, or deeper than is asked for, is not gone into.
      if (new Set(is).size === 1) {
        expect(shouldBe.every((d) => d > 0) || shouldBe.every((d) => d < -depth)).toBe(true);
        continue;
      }
      compared += 1;
      expect(is).toEqual(shouldBe);
      expect(cells.map((c) => fast.owners[slot * 512 + c])).toEqual(
        cells.map((c) => slow.owners[slow.slots[b]! * 512 + c]),
      );
    }
  });
  expect(compared).toBeGreaterThan(100);
});

test('a mass moved, added, taken away or given another blend is seen where it is felt, and no further', () => {
  const { masses } = made('bust', {});
  const earlier = new EarlierGrids();
  const step = 0.008;
  voxelise(fieldOf(masses), { step, depth: 0.02 }, earlier);
  const nose = masses.findIndex((m) => m.id === 'nose-tip');
  const tip = masses[nose]!;
  const ear: Mass = { ...tip, at: [tip.at[0] + 0.09, tip.at[1] + 0.1, tip.at[2]] };
  const moved: Mass = { ...tip, at: [tip.at[0] + 0.004, tip.at[1] - 0.003, tip.at[2]] };
  const ball: Mass = { ...tip, id: 'wart', at: [0.03, tip.at[1], tip.at[2]] };
  for (const next of [
    masses.with(nose, moved),
    masses,
    [...masses, ball],
    masses,
    masses.with(nose, ear),
    masses.with(nose, moved),
    masses.with(nose, { ...tip, blend: tip.blend * 2 }),
    masses.with(0, { ...masses[0]!, blend: 0 }),
  ]) {
    const again = voxelise(fieldOf(next), { step, depth: 0.02 }, earlier);
    expect(differing(again, voxelise(fieldOf(next), { step, depth: 0.02 }))).toBe(0);
  }
});

test('an opening moved, made larger or taken away is seen, and so is the object under it', () => {
  const { masses } = made('mask', {});
  const earlier = new EarlierGrids();
  const step = 0.006;
  voxelise(fieldOf(masses), { step, depth: 0.02 }, earlier);
  const eye = masses.findIndex((m) => m.role === 'opening'),
    head = masses.findIndex((m) => m.role === 'bare' || m.role === 'core');
  const hole = masses[eye]!,
    under = masses[head]!;
  for (const next of [
    masses.with(eye, { ...hole, at: [hole.at[0] + 0.004, hole.at[1], hole.at[2] - 0.003] }),
    masses.toSpliced(eye, 1),
    masses.with(head, { ...under, at: [under.at[0], under.at[1] - 0.012, under.at[2]] }),
  ]) {
    const again = voxelise(fieldOf(next), { step, depth: 0.02 }, earlier);
    expect(differing(again, voxelise(fieldOf(next), { step, depth: 0.02 }))).toBe(0);
  }
});

test('a small change samples few cells anew, and another depth or step all of them', () => {
  const { masses } = made('bust', {});
  const tip = masses.findIndex((m) => m.id === 'nose-tip');
  const earlier = new EarlierGrids();
  const filled = (next: readonly Mass[], step: number, depth: number): number => {
    const field = fieldOf(next);
    const spy = jest.spyOn(field, 'fillCube');
    voxelise(field, { step, depth }, earlier);
    return spy.mock.calls.length;
  };
  const whole = filled(masses, 0.008, 0.02);
  expect(filled(masses, 0.008, 0.02)).toBe(0);
  const longer = masses.with(tip, { ...masses[tip]!, at: [0, masses[tip]!.at[1] - 0.002, masses[tip]!.at[2]] });
  expect(filled(longer, 0.008, 0.02)).toBeLessThan(whole / 8);
  expect(filled(longer, 0.008, 0.03)).toBeGreaterThan(whole);
  expect(filled(longer, 0.01, 0.02)).toBeGreaterThan(whole / 3);
});
