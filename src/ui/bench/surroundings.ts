import * as THREE from 'three';
import type { Mount, Reference } from '../../core/document';
import type { Vec3 } from '../../core/quantity';
import { bodyOutline } from './scale-figures';

/** What stands round the piece and is no part of it: pictures behind it, lines of proportion, labels, a wearer, lines it hangs from. */
export interface Surroundings {
  readonly reach: number;
  readonly dark: boolean;
  readonly draw: () => void;
}

export function empty(group: THREE.Group): void {
  const old: THREE.Material[] = [];
  for (const child of [...group.children]) {
    child.traverse((part) => {
      const mesh = part as THREE.Mesh;
      mesh.geometry?.dispose();
      for (const material of Array.isArray(mesh.material) ? mesh.material : [mesh.material]) {
        if (!material) continue;
        (material as THREE.SpriteMaterial).map?.dispose();
        old.push(material);
      }
    });
    group.remove(child);
  }
  afterNextPicture(() => {
    for (const material of old) material.dispose();
  });
}

/**
 * A shader goes with the last material that uses it, and to make it again takes longer than to draw with it: what is
 * put in the place of old materials is drawn once before they go.
 */
function afterNextPicture(then: () => void): void {
  requestAnimationFrame(() => requestAnimationFrame(then));
}

/** Text that ends, or begins, at a place and faces the eye. */
export function label(
  text: string,
  at: THREE.Vector3,
  colour: string,
  reach: number,
  side: 'left' | 'right' = 'left',
): THREE.Sprite {
  const canvas = document.createElement('canvas');
  const context = canvas.getContext('2d');
  const font = '34px "Atkinson Hyperlegible", sans-serif';
  if (context) context.font = font;
  canvas.width = Math.ceil(Math.max(60, context?.measureText(text).width ?? 240) + 12);
  canvas.height = 64;
  if (context) {
    context.font = font;
    context.fillStyle = colour;
    context.textAlign = 'left';
    context.textBaseline = 'middle';
    context.fillText(text, 6, 34);
  }
  const texture = new THREE.CanvasTexture(canvas);
  texture.colorSpace = THREE.SRGBColorSpace;
  const sprite = new THREE.Sprite(new THREE.SpriteMaterial({ map: texture, transparent: true, depthTest: false }));
  const height = reach * 0.085;
  sprite.scale.set((height * canvas.width) / 64, height, 1);
  sprite.center.set(side === 'left' ? 1 : 0, 0.5);
  sprite.position.copy(at);
  sprite.renderOrder = 9;
  return sprite;
}

/** Pictures and outlines behind the piece, upright, as large as they were marked. */
export function drawReferences(
  group: THREE.Group,
  references: readonly Reference[],
  { reach, dark, draw }: Surroundings,
): void {
  empty(group);
  for (const r of references) {
    const holder = new THREE.Group();
    if (r.image) {
      const texture = new THREE.TextureLoader().load(r.image, draw);
      texture.colorSpace = THREE.SRGBColorSpace;
      const plane = new THREE.Mesh(
        new THREE.PlaneGeometry(r.width, r.height),
        new THREE.MeshBasicMaterial({ map: texture, transparent: true, opacity: r.opacity, depthWrite: false }),
      );
      plane.position.set(r.width / 2 - r.mark[0], r.mark[1] - r.height / 2, 0);
      plane.renderOrder = -2;
      holder.add(plane);
    }
    for (const line of r.lines ?? []) {
      const points: THREE.Vector3[] = [];
      for (let i = 0; i + 1 < line.length; i += 2)
        points.push(new THREE.Vector3(line[i]! - r.mark[0], r.mark[1] - line[i + 1]!, 0));
      const drawn = new THREE.Line(
        new THREE.BufferGeometry().setFromPoints(points),
        new THREE.LineBasicMaterial({
          color: dark ? '#e98f77' : '#9e3d28',
          transparent: true,
          opacity: r.opacity,
          depthTest: false,
        }),
      );
      drawn.renderOrder = 6;
      holder.add(drawn);
    }
    holder.scale.setScalar(r.perPixel);
    // Stood upright, facing the eye: from the front its right is +x; from the side, +y.
    holder.rotation.set(Math.PI / 2, r.view === 'side' ? Math.PI / 2 : 0, 0);
    holder.position.set(r.view === 'side' ? -reach : 0, r.view === 'front' ? reach : 0, r.above);
    group.add(holder);
  }
}

/** Lines of proportion across the form, each with its name. */
export function drawGuides(
  group: THREE.Group,
  lines: readonly { readonly name: string; readonly ends: readonly [Vec3, Vec3]; readonly right?: boolean }[],
  { reach, dark }: Surroundings,
): void {
  empty(group);
  const colour = dark ? '#7fc4b5' : '#2e7566';
  for (const { name, ends, right } of lines) {
    const points = ends.map((p) => new THREE.Vector3(...p));
    const line = new THREE.Line(
      new THREE.BufferGeometry().setFromPoints(points),
      new THREE.LineDashedMaterial({ color: colour, dashSize: reach * 0.02, gapSize: reach * 0.012, depthTest: false }),
    );
    line.computeLineDistances();
    line.renderOrder = 7;
    const [from, to] = points as [THREE.Vector3, THREE.Vector3];
    group.add(line, right ? label(name, to, colour, reach, 'right') : label(name, from, colour, reach));
  }
}

/** The wearer behind a worn piece, its straps, the lines it hangs from, the plate it is screwed to. Returns how far it reaches from the middle. */
export function drawMount(
  group: THREE.Group,
  mount: Mount,
  box: THREE.Box3,
  centre: Vec3 | null,
  { reach, dark }: Surroundings,
): number {
  empty(group);
  const colour = dark ? '#93a9b5' : '#41505a';
  const mark = dark ? '#7fc4b5' : '#2e7566';
  const middle = box.getCenter(new THREE.Vector3());
  const line = (points: readonly THREE.Vector3[], c: string) => {
    const drawn = new THREE.Line(
      new THREE.BufferGeometry().setFromPoints([...points]),
      new THREE.LineBasicMaterial({ color: c, depthTest: false, transparent: true, opacity: 0.85 }),
    );
    drawn.renderOrder = 2;
    group.add(drawn);
  };
  const dot = (at: THREE.Vector3, c: string) => {
    const ball = new THREE.Mesh(
      new THREE.SphereGeometry(reach * 0.017, 16, 12),
      new THREE.MeshBasicMaterial({ color: c, depthTest: false }),
    );
    ball.position.copy(at);
    ball.renderOrder = 8;
    group.add(ball);
  };
  if (mount.kind === 'worn') {
    const { rings, arms, seat } = bodyOutline(mount.where);
    // A bowl sits over its seat, a breast plate against it.
    const low =
      mount.where === 'chest' || mount.where === 'back' ? middle.z : box.min.z + 0.3 * (box.max.z - box.min.z);
    const shift = new THREE.Vector3(middle.x - seat[0], middle.y - seat[1], low - seat[2]);
    for (const part of [rings, ...arms]) group.add(...skinOf(part, shift, colour));
    const size = new THREE.Box3().setFromObject(group);
    const far =
      Math.max(size.max.x - middle.x, middle.x - size.min.x, middle.z - size.min.z, size.max.z - middle.z) * 0.92;
    for (const s of mount.straps) {
      const at = new THREE.Vector3(...s.at);
      dot(at, mark);
      group.add(label(s.name, at.clone().add(new THREE.Vector3(far * 0.03, 0, far * 0.02)), mark, far * 0.75, 'right'));
    }
    return far;
  }
  if (mount.kind === 'hangs') {
    for (const p of mount.points) {
      const at = new THREE.Vector3(...p);
      dot(at, mark);
      line([at, at.clone().add(new THREE.Vector3(0, 0, reach * 0.8))], colour);
    }
  }
  if (mount.kind === 'wall') {
    const y = box.max.y,
      half = mount.height / 2,
      z = centre?.[2] ?? middle.z;
    const corners: [number, number][] = [
      [-half, -half],
      [half, -half],
      [half, half],
      [-half, half],
      [-half, -half],
    ];
    line(
      corners.map(([x, dz]) => new THREE.Vector3(middle.x + x, y, z + dz)),
      mark,
    );
  }
  return 0;
}

/** A body or an arm from level rings: a pale skin, and its rings. */
function skinOf(
  rings: readonly (readonly (readonly [number, number, number])[])[],
  shift: THREE.Vector3,
  colour: string,
): THREE.Object3D[] {
  const around = rings[0]?.length ?? 0;
  const positions = new Float32Array(
    rings.flatMap((ring) => ring.flatMap(([x, y, z]) => [x + shift.x, y + shift.y, z + shift.z])),
  );
  const triangles: number[] = [];
  for (let r = 0; r + 1 < rings.length; r++) {
    for (let i = 0; i + 1 < around; i++) {
      const a = r * around + i,
        b = a + around;
      triangles.push(a, a + 1, b, a + 1, b + 1, b);
    }
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  geometry.setIndex(triangles);
  geometry.computeVertexNormals();
  const skin = new THREE.Mesh(
    geometry,
    new THREE.MeshStandardMaterial({
      color: '#c9d0d2',
      transparent: true,
      opacity: 0.34,
      depthWrite: false,
      side: THREE.DoubleSide,
      roughness: 1,
    }),
  );
  skin.renderOrder = 0;
  const lines = rings.map(
    (ring) =>
      new THREE.Line(
        new THREE.BufferGeometry().setFromPoints(ring.map(([x, y, z]) => new THREE.Vector3(x, y, z).add(shift))),
        new THREE.LineBasicMaterial({ color: colour, transparent: true, opacity: 0.35 }),
      ),
  );
  return [skin, ...lines];
}
