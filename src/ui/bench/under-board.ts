import * as THREE from 'three';
import type { Armature } from '../../core/armature';
import { contactsOf, groundUnder } from '../../core/load';

const iron = new THREE.Color('#41505a');

/** Slats, feet or casters under the board, and the weight fixed to it. */
export function underBoard(base: Armature['base']): THREE.Object3D[] {
  const out: THREE.Object3D[] = [];
  const wood = () => new THREE.MeshStandardMaterial({ color: '#b8935f', roughness: 0.9 });
  if (base.standing === 'own') return out;
  const raised = -base.thickness - groundUnder(base);
  const z = -base.thickness - raised / 2;
  if (base.standing === 'slats') {
    for (const side of [-1, 1]) {
      const slat = new THREE.Mesh(
        new THREE.BoxGeometry(Math.min(0.045, base.width * 0.12), base.depth, raised),
        wood(),
      );
      slat.position.set(base.at[0] + (side * base.width * 0.88) / 2, base.at[1], z);
      out.push(slat);
    }
  } else if (base.standing !== 'flat') {
    for (const [x, y] of contactsOf(base)) {
      const foot = new THREE.Mesh(
        base.standing === 'casters'
          ? new THREE.CylinderGeometry(raised / 2, raised / 2, raised * 0.4, 24)
          : new THREE.CylinderGeometry(0.012, 0.012, raised, 20),
        new THREE.MeshStandardMaterial({ color: iron, roughness: 0.6 }),
      );
      if (base.standing === 'casters') foot.rotation.z = Math.PI / 2;
      else foot.rotation.x = Math.PI / 2;
      foot.position.set(x, y, z);
      out.push(foot);
    }
  }
  if (base.ballast > 0) {
    // Steel plate of its weight, a quarter as high as it is wide.
    const side = Math.cbrt((base.ballast / 7850) * 4);
    const plate = new THREE.Mesh(
      new THREE.BoxGeometry(side, side, side / 4),
      new THREE.MeshStandardMaterial({ color: '#5b4a42', roughness: 0.7, metalness: 0.2 }),
    );
    plate.position.set(base.ballastAt[0], base.ballastAt[1], side / 8);
    out.push(plate);
  }
  return out;
}
