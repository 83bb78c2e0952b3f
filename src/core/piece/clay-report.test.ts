import { DistanceField, voxelise, type Mass } from '../form';
import { slopesOf, steeperThan } from './clay-report';

/** On a ball the height between two slopes is the share of face between them (Archimedes). */
const ball: Mass = {
  id: 'ball',
  name: 'ball',
  region: 'r',
  at: [0.0013, -0.0007, 0.0021],
  turn: [0, 0, 0],
  blend: 0,
  shape: { kind: 'ellipsoid', radii: [0.1, 0.1, 0.1] },
};
const grid = voxelise(new DistanceField([ball]), { step: 0.003, depth: 0.01 });
const bins = slopesOf(grid, [0], 1)[0]!;

test.each([30, 60, 90, 120, 150])('of a ball, half and half the cosine is steeper than %d degrees', (degrees) => {
  const wanted = (1 + Math.cos((degrees * Math.PI) / 180)) / 2;
  expect(steeperThan(bins, degrees)).toBeGreaterThan(wanted - 0.03);
  expect(steeperThan(bins, degrees)).toBeLessThan(wanted + 0.03);
});

test('a face without area is not steep', () => expect(steeperThan(new Float64Array(40), 30)).toBe(0));
