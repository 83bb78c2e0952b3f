import { leftInTheBowl, mouldKinds, mouldMaterials, type MouldKind } from '../mould';
import { jobFacts as factsFor } from '../../../tests/support/job-facts';
import { mouldSteps } from './mould-steps';
import { stepsOf } from './steps';

describe.each(mouldKinds.map((k: MouldKind) => [k.id, k] as const))('%s', (id, kind) => {
  const kindId = id as (typeof mouldKinds)[number]['id'];
  const steps = mouldSteps({ kind: kindId });

  test('begins with setting out, ends with opening it; no two steps have the same id', () => {
    expect(steps[0]!.id).toBe('part');
    expect(steps.at(-1)!.id).toBe('open');
    expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
  });

  test('its steps take what its layers are bought as, and a tenth for the bowl', () => {
    const layers = [kind.skin, kind.shell].flatMap((l) => (l ? [l] : []));
    const wanted = layers.reduce((sum, l) => sum + mouldMaterials[l.material].bought * l.thickness, 0);
    const taken = steps.reduce((sum, s) => sum + (s.takes?.perArea ?? 0), 0);
    expect(taken).toBeCloseTo(wanted * (1 + leftInTheBowl), 9);
    expect(steps.reduce((sum, s) => sum + (s.takes?.ofBlock ?? 0), 0)).toBeCloseTo(kind.block ? 1 : 0, 9);
  });

  test('what sets is put on in one sitting', () => {
    for (const s of steps) if (s.takes?.mix && s.id !== 'shell') expect(s.whole).toBe(true);
  });

  test('it stands in the plan after the picture, each step after the one before', () => {
    const process = kind.processes[0]!;
    const all = stepsOf(factsFor({ processes: [process], mould: { kind: kindId, block: 3 } }));
    const own = all.filter((s) => s.id.startsWith(`${process}/`));
    expect(own.map((s) => s.id)).toEqual(steps.map((s) => `${process}/${s.id}`));
    own.forEach((s, i) => expect(s.after.map((w) => w.task)).toContain(i === 0 ? 'photograph' : own[i - 1]!.id));
    if (kind.block) expect(own.reduce((sum, s) => sum + (s.material?.mass ?? 0), 0)).toBeCloseTo(3, 9);
  });
});

test('walls one has chosen are what is taken', () => {
  const taken = (skin?: number) =>
    mouldSteps({ kind: 'rubber-skin', skin }).reduce(
      (sum, s) => sum + (s.takes?.what === 'silicone' ? s.takes.perArea : 0),
      0,
    );
  expect(taken(0.02)).toBeCloseTo(2 * taken(), 9);
});
