import type { RegionFacts, StepWait } from './step';
import { dampInABag } from './clocks';
import { cooled, hour, layingId, waitFor, whenHard, type StepList } from './step-list';
import { bake } from './steps-of-laying';
import { processSteps, smoothsTheFace } from './step-rates';
import { passesOf } from './surface-passes';

/** Joining comes before the face: what is cut or fitted together is worked over as one. */
const joins = ['lift', 'join-halves', 'join-sections'];

/** From rough to fine, region by region: whatever dulls fine marks comes before they are cut. */
export function stepsOnTheFace(list: StepList, tended: readonly StepWait[]): readonly StepWait[] {
  const joined = tended.filter((t) => joins.includes(t.task));
  const { setting } = list.facts;
  const worked =
    setting === 'dries' || setting === 'sets'
      ? hardFace(list, joined)
      : setting === 'bakes'
        ? bakedFace(list, joined)
        : softFace(list, joined);
  return [...tended, ...worked];
}

/** Carved, mended, sanded, then marked: clay that has dried or set. */
function hardFace(list: StepList, joined: readonly StepWait[]): StepWait[] {
  const carved = list.clad.map((r) => {
    const carve = work(list, r, 'refine', `Carve and refine the ${r.name}`, 'refining', [whenHard(list, r), ...joined]);
    return sanded(list, r, mended(list, r, waitFor(carve)));
  });
  return marked(list, carved);
}

/** Modelled, smoothed with brush and water or with a solvent, then marked: clay that stays soft. */
function softFace(list: StepList, joined: readonly StepWait[]): StepWait[] {
  const { setting, workable } = list.facts;
  const limit = setting === 'damp' ? Math.max(workable ?? 0, dampInABag) : null;
  return marked(list, modelled(list, joined, setting === 'damp' ? 'it is kept damp' : '', limit));
}

/** Modelled, smoothed and marked raw, then baked: oven clay. What is sanded once it is baked would lose its marks. */
function bakedFace(list: StepList, joined: readonly StepWait[]): StepWait[] {
  const marks = marked(list, modelled(list, joined));
  const last = Math.max(1, ...list.clad.flatMap((r) => r.coats.map((c) => c.stage)));
  bake(list, last, last > 1, [...list.lastLaid().values(), ...marks.map((w) => w.task)]);
  return [cooled(list)];
}

/** All of it is blocked in before any of it is modelled: what stands beside a part decides what it becomes. */
function modelled(list: StepList, joined: readonly StepWait[], why = '', limit: number | null = null): StepWait[] {
  const { clad } = list;
  return clad.map((r) => {
    const laid = clad.map((o) => waitFor(layingId(o, o.coats.length), 0, o === r ? why : '', o === r ? limit : null));
    const model = work(list, r, 'refine', `Model the ${r.name}`, 'refining', [...laid, ...joined]);
    return waitFor(
      list.add(
        {
          id: `smooth/${r.id}`,
          name: `Smooth the ${r.name}`,
          kind: 'smoothing',
          region: r.id,
          passes: passesOf(list.facts.setting, 'smoothing'),
          after: [waitFor(model)],
          holds: list.hands(r.id),
        },
        r.area,
      ),
    );
  });
}

function work(
  list: StepList,
  r: RegionFacts,
  id: string,
  name: string,
  kind: 'refining' | 'mending',
  after: readonly StepWait[],
  share = 1,
): string {
  const passes = kind === 'refining' ? { passes: passesOf(list.facts.setting, kind) } : {};
  return list.add(
    { id: `${id}/${r.id}`, name, kind, region: r.id, ...passes, after, holds: list.hands(r.id) },
    r.area,
    share,
  );
}

/** From this crack index on there is something to mend. */
const cracks = 0.6;

function mended(list: StepList, r: RegionFacts, carved: StepWait): StepWait {
  if (list.facts.setting !== 'dries' || r.crack < cracks) return carved;
  const mend = work(list, r, 'mend', `Mend cracks in the ${r.name}`, 'mending', [carved], Math.min(3, r.crack));
  return waitFor(mend, 24 * hour, 'the mends are dry');
}

function sanded(list: StepList, r: RegionFacts, from: StepWait): StepWait {
  return waitFor(
    list.add(
      {
        id: `sand/${r.id}`,
        name: `Sand the ${r.name}`,
        kind: 'sanding',
        region: r.id,
        passes: passesOf(list.facts.setting, 'sanding'),
        missed: 0.05 + 0.3 * r.seen,
        after: [from],
        holds: list.hands(r.id),
      },
      r.area,
    ),
  );
}

/** Shavings of the same clay, softened overnight in solvent, fill what the brush leaves. */
function softenedPaste(list: StepList): StepWait {
  const id = list.add({
    id: 'solvent/paste',
    name: 'Shave clay into a closed jar of solvent for the paste',
    kind: 'tending',
    hours: 0.25,
    needs: ['fresh air', 'respirator', 'gloves'],
    material: { name: 'clay, shaved, just covered with solvent', mass: Math.max(0.05, pastePerArea * list.facts.area) },
    after: [...list.lastLaid().values()].map((laid) => waitFor(laid)),
  });
  return waitFor(id, 12 * hour, 'the paste is soft', dampInABag);
}
/** kg to a m2 of face. */
const pastePerArea = 0.15;

/** Solvent or hot air over all of it, where it goes through that, and the fine marks last. */
function marked(list: StepList, from: readonly StepWait[]): StepWait[] {
  let over: readonly StepWait[] | null = null;
  const { setting, processes } = list.facts;
  for (const process of processes.filter((p) => smoothsTheFace(p, setting)))
    for (const s of processSteps[process] ?? []) {
      const paste = process === 'solvent' && setting === 'never' ? [softenedPaste(list)] : [];
      const id = list.add(
        {
          id: `${process}/${s.id}`,
          name: s.name,
          kind: s.kind,
          after: [...(over ?? from), ...paste],
          needs: s.needs ?? [],
        },
        list.facts.area,
        s.share,
      );
      over = [waitFor(id, s.wait * hour, s.until ?? '')];
    }
  return list.clad.map((r, i) =>
    waitFor(
      list.add(
        {
          id: `detail/${r.id}`,
          name: `Fine detail and texture on the ${r.name}`,
          kind: 'detail',
          region: r.id,
          passes: passesOf(list.facts.setting, 'detail'),
          missed: 0.15 + 0.35 * r.seen,
          after: over ?? [from[i]!],
          holds: list.hands(r.id),
        },
        r.area * r.seen,
      ),
    ),
  );
}
