import { applyEdit, newBust, type Build } from '../document';
import { castKinds, mouldChosen, mouldKinds, mouldProcesses, peelsOut, takeMould, takeNoMould, usualKind } from '.';

const bust = () => newBust('Test', '2026-12-01');
const after = (build: Build, edit: Parameters<typeof applyEdit>[1]): Build => {
  const next = applyEdit(build, edit);
  if (!next.ok) throw new Error(next.message);
  return next.value;
};

test('no mould until the finish has one; then the usual kind of its material, and the first cast in it', () => {
  expect(mouldChosen(bust())).toBeNull();
  const plain = after(bust(), {
    label: 'x',
    changes: [{ path: ['finish', 'processes'], value: [{ kind: 'latex-mould' }] }],
  });
  expect(mouldChosen(plain)).toEqual({
    kind: 'latex-skin',
    cast: 'plaster-solid',
    process: 'latex-mould',
    walls: { skin: 0.0025, shell: 0.0025, margin: null },
  });
});

test('every kind can be taken, is the one mould of the finish then, and can be left again', () => {
  let build = after(bust(), {
    label: 'x',
    changes: [{ path: ['finish', 'processes'], value: [{ kind: 'spray-paint' }, { kind: 'plaster-mould' }] }],
  });
  for (const kind of mouldKinds) {
    build = after(build, takeMould(build, kind.id));
    expect(mouldChosen(build)).toMatchObject({ kind: kind.id });
    const moulds = build.finish.processes.filter((p) => mouldProcesses.includes(p.kind));
    expect(moulds).toHaveLength(1);
    expect(kind.processes).toContain(moulds[0]!.kind);
    expect(build.finish.processes[0]!.kind).toBe('spray-paint');
  }
  expect(mouldChosen(after(build, takeNoMould(build)))).toBeNull();
});

test('a silicone that was chosen stays the one it is', () => {
  const build = after(bust(), {
    label: 'x',
    changes: [{ path: ['finish', 'processes'], value: [{ kind: 'silicone-addition' }] }],
  });
  expect(mouldChosen(after(build, takeMould(build, 'rubber-block')))!.process).toBe('silicone-addition');
});

test('a cast that does not go in the kind that is taken is not kept', () => {
  let build = after(bust(), takeMould(bust(), 'plaster-parts'));
  build = after(build, { label: 'x', changes: [{ path: ['mould', 'cast'], value: 'latex-foam' }] });
  expect(mouldChosen(build)!.cast).toBe('latex-foam');
  build = after(build, takeMould(build, 'rubber-block'));
  expect(mouldChosen(build)!.cast).toBe('resin-solid');
});

test('a kind that is not of the finish does not count: the finish says what the mould is made of', () => {
  const build = after(after(bust(), takeMould(bust(), 'rubber-block')), {
    label: 'x',
    changes: [{ path: ['finish', 'processes'], value: [{ kind: 'plaster-mould' }] }],
  });
  expect(mouldChosen(build)!.kind).toBe('plaster-parts');
});

test('each material has a usual kind; kinds take casts there are', () => {
  for (const process of mouldProcesses) expect(usualKind(process)).not.toBeNull();
  expect(usualKind('spray-paint')).toBeNull();
  for (const kind of mouldKinds) for (const cast of kind.takes) expect(castKinds.map((c) => c.id)).toContain(cast);
});

test('undercuts hold a rigid mould unless the clay is soft and the cast is peeled; one that gives takes them', () => {
  const kind = (id: string) => mouldKinds.find((k) => k.id === id)!;
  expect(peelsOut(kind('plaster-parts'), 'latex-skin', 'damp')).toBe(true);
  expect(peelsOut(kind('plaster-parts'), 'latex-skin', 'dries')).toBe(false);
  expect(peelsOut(kind('plaster-parts'), 'plaster-hollow', 'never')).toBe(false);
  expect(peelsOut(kind('rubber-skin'), 'plaster-solid', 'dries')).toBe(true);
});

test('walls and parts of one’s own are of the kind they were said for: another has its usual ones, told alike everywhere', () => {
  let build = after(bust(), takeMould(bust(), 'latex-skin'));
  build = after(build, {
    label: 'x',
    changes: [
      { path: ['mould', 'shell'], value: 0.004 },
      { path: ['mould', 'parts'], value: 3 },
    ],
  });
  expect(mouldChosen(build)!.walls.shell).toBe(0.004);
  expect(after(build, takeMould(build, 'latex-skin')).mould).toMatchObject({ shell: 0.004, parts: 3 });
  // Four millimetres of gauze are no shell of plaster.
  const rubber = after(build, takeMould(build, 'rubber-skin'));
  expect(mouldChosen(rubber)!.walls).toEqual({ skin: 0.01, shell: 0.012, margin: null });
  expect(rubber.mould.parts).toBeNull();
  // The same where it was the finish that was changed.
  const plaster = after(build, {
    label: 'x',
    changes: [{ path: ['finish', 'processes'], value: [{ kind: 'plaster-mould' }] }],
  });
  expect(mouldChosen(plaster)).toMatchObject({ kind: 'plaster-parts', walls: { shell: 0.025 } });
});
