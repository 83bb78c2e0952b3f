import { birdLike } from './bird-like';
import { branching } from './branching';
import { branching as earlierBranching } from './earlier/branching';
import { bust } from './bust';
import { birdLike as earlierBirdLike } from './earlier/bird-like';
import { bust as earlierBust } from './earlier/bust';
import { figure as earlierFigure } from './earlier/figure';
import { fourLegged as earlierFourLegged } from './earlier/four-legged';
import { foundObject as earlierFoundObject } from './earlier/found-object';
import { head as earlierHead } from './earlier/head';
import { figure } from './figure';
import { foundObject } from './found-object';
import { fourLegged } from './four-legged';
import { free } from './free';
import { hand } from './hand';
import { head } from './head';
import { longNeck as earlierLongNeck } from './earlier/long-neck';
import { longNeck } from './long-neck';
import { mask as earlierMask } from './earlier/mask';
import { mask } from './mask';
import { relief } from './relief';
import { ringed } from './ringed';
import type { AnyStartForm } from './start-form';
import { wornShell as earlierWornShell } from './earlier/worn-shell';
import { wornShell } from './worn-shell';

/** Everything a form can start from; a new one is a file and a line here. */
export const startForms: readonly AnyStartForm[] = [
  bust,
  head,
  hand,
  mask,
  figure,
  fourLegged,
  birdLike,
  branching,
  longNeck,
  wornShell,
  relief,
  ringed,
  foundObject,
  free,
];

/** Forms as they were made before: builds that were begun with them keep their shape. */
export const earlierForms: readonly AnyStartForm[] = [
  earlierBust,
  earlierHead,
  earlierFigure,
  earlierFourLegged,
  earlierBirdLike,
  earlierLongNeck,
  earlierMask,
  earlierBranching,
  earlierFoundObject,
  earlierWornShell,
];

export { bustLevels, type BustLevels, type BustSetting } from './bust-levels';
export { breadthOfGirth, wearersKeys } from './wearer';
export { withTypeMeasures } from './start-form';
export type { AnyStartForm, FormType, Envelope, Landmark, MadeForm } from './start-form';
