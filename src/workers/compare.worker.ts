import { failure } from '../core/quantity';
import { Evaluator } from '../core/verdict';
import type { CompareAnswer, CompareRequest } from './compare-protocol';

/** A shell over core: one build after another, an answer for each. Stopped by ending the worker. */
const evaluator = new Evaluator();
const send = (answer: CompareAnswer): void => self.postMessage(answer);

self.onmessage = (event: MessageEvent<CompareRequest>) => {
  const { seq, builds } = event.data;
  builds.forEach((build, index) => {
    try {
      const report = evaluator.evaluate(build);
      if (report.ok) send({ kind: 'row', seq, index, summary: report.value.summary, height: report.value.size.height, clayOn: report.value.clay.onPiece });
      else send({ kind: 'refused', seq, index, why: report });
    } catch (error) {
      send({ kind: 'refused', seq, index, why: failure('failed', 'the build', (error as Error).message) });
    }
  });
  send({ kind: 'done', seq });
};
