import { exactly, type Range } from '../quantity';
import type { CoatFacts, RegionFacts, StepWait } from './step';
import { hour, layingId, waitFor, type StepList } from './step-list';
import { stepRates } from './step-rates';

/** Each coat laid from the base up, smoothed while it gives, and baked where it is baked. */
export function stepsOfLaying(list: StepList, ready: readonly StepWait[]): void {
  const { facts: f, clad } = list;
  // What is kept soft is never gripped, and no hour ends that.
  const staysSoft = f.setting === 'damp' || f.setting === 'never';
  const stages = [...new Set(clad.flatMap((r) => r.coats.map((c) => c.stage)))].sort((a, b) => a - b);
  for (const stage of stages) {
    let below: string | null = null;
    let fresh = mixedClay(list, stage);
    for (const r of clad) {
      const k = r.coats.findIndex((c) => c.stage === stage);
      const coat = r.coats[k];
      if (!coat) continue;
      // What was made ready in time is ready for the first of it; what comes after goes on from there.
      const first = list.firstLaid === null ? ready : ready.map((w) => ({ ...w, most: null }));
      const from = k === 0 ? first : [overCoat(list, r, k)];
      const batches = f.batch ? Math.max(1, Math.ceil(coat.mass / f.batch.mass - 1e-9)) : 1;
      const last = k === r.coats.length - 1;
      // Of several batches each is smoothed before it goes off, and the next is not mixed before.
      const smoothedMeanwhile = last && batches > 1 ? 1 - 1 / batches : 0;
      const what = r.coats.length > 1 ? `coat ${k + 1}` : 'the clay';
      const laying = {
        id: layingId(r, k + 1),
        name: `Lay ${what} on the ${r.name}${batches > 1 ? ` in ${batches} batches${last ? ', each smoothed in its time' : ''}` : ''}`,
        kind: 'clay' as const,
        region: r.id,
        clay: coat.mass,
        ...(f.warming !== null ? { warmed: f.warming } : {}),
        ...(f.batch && f.soft !== null
          ? { mixed: { id: 'two-part-clay' as const, each: f.batch.mass, works: f.soft } }
          : {}),
        hours:
          stepRates.clay.each +
          coat.mass * f.hoursPerKg +
          (f.batch ? ((coat.mass / f.batch.mass) * f.batch.kneading) / hour : 0) +
          smoothedMeanwhile * list.hoursFor('smoothing', r.area),
        after: [...from, ...(below ? [waitFor(below)] : []), ...fresh],
        // What dries is laid wet against wet; what does not waits for another evening where it is.
        whole: f.setting === 'dries',
        wets: staysSoft ? [] : [{ zone: r.id, after: coat.hold ?? exactly(f.cure === null ? 0 : f.cure / 2) }],
        holds: list.hands(r.id),
        needs: f.setting === 'sets' ? ['gloves', 'fresh air'] : [],
      } satisfies Parameters<StepList['add']>[0];
      const id = list.add(laying, r.area);
      below = id;
      fresh = [];
      // What is kept soft is smoothed once it is modelled; what is baked, raw, on the last coat.
      if (last && (f.setting === 'dries' || f.setting === 'sets'))
        list.add(
          {
            id: `smooth/${r.id}`,
            name: `Smooth the ${r.name}`,
            kind: 'smoothing',
            region: r.id,
            after: [waitFor(id, 0, 'it is still soft', softUntil(list, coat))],
            holds: list.hands(r.id),
          },
          r.area,
          1 - smoothedMeanwhile,
        );
    }
    // The last bake waits for what is modelled in the raw clay.
    if (f.setting === 'bakes' && stage !== stages[stages.length - 1])
      bake(
        list,
        stage,
        true,
        clad.filter((r) => r.coats.some((c) => c.stage <= stage)).map((r) => upTo(r, stage)),
      );
  }
}

/** Clay that is mixed in the workshop, for each time round: it rests before it is used, and does not keep for the next. */
function mixedClay(list: StepList, stage: number): StepWait[] {
  const { ownMix, clayName } = list.facts;
  if (!ownMix) return [];
  const laid = list.clad.reduce((sum, r) => sum + (r.coats.find((c) => c.stage === stage)?.mass ?? 0), 0),
    mass = laid * ownMix.mixed;
  const lots = Math.max(1, Math.ceil(mass / ownMix.each - 1e-9));
  const id = list.add({
    id: `mix/${stage}`,
    name: `Mix the ${clayName}${lots > 1 ? ` in ${lots} lots` : ''}, and let it rest`,
    kind: 'tending',
    missed: 1,
    hours: 0.2 + mixingHours * mass,
    material: { name: clayName, mass },
    needs: ['gloves'],
    after: [waitFor('set-out')],
  });
  return [waitFor(id, ownMix.rests, 'the clay that was mixed has rested', ownMix.rests + ownMix.keeps)];
}
/** Hours to weigh, stir and knead a kg. */
const mixingHours = 0.1;

/** The laying that was the last on a region by a stage. */
function upTo(r: RegionFacts, stage: number): string {
  return layingId(r, r.coats.filter((c) => c.stage <= stage).length);
}

export function bake(list: StepList, stage: number, several: boolean, after: readonly string[]): void {
  const { bakes } = list.facts;
  const seconds = bakes[stage - 1] ?? bakes[bakes.length - 1] ?? 1800;
  list.add({
    id: `bake/${stage}`,
    name: several ? `Bake it with coat ${stage} on` : 'Bake it',
    kind: 'heat',
    hours: seconds / hour + 0.25,
    whole: true,
    tools: ['oven'],
    needs: ['oven', 'fresh air', 'gloves'],
    after: after.map((t) => waitFor(t)),
  });
}

/** When a coat may go over the one before. */
function overCoat(list: StepList, r: RegionFacts, k: number): StepWait {
  const before = r.coats[k - 1]!;
  if (list.facts.setting === 'bakes') return waitFor(`bake/${before.stage}`, hour, 'it is cool');
  const { next, through } = before;
  return waitFor(layingId(r, k), next ?? through ?? 0, `coat ${k} on the ${r.name} is ready for the next`);
}

function softUntil({ facts: f }: StepList, coat: CoatFacts): Range | null {
  return coat.smoothUntil ?? (f.soft === null ? null : exactly(f.soft));
}
