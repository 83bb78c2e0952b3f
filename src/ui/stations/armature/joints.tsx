'use client';
import { Button, Form } from 'react-bootstrap';
import type { Vec3 } from '../../../core/quantity';
import { holdJoint, jointName, moveJoint, putJointBack, removePart, splitBone } from '../../../core/school';
import { useBench, useController } from '../../bench/context';
import { QuantityInput } from '../../parts/fields';

/** One joint of the armature: where it stands, what meets there, what can be done with it. Picked here or on the piece. */
const axes = [
  ['Left of the middle', 0],
  ['Behind the middle', 1],
  ['Above the board', 2],
] as const;

export function Joints() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const armature = useBench((s) => s.picture?.armature);
  const picked = useBench((s) => s.pickedJoint);
  if (!armature) return null;
  const node = armature.nodes.find((n) => n.id === picked);
  const bones = node ? armature.bones.filter((b) => b.from === node.id || b.to === node.id) : [];
  const name = node ? jointName(node.id) : '';
  const moved = node ? build.armature.nodes[node.id]?.moved : undefined;
  return (
    <>
      <h3>Joints</h3>
      <div className="field">
        <label htmlFor="joint">Joint</label>
        <Form.Select
          id="joint"
          size="sm"
          value={picked ?? ''}
          onChange={(e) => controller.pickJoint(e.target.value === '' ? null : e.target.value)}
        >
          <option value="">Pick one here or on the piece …</option>
          {armature.nodes.map((n) => (
            <option key={n.id} value={n.id}>
              {jointName(n.id)}
              {n.held ? ', held' : ''}
            </option>
          ))}
        </Form.Select>
      </div>
      {node && (
        <>
          <div className="pairs">
            {axes.map(([label, k]) => (
              <QuantityInput
                key={label}
                label={label}
                kind="length"
                value={node.at[k]}
                onCommit={(v) => {
                  if (v === null) return null;
                  const by: Vec3 = [
                    k === 0 ? v - node.at[0] : 0,
                    k === 1 ? v - node.at[1] : 0,
                    k === 2 ? v - node.at[2] : 0,
                  ];
                  return controller.edit(moveJoint(build, node.id, name, by))?.message ?? null;
                }}
              />
            ))}
          </div>
          <Form.Check
            className="mb-2"
            type="checkbox"
            id="joint-held"
            label="Fixed to the base"
            checked={node.held}
            onChange={(e) => controller.edit(holdJoint(build, node.id, name, e.target.checked))}
          />
          <div className="d-flex flex-wrap gap-2 mb-2">
            {moved && (
              <Button size="sm" variant="quiet" onClick={() => controller.edit(putJointBack(node.id, name))}>
                Put it back
              </Button>
            )}
            <Button
              size="sm"
              variant="quiet"
              onClick={() => {
                controller.edit(removePart(build, armature, node.id, 'joint'));
                controller.pickJoint(null);
              }}
            >
              Take away, with what meets there
            </Button>
          </div>
          <ul className="plain">
            {bones.map((b) => (
              <li key={b.id} className="d-flex justify-content-between align-items-center gap-2 mb-1">
                <span>
                  {b.name}
                  {b.tie ? ', a tie' : ''}
                </span>
                {!b.tie && (
                  <Button
                    size="sm"
                    variant="quiet"
                    aria-label={`Cut the ${b.name} in two`}
                    onClick={() => controller.edit(splitBone(build, b, 0.5))}
                  >
                    Cut in two
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
