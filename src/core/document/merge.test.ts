import { applyEdit, mergeBuilds, newBust, stableText, type Build, type BuildEdit } from '.';

const base = newBust('b', '2026-12-01');
const done = (build: Build, ...changes: BuildEdit['changes']): Build => {
  const next = applyEdit(build, { label: 'test', changes });
  if (!next.ok) throw new Error(`${next.path} ${next.message}`);
  return next.value;
};
/** Changes that touch different things: any two of them can be made in either order. */
const apart: readonly BuildEdit['changes'][number][] = [
  { path: ['name'], value: 'Another' },
  { path: ['room', 'temperature'], value: 26 },
  { path: ['room', 'airSpeed'], value: 0.7 },
  { path: ['brief', 'deadline'], value: '2026-12-24' },
  { path: ['regions', 'own', 'head'], value: { coats: [0.005] } },
  { path: ['regions', 'own', 'neck'], value: { coats: [0.006] } },
  { path: ['regions', 'everywhere', 'coats'], value: [0.007, 0.003] },
  { path: ['armature', 'school', 'parameters', 'ballast'], value: 3 },
  { path: ['stages', 'turns'], value: [{ at: 30, lying: 'back' }] },
];

test('changes of different things are both kept, whoever made which', () => {
  apart.forEach((a, i) =>
    apart.slice(i + 1).forEach((b) => {
      const both = stableText(done(base, a, b));
      const [mine, theirs] = [done(base, a), done(base, b)];
      expect(stableText(mergeBuilds(base, mine, theirs))).toBe(both);
      expect(stableText(mergeBuilds(base, theirs, mine))).toBe(both);
    }),
  );
});

test('what both changed alike is changed once; what only one knows stands', () => {
  const warm = done(base, { path: ['room', 'temperature'], value: 26 });
  expect(mergeBuilds(base, warm, done(base, { path: ['room', 'temperature'], value: 26 }))).toEqual(warm);
  expect(mergeBuilds(base, base, warm)).toBe(warm);
  expect(mergeBuilds(base, warm, base)).toBe(warm);
});

test('what is taken away on one side is gone, unless the other went on with it', () => {
  const own = done(base, { path: ['regions', 'own', 'head'], value: { coats: [0.005] } });
  const gone = done(own, { path: ['regions', 'own', 'head'], value: undefined });
  const warm = done(own, { path: ['room', 'temperature'], value: 26 });
  expect(mergeBuilds(own, gone, warm)?.regions.own).toEqual({});
  expect(mergeBuilds(own, warm, gone)?.regions.own).toEqual({});
  expect(mergeBuilds(own, gone, done(own, { path: ['regions', 'own', 'head', 'coats'], value: [0.004] }))).toBeNull();
});

test('the same thing changed in two ways is for somebody to decide; so is one list', () => {
  for (const [path, mine, theirs] of [
    [['name'], 'Mine', 'Theirs'],
    [['room', 'temperature'], 25, 26],
    [['regions', 'everywhere', 'coats'], [0.004], [0.005]],
    [['stages', 'turns'], [{ at: 30, lying: 'back' }], [{ at: 40, lying: 'left' }]],
  ] as const)
    expect(
      mergeBuilds(base, done(base, { path: [...path], value: mine }), done(base, { path: [...path], value: theirs })),
    ).toBeNull();
  // Also at different places of it: what stands where is not known to be the same thing.
  const two = done(base, { path: ['regions', 'everywhere', 'coats'], value: [0.006, 0.004] });
  const [first, second] = [
    [0.005, 0.004],
    [0.006, 0.003],
  ].map((value) => done(two, { path: ['regions', 'everywhere', 'coats'], value }));
  expect(mergeBuilds(two, first!, second!)).toBeNull();
});
