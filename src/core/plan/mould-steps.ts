import type { MixId } from '../cure';
import type { Need, StepKind } from '../document';

/** A step of what a piece goes through once it is made: hours to wait after it, and its share of the hours its kind takes. */
export interface ProcessStep {
  readonly id: string;
  readonly name: string;
  readonly kind: StepKind;
  readonly wait: number;
  readonly share: number;
  readonly needs?: readonly Need[];
  /** In one sitting: what sets is not gone on with another day. */
  readonly whole?: boolean;
  /** What is waited for after it. */
  readonly until?: string;
  /** What it uses up, kg to a m2 of face, and what that is mixed as. */
  readonly takes?: { readonly what: string; readonly perArea: number; readonly mix?: MixId };
}

/** Moulds as they are laid up over a piece: usual walls, and what goes into them. */
const parting: ProcessStep = {
  id: 'part',
  name: 'Set out the parting and shims, release',
  kind: 'moulding',
  wait: 1,
  share: 0.8,
  until: 'the release is dry',
};
const opened: ProcessStep = { id: 'open', name: 'Open the mould and clean it', kind: 'moulding', wait: 0, share: 0.5 };

/** kg of plaster powder to a m2 of a wall so thick: 0.97 kg makes a litre, a tenth is left in the bowl. */
const powder = (wall: number) => 970 * 1.1 * wall;

/** Ten millimetres of rubber in five coats, a shell of plaster over it. */
export function siliconeMould(): ProcessStep[] {
  const coat: ProcessStep = {
    id: 'coat',
    name: 'Lay up the silicone in five coats',
    kind: 'moulding',
    wait: 24,
    share: 1.2,
    until: 'the silicone has set',
    takes: { what: 'silicone', perArea: 0.01 * 1150 * 1.1, mix: 'silicone' },
  };
  const shell: ProcessStep = {
    id: 'shell',
    name: 'Make the shell over it',
    kind: 'moulding',
    wait: 24,
    share: 0.8,
    until: 'the shell is hard',
    takes: { what: 'plaster for the shell', perArea: powder(0.012), mix: 'plaster' },
  };
  return [parting, coat, shell, opened];
}

const latexCoats = 8;

/** Latex comes as it is brushed on: nothing is mixed, but each coat is dry before the next. A shell of gauze over it. */
export function latexMould(): ProcessStep[] {
  const coats = Array.from({ length: latexCoats }, (_, i): ProcessStep => {
    const last = i === latexCoats - 1;
    return {
      id: i === 0 ? 'coat' : `coat-${i + 1}`,
      name: `Brush on the latex, coat ${i + 1} of ${latexCoats}`,
      kind: 'moulding',
      wait: last ? 24 : 3,
      share: 0.2,
      until: last ? 'the latex is dry through' : 'the coat before is dry',
      takes: { what: 'latex', perArea: 0.35 },
    };
  });
  const shell: ProcessStep = {
    id: 'shell',
    name: 'Make the shell over it of plaster gauze',
    kind: 'moulding',
    wait: 24,
    share: 0.8,
    until: 'the shell is hard',
    takes: { what: 'plaster gauze', perArea: 2.2, mix: 'plaster-gauze' },
  };
  return [parting, ...coats, shell, opened];
}

/** Two halves, one after the other, 25 mm of plaster. */
export function plasterMould(): ProcessStep[] {
  const half = {
    kind: 'moulding' as const,
    share: 1,
    whole: true,
    takes: { what: 'plaster', perArea: powder(0.025) / 2, mix: 'plaster' as const },
  };
  return [
    parting,
    { ...half, id: 'coat', name: 'Lay up the plaster on the first half', wait: 1, until: 'the first half has set' },
    {
      ...half,
      id: 'shell',
      name: 'Take out the shims, release the seam, lay up the other half',
      wait: 24,
      until: 'the plaster is hard',
    },
    opened,
  ];
}
