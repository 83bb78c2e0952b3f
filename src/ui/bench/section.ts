import * as THREE from 'three';
import type { Vec3 } from '../../core/quantity';

/** A cut through the piece, coloured by what is in it; and touching the face to name a place on it. */
export interface Section {
  readonly axis: 0 | 1 | 2;
  /** Where along the axis, metres. */
  readonly at: number;
  /** Low corner of the picture on the other two axes, and metres to a pixel. */
  readonly corner: readonly [number, number];
  readonly step: number;
  readonly width: number;
  readonly height: number;
  /** Red, green, blue, opacity; row nought lowest. */
  readonly pixels: Uint8Array<ArrayBuffer>;
}

export const probeColours = ['#9e3d28', '#2e7566', '#7a5206', '#41505a'] as const;

/** Adds the cut to `group`; returns the plane that takes away what lies between it and the eye. */
export function drawSection(group: THREE.Group, section: Section, toEye: THREE.Vector3): THREE.Plane {
  const { axis, at, corner, step, width, height } = section;
  const texture = new THREE.DataTexture(section.pixels, width, height, THREE.RGBAFormat);
  texture.colorSpace = THREE.SRGBColorSpace;
  texture.magFilter = THREE.NearestFilter;
  texture.minFilter = THREE.NearestFilter;
  texture.needsUpdate = true;
  const place = (u: number, v: number): [number, number, number] => {
    const a = corner[0] + u * width * step,
      b = corner[1] + v * height * step;
    return axis === 0 ? [at, a, b] : axis === 1 ? [a, at, b] : [a, b, at];
  };
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute(
    'position',
    new THREE.Float32BufferAttribute([...place(0, 0), ...place(1, 0), ...place(1, 1), ...place(0, 1)], 3),
  );
  geometry.setAttribute('uv', new THREE.Float32BufferAttribute([0, 0, 1, 0, 1, 1, 0, 1], 2));
  geometry.setIndex([0, 1, 2, 0, 2, 3]);
  const mesh = new THREE.Mesh(
    geometry,
    new THREE.MeshBasicMaterial({
      map: texture,
      transparent: true,
      side: THREE.DoubleSide,
      depthWrite: false,
      alphaTest: 0.3,
    }),
  );
  mesh.renderOrder = 5;
  group.add(mesh);
  const normal = new THREE.Vector3(axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0);
  const side = toEye.dot(normal) > 0 ? -1 : 1;
  return new THREE.Plane(normal.multiplyScalar(side), -side * at);
}

/** Told where the face was touched; a press that moves is a turn and not a touch. */
export class Touch {
  private readonly ray = new THREE.Raycaster();
  private told: ((at: Vec3) => void) | null = null;
  private surface: THREE.Mesh | null = null;
  private from: { x: number; y: number } | null = null;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly camera: THREE.Camera,
  ) {}

  set(told: ((at: Vec3) => void) | null, surface: THREE.Mesh | null): void {
    if (this.told === null && told !== null) {
      this.canvas.addEventListener('pointerdown', this.press);
      this.canvas.addEventListener('pointerup', this.release);
    } else if (told === null) {
      this.canvas.removeEventListener('pointerdown', this.press);
      this.canvas.removeEventListener('pointerup', this.release);
    }
    this.told = told;
    this.surface = surface;
  }

  private readonly press = (event: PointerEvent): void => {
    this.from = { x: event.clientX, y: event.clientY };
  };

  private readonly release = (event: PointerEvent): void => {
    if (
      !this.from ||
      Math.hypot(event.clientX - this.from.x, event.clientY - this.from.y) > 5 ||
      !this.surface ||
      !this.told
    )
      return;
    const box = this.canvas.getBoundingClientRect();
    this.ray.setFromCamera(
      new THREE.Vector2(
        ((event.clientX - box.left) / box.width) * 2 - 1,
        1 - ((event.clientY - box.top) / box.height) * 2,
      ),
      this.camera,
    );
    const material = this.surface.material as THREE.Material;
    const hit = this.ray
      .intersectObject(this.surface, false)
      .find((h) => !material.clippingPlanes?.some((p) => p.distanceToPoint(h.point) < 0));
    if (hit) this.told([hit.point.x, hit.point.y, hit.point.z]);
  };
}
