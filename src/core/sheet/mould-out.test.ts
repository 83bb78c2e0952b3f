import { GLTFLoader } from 'three/addons/loaders/GLTFLoader.js';
import { PLYLoader } from 'three/addons/loaders/PLYLoader.js';
import type { BufferGeometry, Mesh, Object3D } from 'three';
import { ballMesh } from '../../../tests/support/meshes';
import { weld, writeMesh } from '../form';
import { checkAsked, masterFace, partingOf } from '../parting';
import { mouldMeshes, seamDrawing, seamViews, type PartedFace } from './mould-out';

/** Read back by readers that are not ours. */
const radius = 0.1;
function partedBall(): PartedFace & { readonly area: number } {
  const surface = weld(ballMesh(radius, 32), 1e-7);
  const face = masterFace(surface, { board: null });
  const asked = checkAsked({
    pulls: [
      [0, 0, 1],
      [0, 0, -1],
    ],
    pour: [0, 0, 1],
  });
  if (!face.ok || !asked.ok) throw new Error('no ball');
  const work = partingOf(face.value, null, asked.value);
  for (;;) {
    const { done, value } = work.next();
    if (done) return { surface, parting: value, stands: face.value.stands, area: face.value.area };
  }
}
const ball = partedBall();
const meshes = mouldMeshes(ball, ['top', 'under']);
const whole = (bytes: Uint8Array): ArrayBuffer => bytes.slice().buffer;

function areaOf(geometry: BufferGeometry): number {
  const p = geometry.getAttribute('position');
  const index = geometry.getIndex()!;
  let area = 0;
  for (let i = 0; i < index.count; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => [0, 1, 2].map((m) => p.getComponent(index.getX(i + k), m)));
    const u = b!.map((v, k) => v - a![k]!),
      v = c!.map((w, k) => w - a![k]!);
    area += Math.hypot(u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!) / 2;
  }
  return area;
}

test('two parts and their seam, by name; the parts are the face and no more', () => {
  expect(meshes.map((m) => m.name)).toEqual(['part top', 'part under', 'seam 1']);
  const count = meshes.slice(0, 2).reduce((sum, m) => sum + m.triangles.length / 3, 0);
  expect(count).toBe(ball.surface.triangles.length / 3);
});

test('as GLB, in metres', async () => {
  const scene = await new Promise<Object3D>((resolve, reject) =>
    new GLTFLoader().parse(whole(writeMesh('glb', meshes)), '', (read) => resolve(read.scene), reject),
  );
  const found: Mesh[] = [];
  scene.traverse((o) => {
    if ((o as Mesh).isMesh) found.push(o as Mesh);
  });
  expect(found).toHaveLength(3);
  const area = found.slice(0, 2).reduce((sum, m) => sum + areaOf(m.geometry), 0);
  expect(area / ball.area).toBeCloseTo(1, 4);
});

test('as PLY, in millimetres', () => {
  const geometry = new PLYLoader().parse(whole(writeMesh('ply', meshes.slice(0, 2))));
  expect(areaOf(geometry) / (ball.area * 1e6)).toBeCloseTo(1, 4);
});

test.each(seamViews.map((v) => [v.id]))('the seam as a drawing from the %s: true size, in millimetres', (view) => {
  const svg = seamDrawing(ball, view, 'Ball & <box>');
  expect(svg).toContain('Ball &amp; &lt;box&gt;');
  const [, width, height] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg)!;
  expect(Number(width)).toBeCloseTo(2 * radius * 1000 + 20, 0);
  expect(Number(height)).toBeCloseTo(2 * radius * 1000 + 20, 0);
  const points = [...svg.matchAll(/points="([^"]+)"/g)].flatMap(([, list]) =>
    list!.split(' ').map((p) => p.split(',').map(Number)),
  );
  expect(points.length).toBeGreaterThan(60);
  // The seam is the ball's waist: a circle from the top, a level line from any side.
  for (const [x, y] of points) {
    if (view === 'top') expect(Math.abs(Math.hypot(x!, y!) - radius * 1000)).toBeLessThan(2);
    else expect(Math.abs(y!)).toBeLessThan(6);
  }
  if (view !== 'top') expect(svg).toContain('stroke-dasharray');
});
