import type { Build, BuildEdit, Change } from '../document';
import { schools } from './schools';
import { keepSizes, type Sizes } from './sizes';

/** Changes by hand to what an armature's sizes are, as edits of the build. */

/** Figures of the board that are chosen. */
const boardKeys = [
  'boardSize',
  'boardWidth',
  'boardDepth',
  'ballast',
  'ballastBack',
  'plateWidth',
  'screwDiameter',
  'screwLength',
];
const memberKeys = ['stock', 'size', 'strands', 'bonded', 'drawnIn'] as const;

/** Figures of a way of building that are chosen where nothing is set: sizes, strands, core and board. */
export function chosenFigures(kind: string): ReadonlySet<string> {
  const school = schools.find((s) => s.kind === kind);
  const own = (school?.fields ?? []).flatMap((f) =>
    f.kind === 'stock' ? [f.size] : f.kind === 'bulk' || f.kind === 'wrap' ? [f.key] : [],
  );
  const strands = (school?.fields ?? []).flatMap((f) =>
    f.kind === 'number' && /strands$/i.test(f.key) ? [f.key] : [],
  );
  return new Set([...own, ...strands, ...boardKeys]);
}

/** Whether the maker set anything that would otherwise be chosen. */
export function anySetByHand({ armature }: Build): boolean {
  const chosen = chosenFigures(armature.school.kind);
  return (
    Object.keys(armature.school.parameters).some((k) => chosen.has(k)) ||
    Object.values(armature.edits).some((e) => memberKeys.some((k) => e[k] !== undefined))
  );
}

/** All of it is chosen again, whatever was set; core and filling stay as the maker set them. */
export function sizeAllAgain(build: Build): BuildEdit {
  const { school, edits } = build.armature;
  const core = new Set(
    (schools.find((s) => s.kind === school.kind)?.fields ?? []).flatMap((f) =>
      f.kind === 'bulk' || f.kind === 'wrap' ? [f.key] : [],
    ),
  );
  const chosen = chosenFigures(school.kind);
  return {
    label: 'Sized again',
    changes: [
      { path: ['armature', 'sizing'], value: 'to-carry' },
      ...Object.keys(school.parameters)
        .filter((k) => chosen.has(k) && !core.has(k))
        .map((k): Change => ({ path: ['armature', 'school', 'parameters', k], value: undefined })),
      ...Object.keys(edits).flatMap((id) => clearMember(build, id)),
      ...(build.armature.along ? [{ path: ['armature', 'along'], value: undefined }] : []),
    ],
  };
}

/** One figure of the way of building, or one member, is left to be chosen again. */
export function sizeFigureAgain(key: string, label: string): BuildEdit {
  return {
    label: `${label}: sized again`,
    changes: [{ path: ['armature', 'school', 'parameters', key], value: undefined }],
  };
}

export function sizeMemberAgain(build: Build, id: string, name: string): BuildEdit {
  return { label: `${name}: sized again`, changes: clearMember(build, id) };
}

export function isMemberSetByHand({ armature }: Build, id: string): boolean {
  return memberKeys.some((k) => armature.edits[id]?.[k] !== undefined);
}

/** What else was set of a member or bone, its join or how it is bent by hand, stays. */
function clearMember({ armature }: Build, id: string): Change[] {
  const edit = armature.edits[id];
  if (!edit || !memberKeys.some((k) => edit[k] !== undefined)) return [];
  const rest = Object.fromEntries(Object.entries(edit).filter(([k]) => !(memberKeys as readonly string[]).includes(k)));
  return [{ path: ['armature', 'edits', id], value: Object.keys(rest).length > 0 ? rest : undefined }];
}

/** Sizes stay as they are from here on: what was chosen is as though the maker had set it. */
export function keepTheseSizes(build: Build, sizes: Sizes, label: string): BuildEdit {
  const { armature } = keepSizes(build, sizes);
  return {
    label,
    changes: [
      { path: ['armature', 'sizing'], value: armature.sizing },
      { path: ['armature', 'school', 'parameters'], value: armature.school.parameters },
      { path: ['armature', 'edits'], value: armature.edits },
      ...(armature.along ? [{ path: ['armature', 'along'], value: armature.along }] : []),
    ],
  };
}
