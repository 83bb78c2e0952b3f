import { Evaluator } from '../core/evaluate';
import { compareSchool, strengthen, thinnestThatHolds } from '../core/improve';
import { knockOf } from '../core/piece';
import { failure } from '../core/quantity';
import { optionsOf, questionOf } from './asked';
import type { Asked, CompareAnswer, CompareRequest } from './protocol';
import { breathe, serve, type Work } from './serve';

/** A shell over core: one piece of work after another, an answer for each. Stopped by ending the worker. */
const evaluator = new Evaluator();
/** A search stops by itself after this long and says what it has. */
const longestSearch = 25_000;

function oneBuild(asked: Asked, index: number): CompareAnswer {
  const report = evaluator.evaluate(questionOf(asked), optionsOf(asked));
  if (!report.ok) return { kind: 'refused', index, why: report };
  const { summary, dates, size, clay } = report.value;
  return { kind: 'row', index, summary, dates, height: size.height, clayOn: clay.onPiece };
}

function oneSchool(asked: Asked, school: string, index: number): CompareAnswer {
  const row = compareSchool(questionOf(asked), school, evaluator, optionsOf(asked));
  return 'kind' in row ? { kind: 'school', school, row } : { kind: 'refused', index, school, why: row };
}

function guarded(index: number, school: string, work: () => CompareAnswer): CompareAnswer {
  try {
    return work();
  } catch (error) {
    return { kind: 'refused', index, school, why: failure('failed', 'the build', (error as Error).message) };
  }
}

async function work(request: CompareRequest, { send }: Work<CompareAnswer>): Promise<void> {
  if (request.kind === 'builds')
    for (const [i, asked] of request.builds.entries()) {
      send(guarded(i, '', () => oneBuild(asked, i)));
      await breathe();
    }
  else if (request.kind === 'schools')
    for (const [i, school] of request.schools.entries()) {
      send(guarded(i, school, () => oneSchool(request.asked, school, i)));
      await breathe();
    }
  else if (request.kind === 'thinnest') {
    const { asked, member } = request;
    const found = thinnestThatHolds(evaluator, questionOf(asked), member, optionsOf(asked));
    send({ kind: 'thinnest', member, found });
  } else if (request.kind === 'knock') {
    const piece = evaluator.piece(questionOf(request.asked));
    const found = piece.ok ? knockOf(piece.value, request.force) : piece;
    if (found.ok) send({ kind: 'knocked', knock: found.value });
    else send({ kind: 'refused', why: found });
  } else {
    const began = Date.now();
    const tooLong = () => Date.now() - began > longestSearch;
    const steps = strengthen(evaluator, questionOf(request.asked), optionsOf(request.asked), tooLong);
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) {
        send({ kind: 'strengthened', result: step.value });
        return;
      }
      send({ kind: 'tried', sets: step.value });
    }
  }
}

serve('the build', work);
