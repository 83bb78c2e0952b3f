import { birdLike } from './bird-like';
import { branching } from './branching';
import { bust } from './bust';
import { figure } from './figure';
import { foundObject } from './found-object';
import { fourLegged } from './four-legged';
import { free } from './free';
import { head } from './head';
import { longNeck } from './long-neck';
import { mask } from './mask';
import type { AnyStartForm } from './start-form';
import { wornShell } from './worn-shell';

/** Everything a form can start from; a new one is a file and a line here. */
export const startForms: readonly AnyStartForm[] = [
  bust,
  head,
  mask,
  figure,
  fourLegged,
  birdLike,
  branching,
  longNeck,
  wornShell,
  foundObject,
  free,
];

export { bust, bustLevels, bustMeasures, type BustLevels, type BustMeasures } from './bust';
export { figureLevels, headsOf } from './figure';
export { breadthOfGirth } from './mask';
export type { AnyStartForm, Envelope, Landmark, MadeForm } from './start-form';
