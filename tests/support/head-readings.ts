import { DistanceField, resolveForm, startFormOf } from '../../src/core/form';
import type { Build } from '../../src/core/document';
import { Callipers } from './callipers';

const { max, min } = Math;

/** The readings of a survey of heads, taken off a form as callipers and tape take them off a person; metres. */
export function headReadings(build: Build) {
  const form = resolveForm(build);
  if (!form.ok) throw new Error(form.message);
  const field = new DistanceField(form.value.masses);
  const c = new Callipers(field);
  const level = (id: string) => form.value.landmarks.find((l) => l.id === id)!.ends[0];
  const chinLine = level('chin')[2],
    crownLine = level('crown')[2];
  const high = crownLine - chinLine;
  const u = high / 0.232;
  const z = (share: number) => chinLine + share * high;
  const at = level('brow')[1];
  const { headDepth } = startFormOf(build.form.start)!.schema.parse(build.form.start.measures) as { headDepth: number };
  const axis = at + (headDepth * build.form.start.size) / 2;
  const noEar = (mass: string) => mass.startsWith('ear-');
  const deepest = (from: number, to: number) => {
    let best = { z: from, y: -Infinity };
    for (let k = 0; k <= 200; k++) {
      const h = from + ((to - from) * k) / 200;
      const y = c.profile(h);
      if (y > best.y) best = { z: h, y };
    }
    return best;
  };
  const foremost = (from: number, to: number) => {
    let best = { z: from, y: Infinity };
    for (let k = 0; k <= 200; k++) {
      const h = from + ((to - from) * k) / 200;
      const y = c.profile(h);
      if (y < best.y) best = { z: h, y };
    }
    return best;
  };
  const brow = level('brow')[2],
    eyes = level('eyes')[2],
    foot = level('nose')[2],
    mouth = level('mouth')[2],
    ear = chinLine + (eyes - chinLine) * 0.87;
  let menton = Infinity;
  for (let k = 0; k <= 60; k++) {
    const y = at + (k / 60) * 0.05 * u;
    const p = c.touch([0, y, chinLine - 0.1], [0, 0, 1], 0.3);
    if (p && !c.massAt(p).startsWith('neck') && p[2] < menton) menton = p[2];
  }
  let crown = 0,
    back = -Infinity;
  for (let k = -40; k <= 40; k++) {
    const p = c.touch([0, axis + (k / 40) * 0.08, crownLine + 0.1], [0, 0, -1]);
    if (p) crown = max(crown, p[2]);
    const q = c.touch([0, axis + 0.4, z(0.45 + (k + 40) / 200)], [0, -1, 0]);
    if (q) back = max(back, q[1]);
  }
  const glabella = foremost(brow - 0.004 * u, brow + 0.012 * u);
  const sellion = deepest(eyes - 0.006 * u, brow);
  const tip = foremost(foot, (foot + eyes) / 2);
  // The foot of the nose: where, going down the middle, the lip begins.
  let footAt = (foot + eyes) / 2;
  for (let k = 0; k <= 400; k++) {
    const h = (foot + eyes) / 2 - (k / 400) * ((eyes - foot) / 2 + 0.02 * u);
    const p = c.touch([0, at - 0.3, h], [0, 1, 0], 0.5);
    if (p && c.massAt(p).startsWith('nose')) footAt = h;
  }
  const subnasale = { z: footAt, y: c.profile(footAt - 0.0005 * u) };
  // Pupils: the middle of what stands out furthest of the balls.
  const ball: { x: number; y: number }[] = [];
  for (let i = 0; i <= 160; i++)
    for (let j = -4; j <= 4; j++) {
      const x = 0.015 * u + (i / 160) * 0.04 * u;
      const p = c.touch([x, at - 0.2, eyes + j * 0.0008 * u], [0, 1, 0]);
      if (p && c.massAt(p) === 'eye-left') ball.push({ x, y: p[1] });
    }
  const nearest = min(...ball.map((p) => p.y));
  const apex = ball.filter((p) => p.y < nearest + 0.002 * u);
  let corner = 0;
  for (let i = 0; i <= 200; i++)
    for (let j = -6; j <= 6; j++) {
      const x = (i / 200) * 0.06 * u;
      const p = c.touch([x, at - 0.2, mouth + j * 0.001 * u], [0, 1, 0]);
      if (p && /-lip-/.test(c.massAt(p))) corner = max(corner, x);
    }
  let wing = 0;
  for (let i = 0; i <= 200; i++)
    for (let j = 0; j <= 12; j++) {
      const x = (i / 200) * 0.04 * u;
      const p = c.touch([x, at - 0.2, foot + j * 0.0012 * u], [0, 1, 0]);
      if (p && c.massAt(p).startsWith('nose-wing')) wing = max(wing, x);
    }
  let top = -Infinity,
    lobe = Infinity;
  for (let i = 0; i <= 60; i++)
    for (let j = 0; j <= 300; j++) {
      const y = axis + (-0.01 + (i / 60) * 0.05) * u,
        h = z(0.2) + (j / 300) * 0.5 * high;
      const p = c.touch([0.3, y, h], [-1, 0, 0], 0.3);
      if (p && noEar(c.massAt(p))) {
        top = max(top, h);
        lobe = min(lobe, h);
      }
    }
  return {
    headHeight: crown - menton,
    headLength: back - glabella.y,
    headBreadth: 2 * c.halfBreadth([z(0.55), z(0.92)], [axis - 0.03, axis + 0.05], noEar),
    headGirth: c.girth(brow + 0.012 * u, axis, noEar),
    bizygomatic: 2 * c.halfBreadth([ear - 0.012 * u, ear + 0.012 * u], [at + 0.035 * u, axis - 0.022 * u], noEar),
    bigonial: 2 * c.halfBreadth([z(0.15), z(0.22)], [axis - 0.035 * u, axis - 0.002 * u], noEar),
    faceLength: sellion.z - menton,
    noseLength: sellion.z - subnasale.z,
    noseBreadth: 2 * wing,
    noseProtrusion: subnasale.y - tip.y,
    interpupillary: (2 * apex.reduce((sum, p) => sum + p.x, 0)) / apex.length,
    lipLength: 2 * corner,
    eyeHeight: eyes - menton,
    earLength: top - lobe,
    neckGirth: c.girth(chinLine - 0.045 * u, 0, () => false),
  };
}
