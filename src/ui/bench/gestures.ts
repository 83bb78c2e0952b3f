import type { Build, BuildEdit } from '../../core/document';
import { jointOfMesh, moveLimbJoint, moveMass, poseJoint, resolveForm, stretchMass, turnMass } from '../../core/form';
import type { Vec3 } from '../../core/quantity';
import { jointName, moveJoint } from '../../core/school';
import type { BenchController } from './controller';
import type { Gestures } from './shaping-hands';

/** What hands on the piece do to the build. Loaded with the picture: forms and schools are large. */

/** Each gesture is worked out on the build as it stands when the hand lets go. */
export function gesturesOn(controller: BenchController): Gestures {
  const act = (make: (build: Build, form: ReturnType<typeof formOf>) => BuildEdit | null) => {
    const edit = make(controller.state.build, formOf(controller.state.build));
    const refused = edit && controller.edit(edit);
    if (refused) controller.announce(`Not done: ${refused.message}`);
  };
  const free = (id: string) => controller.state.build.form.edits[id]?.locked !== true;
  return {
    onPick: (picked) => controller.select(picked),
    onMove: (mass, by) => act((b, f) => (f && free(mass.id) ? moveMass(b, f, mass, by) : null)),
    onTurn: (mass, to) => act((b, f) => (f && free(mass.id) ? turnMass(b, f, mass, to) : null)),
    onStretch: (mass, by) => act((b, f) => (f && free(mass.id) ? stretchMass(b, f, mass, by) : null)),
    onMoveJoint: (joint, by) =>
      act((b, f) => {
        const of = jointOfMesh(b, joint.id);
        return f && of ? moveLimbJoint(of, by, joint.rotation, f.size) : null;
      }),
    onPose: (joint, from, to) => act((b, f) => (f ? poseJoint(b, f, joint, from, to) : null)),
  };
}

export function formOf(build: Build) {
  const form = resolveForm(build);
  return form.ok ? form.value : null;
}

export function jointGesturesOn(controller: BenchController) {
  return {
    onPick: (id: string | null) => controller.pickJoint(id),
    onMove: (id: string, by: Vec3) => {
      const refused = controller.edit(moveJoint(controller.state.build, id, jointName(id), by));
      if (refused) controller.announce(`Not done: ${refused.message}`);
    },
  };
}
