import type { Build, MemberEdit } from '../document';

/** What was chosen for an armature: figures of its way of building, and stock by member; joins by bone. */
export interface Sizes {
  readonly parameters: Readonly<Record<string, string | number | boolean>>;
  readonly edits: Readonly<Record<string, MemberEdit>>;
  /** Parts of the form that get a wire of their own, though no joint runs through them; none where nothing is said. */
  readonly along?: readonly string[];
}

export const noSizes: Sizes = { parameters: {}, edits: {} };

/** The build with these sizes wherever the maker set none. */
export function withSizes(build: Build, sizes: Sizes): Build {
  if (sizes === noSizes) return build;
  const { armature } = build;
  const edits: Record<string, MemberEdit> = { ...armature.edits };
  for (const [id, chosen] of Object.entries(sizes.edits)) edits[id] = { ...chosen, ...armature.edits[id] };
  return {
    ...build,
    armature: {
      ...armature,
      school: { ...armature.school, parameters: { ...sizes.parameters, ...armature.school.parameters } },
      edits,
      ...(sizes.along && !armature.along ? { along: [...sizes.along] } : {}),
    },
  };
}

/** The build with these sizes as though the maker had set them: what is cut is not sized again. */
export function keepSizes(build: Build, sizes: Sizes): Build {
  const kept = withSizes(build, sizes);
  return { ...kept, armature: { ...kept.armature, sizing: 'kept' } };
}
