import { rootTolerance, type CompiledMass } from './compiled';
import { cube } from './cube';
import { sampledDistance } from './mesh/sampled';

const { abs, max, min, sign, sqrt } = Math;

/** Places of the cells asked for, in a mass's own axes. */
export function intoAxes(m: CompiledMass, x0: number, y0: number, z0: number, step: number): void {
  const { cells, asked } = cube;
  const r = m.rotation;
  const r0 = r[0]!,
    r1 = r[1]!,
    r2 = r[2]!,
    r3 = r[3]!,
    r4 = r[4]!;
  const r5 = r[5]!,
    r6 = r[6]!,
    r7 = r[7]!,
    r8 = r[8]!;
  const ax = m.at[0],
    ay = m.at[1],
    az = m.at[2];
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const dx = x0 + ((i & 3) + 0.5) * step - ax,
      dy = y0 + (((i >> 2) & 3) + 0.5) * step - ay,
      dz = z0 + ((i >> 4) + 0.5) * step - az;
    cube.x[i] = r0 * dx + r1 * dy + r2 * dz;
    cube.y[i] = r3 * dx + r4 * dy + r5 * dz;
    cube.z[i] = r6 * dx + r7 * dy + r8 * dz;
  }
}

// One loop a shape, the distance written out in it: calls with fractional numbers would cost more than the sums.
function ellipsoidCube(m: CompiledMass): void {
  const { x, y, z, own, limit, cells, asked } = cube;
  const ea = m.a,
    eb = m.b,
    ec = m.c;
  const a2 = ea * ea,
    b2 = eb * eb,
    c2 = ec * ec;
  const ia2 = 1 / a2,
    ib2 = 1 / b2,
    ic2 = 1 / c2;
  const least2 = min(a2, b2, c2),
    coarse = rootTolerance * a2;
  const { fine } = m;
  const longest2 = max(a2, b2, c2);
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const px = max(abs(x[i]!), 1e-9),
      py = max(abs(y[i]!), 1e-9),
      pz = max(abs(z[i]!), 1e-9);
    const nx = ea * px,
      ny = eb * py,
      nz = ec * pz;
    // Outside the sphere through its longest axis by more than matters: it changes nothing here.
    if (sqrt(px * px + py * py + pz * pz) - m.reach > limit[i]!) {
      own[i] = Infinity;
      continue;
    }
    const fa = nx * ia2,
      fb = ny * ib2,
      fc = nz * ic2;
    const sa = fa * fa,
      sb = fb * fb,
      sc = fc * fc;
    let t = max(
      nx - a2,
      ny - b2,
      nz - c2,
      (sa + sb + sc - 1) / (2 * (sa * ia2 + sb * ib2 + sc * ic2)),
      sqrt(nx * nx + ny * ny + nz * nz) - longest2,
    );
    let ia = 0,
      ib = 0,
      ic = 0;
    for (let n = 0; n < 40; n++) {
      ia = 1 / (t + a2);
      ib = 1 / (t + b2);
      ic = 1 / (t + c2);
      const ra = nx * ia,
        rb = ny * ib,
        rc = nz * ic;
      const ga = ra * ra,
        gb = rb * rb,
        gc = rc * rc;
      const step = (ga + gb + gc - 1) / (2 * (ga * ia + gb * ib + gc * ic));
      t += step;
      if (step <= (fine ? rootTolerance * (t + least2) : coarse)) break;
    }
    ia = px / (t + a2);
    ib = py / (t + b2);
    ic = pz / (t + c2);
    // The nearest point is p a2/(t + a2); what is left of p is t times the same.
    own[i] = t * sqrt(ia * ia + ib * ib + ic * ic);
  }
}

function roundConeCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  const bx = m.extra[0]!,
    by = m.extra[1]!,
    bz = m.extra[2]!;
  const ra = m.a,
    rb = m.b;
  const l2 = m.c * m.c,
    rr = ra - rb;
  const a2 = l2 - rr * rr,
    il2 = 1 / l2;
  const swallowed = a2 <= 0;
  const sign2 = sign(rr) * rr * rr;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const px = x[i]!,
      py = y[i]!,
      pz = z[i]!;
    if (swallowed) {
      own[i] =
        rr > 0
          ? sqrt(px * px + py * py + pz * pz) - ra
          : sqrt((px - bx) * (px - bx) + (py - by) * (py - by) + (pz - bz) * (pz - bz)) - rb;
      continue;
    }
    const along = px * bx + py * by + pz * bz;
    const beyond = along - l2;
    const xx = px * l2 - bx * along,
      xy = py * l2 - by * along,
      xz = pz * l2 - bz * along;
    const x2 = xx * xx + xy * xy + xz * xz;
    const y2 = along * along * l2,
      z2 = beyond * beyond * l2;
    const k = sign2 * x2;
    if (sign(beyond) * a2 * z2 > k) own[i] = sqrt(x2 + z2) * il2 - rb;
    else if (sign(along) * a2 * y2 < k) own[i] = sqrt(x2 + y2) * il2 - ra;
    else own[i] = (sqrt(x2 * a2 * il2) + along * rr) * il2 - ra;
  }
}

function boxCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  const { a, b, c } = m;
  const rounding = m.extra[0]!;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const qx = abs(x[i]!) - a,
      qy = abs(y[i]!) - b,
      qz = abs(z[i]!) - c;
    const ox = max(qx, 0),
      oy = max(qy, 0),
      oz = max(qz, 0);
    own[i] = sqrt(ox * ox + oy * oy + oz * oz) + min(max(qx, qy, qz), 0) - rounding;
  }
}

function ringCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  const { a, b } = m;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const px = x[i]!,
      py = y[i]!,
      pz = z[i]!;
    const ring = sqrt(px * px + py * py) - a;
    own[i] = sqrt(ring * ring + pz * pz) - b;
  }
}

/** After `ellipsoidCube`: hollowed to its thickness, open below. */
function shellCube(m: CompiledMass): void {
  const { z, own, cells, asked } = cube;
  const thickness = m.extra[0]!,
    open = m.extra[1]!;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const outer = own[i]!;
    own[i] = max(outer, -outer - thickness, open - z[i]!);
  }
}

function sampledCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    own[i] = sampledDistance(m.samples, m.extra, m.a, m.b, x[i]!, y[i]!, z[i]!);
  }
}

function limbedCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  const [ax, ay, az] = m.at;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    own[i] = m.limbed!.at(ax + x[i]!, ay + y[i]!, az + z[i]!);
  }
}

function drumCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  const { a, b } = m;
  const rounding = m.extra[0]!;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const px = x[i]!,
      py = y[i]!;
    const round = sqrt(px * px + py * py) - a,
      over = abs(z[i]!) - b;
    const ox = max(round, 0),
      oz = max(over, 0);
    own[i] = sqrt(ox * ox + oz * oz) + min(max(round, over), 0) - rounding;
  }
}

/** Distances of the cube's cells to one mass, into `cube.own`; `intoAxes` comes first. */
export function massCube(m: CompiledMass): void {
  if (m.kind === 0) ellipsoidCube(m);
  else if (m.kind === 1) roundConeCube(m);
  else if (m.kind === 2) boxCube(m);
  else if (m.kind === 3) ringCube(m);
  else if (m.kind === 5) drumCube(m);
  else if (m.kind === 6) sampledCube(m);
  else if (m.kind === 7) limbedCube(m);
  else {
    ellipsoidCube(m);
    shellCube(m);
  }
  if (m.grow === 0) return;
  const { own, cells, asked } = cube;
  for (let q = 0; q < asked; q++) own[cells[q]!] = own[cells[q]!]! - m.grow;
}
