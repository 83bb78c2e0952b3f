import type { Build } from '../core/build';
import { failure } from '../core/quantity';
import { compareSchool, Evaluator } from '../core/verdict';
import type { CompareAnswer, CompareRequest } from './compare-protocol';

/** A shell over core: one piece of work after another, an answer for each. Stopped by ending the worker. */
const evaluator = new Evaluator();
const send = (answer: CompareAnswer): void => self.postMessage(answer);

function oneBuild(build: Build, index: number): void {
  const report = evaluator.evaluate(build);
  if (report.ok)
    send({
      kind: 'row',
      index,
      summary: report.value.summary,
      height: report.value.size.height,
      clayOn: report.value.clay.onPiece,
    });
  else send({ kind: 'refused', index, school: '', why: report });
}

function oneSchool(build: Build, school: string, index: number): void {
  const row = compareSchool(build, school, evaluator);
  if ('kind' in row) send({ kind: 'school', school, row });
  else send({ kind: 'refused', index, school, why: row });
}

/** A search stops by itself after this long and says what it has. */
const longestSearch = 25_000;

function strengthen(request: Extract<CompareRequest, { kind: 'strengthen' }>): void {
  const began = Date.now();
  const steps = evaluator.strengthening(request.build, request.units, () => Date.now() - began > longestSearch);
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) {
      send({ kind: 'strengthened', result: step.value });
      return;
    }
    send({ kind: 'tried', sets: step.value });
  }
}

function guarded(index: number, school: string, work: () => void): void {
  try {
    work();
  } catch (error) {
    send({ kind: 'refused', index, school, why: failure('failed', 'the build', (error as Error).message) });
  }
}

self.onmessage = ({ data }: MessageEvent<CompareRequest>) => {
  if (data.kind === 'builds') data.builds.forEach((b, i) => guarded(i, '', () => oneBuild(b, i)));
  else if (data.kind === 'schools') data.schools.forEach((s, i) => guarded(i, s, () => oneSchool(data.build, s, i)));
  else guarded(0, '', () => strengthen(data));
  send({ kind: 'done' });
};
