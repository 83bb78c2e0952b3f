import { finding, type Rule } from './finding';

/** A change by hand to something that is not made any more. */
export const lostEdit: Rule = {
  id: 'lost-edit',
  judge: ({ piece }) =>
    piece.lostEdits.map((id) =>
      finding(
        'armature',
        `lost-edit/${id}`,
        'watch',
        id,
        `Your change to "${id}" has nothing to hold on to any more.`,
        'The school or the form no longer makes a part of that name. Remove the change, or bring the part back.',
        { measured: 1, limit: 0, unit: 'count' },
      ),
    ),
  propose: ({ piece }, found) => {
    const id = found.id.slice('lost-edit/'.length);
    const { form } = piece.build;
    const path = Object.hasOwn(form.edits, id)
      ? ['form', 'edits', id]
      : Object.hasOwn(form.pose, id)
        ? ['form', 'pose', id]
        : ['armature', 'edits', id];
    return [
      {
        id: 'drop',
        edit: { label: 'Remove the change', changes: [{ path, value: undefined }] },
        note: 'nothing else moves',
      },
    ];
  },
};
