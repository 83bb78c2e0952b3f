import { Evaluator } from '../core/evaluate';
import { compareMoulds } from '../core/improve';
import { comesOff, masterOfPiece, partingAskedOf, partingOf } from '../core/parting';
import { optionsOf, questionOf } from './asked';
import type { MouldAnswer, MouldRequest } from './protocol';
import { breathe, serve, type Work } from './serve';

/** A shell over core for long work on the mould: tells how far it is; stopped by ending the worker. */
const evaluator = new Evaluator();

async function part({ asked }: MouldRequest, { send }: Work<MouldAnswer>): Promise<void> {
  const began = performance.now();
  const piece = evaluator.piece(questionOf(asked));
  if (!piece.ok) {
    send({ kind: 'refused', why: piece });
    return;
  }
  const { build } = asked;
  const master = masterOfPiece(piece.value, build.mould.keepFree);
  if (!master.ok) {
    send({ kind: 'refused', why: master });
    return;
  }
  const { face, board, surface } = master.value;
  const work = partingOf(face, board, partingAskedOf(build));
  let told = 0;
  for (;;) {
    const { done, value } = work.next();
    if (done) {
      const seconds = (performance.now() - began) / 1000;
      send({ kind: 'parted', parted: { surface, parting: value, stands: face.stands, comesOff: comesOff(build), seconds } });
      return;
    }
    if (performance.now() - told < 100) continue;
    told = performance.now();
    send({ kind: 'progress', done: value });
    await breathe();
  }
}

function kinds({ asked }: MouldRequest, { send }: Work<MouldAnswer>): void {
  const rows = compareMoulds(questionOf(asked), evaluator, optionsOf(asked));
  if (rows.ok) send({ kind: 'kinds', rows: rows.value });
  else send({ kind: 'refused', why: rows });
}

async function work(request: MouldRequest, on: Work<MouldAnswer>): Promise<void> {
  if (request.kind === 'part') await part(request, on);
  else kinds(request, on);
}

serve('the mould', work);
