import type { MouldKind } from './kind';
import { rubberBlock } from './rubber-block';
import { rubberInTwo } from './rubber-in-two';
import { rubberSkin } from './rubber-skin';
import { latexSkin } from './latex-skin';
import { plasterParts } from './plaster-parts';
import { plasterOpen } from './plaster-open';
import { shimHalves } from './shim-halves';
import { rubberPress } from './rubber-press';

export * from './kind';

export const mouldKinds = [
  rubberBlock,
  rubberInTwo,
  rubberSkin,
  latexSkin,
  plasterParts,
  plasterOpen,
  shimHalves,
  rubberPress,
] as const satisfies readonly MouldKind[];
export type MouldKindId = (typeof mouldKinds)[number]['id'];
