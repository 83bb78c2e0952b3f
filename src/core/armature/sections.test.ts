import type { JoinKindId } from '../catalogue';
import { sectionsByJoins, type Bone } from '.';

const node = (id: string, held = false) => ({ id, at: [0, 0, 0] as const, held });
const bone = (
  id: string,
  from: string,
  to: string,
  masses: string[],
  joinFrom: JoinKindId = 'welded',
  joinTo: JoinKindId = 'welded',
): Bone => ({ id, name: id, from, to, masses, joinFrom, joinTo });
const nodes = [node('foot', true), node('hip'), node('shoulder'), node('elbow'), node('hand'), node('crown')];
const body = (arm: JoinKindId, head: JoinKindId = 'welded') => [
  bone('leg', 'foot', 'hip', ['leg', 'trunk']),
  bone('spine', 'hip', 'shoulder', ['trunk']),
  bone('upper-arm', 'shoulder', 'elbow', ['trunk', 'arm'], arm),
  bone('forearm', 'elbow', 'hand', ['arm']),
  bone('neck', 'shoulder', 'crown', ['head'], head),
];

describe('where it comes apart', () => {
  test('welded throughout, it does not', () => expect(sectionsByJoins({ nodes, bones: body('welded') })).toEqual([]));
  test('a socketed arm comes away with its hand; the trunk keeps what is mostly its own', () => {
    const sections = sectionsByJoins({ nodes, bones: body('socketed') });
    expect(sections.map((s) => [s.id, [...s.masses].sort()])).toEqual([
      ['standing', ['head', 'leg', 'trunk']],
      ['upper-arm', ['arm']],
    ]);
    expect(sections[1]?.heldBy).toMatch(/socket/);
  });
  test('two joins, three parts, every mass once', () => {
    const sections = sectionsByJoins({ nodes, bones: body('bolted', 'sleeved') });
    expect(sections).toHaveLength(3);
    expect(sections.flatMap((s) => s.masses).sort()).toEqual(['arm', 'head', 'leg', 'trunk']);
  });
  test('a loop joined at both ends must come apart at both to come away', () => {
    const loop = [...body('bolted'), bone('strut', 'hand', 'hip', [])];
    expect(sectionsByJoins({ nodes, bones: loop })).toEqual([]);
    const freed = [...body('bolted'), bone('strut', 'hand', 'hip', [], 'welded', 'bolted')];
    expect(sectionsByJoins({ nodes, bones: freed })).toHaveLength(2);
  });
});
