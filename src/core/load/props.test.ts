import { atRest, checkRods } from '../../../tests/support/rods';
import type { LifeStage } from '.';

/** A post with an arm to each side, ten kilograms on the left one, and a prop under an arm's end. */
const check = (under: readonly string[], propped: LifeStage['propped'] = 'all', lasting = false) =>
  checkRods(
    {
      places: { foot: [0, 0, 0], top: [0, 0, 0.6], left: [0.4, 0, 0.6], right: [-0.4, 0, 0.6] },
      held: ['foot'],
      rods: [
        { id: 'post', from: 'foot', to: 'top' },
        { id: 'left', from: 'top', to: 'left' },
        { id: 'right', from: 'top', to: 'right' },
      ],
      weights: [{ rod: 'left', kg: 10 }],
      props: under.map((node) => ({ node, lasting })),
    },
    { ...atRest, propped },
  );
const of = (c: ReturnType<typeof check>, bone: string) => c.bones.find((b) => b.bone === bone)?.demand ?? NaN;

test('under the loaded arm a prop pushes and spares the post', () => {
  const alone = check([]),
    held = check(['left']);
  expect(held.props['left']).toBeGreaterThan(50);
  expect(of(held, 'post')).toBeLessThan(0.3 * of(alone, 'post'));
});

test('under the arm that rises it would have to pull: it is let go, and everything is as without it', () => {
  const alone = check([]),
    wrong = check(['right']);
  expect(wrong.props['right']).toBeUndefined();
  expect(of(wrong, 'post')).toBeCloseTo(of(alone, 'post'), 9);
  // Of two, the one that pushes stays.
  const both = check(['left', 'right']);
  expect(both.props['left']).toBeGreaterThan(50);
  expect(of(both, 'post')).toBeCloseTo(of(check(['left']), 'post'), 6);
});

test('a prop stands while it is wet, a lasting one when dry too, none on the road', () => {
  expect(check(['left'], 'lasting').props).toEqual({});
  expect(check(['left'], 'lasting', true).props['left']).toBeGreaterThan(50);
  expect(check(['left'], 'none', true).props).toEqual({});
});
