import type { MixId } from '../cure';
import type { Need, StepKind } from '../document';
import { leftInTheBowl, mouldKinds, mouldMaterials, type MouldKindId, type MouldLayer } from '../mould';

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

/** kg bought to a m2 of a layer: its thickness over a flat face, and what is left in the bowl. */
function bought({ material, thickness }: MouldLayer): number {
  return mouldMaterials[material].bought * thickness * (1 + leftInTheBowl);
}

function kindOf(id: MouldKindId): { readonly skin: MouldLayer; readonly shell: MouldLayer } {
  const { skin, shell } = mouldKinds.find((k) => k.id === id)!;
  const none: MouldLayer = { material: 'plaster', thickness: 0, coats: 1 };
  return { skin: skin ?? none, shell: shell ?? none };
}

/** Coats one over the other, each a step of its own: hours until the next may go on, and after the last. */
function coatsOf(
  many: number,
  name: (coat: number) => string,
  { between, after, until }: { readonly between: number; readonly after: number; readonly until: string },
  takes: NonNullable<ProcessStep['takes']>,
): ProcessStep[] {
  return Array.from({ length: many }, (_, i): ProcessStep => {
    const last = i === many - 1;
    return {
      id: i === 0 ? 'coat' : `coat-${i + 1}`,
      name: name(i + 1),
      kind: 'moulding',
      wait: last ? after : between,
      share: 0.2,
      whole: true,
      until: last ? until : 'the coat before is ready for the next',
      takes: { ...takes, perArea: takes.perArea / many },
    };
  });
}

const shell = (name: string, takes: ProcessStep['takes']): ProcessStep => ({
  id: 'shell',
  name,
  kind: 'moulding',
  wait: 24,
  share: 0.8,
  until: 'the shell is hard',
  ...(takes ? { takes } : {}),
});

/** Rubber in coats, the first thin; a shell of plaster over it. */
export function siliconeMould(): ProcessStep[] {
  const { skin, shell: over } = kindOf('rubber-skin');
  const coats = coatsOf(
    skin.coats,
    (k) => `Brush on the silicone, coat ${k} of ${skin.coats}`,
    { between: 1.5, after: 24, until: 'the silicone has set' },
    { what: 'silicone', perArea: bought(skin), mix: 'silicone' },
  );
  const plaster = { what: 'plaster for the shell', perArea: bought(over), mix: 'plaster' } as const;
  return [parting, ...coats, shell('Make the shell over it', plaster), opened];
}

/** Latex comes as it is brushed on: nothing is mixed, but each coat is dry before the next. A shell of gauze over it. */
export function latexMould(): ProcessStep[] {
  const { skin, shell: over } = kindOf('latex-skin');
  const coats = coatsOf(
    skin.coats,
    (k) => `Brush on the latex, coat ${k} of ${skin.coats}`,
    { between: 3, after: 24, until: 'the latex is dry through' },
    { what: 'latex', perArea: bought(skin) },
  );
  const gauze = { what: 'plaster gauze', perArea: bought(over), mix: 'plaster-gauze' } as const;
  return [parting, ...coats, shell('Make the shell over it of plaster gauze', gauze), opened];
}

/** Two halves, one after the other. */
export function plasterMould(): ProcessStep[] {
  const half = {
    kind: 'moulding' as const,
    share: 1,
    whole: true,
    takes: { what: 'plaster', perArea: bought(kindOf('plaster-parts').shell) / 2, mix: 'plaster' as const },
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
