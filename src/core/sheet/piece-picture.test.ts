import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { asBriefed, Evaluator } from '../evaluate';
import { pictureOfPiece } from '.';

const evaluator = new Evaluator();
function pictureOf(build: Parameters<typeof asBriefed>[0]) {
  const piece = evaluator.piece(asBriefed(build));
  if (!piece.ok) throw new Error(piece.message);
  return { piece: piece.value, picture: pictureOfPiece(piece.value, 216, 141) };
}

/** Pixels wholly drawn, by what they are of: clay is warm and pale, a board redder, iron blue. */
function counts({ rgba }: ReturnType<typeof pictureOf>['picture']) {
  const found = { clay: 0, board: 0, iron: 0 };
  for (let i = 0; i < rgba.length; i += 4) {
    if (rgba[i + 3] !== 255) continue;
    const warm = rgba[i]! / Math.max(1, rgba[i + 2]!);
    found[warm < 1 ? 'iron' : warm < 1.45 ? 'clay' : 'board'] += 1;
  }
  return found;
}

test('clay, board and the bare upright are seen; the wires in the clay are not', () => {
  const { picture } = pictureOf(lamplighter('2026-12-01', '2026-12-24'));
  const { clay, board, iron } = counts(picture);
  expect(clay).toBeGreaterThan(3000);
  expect(board).toBeGreaterThan(800);
  expect(iron).toBeGreaterThan(20);
  expect(iron).toBeLessThan(300);
});

test('every demo piece has one, the same each time, with clay in the middle of it', () => {
  for (const build of otherDemoBuilds('2026-12-01', '2026-12-24')) {
    const { piece, picture } = pictureOf(build);
    expect(counts(picture).clay).toBeGreaterThan(500);
    expect(pictureOfPiece(piece, 216, 141).rgba).toEqual(picture.rgba);
  }
});

test('a frame that stands by itself has no board', () => {
  const { piece } = pictureOf(lamplighter('2026-12-01', '2026-12-24'));
  const own = { ...piece, armature: { ...piece.armature, base: { ...piece.armature.base, standing: 'own' as const } } };
  expect(counts(pictureOfPiece(own, 216, 141)).board).toBe(0);
});
