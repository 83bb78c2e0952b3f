import * as THREE from 'three';
import type { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { Armature } from '../../core/armature';
import type { Vec3 } from '../../core/quantity';
import { Handle } from './handle';
import { empty } from './surroundings';

/** Hands on the armature: picking a joint and moving it. Only the joint moves while a hand drags; the rest when it lets go. */
export interface JointGestures {
  readonly onPick: (joint: string | null) => void;
  readonly onMove: (joint: string, by: Vec3) => void;
}

const farPick = 11;

export class ArmatureHands {
  private readonly group = new THREE.Group();
  private readonly handle: Handle;
  private readonly ghost = new THREE.Object3D();
  private dots: { id: string; at: THREE.Vector3 }[] = [];
  private armature: Armature | null = null;
  private picked: string | null = null;
  private pressedAt: { x: number; y: number } | null = null;

  constructor(
    private readonly scene: THREE.Scene,
    private readonly camera: THREE.OrthographicCamera,
    private readonly canvas: HTMLCanvasElement,
    orbit: OrbitControls,
    private readonly draw: () => void,
    private readonly gestures: JointGestures,
  ) {
    this.handle = new Handle(scene, camera, canvas, orbit, draw, () => this.letGo());
    scene.add(this.group, this.ghost);
    canvas.addEventListener('pointerdown', this.press);
    canvas.addEventListener('pointerup', this.release);
  }

  dispose(): void {
    this.canvas.removeEventListener('pointerdown', this.press);
    this.canvas.removeEventListener('pointerup', this.release);
    this.clear();
    this.handle.dispose();
    this.scene.remove(this.group, this.ghost);
  }

  /** Shows the joints; null takes the hands off. */
  set(armature: Armature | null, picked: string | null, reach: number, dark: boolean): void {
    this.armature = armature;
    this.picked = picked;
    this.handle.setTheme(dark);
    this.clear();
    if (!armature) {
      this.handle.rest();
      this.draw();
      return;
    }
    const crowded = armature.nodes.length > 60;
    for (const n of armature.nodes) {
      const on = n.id === picked;
      const mesh = new THREE.Mesh(
        new THREE.SphereGeometry(reach * (on ? 0.016 : crowded ? 0.006 : 0.01), 14, 10),
        new THREE.MeshBasicMaterial({
          color: on
            ? dark
              ? '#e98f77'
              : '#9e3d28'
            : n.held
              ? dark
                ? '#ede6da'
                : '#2a2622'
              : dark
                ? '#d9a441'
                : '#b9801a',
          depthTest: false,
          transparent: true,
          opacity: on ? 1 : 0.85,
        }),
      );
      mesh.position.set(...n.at);
      mesh.renderOrder = 8;
      this.group.add(mesh);
      this.dots.push({ id: n.id, at: mesh.position });
    }
    const node = armature.nodes.find((n) => n.id === picked);
    if (!node) this.handle.rest();
    else {
      this.ghost.position.set(...node.at);
      this.handle.hold(this.ghost, 'translate', 'world');
    }
    this.draw();
  }

  /** Arrow keys: the picked joint by a step along the screen. */
  nudge(right: number, up: number): boolean {
    if (!this.armature || this.picked === null) return false;
    const by = new THREE.Vector3()
      .setFromMatrixColumn(this.camera.matrixWorld, 0)
      .multiplyScalar(right)
      .add(new THREE.Vector3().setFromMatrixColumn(this.camera.matrixWorld, 1).multiplyScalar(up));
    this.gestures.onMove(this.picked, [by.x, by.y, by.z]);
    return true;
  }

  private readonly press = (event: PointerEvent): void => {
    this.pressedAt = { x: event.clientX, y: event.clientY };
  };

  private readonly release = (event: PointerEvent): void => {
    const from = this.pressedAt;
    this.pressedAt = null;
    if (
      !this.armature ||
      this.handle.dragging ||
      !from ||
      Math.hypot(event.clientX - from.x, event.clientY - from.y) > 4
    )
      return;
    if (this.handle.controls.axis !== null && this.picked !== null) return;
    const box = this.canvas.getBoundingClientRect();
    let best: { id: string; away: number } | null = null;
    for (const { id, at } of this.dots) {
      const p = at.clone().project(this.camera);
      const away = Math.hypot(
        ((p.x + 1) * box.width) / 2 + box.left - event.clientX,
        ((1 - p.y) * box.height) / 2 + box.top - event.clientY,
      );
      if (away < farPick && (!best || away < best.away)) best = { id, away };
    }
    this.gestures.onPick(best?.id ?? null);
  };

  private letGo(): void {
    const node = this.armature?.nodes.find((n) => n.id === this.picked);
    if (!node) return;
    const by: Vec3 = [
      this.ghost.position.x - node.at[0],
      this.ghost.position.y - node.at[1],
      this.ghost.position.z - node.at[2],
    ];
    if (by.some((v) => Math.abs(v) > 1e-9)) this.gestures.onMove(node.id, by);
  }

  private clear(): void {
    this.dots = [];
    empty(this.group);
  }
}
