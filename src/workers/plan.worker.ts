import { planWorkshop, whatToLeaveOut, type PlanInputs } from '../core/plan';
import { failure } from '../core/quantity';
import { buildToPlan, Evaluator, waysToBeSooner, type Sooner } from '../core/verdict';
import type { PlanAnswer, PlanRequest } from './plan-protocol';

/** A shell over core: plans the build on the bench. A newer request ends what is still being tried for the one before. */
const evaluator = new Evaluator();
const send = (answer: PlanAnswer): void => self.postMessage(answer);
const breathe = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
let latest = 0;

async function work(request: PlanRequest): Promise<void> {
  const { ask, id, build, log, surroundings, now } = request;
  const own = buildToPlan(evaluator, id, build, log);
  if (!own.ok) {
    send({ ask, kind: 'refused', why: own });
    return;
  }
  const inputs: PlanInputs = {
    builds: [own.value, ...surroundings.others],
    workshop: surroundings.workshop,
    paces: surroundings.paces,
    now,
  };
  const plan = planWorkshop(inputs);
  if (!plan) {
    send({
      ask,
      kind: 'refused',
      why: failure(
        'ring',
        'plan.own',
        'steps of your own wait for each other in a ring: let one of them wait for nothing',
      ),
    });
    return;
  }
  send({ ask, kind: 'plan', plan });
  if (!request.ways) return;
  await breathe();
  const mine = plan.builds[0];
  if (mine && mine.due !== null && mine.finish.nominal > mine.due && ask === latest) {
    const left = whatToLeaveOut(inputs, id);
    send({ ask, kind: 'leave-out', steps: left?.steps ?? null, finish: left?.finish ?? Infinity });
  }
  const ways: Sooner[] = [];
  for (const way of waysToBeSooner(evaluator, inputs, id, build, log)) {
    await breathe();
    if (ask !== latest) return;
    if (way) {
      ways.push(way);
      send({ ask, kind: 'sooner', ways: [...ways].sort((a, b) => a.finish - b.finish), done: false });
    }
  }
  send({ ask, kind: 'sooner', ways: ways.sort((a, b) => a.finish - b.finish), done: true });
}

self.onmessage = ({ data }: MessageEvent<PlanRequest>) => {
  latest = data.ask;
  // What was asked for meanwhile is not worth beginning: only the newest of what waits is worked on.
  void breathe()
    .then(() => (data.ask === latest ? work(data) : undefined))
    .catch((error: Error) =>
      send({ ask: data.ask, kind: 'refused', why: failure('failed', 'the plan', error.message) }),
    );
};
