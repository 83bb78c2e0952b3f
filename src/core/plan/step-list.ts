import { fromTheBaseUp } from '../clay';
import { batchingOf, mixOfLayer, type MixId } from '../cure';
import type { StepKind } from '../document';
import { exactly, type Range } from '../quantity';
import type { JobFacts, LayerFacts, RegionFacts, Step, StepWait } from './step';
import { refiningRates, stepRates } from './step-rates';

export const hour = 3600;

/** From the end of a task, at least so long, and at most where that is given; seconds. */
export function waitFor(
  task: string,
  seconds: Range | number = 0,
  why = '',
  most: Range | number | null = null,
): StepWait {
  const range = (t: Range | number) => (typeof t === 'number' ? exactly(t) : t);
  return { task, least: range(seconds), most: most === null ? null : range(most), why };
}

/** The steps of a job as they are put down, one after another. */
export class StepList {
  readonly steps: Step[] = [];
  /** Regions that are clad, from the base up; one that is left bare to hold it by comes last. */
  readonly clad: readonly RegionFacts[];

  constructor(readonly facts: JobFacts) {
    const clad = fromTheBaseUp(facts.regions.filter((r) => r.coats.length > 0));
    const last = facts.held ? undefined : clad.find((r) => r.id === facts.bareFirst);
    this.clad = last ? [...clad.filter((r) => r !== last), last] : clad;
  }

  /** Puts a step down and gives its id; hours follow from its kind, the area worked and the share of that, unless they are given. */
  add(s: Partial<Step> & Pick<Step, 'id' | 'name' | 'kind'>, area = 0, share = 1): string {
    const { regions } = this.facts;
    const rate = stepRates[s.kind];
    this.steps.push({
      region: null,
      place: regions.find((r) => r.id === s.region)?.name ?? '',
      hours: Math.max(1 / 12, this.hoursFor(s.kind, area) * share),
      whole: false,
      people: 1,
      ...(area >= twoStandAt && sharedKinds.has(s.kind) ? { shared: true } : {}),
      clay: 0,
      tools: [],
      needs: rate.needs,
      missed: rate.missed,
      after: [],
      wets: [],
      holds: null,
      ...(s.holds && this.facts.lies ? { lies: true } : {}),
      ...s,
    });
    return s.id;
  }

  /** Hours of a kind of work over so many m2. */
  hoursFor(kind: StepKind, area: number): number {
    const { area: whole, fineness } = this.facts;
    const rate = stepRates[kind];
    // Laying out and clearing away is less round a small piece.
    const about = Math.min(1, Math.max(0.3, Math.sqrt(whole / 0.3)));
    const finer = kind === 'refining' || kind === 'detail' ? refiningRates[fineness] : 0;
    return rate.each * about + (rate.perArea + finer) * area;
  }

  /** By two where it is heavy. */
  addLifting(s: Partial<Step> & Pick<Step, 'id' | 'name' | 'kind'>, area = 0): string {
    return this.add(this.facts.heavy ? { people: 2, needs: ['two people'], ...s } : { needs: [], ...s }, area);
  }

  /** Work on a region is done with a hand on another, or with the piece lying on it, where nothing else holds it. */
  hands(region: string): readonly string[] | null {
    const { held, setting, lies } = this.facts;
    if (held || setting === 'damp' || setting === 'never') return null;
    const others = this.clad.filter((r) => r.id !== region);
    const whole = this.clad.reduce((sum, r) => sum + r.area, 0);
    const broad = others.filter((r) => r.area >= (lies ? bearsIt : givesHold) * whole);
    // Where all there is beside it is small, the hand takes what there is.
    return (lies || broad.length > 0 ? broad : others).map((r) => r.id);
  }

  /** Every region's last laying. */
  lastLaid(): ReadonlyMap<string, string> {
    return new Map(this.clad.map((r) => [r.id, layingId(r, r.coats.length)]));
  }

  get firstLaid(): string | null {
    return this.steps.find((s) => s.kind === 'clay')?.id ?? null;
  }
}

export const layingId = (r: RegionFacts, coat: number): string => `lay/${r.id}/${coat}`;

/** The last bake there is, and an hour until the piece is cool. */
export function cooled(list: StepList): StepWait {
  const stages = list.clad.flatMap((r) => r.coats.map((c) => c.stage));
  return waitFor(`bake/${Math.max(1, ...stages)}`, hour, 'it is cool');
}

/** When the clay of a region is hard: dry through, set, or baked and cool; at once where it never gets hard. */
export function whenHard(list: StepList, r: RegionFacts): StepWait {
  const { setting, cure } = list.facts;
  const laid = layingId(r, r.coats.length);
  if (setting === 'bakes') return cooled(list);
  if (setting === 'dries')
    return waitFor(laid, r.coats[r.coats.length - 1]?.through ?? 0, `the clay on the ${r.name} is dry through`);
  if (setting === 'sets') return waitFor(laid, cure ?? 0, `the clay on the ${r.name} has set`);
  return waitFor(laid);
}

/** A piece lies on a place that has at least this share of its face; a hand holds it by no less than this, not by an ear. */
const bearsIt = 0.15,
  givesHold = 0.06;

/** m2 at which two do not stand in each other's way, and the work they can share there. */
const twoStandAt = 0.2;
const sharedKinds: ReadonlySet<StepKind> = new Set(['bulk', 'ground', 'clay', 'refining', 'sanding', 'detail']);

/** What a layer puts on, and the batches it is mixed in, where it goes off. */
export function puttingOn(list: StepList, { id, name, mass }: LayerFacts): Pick<Step, 'material' | 'mixed'> {
  return mass !== undefined && mass > 0
    ? { material: { name, mass }, ...mixedIn(mixOfLayer[id], list.facts.celsius) }
    : {};
}

export function mixedIn(id: MixId | undefined, celsius: number): Pick<Step, 'mixed'> {
  if (id === undefined) return {};
  const { each, rate, ready, works } = batchingOf(id, celsius);
  return { mixed: { id, each, works: Math.max(0, works(each) - ready(each) - (each / rate) * 60) } };
}
