'use client';
import { Button, Form } from 'react-bootstrap';
import { partingJoins } from '../../../core/armature';
import { joinKinds, type JoinKindId } from '../../../core/catalogue';
import type { BuildEdit } from '../../../core/document';
import {
  addLimbJoint,
  changeMass,
  mergeLimbJoint,
  moveLimbJoint,
  removeLimb,
  renameLimb,
  type JointOfMesh,
  type PosedJoint,
  type ResolvedForm,
} from '../../../core/form';
import { formatLength, type Vec3 } from '../../../core/quantity';
import { bonesFrom, letComeAway } from '../../../core/school';
import { useBench, useController } from '../../bench/context';

/** A joint of a mesh: what its limb is called, and the joints there are in it. */
const ways: readonly { readonly name: string; readonly by: Vec3 }[] = [
  { name: 'left', by: [1, 0, 0] },
  { name: 'right', by: [-1, 0, 0] },
  { name: 'forward', by: [0, -1, 0] },
  { name: 'back', by: [0, 1, 0] },
  { name: 'up', by: [0, 0, 1] },
  { name: 'down', by: [0, 0, -1] },
];

export function LimbOfMesh({ of, joint, form }: { of: JointOfMesh; joint: PosedJoint; form: ResolvedForm }) {
  const controller = useController();
  const build = useBench((s) => s.build);
  const units = useBench((s) => s.units);
  const edit = (e: BuildEdit | null, then?: string) => {
    if (!e) return;
    const refused = controller.edit(e);
    if (refused) controller.announce(`Not done: ${refused.message}`);
    else if (then !== undefined) controller.select({ kind: 'joint', id: then });
  };
  const added = addLimbJoint(of);
  const merged = mergeLimbJoint(of);
  const removed = removeLimb(of);
  const parent = joint.parent ?? undefined;
  const part = form.masses.find((m) => m.part && m.joint === joint.id);
  // A tenth of how thick it is there: a step that can be seen, and does not overshoot.
  const step = Math.max(0.001, Math.round(100 * of.joint.radius * form.size) / 1000);
  return (
    <>
      <div className="field">
        <label htmlFor="limb-name">The limb is called</label>
        <Form.Control
          id="limb-name"
          key={of.joint.limb}
          size="sm"
          maxLength={40}
          defaultValue={of.joint.limb}
          onBlur={(e) => {
            const name = e.target.value.trim();
            if (name === '') e.target.value = of.joint.limb;
            else if (name !== of.joint.limb) edit(renameLimb(build, of, name));
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur();
          }}
        />
      </div>
      <ComesAway joint={joint} limb={of.joint.limb} />
      <div className="label">Joint moved within it, by {formatLength(step, units)}</div>
      <div className="acts mb-2">
        {ways.map(({ name, by }) => (
          <Button
            key={name}
            size="sm"
            variant="quiet"
            onClick={() =>
              edit(moveLimbJoint(of, by.map((v) => v * step) as unknown as Vec3, joint.rotation, form.size))
            }
          >
            {name}
          </Button>
        ))}
      </div>
      <div className="acts mb-2">
        {added && (
          <Button size="sm" variant="quiet" onClick={() => edit(added.edit, added.id)}>
            Add a joint before it
          </Button>
        )}
        {merged && (
          <Button size="sm" variant="quiet" onClick={() => edit(merged, parent)}>
            Make it one with the joint before
          </Button>
        )}
        {removed && (
          <Button size="sm" variant="quiet" onClick={() => edit(removed, parent)}>
            Take it and all beyond away
          </Button>
        )}
        {part && form.masses.length > 1 && (
          <Button
            size="sm"
            variant="quiet"
            onClick={() => edit(changeMass(build, form, part.id, `Leave the ${part.name} off`, { hidden: true }))}
          >
            Leave its part of the mesh off
          </Button>
        )}
      </div>
    </>
  );
}

/** How what lies beyond the joint is held there, if it comes away; nothing where the armature has no joint. */
function ComesAway({ joint, limb }: { joint: PosedJoint; limb: string }) {
  const controller = useController();
  const armature = useBench((s) => s.picture?.armature);
  const beyond = armature ? bonesFrom(armature, joint.at) : [];
  if (!armature || beyond.length === 0) return null;
  const held = beyond.map((b) => b.joinFrom).find((j) => partingJoins.includes(j));
  return (
    <div className="field">
      <label htmlFor="limb-away">Comes away here</label>
      <Form.Select
        id="limb-away"
        size="sm"
        value={held ?? ''}
        onChange={(e) => {
          const join = e.target.value === '' ? null : (e.target.value as JoinKindId);
          const edit = letComeAway(armature, joint.at, limb, join);
          if (edit) controller.edit(edit);
        }}
      >
        <option value="">no, it stays on</option>
        {joinKinds
          .filter((j) => partingJoins.includes(j.id))
          .map((j) => (
            <option key={j.id} value={j.id}>
              {j.name}
            </option>
          ))}
      </Form.Select>
    </div>
  );
}
