import type { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { TransformControls } from 'three/addons/controls/TransformControls.js';
import type * as THREE from 'three';

/** The handle one drags a mass or a joint by; the turntable stands still meanwhile. What follows is told when the hand lets go. */
export class Handle {
  readonly controls: TransformControls;
  dragging = false;

  constructor(
    private readonly scene: THREE.Scene,
    camera: THREE.Camera,
    canvas: HTMLCanvasElement,
    orbit: OrbitControls,
    draw: () => void,
    letGo: () => void,
  ) {
    this.controls = new TransformControls(camera, canvas);
    this.controls.setSize(0.75);
    this.setTheme(false);
    this.controls.addEventListener('change', draw);
    this.controls.addEventListener('dragging-changed', (event) => {
      this.dragging = event.value === true;
      orbit.enabled = !this.dragging;
      if (!this.dragging) letGo();
    });
    scene.add(this.controls.getHelper());
    this.rest();
  }

  setTheme(dark: boolean): void {
    if (dark) this.controls.setColors('#d9a441', '#7fc4b5', '#b9cbd5', '#e98f77');
    else this.controls.setColors('#b9801a', '#2e7566', '#41505a', '#9e3d28');
  }

  hold(what: THREE.Object3D, mode: 'translate' | 'rotate' | 'scale', space: 'world' | 'local'): void {
    this.controls.setMode(mode);
    this.controls.setSpace(space);
    this.controls.attach(what);
    this.controls.enabled = true;
    this.controls.getHelper().visible = true;
  }

  rest(): void {
    this.controls.detach();
    this.controls.enabled = false;
    this.controls.getHelper().visible = false;
  }

  dispose(): void {
    this.rest();
    this.controls.dispose();
    this.scene.remove(this.controls.getHelper());
  }
}
