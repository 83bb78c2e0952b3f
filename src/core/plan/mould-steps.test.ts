import { leftInTheBowl, mouldKinds, mouldMaterials, type MouldKind } from '../mould';
import { jobFacts as factsFor } from '../../../tests/support/job-facts';
import { castStepPrefix } from './cast-steps';
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

describe('casts', () => {
  const each = [{ name: 'slip latex', mass: 0.4 }];
  const planned = (count: number, mouldDries: number | null = 5 * 86400) =>
    stepsOf(
      factsFor({
        processes: ['plaster-mould'],
        mould: { kind: 'plaster-parts', block: 0, casts: { cast: 'latex-skin', count, each, mouldDries } },
      }),
    ).filter((s) => s.id.startsWith(castStepPrefix));

  test('three, one after another, the first when the mould has dried', () => {
    const steps = planned(3);
    expect(steps.map((s) => s.id)).toEqual([1, 2, 3].flatMap((k) => [`cast/${k}/lay`, `cast/${k}/take`]));
    expect(steps[0]!.name).toMatch(/^Cast 1 of 3: lay in/);
    const [waits] = steps[0]!.after;
    expect(waits).toMatchObject({ task: 'plaster-mould/open', why: 'the mould is dry' });
    expect(waits!.least.nominal).toBe(5 * 86400);
    steps.slice(1).forEach((s, i) => expect(s.after.map((w) => w.task)).toEqual([steps[i]!.id]));
    expect(steps[1]!.after[0]!.least.nominal).toBe(24 * 3600);
    expect(steps.reduce((sum, s) => sum + (s.material?.mass ?? 0), 0)).toBeCloseTo(1.2, 9);
  });

  test('what is set into them is set in when each is out', () => {
    const steps = stepsOf(
      factsFor({
        processes: ['plaster-mould'],
        mould: {
          kind: 'plaster-parts',
          block: 0,
          casts: { cast: 'latex-skin', count: 2, each, mouldDries: 0, setIn: ['ball eyes', 'magnets'] },
        },
      }),
    ).filter((s) => s.id.startsWith(castStepPrefix));
    expect(steps.map((s) => s.id)).toEqual(
      [1, 2].flatMap((k) => ['lay', 'take', 'set-in'].map((s) => `cast/${k}/${s}`)),
    );
    expect(steps[2]).toMatchObject({
      name: 'Cast 1 of 2: set in, and glue: ball eyes, magnets',
      hours: 0.5,
      after: [expect.objectContaining({ task: 'cast/1/take' })],
    });
    expect(steps[3]!.after.map((w) => w.task)).toEqual(['cast/1/set-in']);
  });

  test('a room that never dries it is heated in the end; none wanted is none planned', () => {
    expect(planned(1, null)[0]!.after[0]!.least.nominal).toBe(30 * 86400);
    expect(planned(1)[0]!.name).toMatch(/^Lay in/);
    expect(planned(0)).toEqual([]);
  });
});
