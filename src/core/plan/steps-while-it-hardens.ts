import type { StepWait } from './step';
import { hour, layingId, waitFor, whenHard, type StepList } from './step-list';

/** What drying and setting ask a hand for: covers off, turning, lifting, cutting open, joining, props away. */
export function stepsWhileItHardens(list: StepList): readonly StepWait[] {
  const { facts: f, clad, firstLaid } = list;
  const all = [...list.lastLaid().values()];
  const since = (seconds: number, why: string): StepWait[] => all.map((t) => waitFor(t, seconds, why));
  const out: StepWait[] = [];
  const add = (id: string) => out.push(waitFor(id));
  if (f.setting === 'damp' && firstLaid)
    add(
      list.add({
        id: 'keep-damp',
        name: 'Wet cloth and a closed bag over it, now and at the end of every sitting',
        kind: 'tending',
        after: [waitFor(firstLaid, 0, 'it has dried in the open', f.workable)],
      }),
    );
  f.uncover.forEach((u, i) =>
    add(
      list.add({
        id: `uncover/${i + 1}`,
        name: `Take off ${u.what}`,
        kind: 'tending',
        after: firstLaid ? [waitFor(firstLaid, u.at, 'it has been covered so long', u.at + timely)] : [],
      }),
    ),
  );
  f.turns.forEach((t, i) =>
    add(
      list.addLifting({
        id: `turn/${i + 1}`,
        name: `Turn it: ${t.lying}`,
        kind: 'tending',
        after: firstLaid ? [waitFor(firstLaid, t.at, 'it is firm enough to turn')] : [],
      }),
    ),
  );
  if (f.lift)
    add(
      list.addLifting(
        { id: 'lift', name: 'Lift it off its form', kind: 'opening', whole: true, after: liftWaits(list, f.lift) },
        f.area,
      ),
    );
  if (f.split) {
    const cut = list.add(
      {
        id: 'cut-open',
        name: 'Cut it in two and take the core out',
        kind: 'opening',
        whole: true,
        after: since(f.split.from, 'it is firm enough to cut'),
      },
      f.area,
    );
    add(
      list.add(
        {
          id: 'join-halves',
          name: 'Score, slip and join the halves',
          kind: 'opening',
          whole: true,
          after: [waitFor(cut, Math.max(0, f.split.until - f.split.from), 'the halves have dried apart')],
        },
        f.area,
      ),
    );
  }
  if (f.props > 0 && f.letGo !== null)
    add(
      list.add({
        id: 'props-away',
        name: 'Take the props away',
        kind: 'tending',
        after:
          f.letGo.when === 'after'
            ? since(f.letGo.after, f.letGo.why)
            : clad.map((r) => ({ ...whenHard(list, r), why: f.letGo?.why ?? '' })),
      }),
    );
  if (f.sections > 1)
    add(
      list.addLifting(
        {
          id: 'join-sections',
          name: `Join the ${f.sections} sections and fill the joints`,
          kind: 'opening',
          after: clad.map((r) => whenHard(list, r)),
        },
        f.area,
      ),
    );
  return out;
}

/** A cover comes off on the day the drying says. */
const timely = 12 * hour;

/** All of it has set; and that with the most face has not yet gone hard. */
function liftWaits({ clad }: StepList, lift: { readonly least: number; readonly most: number }): StepWait[] {
  const widest = clad.reduce<(typeof clad)[number] | null>((w, r) => (!w || r.area > w.area ? r : w), null);
  return clad.map((r) =>
    waitFor(
      layingId(r, r.coats.length),
      r === widest ? lift.least : Math.min(lift.least, r.coats[0]?.hold?.low ?? lift.least),
      'its skin has set',
      r === widest ? lift.most : null,
    ),
  );
}
