import * as THREE from 'three';
import type { PartedPicture } from '../../workers/protocol';
import { cavityNames } from './mould-words';
import { label } from './surroundings';

/** The mould on the piece: its parts in quiet shades, the line between them, what holds it, holes to pour and for air. */
export const partShades = ['#b9a88c', '#7f93a1', '#94a183', '#b08d7c', '#8f8aa3', '#c2b280', '#7e9f98', '#a39a8f'];
const heldShade = '#9e3d28';
/** More are told as one sum. */
export const shownLocks = 6;

/** As it is drawn: metres by which the mould lies off the face, and how far a part is drawn away at most. */
interface Scale {
  readonly off: number;
  readonly away: number;
  readonly reach: number;
  readonly dark: boolean;
}

export function drawMould(group: THREE.Group, { surface, parting, stands }: PartedPicture, scale: Scale): void {
  const { positions, normals, triangles } = surface;
  const lifted = new Float32Array(positions.length);
  for (let i = 0; i < lifted.length; i++) lifted[i] = positions[i]! + normals[i]! * scale.off;
  const attributes = {
    position: new THREE.BufferAttribute(lifted, 3),
    normal: new THREE.BufferAttribute(normals, 3),
  };
  parting.pieces.forEach((_, i) => {
    const part = new THREE.Group();
    part.userData['part'] = i;
    for (const held of [0, 1]) {
      const index: number[] = [];
      for (let t = 0; t < parting.labels.length; t++)
        if (!stands[t] && parting.labels[t] === i && parting.held[t] === held)
          index.push(triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!);
      if (index.length === 0) continue;
      const geometry = new THREE.BufferGeometry();
      geometry.setAttribute('position', attributes.position);
      geometry.setAttribute('normal', attributes.normal);
      geometry.setIndex(index);
      part.add(
        new THREE.Mesh(
          geometry,
          new THREE.MeshStandardMaterial({
            color: held ? heldShade : partShades[i % partShades.length]!,
            roughness: 0.95,
            side: THREE.DoubleSide,
          }),
        ),
      );
    }
    group.add(part);
  });
  const ink = scale.dark ? '#ede6da' : '#2a2622';
  const still = new THREE.Group(),
    locks = new THREE.Group();
  for (const line of parting.lines) {
    if (line.points.length < 2) continue;
    const middle = centreOf(positions);
    const path = new THREE.CatmullRomCurve3(
      line.points.map((p) => outFrom(new THREE.Vector3(...p), middle, scale.off)),
      false,
      'chordal',
    );
    const tube = new THREE.TubeGeometry(path, Math.max(8, line.points.length), scale.reach * 0.004, 6, false);
    still.add(new THREE.Mesh(tube, new THREE.MeshBasicMaterial({ color: ink })));
  }
  for (const [i, lock] of parting.locked.slice(0, shownLocks).entries()) {
    const ball = new THREE.Mesh(
      new THREE.SphereGeometry(scale.reach * 0.018, 16, 12),
      new THREE.MeshBasicMaterial({ color: heldShade, depthTest: false }),
    );
    ball.position.set(...lock.at);
    ball.renderOrder = 8;
    locks.add(ball, label(String(i + 1), new THREE.Vector3(...lock.at), ink, scale.reach, 'right'));
  }
  if (parting.cavities.length > 1)
    cavityNames(parting.cavities.map((c) => c.at)).forEach((name, i) => {
      const { at } = parting.cavities[i]!;
      const above = new THREE.Vector3(at[0], at[1], topOf(positions, at[0]) + scale.reach * 0.08);
      still.add(label(name, above, ink, scale.reach));
    });
  const up = new THREE.Vector3(...parting.pour.up);
  parting.pour.traps.forEach((trap) => {
    // Through the open side nothing is bored.
    if (trap.open) return;
    // The highest of its cavity.
    const pours = trap.height === Infinity;
    const wide = scale.reach * (pours ? 0.03 : 0.014);
    const high = scale.reach * (pours ? 0.1 : 0.14);
    const chimney = new THREE.Mesh(
      new THREE.CylinderGeometry(pours ? wide * 1.6 : wide, wide, high, 20, 1, true),
      new THREE.MeshStandardMaterial({ color: '#cfae80', roughness: 0.9, side: THREE.DoubleSide }),
    );
    chimney.quaternion.setFromUnitVectors(new THREE.Vector3(0, 1, 0), up);
    chimney.position.set(...trap.at).addScaledVector(up, high / 2);
    still.add(chimney);
  });
  still.userData['still'] = true;
  group.add(still, locks);
}

/** Draws each part along its direction, as far as it comes, all the way where what holds it gives; line and holes are of the closed mould. */
export function openMould(group: THREE.Group, { parting, comesOff }: PartedPicture, open: number, away: number): void {
  const travelOf = (p: (typeof parting.pieces)[number]) => (comesOff ? Infinity : p.travel);
  const moves = open > 0.02 && parting.pieces.some((p) => travelOf(p) > 0.02 * away);
  for (const child of group.children) {
    if (child.userData['still']) {
      child.visible = !moves;
      continue;
    }
    const piece = parting.pieces[child.userData['part'] as number];
    if (piece) child.position.set(...piece.direction).multiplyScalar(Math.min(open * away, travelOf(piece)));
  }
}

/** The highest point of what stands to that side of the middle. */
function topOf(positions: Float32Array, x: number): number {
  let top = -Infinity;
  for (let i = 0; i < positions.length; i += 3) if (positions[i]! * x > 0) top = Math.max(top, positions[i + 2]!);
  return top;
}

function centreOf(positions: Float32Array): THREE.Vector3 {
  const sum = new THREE.Vector3();
  for (let i = 0; i < positions.length; i += 3)
    sum.add(new THREE.Vector3(positions[i], positions[i + 1], positions[i + 2]));
  return sum.multiplyScalar(3 / Math.max(3, positions.length));
}

function outFrom(p: THREE.Vector3, middle: THREE.Vector3, by: number): THREE.Vector3 {
  const out = p.clone().sub(middle).normalize();
  return p.addScaledVector(out, by * 1.5);
}
