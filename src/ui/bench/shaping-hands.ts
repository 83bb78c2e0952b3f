import * as THREE from 'three';
import type { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { rotationOf, type Mass, type PosedJoint, type ResolvedForm, type Rotation } from '../../core/form';
import type { Vec3 } from '../../core/quantity';
import { Handle } from './handle';
import { empty } from './surroundings';

/**
 * Hands on the form: picking a mass or a joint, and moving, turning or stretching it. While a hand drags, only an
 * outline moves; the form is worked out once, when it lets go.
 */
export type Grip = 'move' | 'turn' | 'stretch';

export interface Picked {
  readonly kind: 'mass' | 'joint';
  readonly id: string;
}

export interface Gestures {
  readonly onPick: (picked: Picked | null) => void;
  readonly onMove: (mass: Mass, by: Vec3) => void;
  readonly onTurn: (mass: Mass, to: Rotation) => void;
  readonly onStretch: (mass: Mass, by: Vec3) => void;
  /** A joint of a mesh moved within it, in the world. */
  readonly onMoveJoint: (joint: PosedJoint, by: Vec3) => void;
  /** Rotation the joint had in the world, and has now. */
  readonly onPose: (joint: PosedJoint, from: Rotation, to: Rotation) => void;
}

const modes = { move: 'translate', turn: 'rotate', stretch: 'scale' } as const;
const farPick = 11;

export class ShapingHands {
  private readonly group = new THREE.Group();
  private readonly handle: Handle;
  private readonly ray = new THREE.Raycaster();
  private form: ResolvedForm | null = null;
  private ghost: THREE.Object3D | null = null;
  private picked: Picked | null = null;
  private dots: { joint: PosedJoint; mesh: THREE.Mesh }[] = [];
  private pressedAt: { x: number; y: number } | null = null;
  private active = false;
  private dark = false;

  constructor(
    private readonly scene: THREE.Scene,
    private readonly camera: THREE.OrthographicCamera,
    private readonly canvas: HTMLCanvasElement,
    orbit: OrbitControls,
    private readonly draw: () => void,
    private readonly gestures: Gestures,
  ) {
    this.handle = new Handle(scene, camera, canvas, orbit, draw, () => this.letGo());
    scene.add(this.group);
    canvas.addEventListener('pointerdown', this.press);
    canvas.addEventListener('pointerup', this.release);
  }

  setTheme(dark: boolean): void {
    this.dark = dark;
    this.handle.setTheme(dark);
  }

  dispose(): void {
    this.canvas.removeEventListener('pointerdown', this.press);
    this.canvas.removeEventListener('pointerup', this.release);
    this.clear();
    this.handle.dispose();
    this.scene.remove(this.group);
  }

  /** Shows the joints and what is picked; `form` null takes the hands off. */
  set(
    form: ResolvedForm | null,
    picked: Picked | null,
    grip: Grip,
    reach: number,
    surface: THREE.Mesh | null,
    owners: Uint16Array | null,
  ): void {
    this.form = form;
    this.picked = picked;
    this.active = form !== null;
    this.surface = surface;
    this.owners = owners;
    this.clear();
    if (!form) {
      this.handle.rest();
      this.draw();
      return;
    }
    for (const joint of form.skeleton.joints) {
      const on = picked?.kind === 'joint' && picked.id === joint.id;
      const mesh = new THREE.Mesh(
        new THREE.SphereGeometry(reach * (on ? 0.016 : 0.011), 14, 10),
        new THREE.MeshBasicMaterial({
          color: this.dark
            ? on
              ? '#e98f77'
              : joint.ground
                ? '#ede6da'
                : '#93a9b5'
            : on
              ? '#9e3d28'
              : joint.ground
                ? '#2a2622'
                : '#41505a',
          depthTest: false,
          transparent: true,
          opacity: on ? 1 : 0.75,
        }),
      );
      mesh.position.set(...joint.at);
      mesh.renderOrder = 8;
      this.group.add(mesh);
      this.dots.push({ joint, mesh });
    }
    this.grip(form, picked, grip);
    this.draw();
  }

  private surface: THREE.Mesh | null = null;
  private owners: Uint16Array | null = null;

  private grip(form: ResolvedForm, picked: Picked | null, grip: Grip): void {
    const mass = picked?.kind === 'mass' ? form.masses.find((m) => m.id === picked.id) : undefined;
    const joint = picked?.kind === 'joint' ? form.skeleton.joints.find((j) => j.id === picked.id) : undefined;
    if (mass) {
      this.ghost = outlineOf(mass);
    } else if (joint) {
      this.ghost = new THREE.Object3D();
      this.ghost.position.set(...joint.at);
      this.ghost.quaternion.setFromRotationMatrix(matrixOf(joint.rotation));
    } else {
      this.handle.rest();
      return;
    }
    this.group.add(this.ghost);
    // A joint of a mesh can be moved in it; any joint is turned.
    const moves = grip === 'move' && (mass !== undefined || joint?.limb !== undefined);
    this.handle.hold(this.ghost, joint && !moves ? 'rotate' : modes[grip], moves ? 'world' : 'local');
  }

  /** Arrow keys: moves what is picked by a step along the screen. */
  nudge(right: number, up: number): boolean {
    const { picked, form } = this;
    const mass = picked?.kind === 'mass' ? form?.masses.find((m) => m.id === picked.id) : undefined;
    const joint = picked?.kind === 'joint' ? form?.skeleton.joints.find((j) => j.id === picked.id) : undefined;
    if (!mass && joint?.limb === undefined) return false;
    const x = new THREE.Vector3().setFromMatrixColumn(this.camera.matrixWorld, 0).multiplyScalar(right);
    const y = new THREE.Vector3().setFromMatrixColumn(this.camera.matrixWorld, 1).multiplyScalar(up);
    const by = x.add(y);
    if (mass) this.gestures.onMove(mass, [by.x, by.y, by.z]);
    else if (joint) this.gestures.onMoveJoint(joint, [by.x, by.y, by.z]);
    return true;
  }

  private readonly press = (event: PointerEvent): void => {
    this.pressedAt = { x: event.clientX, y: event.clientY };
  };

  private readonly release = (event: PointerEvent): void => {
    const from = this.pressedAt;
    this.pressedAt = null;
    if (!this.active || this.handle.dragging || !from || Math.hypot(event.clientX - from.x, event.clientY - from.y) > 4)
      return;
    if (this.handle.controls.axis !== null && this.picked) return;
    this.gestures.onPick(this.under(event));
  };

  /** What lies under the pointer: a joint within a finger's breadth, else the mass of the face there. */
  private under(event: PointerEvent): Picked | null {
    const box = this.canvas.getBoundingClientRect();
    const at = new THREE.Vector2(
      ((event.clientX - box.left) / box.width) * 2 - 1,
      1 - ((event.clientY - box.top) / box.height) * 2,
    );
    let best: { id: string; away: number } | null = null;
    for (const { joint, mesh } of this.dots) {
      const p = mesh.position.clone().project(this.camera);
      const away = Math.hypot(((p.x - at.x) * box.width) / 2, ((p.y - at.y) * box.height) / 2);
      if (away < farPick && (!best || away < best.away)) best = { id: joint.id, away };
    }
    if (best) return { kind: 'joint', id: best.id };
    if (!this.surface || !this.owners || !this.form) return null;
    this.ray.setFromCamera(at, this.camera);
    const hit = this.ray.intersectObject(this.surface, false)[0];
    const owner = hit?.face ? this.owners[hit.face.a] : undefined;
    const mass = owner === undefined ? undefined : this.form.masses[owner];
    if (mass?.part && mass.joint !== undefined) return { kind: 'joint', id: mass.joint };
    return mass ? { kind: 'mass', id: mass.id } : null;
  }

  private letGo(): void {
    const { ghost, form, picked } = this;
    if (!ghost || !form || !picked) return;
    if (picked.kind === 'joint') {
      const joint = form.skeleton.joints.find((j) => j.id === picked.id);
      const to = rotationFrom(ghost.quaternion);
      const way = joint && ghost.position.toArray().map((v, k) => v - joint.at[k]!);
      if (joint && way?.some((v) => Math.abs(v) > 1e-9)) this.gestures.onMoveJoint(joint, way as unknown as Vec3);
      else if (joint && to.some((v, i) => Math.abs(v - joint.rotation[i]!) > 1e-9))
        this.gestures.onPose(joint, joint.rotation, to);
      return;
    }
    const mass = form.masses.find((m) => m.id === picked.id);
    if (!mass) return;
    const by: Vec3 = [ghost.position.x - mass.at[0], ghost.position.y - mass.at[1], ghost.position.z - mass.at[2]];
    const factors: Vec3 = [ghost.scale.x, ghost.scale.y, ghost.scale.z];
    if (by.some((v) => Math.abs(v) > 1e-9)) this.gestures.onMove(mass, by);
    else if (factors.some((v) => Math.abs(v - 1) > 1e-9))
      this.gestures.onStretch(mass, [Math.abs(factors[0]), Math.abs(factors[1]), Math.abs(factors[2])]);
    else {
      const to = rotationFrom(ghost.quaternion);
      const from = rotationOf(mass.turn);
      if (to.some((v, i) => Math.abs(v - from[i]!) > 1e-9)) this.gestures.onTurn(mass, to);
    }
  }

  private clear(): void {
    this.dots = [];
    this.ghost = null;
    empty(this.group);
  }
}

function matrixOf(r: Rotation): THREE.Matrix4 {
  return new THREE.Matrix4().set(r[0], r[1], r[2], 0, r[3], r[4], r[5], 0, r[6], r[7], r[8], 0, 0, 0, 0, 1);
}

function rotationFrom(q: THREE.Quaternion): Rotation {
  const e = new THREE.Matrix4().makeRotationFromQuaternion(q).elements as unknown as number[];
  const at = (i: number) => e[i]!;
  return [at(0), at(4), at(8), at(1), at(5), at(9), at(2), at(6), at(10)];
}

/** The picked mass in outline, in its own axes, so that stretching goes along them. */
function outlineOf(mass: Mass): THREE.Object3D {
  const group = new THREE.Group();
  const fill = new THREE.MeshBasicMaterial({ color: '#b9801a', transparent: true, opacity: 0.28, depthWrite: false });
  const add = (geometry: THREE.BufferGeometry, place?: (m: THREE.Mesh) => void) => {
    const mesh = new THREE.Mesh(geometry, fill);
    place?.(mesh);
    mesh.renderOrder = 5;
    group.add(mesh);
  };
  const s = mass.shape;
  if (s.kind === 'ellipsoid' || s.kind === 'shell')
    add(new THREE.SphereGeometry(1, 28, 18), (m) => m.scale.set(...s.radii));
  else if (s.kind === 'rounded-box') add(new THREE.BoxGeometry(2 * s.half[0], 2 * s.half[1], 2 * s.half[2]));
  else if (s.kind === 'sampled') {
    // Filled, the box of a mesh would hide all there is: its edges say which it is.
    const sides = s.cells.map((n) => (n - 1 - 2 * (s.empty ?? 3)) * s.step) as [number, number, number];
    const edges = new THREE.LineSegments(
      new THREE.EdgesGeometry(new THREE.BoxGeometry(...sides)),
      new THREE.LineBasicMaterial({ color: '#b9801a' }),
    );
    edges.position.set(...(s.from.map((v, k) => v + (s.cells[k]! - 1) * s.step * 0.5) as [number, number, number]));
    group.add(edges);
  } else if (s.kind === 'ring') add(new THREE.TorusGeometry(s.radius, s.thickness, 14, 40));
  else if (s.kind === 'drum')
    add(new THREE.CylinderGeometry(s.radius, s.radius, 2 * s.half, 32), (m) => m.rotateX(Math.PI / 2));
  else {
    const reach = new THREE.Vector3(...s.reach);
    add(new THREE.SphereGeometry(s.radiusFrom, 20, 14));
    add(new THREE.SphereGeometry(s.radiusTo, 20, 14), (m) => m.position.copy(reach));
    add(new THREE.CylinderGeometry(s.radiusTo, s.radiusFrom, reach.length(), 24, 1, true), (m) => {
      m.position.copy(reach).multiplyScalar(0.5);
      m.quaternion.setFromUnitVectors(new THREE.Vector3(0, 1, 0), reach.clone().normalize());
    });
  }
  group.position.set(...mass.at);
  group.quaternion.setFromRotationMatrix(matrixOf(rotationOf(mass.turn)));
  return group;
}
