import { hashOf, newBust } from '../../core/document';
import { emptyHistory, perform, readHistory, stepBack, stepForward, type History } from './history';
import { partsCheck } from './parts-check';
import { editKinds, largeBuild } from '../../../tests/support/generated-build';

beforeAll(() => partsCheck());

test('every kind of edit undoes to the same document and redoes to the same change', () => {
  for (const start of [newBust('b', '2026-12-01'), largeBuild(3)]) {
    for (const kind of editKinds) {
      if (kind.name === 'a mass moved' && start.form.added.length === 0) continue;
      const done = perform(start, emptyHistory, kind.edit(2));
      if (!done.ok) throw new Error(`${kind.name}: ${done.message}`);
      const after = hashOf(done.value.build);
      const back = stepBack(done.value.build, done.value.history);
      expect(hashOf(back?.build)).toBe(hashOf(start));
      const again = back && stepForward(back.build, back.history);
      expect(hashOf(again?.build)).toBe(after);
    }
  }
});

test('a chain of steps unwinds one gesture at a time, through JSON', () => {
  let build = newBust('b', '2026-12-01');
  let history: History = emptyHistory;
  const hashes = [hashOf(build)];
  const steps = [
    {
      label: 'prop',
      changes: [
        { path: ['armature', 'props', 0], value: { id: 'a', name: 'a', node: 'stuffed/crown', until: 'always' } },
      ],
    },
    {
      label: 'prop',
      changes: [
        { path: ['armature', 'props', 1], value: { id: 'b', name: 'b', node: 'stuffed/skull', until: 'always' } },
      ],
    },
    { label: 'away', changes: [{ path: ['armature', 'props', 0], value: undefined }] },
    { label: 'own', changes: [{ path: ['regions', 'own', 'head'], value: { coats: [0.005] } }] },
    { label: 'deadline', changes: [{ path: ['brief', 'deadline'], value: '2026-12-24' }] },
  ];
  for (const edit of steps) {
    const done = perform(build, history, edit);
    if (!done.ok) throw new Error(done.message);
    ({ build, history } = done.value);
    hashes.push(hashOf(build));
  }
  expect(build.armature.props.map((p) => p.id)).toEqual(['b']);
  history = readHistory(JSON.parse(JSON.stringify(history)));
  for (let i = hashes.length - 2; i >= 0; i--) {
    const back = stepBack(build, history);
    if (!back) throw new Error('nothing to undo');
    ({ build, history } = back);
    expect(hashOf(build)).toBe(hashes[i]);
  }
  expect(stepBack(build, history)).toBeNull();
});

test('a refused edit changes nothing, and one that changes nothing is no step', () => {
  const b = newBust('b', '2026-12-01');
  expect(perform(b, emptyHistory, { label: 'x', changes: [{ path: ['room', 'temperature'], value: -90 }] }).ok).toBe(
    false,
  );
  expect(
    perform(b, emptyHistory, {
      label: 'x',
      changes: [{ path: ['form', 'start', 'measures', 'headHeight'], value: 9 }],
    }),
  ).toMatchObject({ ok: false, path: 'form.start.measures.headHeight' });
  expect(
    perform(b, emptyHistory, {
      label: 'x',
      changes: [{ path: ['armature', 'school', 'parameters', 'ballast'], value: -1 }],
    }).ok,
  ).toBe(false);
  const same = perform(b, emptyHistory, { label: 'x', changes: [{ path: ['room', 'temperature'], value: 20 }] });
  expect(same.ok && same.value.history.past).toHaveLength(0);
});

test('a broken history counts as none', () => {
  for (const kept of [null, 3, { past: 'x' }, { past: [{ label: 1 }], future: [] }])
    expect(readHistory(kept)).toEqual(emptyHistory);
});
