import { jobFacts, regionFacts } from '../../../tests/support/job-facts';
import { exactly } from '../quantity';
import { stepsOf, type JobFacts, type Step } from '.';

/** What each way of working puts into the plan, and what each step waits for. */
const hour = 3600;
const stepIn = (steps: readonly Step[], id: string): Step => {
  const found = steps.find((s) => s.id === id);
  if (!found) throw new Error(`no step ${id}; there are ${steps.map((s) => s.id).join(', ')}`);
  return found;
};
/** "lay/head/1 48": what it waits for and the hours, the likely ones. */
const waits = (s: Step): string[] => s.after.map((w) => `${w.task} ${w.least.nominal / hour}`);
const step = (more: Partial<JobFacts>, id: string) => stepIn(stepsOf(jobFacts(more)), id);

const coat = (stage: number, more = {}) => ({
  stage,
  mass: 0.5,
  thickness: 0.005,
  smoothUntil: exactly(5 * hour),
  hold: exactly(6 * hour),
  through: exactly(20 * hour),
  steady: exactly(30 * hour),
  next: exactly(12 * hour),
  ...more,
});
const twoCoats = regionFacts('head', 0.6, { coats: [coat(1), coat(2)] });

describe('before the clay', () => {
  test('set out, armature, bulk, grounds, one after another; what there is nothing to do of is left out', () => {
    const steps = stepsOf(
      jobFacts({
        under: [
          { id: 'gauze', name: 'plaster gauze' },
          { id: 'glue-wash', name: 'thinned glue' },
        ],
      }),
    );
    expect(steps.slice(0, 5).map((s) => s.id)).toEqual([
      'set-out',
      'armature',
      'bulk',
      'ground/gauze',
      'ground/glue-wash',
    ]);
    expect(waits(stepIn(steps, 'ground/gauze'))).toEqual(['bulk 0']);
    // Plaster gauze sets for a day before glue goes over it, and the glue dries half an hour.
    expect(waits(stepIn(steps, 'ground/glue-wash'))).toEqual(['ground/gauze 24']);
    expect(waits(stepIn(steps, 'lay/chest/1'))).toEqual(['ground/glue-wash 0.5']);
    const bare = stepsOf(jobFacts({ armatureHours: 0, bulkHours: 0 }));
    expect(bare.map((s) => s.id)).not.toContain('armature');
    expect(bare.map((s) => s.id)).not.toContain('bulk');
    expect(waits(stepIn(bare, 'lay/chest/1'))).toEqual(['set-out 0']);
  });

  test('hours: by area, each time, and less of it round a small piece', () => {
    // Setting out: 0.6 h a square metre and half an hour; three tenths of a square metre is a full laying out.
    expect(step({}, 'set-out').hours).toBeCloseTo(0.6 * 0.3 + 0.5, 9);
    expect(step({ area: 0.075 }, 'set-out').hours).toBeCloseTo(0.6 * 0.075 + 0.25, 9);
    expect(step({ area: 0.001 }, 'set-out').hours).toBeCloseTo(0.6 * 0.001 + 0.5 * 0.3, 9);
    expect(step({}, 'armature').hours).toBe(2);
    // Refining: 8, 30 and 80 minutes a square decimetre, and a quarter of an hour; detail as much again where the eye rests.
    const head = jobFacts().regions.find((r) => r.id === 'head')!;
    for (const [fineness, minutes] of [
      ['rough', 8],
      ['finished', 30],
      ['portrait', 80],
    ] as const) {
      const rate = (minutes / 60) * 100 * head.area;
      expect(step({ fineness }, 'refine/head').hours).toBeCloseTo(0.25 + rate, 9);
      expect(step({ fineness }, 'detail/head').hours).toBeCloseTo(0.25 + rate * head.seen, 9);
      expect(step({ fineness }, 'sand/head').hours).toBeCloseTo(0.2 + (4 / 60) * 100 * head.area, 9);
    }
    expect(step({}, 'bulk').hours).toBeCloseTo(1.65, 9);
    // No step is shorter than five minutes.
    expect(step({ warming: hour }, 'warm').hours).toBeCloseTo(0.15, 9);
    expect(Math.min(...stepsOf(jobFacts({ area: 1e-6 })).map((s) => s.hours))).toBeGreaterThanOrEqual(1 / 12);
  });

  test('the clay waits for props and for its warming as for the core', () => {
    expect(waits(step({ setting: 'never', props: 2, letGo: null, warming: 3 * hour }, 'lay/chest/1')).sort()).toEqual([
      'bulk 0',
      'props 0',
      'warm 3',
    ]);
    expect(step({ props: 1 }, 'props').name).toBe('Set the prop');
    expect(step({ props: 3 }, 'props').name).toBe('Set the 3 props');
  });
});

describe('laying', () => {
  test('from the base up, each after what is below it; clay by the hour a kilo takes', () => {
    const steps = stepsOf(jobFacts());
    expect(waits(stepIn(steps, 'lay/head/1'))).toEqual(['bulk 0', 'lay/chest/1 0']);
    expect(stepIn(steps, 'lay/head/1').hours).toBeCloseTo(0.1 + 0.6, 9);
    expect(stepIn(steps, 'lay/head/1').clay).toBe(1);
  });

  test('a second coat waits until the first is ready for it, and only the last is smoothed', () => {
    const steps = stepsOf(jobFacts({ regions: [twoCoats] }));
    expect(waits(stepIn(steps, 'lay/head/2'))).toEqual(['lay/head/1 12']);
    expect(stepIn(steps, 'lay/head/1').name).toBe('Lay coat 1 on the head');
    expect(waits(stepIn(steps, 'smooth/head'))).toEqual(['lay/head/2 0']);
    expect(steps.filter((s) => s.kind === 'smoothing')).toHaveLength(1);
    // Where nothing says when the next may go on, it waits until the coat is dry through.
    const other = regionFacts('head', 0.6, { coats: [coat(1, { next: null }), coat(2)] });
    expect(waits(step({ regions: [other] }, 'lay/head/2'))).toEqual(['lay/head/1 20']);
  });

  test('a region without clay has no steps', () => {
    const steps = stepsOf(jobFacts({ regions: [regionFacts('head', 0.6), regionFacts('foot', 0, { coats: [] })] }));
    expect(steps.filter((s) => s.region === 'foot')).toEqual([]);
  });

  test('clay is wet until it can be held; smoothing has until it is too firm', () => {
    expect(step({}, 'lay/head/1').wets).toEqual([{ zone: 'head', after: exactly(10 * hour) }]);
    expect(step({}, 'smooth/head').after[0]?.most?.nominal).toBe(8 * hour);
    // Epoxy can be touched when it is half set, and smoothed while its batch works.
    const soft = regionFacts('head', 0.6, { coats: [coat(1, { hold: null, smoothUntil: null })] });
    const batch = { mass: 0.125, kneading: 180 };
    const epoxy = { setting: 'sets', cure: 24 * hour, soft: 1.5 * hour, batch, regions: [soft] } as const;
    expect(step(epoxy, 'lay/head/1').wets[0]?.after.nominal).toBe(12 * hour);
    expect(step(epoxy, 'smooth/head').after[0]?.most?.nominal).toBe(1.5 * hour);
    expect(step(epoxy, 'lay/head/1').needs).toEqual(['gloves', 'fresh air']);
    // Four batches of three minutes' kneading each; three of them are smoothed before the next is mixed, the last after it.
    const smoothing = 0.1 + 1.6 * 0.1;
    expect(step(epoxy, 'lay/head/1').hours).toBeCloseTo(0.1 + 0.5 * 0.6 + (4 * 180) / hour + 0.75 * smoothing, 9);
    expect(step(epoxy, 'smooth/head').hours).toBeCloseTo(Math.max(1 / 12, 0.25 * smoothing), 9);
    expect(step(epoxy, 'lay/head/1').name).toBe('Lay the clay on the head in 4 batches, each smoothed in its time');
    // Clay that dries is laid in one sitting; what sets, bakes or stays soft may wait for another evening.
    expect(step({}, 'lay/head/1').whole).toBe(true);
    expect(step(epoxy, 'lay/head/1').whole).toBe(false);
    expect(step({ setting: 'never' }, 'lay/head/1').whole).toBe(false);
    // What stays soft is smoothed when it is modelled, and before its fine marks.
    for (const setting of ['damp', 'never'] as const) {
      expect(waits(step({ setting, workable: 50 * hour }, 'smooth/head'))).toEqual(['refine/head 0']);
      expect(waits(step({ setting, workable: 50 * hour }, 'detail/head'))).toEqual(['smooth/head 0']);
    }
  });

  test('in the hand, every other region is where one may hold it; on a board, or in clay that stays soft, none is asked', () => {
    expect(step({ held: false }, 'lay/head/1').holds).toEqual(['chest']);
    expect(step({ held: true }, 'lay/head/1').holds).toBeNull();
    expect(step({ held: false, setting: 'never' }, 'lay/head/1').holds).toBeNull();
    expect(step({ held: false, setting: 'damp', workable: 1 }, 'lay/head/1').holds).toBeNull();
  });
});

describe('the oven', () => {
  const oven = { setting: 'bakes', bakes: [1800, 2700], regions: [twoCoats, regionFacts('chest', 0.2)] } as const;
  test('a bake a coat, of all that is on; the next coat waits until it is cool, and the last bake for the modelling', () => {
    const steps = stepsOf(jobFacts(oven));
    expect(stepIn(steps, 'bake/1')).toMatchObject({ hours: 0.75, tools: ['oven'], whole: true });
    expect(stepIn(steps, 'bake/2').hours).toBeCloseTo(0.75 + 0.25, 9);
    expect(waits(stepIn(steps, 'lay/head/2'))).toEqual(['bake/1 1']);
    expect(waits(stepIn(steps, 'bake/1')).sort()).toEqual(['lay/chest/1 0', 'lay/head/1 0']);
    // Modelled and marked raw, before the last bake; sanded it would lose its marks.
    expect(waits(stepIn(steps, 'refine/chest')).sort()).toEqual(['lay/chest/1 0', 'lay/head/2 0']);
    expect(waits(stepIn(steps, 'bake/2'))).toEqual(
      expect.arrayContaining(['lay/head/2 0', 'detail/head 0', 'detail/chest 0']),
    );
    expect(waits(stepIn(steps, 'photograph'))).toEqual(['bake/2 1']);
    expect(steps.some((s) => s.kind === 'sanding')).toBe(false);
    expect(stepIn(steps, 'bake/1').name).toBe('Bake it with coat 1 on');
    expect(step({ setting: 'bakes', bakes: [1800] }, 'bake/1').name).toBe('Bake it');
    expect(stepIn(steps, 'bake/1').needs).toContain('fresh air');
  });
  test('a bake among what it goes through is this one, not another', () => {
    const ids = stepsOf(jobFacts({ ...oven, processes: ['bake', 'spray-paint'] })).map((s) => s.id);
    expect(ids.filter((id) => id.startsWith('bake/'))).toEqual(['bake/1', 'bake/2']);
    expect(ids).toContain('spray-paint/varnish');
  });
});

describe('before it is covered', () => {
  test('glued joins, gauze and primer dry first; an undercoat is baked and cools', () => {
    expect(waits(step({ joinsSet: 26 * hour }, 'bulk'))).toEqual(['armature 26']);
    expect(waits(step({ wrap: 'gauze' }, 'lay/chest/1'))).toEqual(['bulk 24']);
    const baked = stepsOf(jobFacts({ wrap: 'undercoat' }));
    expect(stepIn(baked, 'bake-undercoat')).toMatchObject({ kind: 'heat', tools: ['oven'], hours: 0.75 });
    expect(waits(stepIn(baked, 'bake-undercoat'))).toEqual(['bulk 0']);
    expect(waits(stepIn(baked, 'lay/chest/1'))).toEqual(['bake-undercoat 1']);
  });

  test('clay is put to warm in time and not long before, for the first of it; a timer switch needs no hands', () => {
    const steps = stepsOf(jobFacts({ setting: 'never', warming: 3 * hour }));
    expect(stepIn(steps, 'warm').people).toBe(0);
    const on = (id: string) => stepIn(steps, id).after.find((w) => w.task === 'warm');
    expect(on('lay/chest/1')).toMatchObject({ least: exactly(3 * hour), most: exactly(5 * hour) });
    expect(on('lay/head/1')).toMatchObject({ least: exactly(3 * hour), most: null });
  });

  test('solvent and hot air go over what is modelled before its fine marks, with what they ask for', () => {
    const steps = stepsOf(jobFacts({ setting: 'never', processes: ['silicone-addition', 'solvent'] }));
    expect(waits(stepIn(steps, 'solvent/solvent')).sort()).toEqual([
      'smooth/chest 0',
      'smooth/head 0',
      'solvent/paste 12',
    ]);
    // Shaved in the evening before, once all is laid.
    expect(waits(stepIn(steps, 'solvent/paste')).sort()).toEqual(['lay/chest/1 0', 'lay/head/1 0']);
    expect(stepIn(steps, 'solvent/solvent').needs).toEqual(['fresh air', 'respirator', 'gloves']);
    expect(waits(stepIn(steps, 'detail/head'))).toEqual(['solvent/solvent 12']);
    const air = (setting: JobFacts['setting']) =>
      stepsOf(jobFacts({ setting, processes: ['heat-gun'], bakes: [1800] }));
    expect(waits(stepIn(air('never'), 'detail/head'))).toEqual(['heat-gun/heat-gun 1']);
    // Raw oven clay would set under hot air before its marks are cut: there it comes once it is baked.
    const baked = air('bakes');
    expect(waits(stepIn(baked, 'heat-gun/heat-gun'))).toEqual(['bake/1 1']);
    expect(waits(stepIn(baked, 'detail/head'))).toEqual(['smooth/head 0']);
    expect(stepIn(baked, 'heat-gun/heat-gun').needs).toEqual(['fresh air', 'gloves']);
  });
});

describe('the end', () => {
  test('a master in clay that stays soft is photographed, moulded, taken apart, and its clay reclaimed', () => {
    const steps = stepsOf(jobFacts({ setting: 'damp', workable: hour, processes: ['plaster-mould'] }));
    expect(waits(stepIn(steps, 'plaster-mould/part'))).toEqual(['photograph 0']);
    expect(waits(stepIn(steps, 'take-apart'))).toEqual(['plaster-mould/open 0']);
    expect(waits(stepIn(steps, 'reclaim'))).toEqual(['take-apart 0']);
    expect(steps.some((s) => s.id === 'fit')).toBe(false);
    // Two kilos: half an hour and a twentieth of an hour each; a quarter and a fifteenth.
    expect(stepIn(steps, 'take-apart').hours).toBeCloseTo(0.5 + 2 / 20, 9);
    expect(stepIn(steps, 'reclaim').hours).toBeCloseTo(0.25 + 2 / 15, 9);
    // Hard clay is kept, and what is not moulded is set up.
    expect(step({ processes: ['plaster-mould'] }, 'fit').name).toBe('Clean the master and put it by');
    expect(step({ setting: 'never' }, 'fit').name).toBe('Fit it, pack it, set it up');
  });
});

describe('while it dries', () => {
  test('covers come off and it is turned so long after the first clay', () => {
    const steps = stepsOf(
      jobFacts({
        uncover: [{ at: 30 * hour, what: 'the loose plastic' }],
        turns: [{ at: 12 * hour, lying: 'on its face' }],
      }),
    );
    expect(waits(stepIn(steps, 'uncover/1'))).toEqual(['lay/chest/1 30']);
    // On the day, or it is told.
    expect(stepIn(steps, 'uncover/1').after[0]?.most?.nominal).toBe(42 * hour);
    expect(waits(stepIn(steps, 'turn/1'))).toEqual(['lay/chest/1 12']);
    expect(stepIn(steps, 'turn/1')).toMatchObject({ name: 'Turn it: on its face', people: 1, needs: [] });
    const heavy = stepsOf(jobFacts({ turns: [{ at: 12 * hour, lying: 'on its face' }], heavy: true }));
    expect(stepIn(heavy, 'turn/1')).toMatchObject({ people: 2, needs: ['two people'] });
  });

  test('props go when the piece may be let go, counted from the last clay; where they stay there is no such step', () => {
    expect(
      waits(step({ props: 1, letGo: { when: 'after', after: 40 * hour, why: 'it carries itself' } }, 'props-away')),
    ).toEqual(['lay/chest/1 40', 'lay/head/1 40']);
    // Until it is hard: dry through, or set.
    const hard = { when: 'hard', why: 'the clay is hard and keeps its place' } as const;
    expect(waits(step({ props: 1, letGo: hard }, 'props-away'))).toEqual(['lay/chest/1 48', 'lay/head/1 48']);
    expect(waits(step({ props: 1, letGo: hard, setting: 'sets', cure: 24 * hour }, 'props-away'))).toEqual([
      'lay/chest/1 24',
      'lay/head/1 24',
    ]);
    expect(waits(step({ props: 1, letGo: hard, setting: 'bakes', bakes: [1800] }, 'props-away'))).toEqual([
      'bake/1 1',
      'bake/1 1',
    ]);
    expect(stepsOf(jobFacts({ props: 1, letGo: null })).some((s) => s.id === 'props-away')).toBe(false);
    expect(
      stepsOf(jobFacts({ props: 0, letGo: { when: 'after', after: 40 * hour, why: 'it carries itself' } })).some(
        (s) => s.id === 'props-away',
      ),
    ).toBe(false);
  });

  test('lifted when all of it has set and before its widest region goes hard', () => {
    const lift = step(
      {
        lift: { least: 14 * hour, most: 26 * hour },
        regions: [regionFacts('chest', 0.2, { area: 0.2 }), regionFacts('ear', 0.6, { area: 0.01 })],
      },
      'lift',
    );
    const on = (task: string) => lift.after.find((w) => w.task === task)!;
    expect(on('lay/chest/1').least).toMatchObject({ nominal: 14 * hour });
    expect(on('lay/chest/1').most?.nominal).toBe(26 * hour);
    // The ear has set sooner, and its going hard holds nobody up.
    expect(on('lay/ear/1').least.nominal).toBe(10 * hour);
    expect(on('lay/ear/1').most).toBeNull();
  });

  test('cut in two and joined again, after the halves have dried apart; carving waits for the joint', () => {
    const steps = stepsOf(jobFacts({ split: { from: 20 * hour, until: 68 * hour } }));
    expect(waits(stepIn(steps, 'cut-open'))).toEqual(['lay/chest/1 20', 'lay/head/1 20']);
    expect(waits(stepIn(steps, 'join-halves'))).toEqual(['cut-open 48']);
    expect(waits(stepIn(steps, 'refine/head'))).toEqual(['lay/head/1 48', 'join-halves 0']);
  });

  test('sections are joined when each is dry through, by two where it is heavy', () => {
    const steps = stepsOf(jobFacts({ sections: 3, heavy: true }));
    expect(waits(stepIn(steps, 'join-sections'))).toEqual(['lay/chest/1 48', 'lay/head/1 48']);
    expect(stepIn(steps, 'join-sections')).toMatchObject({ people: 2, needs: ['two people'] });
    expect(stepIn(steps, 'fit')).toMatchObject({ people: 2, needs: ['two people'] });
    expect(step({}, 'fit').people).toBe(1);
  });
});

describe('when it is hard', () => {
  test('carving waits for dry clay, for set clay, or for nothing where it is kept damp', () => {
    expect(waits(step({}, 'refine/head'))).toEqual(['lay/head/1 48']);
    expect(waits(step({ setting: 'sets', cure: 24 * hour }, 'refine/head'))).toEqual(['lay/head/1 24']);
    // All of it is blocked in before any of it is modelled; under cloth and bag it stays soft for a fortnight.
    const damp = step({ setting: 'damp', workable: 90 * hour }, 'refine/head');
    expect(damp.name).toBe('Model the head');
    expect(waits(damp)).toEqual(['lay/chest/1 0', 'lay/head/1 0']);
    expect(damp.after[1]?.most?.nominal).toBe(14 * 24 * hour);
    expect(step({ setting: 'damp', workable: 90 * hour }, 'keep-damp').after[0]?.most?.nominal).toBe(90 * hour);
    expect(waits(step({ setting: 'never' }, 'refine/head'))).toEqual(['lay/chest/1 0', 'lay/head/1 0']);
  });

  test('where cracks are to be looked for they are mended, the longer the more there are, and dry a day', () => {
    const cracked = (crack: number) => ({ regions: [regionFacts('head', 0.6, { crack })] });
    expect(stepsOf(jobFacts(cracked(0.59))).some((s) => s.kind === 'mending')).toBe(false);
    expect(waits(step(cracked(0.6), 'mend/head'))).toEqual(['refine/head 0']);
    expect(waits(step(cracked(0.6), 'sand/head'))).toEqual(['mend/head 24']);
    expect(waits(step(cracked(0.6), 'detail/head'))).toEqual(['sand/head 0']);
    // Half an hour a square metre and a quarter each time, as often as the index says, three times at the most.
    const once = 0.25 + 0.5 * 0.1;
    expect(step(cracked(1), 'mend/head').hours).toBeCloseTo(once, 9);
    expect(step(cracked(2), 'mend/head').hours).toBeCloseTo(2 * once, 9);
    expect(step(cracked(9), 'mend/head').hours).toBeCloseTo(3 * once, 9);
    expect(stepsOf(jobFacts({ setting: 'sets', cure: hour, ...cracked(2) })).some((s) => s.kind === 'mending')).toBe(
      false,
    );
  });

  test('sanding asks for a respirator, and soft clay is not sanded', () => {
    expect(step({}, 'sand/head').needs).toEqual(['respirator']);
    expect(stepsOf(jobFacts({ setting: 'damp', workable: 1 })).some((s) => s.kind === 'sanding')).toBe(false);
  });
});

describe('over the clay', () => {
  test('seals one after another, each dry before the next, then what it goes through', () => {
    const steps = stepsOf(
      jobFacts({
        over: [
          { id: 'acrylic-seal', name: 'acrylic seal' },
          { id: 'wax', name: 'wax' },
        ],
        processes: ['cement-pour'],
      }),
    );
    // At rest through all its depth, which is later than dry through.
    expect(waits(stepIn(steps, 'seal/acrylic-seal')).sort()).toEqual([
      'detail/chest 0',
      'detail/head 0',
      'lay/chest/1 60',
      'lay/head/1 60',
    ]);
    expect(waits(stepIn(steps, 'seal/wax'))).toEqual(['seal/acrylic-seal 3']);
    expect(waits(stepIn(steps, 'cement-pour/cement'))).toEqual(['seal/wax 1']);
    // Cement is left a week before the piece is moved, photographed and packed.
    expect(waits(stepIn(steps, 'photograph'))).toEqual(['cement-pour/cement 168']);
    expect(waits(stepIn(steps, 'fit'))).toEqual(['photograph 0']);
  });

  const times = (n: number, hours: number) => Array.from({ length: n }, () => hours);
  test.each([
    ['silicone-addition', 5, [1, ...times(4, 1.5), 24, 24, 0]],
    ['silicone-condensation', 5, [1, ...times(4, 1.5), 24, 24, 0]],
    ['latex-mould', 8, [1, ...times(7, 3), 24, 24, 0]],
    ['plaster-mould', 1, [1, 1, 24, 0]],
  ] as const)(
    'a mould in %s: parting, %d coats, shell, opening, each after the one before has set',
    (process, many, after) => {
      const steps = stepsOf(jobFacts({ processes: [process] }));
      const coats = Array.from({ length: many }, (_, i) => (i === 0 ? 'coat' : `coat-${i + 1}`));
      const parts = ['part', ...coats, 'shell', 'open'].map((p) => `${process}/${p}`);
      parts.slice(1).forEach((id, i) => expect(waits(stepIn(steps, id))).toEqual([`${parts[i]!} ${after[i]!}`]));
      expect(waits(stepIn(steps, 'fit'))).toEqual([`${parts.at(-1)!} ${after.at(-1)!}`]);
      for (const id of parts) expect(stepIn(steps, id).needs).toEqual(['gloves', 'fresh air']);
    },
  );
});
