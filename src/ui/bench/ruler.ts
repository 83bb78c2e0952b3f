import * as THREE from 'three';
import { groundUnder } from '../../core/load';
import { formatLength, type UnitSystem } from '../../core/quantity';
import type { Picture } from '../../workers/protocol';
import { label } from './surroundings';

/** A rod of marks beside the piece, in the user's units. */
export function rulerBeside(picture: Picture, units: UnitSystem, colour: string, reach: number): THREE.Object3D[] {
  const { base } = picture.armature;
  const p = picture.surface.positions;
  let left = -base.width / 2,
    top = 0;
  for (let i = 0; i < p.length; i += 3) {
    left = Math.min(left, p[i]!);
    top = Math.max(top, p[i + 2]!);
  }
  const foot = groundUnder(base);
  const x = left - reach * 0.12;
  const inch = 0.0254;
  const height = top - foot;
  const steps = units === 'imperial' ? [inch, 2 * inch, 6 * inch, 12 * inch] : [0.01, 0.05, 0.1, 0.5];
  const major = steps.find((s) => height / s <= 8) ?? height / 5;
  const minor = major / (units === 'imperial' ? 2 : 5);
  const points: THREE.Vector3[] = [new THREE.Vector3(x, 0, foot), new THREE.Vector3(x, 0, top)];
  const out: THREE.Object3D[] = [];
  for (let i = 0; i * minor <= height + 1e-9; i++) {
    const z = foot + i * minor;
    const isMajor = Math.abs((i * minor) / major - Math.round((i * minor) / major)) < 1e-6;
    const half = reach * (isMajor ? 0.03 : 0.015);
    points.push(new THREE.Vector3(x - half, 0, z), new THREE.Vector3(x + half, 0, z));
    if (isMajor)
      out.push(
        label(
          formatLength(i * minor, units).replace(/ (mm|in)$/, i === 0 ? '' : ' $1'),
          new THREE.Vector3(x - reach * 0.04, 0, z),
          colour,
          reach,
        ),
      );
  }
  out.push(
    new THREE.LineSegments(
      new THREE.BufferGeometry().setFromPoints(points),
      new THREE.LineBasicMaterial({ color: colour }),
    ),
  );
  return out;
}
