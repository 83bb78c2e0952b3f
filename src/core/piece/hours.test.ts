import type { Armature } from '../armature';
import { layingHours } from '../cure';
import { hoursFor } from './hours';

/** Hours at the bench by hand: minutes to a cut, a join, a fitting, a square metre of wrap; litres of bulk to the hour. */
const bone = (joinFrom: string, joinTo = 'welded') => ({ joinFrom, joinTo });
const armature = (more: Partial<Armature> = {}): Armature =>
  ({ members: [], bones: [], hardware: [], ...more }) as unknown as Armature;
const nothing = { bulkKind: 'paper-firm', bulk: 0, wrapped: 0, clayMass: 0, setting: 'dries' as const };

test('five minutes a strand, six a join that is not one piece, six a fitting', () => {
  const made = armature({
    members: [{ strands: 2 }, { strands: 1 }] as never,
    bones: [bone('welded'), bone('bound-glued'), bone('twisted', 'taped')] as never,
    hardware: [{}, {}] as never,
  });
  expect(hoursFor(made, nothing).armature).toBeCloseTo((3 * 5 + 3 * 6 + 2 * 6) / 60, 9);
  expect(hoursFor(armature(), nothing)).toEqual({ armature: 0, bulk: 0, clay: 0 });
});

test('eight litres of bulk an hour, three quarters of an hour to a square metre of wrap', () => {
  expect(hoursFor(armature(), { ...nothing, bulk: 0.008 }).bulk).toBeCloseTo(1, 9);
  // Foam boards are sawn and carved three times as fast as paper is crumpled.
  expect(hoursFor(armature(), { ...nothing, bulkKind: 'polystyrene-extruded', bulk: 0.025 }).bulk).toBeCloseTo(1, 9);
  expect(hoursFor(armature(), { ...nothing, wrapped: 2 }).bulk).toBeCloseTo(1.5, 9);
});

test('clay as it is placed', () => {
  const all = hoursFor(armature({ members: [{ strands: 12 }] as never }), {
    bulk: 0.008,
    bulkKind: 'paper-firm',
    wrapped: 0,
    clayMass: 3,
    setting: 'dries',
  });
  expect(all.clay).toBeCloseTo(layingHours(3, 'dries'), 9);
});
