import * as THREE from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { UnitSystem, Vec3 } from '../../core/quantity';
import type { Mount, Reference } from '../../core/document';
import { isBare, type ResolvedForm } from '../../core/form';
import type { PartedPicture, Picture } from '../../workers/protocol';
import { hasFlange, type Armature } from '../../core/armature';
import { groundUnder } from '../../core/load';
import { drawMould, openMould } from './mould-drawing';
import { ArmatureHands, type JointGestures } from './armature-hands';
import { rulerBeside } from './ruler';
import { drawSection, probeColours, Touch, type Section } from './section';
import { underBoard } from './under-board';
import { scaleFigure } from './scale-figures';
import { drawGuides, drawMount, drawReferences, empty, label, type Surroundings } from './surroundings';
import { ShapingHands, type Gestures, type Grip, type Picked } from './shaping-hands';

/**
 * The piece on its turntable: form as translucent plaster, armature as solid iron, props, board, ruler, centre of
 * gravity, sagged shape. Outside React; draws only when something changed.
 */
export type ViewName = 'turn' | 'front' | 'side' | 'top';

export interface ViewColours {
  /** Red, green, blue 0..1 by mass index, or null for plaster. */
  readonly form: readonly (readonly [number, number, number])[] | null;
  /** The same by vertex of the face, in its place. */
  readonly face?: readonly (readonly [number, number, number])[] | null;
  /** By member id, or null for iron. */
  readonly members: ReadonlyMap<string, readonly [number, number, number]> | null;
  /** The clay as one cannot see through it, and nothing of what is in it. */
  readonly solid?: boolean;
}

export interface Sagged {
  readonly bones: readonly { readonly from: Vec3; readonly to: Vec3 }[];
}

const plaster = new THREE.Color('#e9dfcb');
const stone = new THREE.Color('#b9c2c4');
const timber = new THREE.Color('#a67f4f');
const timbers: ReadonlySet<string> = new Set(['hardwood-dowel', 'bamboo', 'softwood-batten']);
const ironByDay = new THREE.Color('#41505a');
const ironByEvening = new THREE.Color('#93a9b5');

export class PieceViewer {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.OrthographicCamera(-1, 1, 1, -1, -50, 50);
  private readonly controls: OrbitControls;
  private readonly groups = {
    form: new THREE.Group(),
    armature: new THREE.Group(),
    base: new THREE.Group(),
    marks: new THREE.Group(),
    ruler: new THREE.Group(),
    guides: new THREE.Group(),
    references: new THREE.Group(),
    scale: new THREE.Group(),
    mount: new THREE.Group(),
    section: new THREE.Group(),
    probes: new THREE.Group(),
    mould: new THREE.Group(),
  };
  private readonly resize: ResizeObserver;
  private picture: Picture | null = null;
  private frame = 0;
  private centre = new THREE.Vector3(0, 0, 0.25);
  private reach = 0.35;
  /** How far from the middle the figure for scale goes. */
  private beside = 0;
  private besideMount = 0;
  private dark = false;
  private units: UnitSystem = 'metric';
  private hands: ShapingHands | null = null;
  private jointHands: ArmatureHands | null = null;
  private touch: Touch | null = null;
  private mould: PartedPicture | null = null;
  private mouldDark = false;
  /** What hides the armature: clay one cannot see through; that it has been taken out. */
  private solid = false;
  private outOfIt = false;
  /** What was last drawn of each kind, told in words: the same again is not drawn again. */
  private readonly told = new Map<string, string>();

  constructor(private readonly canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true, preserveDrawingBuffer: false });
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.localClippingEnabled = true;
    this.camera.up.set(0, 0, 1);
    this.scene.add(...Object.values(this.groups));
    this.scene.add(new THREE.HemisphereLight(0xffffff, 0x9a8f7f, 2.1));
    const key = new THREE.DirectionalLight(0xfff4e2, 1.6);
    key.position.set(-1.2, -2, 2.4);
    this.scene.add(key);
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.enableDamping = false;
    this.controls.addEventListener('change', () => this.draw());
    this.resize = new ResizeObserver(() => this.fit());
    this.resize.observe(canvas.parentElement ?? canvas);
    this.setView('turn');
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.resize.disconnect();
    this.hands?.dispose();
    this.jointHands?.dispose();
    this.touch?.set(null, null);
    this.controls.dispose();
    for (const group of Object.values(this.groups)) empty(group);
    this.renderer.dispose();
  }

  private get iron(): THREE.Color {
    return this.dark ? ironByEvening : ironByDay;
  }

  private draw(): void {
    if (this.frame !== 0) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      this.renderer.render(this.scene, this.camera);
    });
  }

  /** Whether this differs from what was last told of its kind. */
  private isNew(kind: string, what: unknown): boolean {
    const now = JSON.stringify([what, this.dark]);
    if (this.told.get(kind) === now) return false;
    this.told.set(kind, now);
    return true;
  }

  private fit(): void {
    const box = this.canvas.parentElement?.getBoundingClientRect();
    if (!box || box.width < 2 || box.height < 2) return;
    // Setting the size empties the canvas, so it is set when it is another.
    const size = this.renderer.getSize(new THREE.Vector2());
    if (size.x !== box.width || size.y !== box.height) this.renderer.setSize(box.width, box.height, false);
    const aspect = box.width / box.height;
    const half =
      Math.max(
        this.reach,
        this.besideMount,
        this.beside / Math.max(1, aspect * 0.9),
        this.beside > this.reach ? this.beside * 0.8 : 0,
      ) * Math.max(1, 0.92 / aspect);
    this.camera.left = -half * aspect;
    this.camera.right = half * aspect;
    this.camera.top = half;
    this.camera.bottom = -half;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  setTheme(dark: boolean): void {
    this.dark = dark;
    this.drawRuler();
    this.draw();
  }

  setUnits(units: UnitSystem): void {
    this.units = units;
    this.drawRuler();
    this.draw();
  }

  setView(view: ViewName): void {
    const from: Record<ViewName, [number, number, number]> = {
      turn: [-0.75, -1.5, 0.42],
      front: [0, -2, 0],
      side: [2, 0, 0],
      top: [0, -0.001, 2],
    };
    this.controls.target.copy(this.centre);
    this.camera.position.set(...from[view]).add(this.centre);
    this.camera.zoom = 1;
    this.camera.updateProjectionMatrix();
    this.controls.update();
    this.draw();
  }

  /** Keyboard turning: radians about the upright. */
  turn(by: number): void {
    this.camera.position
      .sub(this.centre)
      .applyAxisAngle(new THREE.Vector3(0, 0, 1), by)
      .add(this.centre);
    this.controls.update();
    this.draw();
  }

  zoom(by: number): void {
    this.camera.zoom = Math.min(8, Math.max(0.4, this.camera.zoom * by));
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  setPicture(picture: Picture): void {
    const first = this.picture === null;
    this.picture = picture;
    this.told.clear();
    const bounds = new THREE.Box3();
    const p = picture.surface.positions;
    for (let i = 0; i < p.length; i += 3) bounds.expandByPoint(new THREE.Vector3(p[i], p[i + 1], p[i + 2]));
    for (const n of picture.armature.nodes) bounds.expandByPoint(new THREE.Vector3(...n.at));
    bounds.min.z = Math.min(bounds.min.z, groundUnder(picture.armature.base));
    const size = bounds.getSize(new THREE.Vector3());
    const reach = Math.max(size.z * 0.68, size.x * 0.7, size.y * 0.6, 0.02);
    const middle = bounds.getCenter(new THREE.Vector3());
    const moved =
      first || Math.abs(reach - this.reach) > this.reach * 0.02 || middle.distanceTo(this.centre) > this.reach * 0.05;
    if (moved) {
      const shift = middle.clone().sub(this.centre);
      this.centre.copy(middle);
      this.reach = reach;
      this.controls.target.add(shift);
      this.camera.position.add(shift);
      this.controls.update();
    }
    this.buildForm(picture);
    this.buildArmature(picture);
    this.buildBase(picture);
    this.drawRuler();
    this.fit();
  }

  private buildForm(picture: Picture): void {
    empty(this.groups.form);
    const geometry = new THREE.BufferGeometry();
    const { positions, normals, triangles } = picture.surface;
    geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
    geometry.setAttribute('normal', new THREE.BufferAttribute(normals, 3));
    geometry.setAttribute('color', new THREE.BufferAttribute(new Float32Array(positions.length), 3));
    geometry.setIndex(new THREE.BufferAttribute(triangles, 1));
    const material = () =>
      new THREE.MeshStandardMaterial({
        vertexColors: true,
        transparent: true,
        opacity: 0.36,
        depthWrite: false,
        roughness: 0.9,
      });
    const back = new THREE.Mesh(geometry, material());
    back.material.side = THREE.BackSide;
    const front = new THREE.Mesh(geometry, material());
    front.renderOrder = 3;
    back.renderOrder = 1;
    this.groups.form.add(back, front);
  }

  private buildArmature(picture: Picture): void {
    empty(this.groups.armature);
    for (const member of picture.armature.members) {
      const points = member.path.map((p) => new THREE.Vector3(...p));
      const curve = new THREE.CatmullRomCurve3(points, false, 'centripetal');
      const radius = Math.max(
        0.0016,
        ((picture.memberAcross[member.id] ?? 0.004) / 2) * (member.strands > 1 ? 1.5 : 1),
      );
      const tube = new THREE.TubeGeometry(curve, Math.max(8, points.length * 4), radius, 10, false);
      const mesh = new THREE.Mesh(
        tube,
        new THREE.MeshStandardMaterial({ color: this.iron, roughness: 0.55, metalness: 0.25 }),
      );
      mesh.userData['member'] = member.id;
      mesh.userData['timber'] = timbers.has(member.stock);
      mesh.renderOrder = 2;
      this.groups.armature.add(mesh);
    }
  }

  private buildBase(picture: Picture): void {
    empty(this.groups.base);
    const { base } = picture.armature;
    const board = new THREE.Mesh(
      new THREE.BoxGeometry(base.width, base.depth, base.thickness),
      new THREE.MeshStandardMaterial({ color: '#cfae80', roughness: 0.9 }),
    );
    board.position.set(base.at[0], base.at[1], -base.thickness / 2);
    const turntable = new THREE.Mesh(
      new THREE.CylinderGeometry(1, 1, 0.02, 72),
      new THREE.MeshStandardMaterial({ color: '#d8cdbb', roughness: 1, transparent: true, opacity: 0.65 }),
    );
    const radius = Math.hypot(base.width, base.depth) * 0.62;
    turntable.scale.set(radius, 1, radius);
    turntable.rotation.x = Math.PI / 2;
    turntable.position.set(base.at[0], base.at[1], groundUnder(base) - 0.0105);
    const flange = new THREE.Mesh(
      new THREE.CylinderGeometry(base.flangeDiameter / 2, base.flangeDiameter / 2, 0.008, 40),
      new THREE.MeshStandardMaterial({ color: ironByDay, roughness: 0.6 }),
    );
    flange.rotation.x = Math.PI / 2;
    flange.position.set(base.flangeAt[0], base.flangeAt[1], 0.004);
    // A timber frame is bolted to bearers, which are not a plate to look at.
    this.groups.base.add(
      ...(base.standing === 'own' ? [] : [board]),
      turntable,
      ...(hasFlange(base) && base.flangeDiameter < 0.3 && base.standing !== 'own' ? [flange] : []),
      ...underBoard(base),
    );
  }

  /** Hands on the form, on the Form station; null takes them off. */
  setShaping(shaping: { form: ResolvedForm; picked: Picked | null; grip: Grip } | null, gestures: Gestures): void {
    if (!shaping && !this.hands) return;
    this.hands ??= new ShapingHands(this.scene, this.camera, this.canvas, this.controls, () => this.draw(), gestures);
    this.hands.setTheme(this.dark);
    const front = (this.groups.form.children[1] as THREE.Mesh | undefined) ?? null;
    this.hands.set(
      shaping?.form ?? null,
      shaping?.picked ?? null,
      shaping?.grip ?? 'move',
      this.reach,
      front,
      this.picture?.surface.owners ?? null,
    );
  }

  /** Hands on the armature's joints, on Armature; null takes them off. */
  setJoints(armature: Armature | null, picked: string | null, gestures: JointGestures): void {
    if (!armature && !this.jointHands) return;
    this.jointHands ??= new ArmatureHands(
      this.scene,
      this.camera,
      this.canvas,
      this.controls,
      () => this.draw(),
      gestures,
    );
    this.jointHands.set(armature, picked, this.reach, this.dark);
  }

  nudge(right: number, up: number): boolean {
    if (this.jointHands?.nudge(right * this.reach * 0.01, up * this.reach * 0.01)) return true;
    return this.hands?.nudge(right * this.reach * 0.01, up * this.reach * 0.01) ?? false;
  }

  setColours(colours: ViewColours): void {
    const picture = this.picture;
    if (!picture) return;
    if (colours.face) this.told.delete('colours');
    else if (!this.isNew('colours', [colours.form, colours.members && [...colours.members], colours.solid])) return;
    const attribute = (this.groups.form.children[0] as THREE.Mesh | undefined)?.geometry.getAttribute('color') as
      THREE.BufferAttribute | undefined;
    if (attribute) {
      const { owners } = picture.surface;
      for (let i = 0; i < owners.length; i++) {
        const c = colours.face?.[i] ?? colours.form?.[owners[i]!];
        if (c) attribute.setXYZ(i, c[0], c[1], c[2]);
        else {
          // What the clay is put over and never on, a wearer's head say, is told apart from it.
          const { r, g, b } = isBare(picture.masses[owners[i]!]) ? stone : plaster;
          attribute.setXYZ(i, r, g, b);
        }
      }
      attribute.needsUpdate = true;
    }
    for (const mesh of this.groups.form.children) {
      const material = (mesh as THREE.Mesh).material as THREE.MeshStandardMaterial;
      material.opacity = colours.solid ? 1 : colours.form || colours.face ? 0.6 : colours.members ? 0.2 : 0.36;
      material.depthWrite = colours.solid === true;
    }
    this.solid = colours.solid === true;
    this.showArmature();
    for (const child of this.groups.armature.children) {
      const mesh = child as THREE.Mesh;
      const c = colours.members?.get(mesh.userData['member'] as string);
      const material = mesh.material as THREE.MeshStandardMaterial;
      if (c) material.color.setRGB(c[0], c[1], c[2], THREE.SRGBColorSpace);
      else material.color.copy(mesh.userData['timber'] ? timber : this.iron);
      // Figures are read off the colour, so it is lit from within and shading cannot change it much.
      material.emissive.copy(material.color).multiplyScalar(c ? 0.45 : 0);
      material.metalness = c ? 0 : 0.25;
    }
    this.draw();
  }

  /** Where the form is cut, 0 front .. 1 back; null for whole. */
  setCut(share: number | null): void {
    const { low, high } = this.depthOfForm();
    this.clipForm(share === null ? null : new THREE.Plane(new THREE.Vector3(0, 1, 0), -(low + (high - low) * share)));
  }

  private clipForm(plane: THREE.Plane | null): void {
    for (const mesh of this.groups.form.children) {
      const material = (mesh as THREE.Mesh).material as THREE.MeshStandardMaterial;
      material.clippingPlanes = plane ? [plane] : [];
      material.needsUpdate = true;
    }
    this.draw();
  }

  private depthOfForm(): { low: number; high: number } {
    const p = this.picture?.surface.positions;
    let low = Infinity,
      high = -Infinity;
    if (p) {
      for (let i = 1; i < p.length; i += 3) {
        low = Math.min(low, p[i]!);
        high = Math.max(high, p[i]!);
      }
    }
    return high > low ? { low, high } : { low: -1, high: 1 };
  }

  /** Centre of gravity, props and the sagged bones (already exaggerated). */
  setMarks(marks: { centre: Vec3 | null; props: readonly Vec3[]; sagged: Sagged | null }): void {
    if (!this.isNew('marks', marks)) return;
    empty(this.groups.marks);
    const base = this.picture?.armature.base;
    if (marks.centre) {
      const ball = new THREE.Mesh(
        new THREE.SphereGeometry(this.reach * 0.018, 20, 14),
        new THREE.MeshBasicMaterial({ color: '#9e3d28', depthTest: false }),
      );
      ball.position.set(...marks.centre);
      ball.renderOrder = 6;
      const foot = -(base?.thickness ?? 0);
      const drop = new THREE.BufferGeometry().setFromPoints([
        new THREE.Vector3(...marks.centre),
        new THREE.Vector3(marks.centre[0], marks.centre[1], foot),
      ]);
      const line = new THREE.Line(
        drop,
        new THREE.LineDashedMaterial({ color: '#9e3d28', dashSize: 0.008, gapSize: 0.006, depthTest: false }),
      );
      line.computeLineDistances();
      line.renderOrder = 6;
      this.groups.marks.add(ball, line);
    }
    for (const prop of marks.props) {
      const length = prop[2] + (base?.thickness ?? 0);
      const stick = new THREE.Mesh(
        new THREE.CylinderGeometry(0.007, 0.009, length, 14),
        new THREE.MeshStandardMaterial({ color: '#a67f4f', roughness: 0.9 }),
      );
      stick.rotation.x = Math.PI / 2;
      stick.position.set(prop[0], prop[1], prop[2] - length / 2);
      this.groups.marks.add(stick);
    }
    if (marks.sagged) {
      const points = marks.sagged.bones.flatMap((b) => [new THREE.Vector3(...b.from), new THREE.Vector3(...b.to)]);
      const lines = new THREE.LineSegments(
        new THREE.BufferGeometry().setFromPoints(points),
        new THREE.LineDashedMaterial({
          color: this.dark ? '#e98f77' : '#9e3d28',
          dashSize: 0.012,
          gapSize: 0.008,
          depthTest: false,
        }),
      );
      lines.computeLineDistances();
      lines.renderOrder = 7;
      this.groups.marks.add(lines);
    }
    this.draw();
  }

  /** A hand or a person beside the piece; the view draws back to hold it. */
  setScaleFigure(shown: boolean): void {
    empty(this.groups.scale);
    this.beside = 0;
    const p = this.picture?.surface.positions;
    if (shown && p && this.picture) {
      let right = this.picture.armature.base.width / 2,
        top = 0;
      for (let i = 0; i < p.length; i += 3) {
        right = Math.max(right, p[i]!);
        top = Math.max(top, p[i + 2]!);
      }
      const foot = groundUnder(this.picture.armature.base);
      const { points, width, name } = scaleFigure(top - foot);
      const x = right + width * 0.7;
      const colour = this.dark ? '#93a9b5' : '#41505a';
      const line = new THREE.Line(
        new THREE.BufferGeometry().setFromPoints(points.map(([px, pz]) => new THREE.Vector3(x + px, 0, foot + pz))),
        new THREE.LineBasicMaterial({ color: colour }),
      );
      const high = Math.max(...points.map(([, z]) => z));
      this.groups.scale.add(
        line,
        label(name, new THREE.Vector3(x, 0, foot + high + this.reach * 0.06), colour, this.reach, 'right'),
      );
      this.beside = Math.max(x + width - this.centre.x, foot + high - this.centre.z) / 0.92;
    }
    this.fit();
  }

  setReferences(references: readonly Reference[]): void {
    drawReferences(this.groups.references, references, this.around);
    this.draw();
  }

  setGuides(lines: Parameters<typeof drawGuides>[1]): void {
    drawGuides(this.groups.guides, lines, this.around);
    this.draw();
  }

  /** How the finished piece meets the world, or the cast of it; null takes it away. */
  setMount(mount: Mount | null, centre: Vec3 | null, ofCast: boolean): void {
    if (!this.isNew('mount', [mount, mount && centre, ofCast])) return;
    // A piece that is worn or hung has left its board; what came out of it is gone.
    const leaves = mount !== null && mount.kind !== 'stands';
    this.groups.base.visible = !leaves;
    this.groups.ruler.visible = mount?.kind !== 'worn';
    this.outOfIt = leaves && (ofCast || this.picture?.armature.comesOut === 'all');
    this.showArmature();
    empty(this.groups.mount);
    const form = this.groups.form.children[0];
    this.besideMount =
      mount && form
        ? drawMount(this.groups.mount, mount, new THREE.Box3().setFromObject(form), centre, this.around)
        : 0;
    this.fit();
  }

  private showArmature(): void {
    this.groups.armature.visible = !this.solid && !this.outOfIt;
  }

  private get around(): Surroundings {
    return { reach: this.reach, dark: this.dark, draw: () => this.draw() };
  }

  private drawRuler(): void {
    empty(this.groups.ruler);
    const picture = this.picture;
    if (picture)
      this.groups.ruler.add(...rulerBeside(picture, this.units, this.dark ? '#ede6da' : '#2a2622', this.reach));
  }

  /** A cut through the piece with what is in it; the side towards the eye is taken away. */
  setSection(section: Section | null): void {
    empty(this.groups.section);
    const toEye = this.camera.position.clone().sub(this.controls.target);
    const plane = section ? drawSection(this.groups.section, section, toEye) : null;
    this.clipForm(plane);
  }

  /** Where a touch on the face landed is told; a drag turns the piece as ever. Null for no one. */
  setTouch(touched: ((at: Vec3) => void) | null): void {
    this.touch ??= new Touch(this.canvas, this.camera);
    this.touch.set(touched, (this.groups.form.children[1] as THREE.Mesh | undefined) ?? null);
  }

  /** The mould about the piece, opened so far; null takes it off. */
  setMould(parted: PartedPicture | null, open: number): void {
    if (this.mould !== parted || this.mouldDark !== this.dark) {
      empty(this.groups.mould);
      this.mould = parted;
      this.mouldDark = this.dark;
      if (parted)
        drawMould(this.groups.mould, parted, {
          off: this.reach * 0.012,
          away: this.reach,
          reach: this.reach,
          dark: this.dark,
        });
    }
    if (parted) openMould(this.groups.mould, parted, open, this.reach * 0.8);
    this.draw();
  }

  /** Small balls where a curve is drawn from. */
  setProbes(probes: readonly Vec3[]): void {
    empty(this.groups.probes);
    probes.forEach((p, i) => {
      const ball = new THREE.Mesh(
        new THREE.SphereGeometry(this.reach * 0.016, 16, 12),
        new THREE.MeshBasicMaterial({ color: probeColours[i % probeColours.length], depthTest: false }),
      );
      ball.position.set(...p);
      ball.renderOrder = 8;
      this.groups.probes.add(
        ball,
        label(String(i + 1), new THREE.Vector3(...p), this.dark ? '#ede6da' : '#2a2622', this.reach, 'right'),
      );
    });
    this.draw();
  }
}
