import type { StepWait } from './step';
import { hour, layingId, mixedIn, puttingOn, waitFor, type StepList } from './step-list';
import { mouldProcesses, usualKind } from '../mould';
import { stepsOfCasting } from './cast-steps';
import { mouldSteps, type ProcessStep } from './mould-steps';
import { groundWaits, processSteps, smoothsTheFace } from './step-rates';

/** Skins and seals, paint, the picture of it, the mould, and the end: set up and packed, or taken apart and reclaimed. */
export function stepsOfFinishing(list: StepList, worked: readonly StepWait[]): void {
  const { facts: f } = list;
  let from = [...worked, ...atRest(list)];
  for (const layer of f.over) {
    const id = list.add(
      { id: `seal/${layer.id}`, name: `Put on ${layer.name}`, kind: 'sealing', after: from, ...puttingOn(list, layer) },
      layer.area ?? f.area,
    );
    from = [waitFor(id, (groundWaits[layer.id] ?? 6) * hour, `the ${layer.name} is dry`)];
  }
  const through = (processes: readonly string[], area = f.area) => {
    for (const process of processes)
      for (const s of processSteps[process] ?? mouldStepsOf(process, f.mould)) {
        const id = list.add(
          {
            id: `${process}/${s.id}`,
            name: s.name,
            kind: s.kind,
            after: from,
            ...(s.needs ? { needs: s.needs } : {}),
            ...(s.whole ? { whole: true } : {}),
            ...(s.takes
              ? {
                  material: {
                    name: s.takes.what,
                    mass: s.takes.perArea * area + (s.takes.ofBlock ?? 0) * (f.mould?.block ?? 0),
                  },
                }
              : {}),
            ...mixedIn(s.takes?.mix, f.celsius),
          },
          area,
          s.share,
        );
        from = [waitFor(id, s.wait * hour, s.until ?? '')];
      }
  };
  const moulds = f.processes.filter((p) => mouldProcesses.includes(p));
  through(f.processes.filter((p) => !mouldProcesses.includes(p) && !smoothsTheFace(p, f.setting)));
  // A mould may be the end of what it is taken from: its picture comes before.
  from = [
    waitFor(
      list.add({ id: 'photograph', name: 'Photograph it from all sides', kind: 'closing', hours: 0.4, after: from }),
    ),
  ];
  through(moulds, f.mould?.area);
  const opened = from[from.length - 1]?.task;
  if (f.mould?.casts && opened !== undefined) stepsOfCasting(list, f.mould.casts, opened);
  const staysSoft = f.setting === 'never' || f.setting === 'damp';
  if (moulds.length > 0 && staysSoft) takeApart(list, from);
  else
    list.addLifting({
      id: 'fit',
      name: moulds.length > 0 ? 'Clean the master and put it by' : 'Fit it, pack it, set it up',
      kind: 'fitting',
      after: from,
    });
}

function mouldStepsOf(process: string, mould: StepList['facts']['mould']): ProcessStep[] {
  if (mould) return mouldSteps(mould);
  const kind = usualKind(process);
  return kind ? mouldSteps({ kind }) : [];
}

/** What is sealed, resined or moulded is at rest through all its depth; what is only painted is dry through, and so is what is worked. */
function atRest({ facts: f, clad }: StepList): StepWait[] {
  const steady =
    f.over.length > 0 ||
    f.processes.some((p) =>
      (processSteps[p] ?? []).some((s) => s.kind !== 'painting' && s.kind !== 'smoothing' && s.kind !== 'heat'),
    );
  if (f.setting !== 'dries' || !steady) return [];
  return clad.map((r) =>
    waitFor(
      layingId(r, r.coats.length),
      r.coats[r.coats.length - 1]?.steady ?? 0,
      `the clay on the ${r.name} is at rest`,
    ),
  );
}

/** Soft clay is used again, and so is what it stood on. */
function takeApart(list: StepList, from: readonly StepWait[]): void {
  const { facts: f, clad } = list;
  const mass = clad.reduce((sum, r) => sum + r.coats.reduce((s, c) => s + c.mass, 0), 0);
  const apart = list.addLifting({
    id: 'take-apart',
    name: 'Take the clay off, clean the armature and put it back on the shelf',
    kind: 'closing',
    hours: 0.5 + mass / 20,
    after: from,
  });
  list.add({
    id: 'reclaim',
    name:
      f.setting === 'damp'
        ? 'Break the clay up, wet it for a day, wedge it, and bag it'
        : 'Pick the clay clean, melt or press it back into blocks',
    kind: 'closing',
    hours: 0.25 + mass / 15,
    returns: mass,
    after: [waitFor(apart)],
  });
}
