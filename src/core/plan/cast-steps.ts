import { castKinds, type CastKind } from '../mould';
import type { CastFacts, StepWait } from './step';
import { hour, mixedIn, waitFor, type StepList } from './step-list';

/** Casts one after another in a mould that has been opened: each laid in, left, taken out. */
export const castStepPrefix = 'cast/';

export function stepsOfCasting(
  list: StepList,
  { cast: id, count, each, mouldDries, setIn = [] }: CastFacts,
  opened: string,
): void {
  const cast: CastKind = castKinds.find((c) => c.id === id)!;
  const { facts } = list;
  const area = facts.mould?.area ?? facts.area;
  let from: StepWait[] = cast.wantsDryMould
    ? [waitFor(opened, mouldDries ?? never, 'the mould is dry')]
    : [waitFor(opened, 0, '')];
  for (let k = 1; k <= count; k++) {
    const named = (name: string) =>
      count > 1 ? `Cast ${k} of ${count}: ${name[0]!.toLowerCase()}${name.slice(1)}` : name;
    for (const s of cast.steps) {
      const used = s.lays === undefined ? undefined : each[s.lays === 'backing' ? cast.made.length : s.lays];
      const step = list.add(
        {
          id: `${castStepPrefix}${k}/${s.id}`,
          name: named(s.name),
          kind: 'moulding',
          after: from,
          ...(s.needs ? { needs: s.needs } : {}),
          ...(s.lays === undefined ? {} : { whole: true }),
          ...(used ? { material: used } : {}),
          ...mixedIn(s.mix, facts.celsius),
        },
        area,
        s.share,
      );
      from = [waitFor(step, s.wait * hour, s.until)];
    }
    if (setIn.length > 0) {
      const step = list.add({
        id: `${castStepPrefix}${k}/set-in`,
        name: named(`Set in, and glue: ${setIn.join(', ')}`),
        kind: 'moulding',
        after: from,
        hours: hoursToSetIn * setIn.length,
        needs: ['gloves'],
      });
      from = [waitFor(step, 0, '')];
    }
  }
}

/** Hours to try one in, glue it and wipe round it. */
const hoursToSetIn = 0.25;

/** A room so damp that plaster does not dry in it: a heater stands in for that. */
const never = 30 * 24 * hour;
