import type { Build, BuildEdit, MouldPart } from '../document';
import { castKinds, type CastId, type CastKind } from './cast';
import { mouldKinds, type MouldKind, type MouldKindId } from './kind';

/** The mould a build says it will have: its finish that there is one and of what, its mould part which kind. */
export interface MouldChosen {
  readonly kind: MouldKindId;
  readonly cast: CastId;
  /** In the finish. */
  readonly process: string;
  /** Metres as it is laid, one's own or usual; null where this kind has none. */
  readonly walls: MouldWalls;
}

export interface MouldWalls {
  readonly skin: number | null;
  readonly shell: number | null;
  readonly margin: number | null;
}

const kinds: readonly MouldKind<MouldKindId>[] = mouldKinds;

/** Whether it lies over one side of a piece on its back. */
export function opensBehind(id: string | null): boolean {
  return kinds.find((k) => k.id === id)?.open === true;
}

/** Of the kinds of one material, the first to think of. */
const usual: readonly MouldKindId[] = ['rubber-skin', 'latex-skin', 'plaster-parts'];

/** What takes a mould off the piece. */
export const mouldProcesses: readonly string[] = [...new Set(kinds.flatMap((k) => k.processes))];

export function mouldChosen({ finish, mould }: Pick<Build, 'finish' | 'mould'>): MouldChosen | null {
  const process = finish.processes.map((p) => p.kind).find((p) => mouldProcesses.includes(p));
  if (process === undefined) return null;
  const id = kinds.find((k) => k.id === mould.kind && k.processes.includes(process))?.id ?? usualKind(process)!;
  const kind = kinds.find((k) => k.id === id)!;
  const cast = castKinds.find((c) => c.id === mould.cast && kind.takes.includes(c.id))?.id ?? kind.takes[0]!;
  return { kind: kind.id, cast, process, walls: wallsOf(kind, wallsAreOf(mould, id) ? mould : {}) };
}

/** Whether walls of one's own were said for this kind; without a kind they were said for the usual one. */
export function wallsAreOf(mould: Pick<MouldPart, 'kind'>, id: MouldKindId): boolean {
  return mould.kind === null || mould.kind === id;
}

function wallsOf(
  { skin, shell, block }: MouldKind,
  own: Partial<Pick<MouldPart, 'skin' | 'shell' | 'margin'>>,
): MouldWalls {
  return {
    skin: skin && (own.skin ?? skin.thickness),
    shell: shell && (own.shell ?? shell.thickness),
    margin: block && (own.margin ?? block.margin),
  };
}

/** The kind one thinks of first when a mould is to be of this. */
export function usualKind(process: string): MouldKindId | null {
  return kinds.find((k) => usual.includes(k.id) && k.processes.some((p) => p === process))?.id ?? null;
}

/** Takes this kind: the finish goes through its material in place of another mould's; walls and parts said for that go with it. */
export function takeMould(build: Pick<Build, 'finish' | 'mould'>, id: MouldKindId): BuildEdit {
  const kind = kinds.find((k) => k.id === id)!;
  const others = build.finish.processes.filter((p) => !mouldProcesses.includes(p.kind));
  const kept = build.finish.processes.find((p) => kind.processes.includes(p.kind));
  const cast = build.mould.cast !== null && kind.takes.includes(build.mould.cast) ? build.mould.cast : null;
  const { skin: _skin, shell: _shell, margin: _margin, ...rest } = build.mould;
  const mould = mouldChosen(build)?.kind === id ? build.mould : { ...rest, parts: null };
  return {
    label: `Mould: ${kind.name}`,
    changes: [
      { path: ['mould'], value: { ...mould, kind: id, cast } },
      { path: ['finish', 'processes'], value: [...others, kept ?? { kind: kind.processes[0]! }] },
    ],
  };
}

export function takeNoMould(build: Pick<Build, 'finish'>): BuildEdit {
  return {
    label: 'No mould',
    changes: [
      {
        path: ['finish', 'processes'],
        value: build.finish.processes.filter((p) => !mouldProcesses.includes(p.kind)),
      },
    ],
  };
}

/**
 * Whether what holds a rigid mould does no harm: the clay is soft still and is dug out, and the cast is peeled. A mould that
 * gives takes both.
 */
export function peelsOut(kind: MouldKind, castId: string, setting: string): boolean {
  if (kind.stretches > 0) return true;
  const cast: CastKind | undefined = castKinds.find((c) => c.id === castId);
  return (setting === 'damp' || setting === 'never') && cast?.gives === true;
}
