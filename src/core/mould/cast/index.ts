import type { CastKind } from './cast';
import { latexSkin } from './latex-skin';
import { latexFoam } from './latex-foam';
import { siliconeSkin } from './silicone-skin';
import { resinSolid } from './resin-solid';
import { resinHollow } from './resin-hollow';
import { plasterSolid } from './plaster-solid';
import { plasterHollow } from './plaster-hollow';
import { wax } from './wax';
import { cement } from './cement';
import { epoxyGlass } from './epoxy-glass';
import { paper } from './paper';
import { pressedClay } from './pressed-clay';

export * from './cast';

export const castKinds = [
  latexSkin,
  latexFoam,
  siliconeSkin,
  resinSolid,
  resinHollow,
  plasterSolid,
  plasterHollow,
  wax,
  cement,
  epoxyGlass,
  paper,
  pressedClay,
] as const satisfies readonly CastKind[];
export type CastId = (typeof castKinds)[number]['id'];
