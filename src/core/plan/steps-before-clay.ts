import { clayKeptWarm } from './clocks';
import type { StepWait } from './step';
import { hour, puttingOn, waitFor, type StepList } from './step-list';
import { groundWaits, ovenMinutes, stepRates } from './step-rates';

/** Setting out, armature, core, grounds, props, warming: what is done before the clay goes on, and what that waits for. */
export function stepsBeforeClay(list: StepList): readonly StepWait[] {
  const { facts: f } = list;
  let last = waitFor(
    list.add(
      { id: 'set-out', name: 'Measure, draw it at full size, set out the armature', kind: 'setting-out' },
      f.area,
    ),
  );
  if (f.armatureHours > 0) {
    const made = list.add({
      id: 'armature',
      name: 'Cut, bend and join the armature, fix it to its base',
      kind: 'armature',
      hours: f.armatureHours,
      after: [last],
    });
    last = f.joinsSet === null ? waitFor(made) : waitFor(made, f.joinsSet, 'its glued joins have set');
  }
  if (f.bulkHours > 0.02) {
    const filling = { id: 'bulk', name: 'Fill out the core and wrap it', kind: 'bulk' as const, after: [last] };
    const wrapped = f.wrapped ? puttingOn(list, f.wrapped) : {};
    list.add({ ...filling, hours: stepRates.bulk.each + f.bulkHours, ...(wrapped.mixed ? wrapped : {}) }, f.area);
    last = overCore(list, 'bulk', f.wrap);
  }
  for (const layer of f.under) {
    list.add(
      {
        id: `ground/${layer.id}`,
        name: `Put on ${layer.name}`,
        kind: 'ground',
        after: [last],
        ...puttingOn(list, layer),
      },
      layer.area ?? f.area,
      0.6,
    );
    last = overCore(list, `ground/${layer.id}`, layer.id);
  }
  const ready = [last];
  if (f.props > 0)
    ready.push(
      waitFor(
        list.add({
          id: 'props',
          name: f.props === 1 ? 'Set the prop' : `Set the ${f.props} props`,
          kind: 'props',
          after: [last],
        }),
      ),
    );
  if (f.warming !== null)
    ready.push(
      waitFor(
        list.add({
          id: 'warm',
          name: 'Put the clay to warm, or let a timer switch do it',
          kind: 'heat',
          after: [waitFor('set-out')],
          needs: [],
          hours: 0.15,
          people: 0,
        }),
        f.warming,
        'the clay is warm',
        f.warming + clayKeptWarm,
      ),
    );
  return ready;
}

/** What is wound or laid over a core is baked, or left until it is dry, before anything goes over it. */
function overCore(list: StepList, on: string, layer: string): StepWait {
  const minutes = ovenMinutes[layer];
  if (minutes === undefined) {
    const dries = (groundWaits[layer] ?? 0) * hour;
    return waitFor(on, dries, dries > 0 ? 'what is under it is dry' : '');
  }
  const baked = list.add({
    id: 'bake-undercoat',
    name: 'Bake the undercoat',
    kind: 'heat',
    hours: minutes / 60 + 0.25,
    whole: true,
    tools: ['oven'],
    needs: ['oven', 'fresh air', 'gloves'],
    after: [waitFor(on)],
  });
  return waitFor(baked, hour, 'it is cool');
}
