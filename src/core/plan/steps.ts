import { stepsBeforeClay } from './steps-before-clay';
import { stepsWhileItHardens } from './steps-while-it-hardens';
import { stepsOfFinishing } from './steps-of-finishing';
import { stepsOfLaying } from './steps-of-laying';
import { stepsOnTheFace } from './steps-on-the-face';
import { StepList } from './step-list';
import type { JobFacts, Step } from './step';

/** Every step this piece needs, each after what it waits for. Ids stay the same from one working out to the next. */
export function stepsOf(facts: JobFacts): Step[] {
  const list = new StepList(facts);
  const ready = stepsBeforeClay(list);
  stepsOfLaying(list, ready);
  const tended = stepsWhileItHardens(list);
  const worked = stepsOnTheFace(list, tended);
  stepsOfFinishing(list, worked);
  return list.steps;
}
