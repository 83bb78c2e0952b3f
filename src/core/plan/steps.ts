import { fromTheBaseUp } from '../clay';
import type { Fineness, Need, StepKind } from '../document';
import { exactly, type Range } from '../quantity';
import { groundWaits, processSteps, refiningRates, stepRates } from './step-rates';

/** What the steps of a job are made from: the piece as it was measured and dried, without anything of how that was found. SI; seconds. */
export interface JobFacts {
  readonly setting: 'dries' | 'sets' | 'never' | 'damp' | 'bakes';
  readonly clayName: string;
  readonly area: number;
  /** Hours of the armature, and of bulk and wrap. */
  readonly armatureHours: number;
  readonly bulkHours: number;
  readonly fineness: Fineness;
  /** Hours to lay a kg of clay; smoothing and refining are steps of their own. */
  readonly hoursPerKg: number;
  readonly regions: readonly RegionFacts[];
  /** Layers under and over the clay, ids and names, in order. */
  readonly under: readonly { readonly id: string; readonly name: string }[];
  readonly over: readonly { readonly id: string; readonly name: string }[];
  readonly processes: readonly string[];
  readonly props: number;
  /** Seconds after the clay until the props may go; null where they stay. */
  readonly letGo: { readonly after: number; readonly why: string } | null;
  readonly lift: { readonly least: number; readonly most: number } | null;
  readonly split: { readonly from: number; readonly until: number } | null;
  readonly turns: readonly { readonly at: number; readonly lying: string }[];
  readonly uncover: readonly { readonly at: number; readonly what: string }[];
  /** Sections clad and dried by themselves, then joined. */
  readonly sections: number;
  /** Epoxy: seconds a batch works, and until it is hard. */
  readonly working: number | null;
  readonly cure: number | null;
  readonly batches: number;
  readonly mixing: number;
  /** Polymer: seconds in the oven at each bake, one a coat. */
  readonly bakes: readonly number[];
  /** Oil-based: seconds until it is warm. */
  readonly warming: number | null;
  /** Water-based: seconds it stays workable. */
  readonly workable: number | null;
  readonly heavy: boolean;
  /** Stands on a board or in a holder: no hand has to grip it. */
  readonly held: boolean;
}

export interface RegionFacts {
  readonly id: string;
  readonly name: string;
  readonly area: number;
  readonly bulkShare: number;
  /** Height of its middle, metres: laid from the base up. */
  readonly height: number;
  /** 0..1, how much the eye rests on it. */
  readonly seen: number;
  readonly crack: number;
  readonly coats: readonly CoatFacts[];
}

/** One coat as it goes on: seconds after it is laid. */
export interface CoatFacts {
  readonly stage: number;
  readonly mass: number;
  readonly thickness: number;
  readonly smoothUntil: Range | null;
  readonly hold: Range | null;
  readonly through: Range | null;
  /** When the next stage may go over it. */
  readonly next: Range | null;
}

export interface StepWait {
  readonly task: string;
  readonly least: Range;
  readonly most: Range | null;
  readonly why: string;
}

export interface Step {
  readonly id: string;
  readonly name: string;
  readonly kind: StepKind;
  readonly region: string | null;
  /** The region's name; empty where it is the whole piece. */
  readonly place: string;
  readonly hours: number;
  readonly whole: boolean;
  readonly people: number;
  /** kg of clay it lays. */
  readonly clay: number;
  readonly tools: readonly string[];
  readonly needs: readonly Need[];
  /** How much it is missed when it is left out, 0..1. */
  readonly missed: number;
  readonly after: readonly StepWait[];
  readonly wets: readonly { readonly zone: string; readonly after: Range }[];
  readonly holds: readonly string[] | null;
}

const hour = 3600;
const least = (hours: number) => exactly(hours * hour);

/** Every step this piece needs, each after what it waits for. Ids stay the same from one working out to the next. */
export function stepsOf(f: JobFacts): Step[] {
  const steps: Step[] = [];
  const clad = fromTheBaseUp(f.regions.filter((r) => r.coats.length > 0));
  const zones = clad.map((r) => r.id);
  const add = (s: Partial<Step> & Pick<Step, 'id' | 'name' | 'kind'>, area = 0, share = 1): string => {
    const rate = stepRates[s.kind];
    // Laying out and clearing away is less round a small piece.
    const about = Math.min(1, Math.max(0.3, Math.sqrt(f.area / 0.3)));
    const finer = s.kind === 'refining' || s.kind === 'detail' ? refiningRates[f.fineness] : 0;
    const place = f.regions.find((r) => r.id === s.region)?.name ?? '';
    steps.push({
      region: null,
      place,
      hours: Math.max(1 / 12, (rate.each * about + (rate.perArea + finer) * area) * share),
      whole: false,
      people: 1,
      clay: 0,
      tools: [],
      needs: rate.needs,
      missed: rate.missed,
      after: [],
      wets: [],
      holds: null,
      ...s,
    });
    return s.id;
  };
  /** Work on a region is done with a hand on another, where nothing else holds the piece. */
  const hands = (region: string): readonly string[] | null =>
    f.held || f.setting === 'damp' || f.setting === 'never' ? null : zones.filter((z) => z !== region);
  const wait = (task: string, seconds: Range | number = 0, why = '', most: Range | null = null): StepWait => ({
    task,
    least: typeof seconds === 'number' ? exactly(seconds) : seconds,
    most,
    why,
  });

  const start = add(
    { id: 'set-out', name: 'Measure, draw it at full size, set out the armature', kind: 'setting-out' },
    f.area,
  );
  let core =
    f.armatureHours > 0
      ? add({
          id: 'armature',
          name: 'Cut, bend and join the armature, fix it to its base',
          kind: 'armature',
          hours: f.armatureHours,
          after: [wait(start)],
        })
      : start;
  if (f.bulkHours > 0.02)
    core = add({
      id: 'bulk',
      name: 'Fill out the core and wrap it',
      kind: 'bulk',
      hours: stepRates.bulk.each + f.bulkHours,
      after: [wait(core)],
    });
  for (const layer of f.under)
    core = add(
      {
        id: `ground/${layer.id}`,
        name: `Put on ${layer.name}`,
        kind: 'ground',
        after: [wait(core, (groundWaits[beforeOf(f.under, layer.id)] ?? 0) * hour, 'what is under it is dry')],
      },
      f.area,
      0.6,
    );
  const ground = (groundWaits[f.under[f.under.length - 1]?.id ?? ''] ?? 0) * hour;
  const ready: StepWait[] = [wait(core, ground, 'the ground is dry')];
  if (f.props > 0)
    ready.push(
      wait(
        add({
          id: 'props',
          name: f.props === 1 ? 'Set the prop' : `Set the ${f.props} props`,
          kind: 'props',
          after: [wait(core)],
        }),
      ),
    );
  if (f.warming !== null)
    ready.push(
      wait(
        add({ id: 'warm', name: 'Put the clay to warm', kind: 'heat', after: [wait(start)], needs: [], hours: 0.15 }),
        f.warming,
        'the clay is warm',
      ),
    );
  const laid = layClay(f, clad, add, hands, wait, ready);
  const after = tend(f, clad, add, wait, laid);
  const done = refine(f, clad, add, hands, wait, laid, after);
  finishing(f, add, wait, done);
  return steps;
}

function beforeOf(layers: JobFacts['under'], id: string): string {
  const i = layers.findIndex((l) => l.id === id);
  return layers[i - 1]?.id ?? '';
}

type Add = (s: Partial<Step> & Pick<Step, 'id' | 'name' | 'kind'>, area?: number, share?: number) => string;
type WaitOf = (task: string, seconds?: Range | number, why?: string, most?: Range | null) => StepWait;
type Hands = (region: string) => readonly string[] | null;

/** Each region's last laying, and what there is to wait for after it. */
interface Laid {
  readonly last: ReadonlyMap<string, string>;
  readonly first: string | null;
}

function layClay(
  f: JobFacts,
  clad: readonly RegionFacts[],
  add: Add,
  hands: Hands,
  wait: WaitOf,
  ready: readonly StepWait[],
): Laid {
  const last = new Map<string, string>();
  let first: string | null = null;
  const stages = [...new Set(clad.flatMap((r) => r.coats.map((c) => c.stage)))].sort((a, b) => a - b);
  for (const stage of stages) {
    let below: string | null = null;
    for (const r of clad) {
      const k = r.coats.findIndex((c) => c.stage === stage);
      const coat = r.coats[k];
      if (!coat) continue;
      const earlier = last.get(r.id),
        before = r.coats[k - 1];
      const bake = f.setting === 'bakes' && k > 0 ? `bake/${k}` : null;
      const from = bake
        ? [wait(bake, hour, 'it is cool')]
        : earlier
          ? [wait(earlier, before?.next ?? before?.through ?? 0, `coat ${k} on the ${r.name} is ready for the next`)]
          : ready;
      const mixing =
        (f.setting === 'sets'
          ? f.mixing * Math.max(1, Math.round((f.batches * coat.mass) / Math.max(1e-9, massOf(clad))))
          : 0) / hour;
      const id = add({
        id: `lay/${r.id}/${k + 1}`,
        name: r.coats.length > 1 ? `Lay coat ${k + 1} on the ${r.name}` : `Lay the clay on the ${r.name}`,
        kind: 'clay',
        region: r.id,
        clay: coat.mass,
        hours: stepRates.clay.each + coat.mass * f.hoursPerKg + mixing,
        after: below ? [...from, wait(below)] : [...from],
        whole: true,
        wets: [{ zone: r.id, after: coat.hold ?? exactly(f.cure === null ? 0 : f.cure / 2) }],
        holds: hands(r.id),
        needs: f.setting === 'sets' ? ['gloves', 'fresh air'] : [],
      });
      below = id;
      first ??= id;
      if (k === r.coats.length - 1 && f.setting !== 'never' && f.setting !== 'bakes') {
        const window = coat.smoothUntil ?? (f.working === null ? null : exactly(f.working));
        add(
          {
            id: `smooth/${r.id}`,
            name: `Smooth the ${r.name}`,
            kind: 'smoothing',
            region: r.id,
            after: [
              wait(
                id,
                0,
                'it is still soft',
                f.setting === 'damp' ? (f.workable === null ? null : exactly(f.workable)) : window,
              ),
            ],
            holds: hands(r.id),
          },
          r.area,
        );
      }
      last.set(r.id, id);
    }
    if (f.setting === 'bakes') {
      const minutes = f.bakes[stage - 1] ?? f.bakes[f.bakes.length - 1] ?? 1800;
      add({
        id: `bake/${stage}`,
        name: stages.length > 1 ? `Bake it with coat ${stage} on` : 'Bake it',
        kind: 'heat',
        hours: minutes / hour + 0.25,
        whole: true,
        tools: ['oven'],
        needs: ['oven', 'fresh air', 'gloves'],
        after: [...last.values()].map((t) => wait(t)),
      });
    }
  }
  return { last, first };
}

function massOf(clad: readonly RegionFacts[]): number {
  return clad.reduce((sum, r) => sum + r.coats.reduce((s, c) => s + c.mass, 0), 0);
}

/** Covers off, turns, lifting, cutting open, joining, props away: what the drying asks a hand for. */
function tend(f: JobFacts, clad: readonly RegionFacts[], add: Add, wait: WaitOf, laid: Laid): StepWait[] {
  const all = [...laid.last.values()];
  const since = (seconds: number, why: string, most: number | null = null): StepWait[] =>
    all.map((t) => wait(t, seconds, why, most === null ? null : exactly(most)));
  const out: StepWait[] = [];
  f.uncover.forEach((u, i) =>
    out.push(
      wait(
        add({
          id: `uncover/${i + 1}`,
          name: `Take off ${u.what}`,
          kind: 'tending',
          after: laid.first ? [wait(laid.first, u.at, 'it stays covered so long')] : [],
        }),
      ),
    ),
  );
  f.turns.forEach((t, i) =>
    out.push(
      wait(
        add({
          id: `turn/${i + 1}`,
          name: `Turn it: ${t.lying}`,
          kind: 'tending',
          people: f.heavy ? 2 : 1,
          needs: f.heavy ? ['two people'] : [],
          after: laid.first ? [wait(laid.first, t.at, 'it is firm enough to turn')] : [],
        }),
      ),
    ),
  );
  if (f.lift)
    out.push(
      wait(
        add(
          {
            id: 'lift',
            name: 'Lift it off its form',
            kind: 'opening',
            whole: true,
            people: f.heavy ? 2 : 1,
            needs: f.heavy ? ['two people'] : [],
            after: liftWaits(clad, laid, f.lift, wait),
          },
          f.area,
        ),
      ),
    );
  if (f.split) {
    const cut = add(
      {
        id: 'cut-open',
        name: 'Cut it in two and take the core out',
        kind: 'opening',
        whole: true,
        after: since(f.split.from, 'it is firm enough to cut'),
      },
      f.area,
    );
    out.push(
      wait(
        add(
          {
            id: 'join-halves',
            name: 'Score, slip and join the halves',
            kind: 'opening',
            whole: true,
            after: [wait(cut, Math.max(0, f.split.until - f.split.from), 'the halves have dried apart')],
          },
          f.area,
        ),
      ),
    );
  }
  if (f.props > 0 && f.letGo !== null)
    out.push(
      wait(
        add({
          id: 'props-away',
          name: 'Take the props away',
          kind: 'tending',
          after: since(f.letGo.after, f.letGo.why),
        }),
      ),
    );
  if (f.sections > 1) {
    out.push(
      wait(
        add(
          {
            id: 'join-sections',
            name: `Join the ${f.sections} sections and fill the joints`,
            kind: 'opening',
            people: f.heavy ? 2 : 1,
            needs: f.heavy ? ['two people'] : [],
            after: clad.map((r) =>
              wait(
                laid.last.get(r.id) ?? '',
                r.coats[r.coats.length - 1]?.through ?? 0,
                `the clay on the ${r.name} is dry through`,
              ),
            ),
          },
          f.area,
        ),
      ),
    );
  }
  return out;
}

/** All of it has set; and that with the most face has not yet gone hard. */
function liftWaits(
  clad: readonly RegionFacts[],
  laid: Laid,
  lift: { readonly least: number; readonly most: number },
  wait: WaitOf,
): StepWait[] {
  const widest = clad.reduce<RegionFacts | null>((w, r) => (!w || r.area > w.area ? r : w), null);
  return clad.map((r) =>
    wait(
      laid.last.get(r.id) ?? '',
      r === widest ? lift.least : Math.min(lift.least, r.coats[0]?.hold?.low ?? lift.least),
      'its skin has set',
      r === widest ? exactly(lift.most) : null,
    ),
  );
}

/** What is done to the hard (or never hard) clay, region by region. */
function refine(
  f: JobFacts,
  clad: readonly RegionFacts[],
  add: Add,
  hands: Hands,
  wait: WaitOf,
  laid: Laid,
  tended: readonly StepWait[],
): StepWait[] {
  const out: StepWait[] = [...tended];
  const bake =
    f.setting === 'bakes' ? `bake/${Math.max(1, ...clad.flatMap((r) => r.coats.map((c) => c.stage)))}` : null;
  for (const r of clad) {
    const laying = laid.last.get(r.id) ?? '';
    const hard =
      f.setting === 'dries'
        ? (r.coats[r.coats.length - 1]?.through ?? exactly(0))
        : exactly(f.setting === 'sets' ? (f.cure ?? 0) : 0);
    const why =
      f.setting === 'dries' ? `the clay on the ${r.name} is dry through` : f.setting === 'sets' ? 'it has cured' : '';
    const joins = tended.filter((t) => ['lift', 'join-halves', 'join-sections'].includes(t.task));
    const from = [bake ? wait(bake, hour, 'it is cool') : wait(laying, hard, why), ...joins];
    const soft = f.setting === 'damp' || f.setting === 'never';
    const limit = f.setting === 'damp' && f.workable !== null ? exactly(f.workable) : null;
    let last = add(
      {
        id: `refine/${r.id}`,
        name: soft ? `Model the ${r.name}` : `Carve and refine the ${r.name}`,
        kind: 'refining',
        region: r.id,
        after: soft ? [wait(laying, 0, 'it is kept damp', limit), ...joins] : from,
        holds: hands(r.id),
      },
      r.area,
    );
    if (f.setting === 'dries' && r.crack >= 0.6)
      last = add(
        {
          id: `mend/${r.id}`,
          name: `Mend cracks in the ${r.name}`,
          kind: 'mending',
          region: r.id,
          after: [wait(last)],
          holds: hands(r.id),
        },
        r.area,
        Math.min(3, r.crack),
      );
    const mended = f.setting === 'dries' && r.crack >= 0.6 ? 24 * hour : 0;
    const detail = add(
      {
        id: `detail/${r.id}`,
        name: `Fine detail and texture on the ${r.name}`,
        kind: 'detail',
        region: r.id,
        missed: 0.15 + 0.35 * r.seen,
        after: [wait(last, mended, mended > 0 ? 'the mends are dry' : '')],
        holds: hands(r.id),
      },
      r.area * r.seen,
    );
    out.push(wait(detail));
    if (!soft)
      out.push(
        wait(
          add(
            {
              id: `sand/${r.id}`,
              name: `Sand the ${r.name}`,
              kind: 'sanding',
              region: r.id,
              missed: 0.05 + 0.3 * r.seen,
              after: [wait(detail)],
              holds: hands(r.id),
            },
            r.area,
          ),
        ),
      );
  }
  return out;
}

function finishing(f: JobFacts, add: Add, wait: WaitOf, done: readonly StepWait[]): void {
  let from: readonly StepWait[] = done;
  for (const layer of f.over) {
    const id = add({ id: `seal/${layer.id}`, name: `Put on ${layer.name}`, kind: 'sealing', after: from }, f.area);
    from = [wait(id, (groundWaits[layer.id] ?? 6) * hour, `the ${layer.name} is dry`)];
  }
  for (const process of f.processes) {
    if (process === 'bake' && f.setting === 'bakes') continue;
    for (const s of processSteps[process] ?? []) {
      const id = add({ id: `${process}/${s.id}`, name: s.name, kind: s.kind, after: from }, f.area, s.share);
      from = [wait(id, least(s.wait), s.wait > 0 ? 'what was put on is hard' : '')];
    }
  }
  add({
    id: 'fit',
    name: 'Fit it, pack it, set it up',
    kind: 'fitting',
    people: f.heavy ? 2 : 1,
    needs: f.heavy ? ['two people'] : [],
    after: from,
  });
}
