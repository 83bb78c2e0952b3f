// The drying kernel, in AssemblyScript: the part of a step that takes the time, compiled by `npm run kernel` into
// sweep.wasm.ts, four cells at a time. `sweep.test.ts` holds it against the same sums written out in TypeScript.
// Everything lies in one memory, at byte addresses given by `layout.ts`. Addresses are of the array's first number.

/**
 * What passes between the cells of runs `from` to `to` and their neighbours in one step.
 * A run is six whole numbers: start, length, and the offsets of the rows at +y, -y, +z, -z.
 * `scale` is dt / step2; moisture (f64) changes in place, u (f32) is read, `next` (f32) written.
 * u follows moisture as u exp(growth dw) to the fifth power of a small number, plus `linear` dw where D is constant.
 */
export function sweepRuns(
  runs: usize, from: i32, to: i32, scale: f64, growth: f32, linear: f32,
  u: usize, next: usize, moisture: usize, inverse: usize, xp: usize, yp: usize, ym: usize, zp: usize, zm: usize, masks: usize,
): void {
  const scale2 = f64x2.splat(scale), growth4 = f32x4.splat(growth), linear4 = f32x4.splat(linear);
  const one = f32x4.splat(1), half = f32x4.splat(0.5), sixth = f32x4.splat(1.0 / 6.0), last = f32x4.splat(1.0 / 24.0);
  for (let r = from; r < to; r++) {
    const o = runs + <usize>r * 24;
    const start = <usize>load<i32>(o) << 2;
    const length = load<i32>(o, 4);
    const rowYp = <usize>(<isize>load<i32>(o, 8) << 2), rowYm = <usize>(<isize>load<i32>(o, 12) << 2);
    const rowZp = <usize>(<isize>load<i32>(o, 16) << 2), rowZm = <usize>(<isize>load<i32>(o, 20) << 2);
    for (let left = length, at = start; left > 0; left -= 4, at += 16) {
      const p = u + at;
      const here = v128.load(p);
      let sum = f32x4.mul(v128.load(xp + at), f32x4.sub(v128.load(p, 4), here));
      sum = f32x4.add(sum, f32x4.mul(v128.load(xp + at - 4), f32x4.sub(v128.load(p - 4), here)));
      sum = f32x4.add(sum, f32x4.mul(v128.load(yp + at), f32x4.sub(v128.load(p + rowYp), here)));
      sum = f32x4.add(sum, f32x4.mul(v128.load(ym + at), f32x4.sub(v128.load(p + rowYm), here)));
      sum = f32x4.add(sum, f32x4.mul(v128.load(zp + at), f32x4.sub(v128.load(p + rowZp), here)));
      sum = f32x4.add(sum, f32x4.mul(v128.load(zm + at), f32x4.sub(v128.load(p + rowZm), here)));
      // The last four of a run reach into the next run's cells: those are left as they are.
      const mine = v128.load(masks + (<usize>min(left, 4) << 4));
      sum = v128.and(f32x4.mul(sum, v128.load(inverse + at)), mine);
      const lowChange = f64x2.mul(f64x2.promote_low_f32x4(sum), scale2);
      const highChange = f64x2.mul(f64x2.promote_low_f32x4(v128.shuffle<f32>(sum, sum, 2, 3, 2, 3)), scale2);
      const w = moisture + (at << 1);
      v128.store(w, f64x2.add(v128.load(w), lowChange));
      v128.store(w, f64x2.add(v128.load(w, 16), highChange), 16);
      const change = v128.shuffle<f32>(f32x4.demote_f64x2_zero(lowChange), f32x4.demote_f64x2_zero(highChange), 0, 1, 4, 5);
      const x = f32x4.mul(change, growth4);
      const grown = f32x4.add(one, f32x4.mul(x, f32x4.add(one, f32x4.mul(x, f32x4.add(half, f32x4.mul(x, f32x4.add(sixth, f32x4.mul(x, last))))))));
      const follows = f32x4.add(f32x4.mul(here, grown), f32x4.mul(linear4, change));
      const q = next + at;
      v128.store(q, v128.bitselect(follows, v128.load(q), mine));
    }
  }
}

/**
 * Takes what leaves faces `from` to `to` out of their cells; returns kg/s. `tables` are fluxes by group and depth, 257
 * moistures a row; `rows` says where a face's row starts, `between` how far on it is to the next depth.
 */
export function sweepFaces(
  from: i32, to: i32, dt: f64, perMoisture: f64, cells: usize, pull: usize, area: usize, rows: usize, between: usize, changes: usize, tables: usize, moisture: usize,
): f64 {
  let leaving: f64 = 0;
  for (let f = from; f < to; f++) {
    const i = <usize>f;
    const c = <usize>load<i32>(cells + (i << 2));
    const w = load<f64>(moisture + (c << 3));
    const x = max(w * perMoisture, 0.0);
    let k = <i32>x;
    k = min(k, 255);
    const share = x - <f64>k;
    const t = tables + ((<usize>load<i32>(rows + (i << 2)) + <usize>k) << 3);
    const p = load<f64>(t), q = load<f64>(t, 257 * 8);
    const a = p + (load<f64>(t, 8) - p) * share, b = q + (load<f64>(t, 258 * 8) - q) * share;
    const flux = a + (b - a) * <f64>load<f32>(between + (i << 2));
    const change = -dt * load<f64>(pull + (i << 3)) * flux;
    store<f64>(moisture + (c << 3), w + change);
    store<f64>(changes + (i << 3), change);
    leaving += load<f64>(area + (i << 3)) * flux;
  }
  return leaving;
}

/** Brings what the faces took into u, after the runs: until then every cell is to be seen as it was before the step. */
export function settleFaces(from: i32, to: i32, growth: f64, linear: f64, cells: usize, changes: usize, next: usize): void {
  for (let f = from; f < to; f++) {
    const i = <usize>f;
    const change = load<f64>(changes + (i << 3));
    const at = next + (<usize>load<i32>(cells + (i << 2)) << 2);
    const g = change * growth;
    store<f32>(at, <f32>(<f64>load<f32>(at) * (1.0 + g * (1.0 + g * (0.5 + g * (1.0 / 6.0 + g / 24.0)))) + linear * change));
  }
}

/** u anew from moisture: what small errors have gathered is thrown away. `table` has `last` + 2 points. */
export function refresh(from: i32, to: i32, perMoisture: f64, moisture: usize, u: usize, table: usize, last: i32): void {
  for (let c = from; c < to; c++) {
    const i = <usize>c;
    const x = max(load<f64>(moisture + (i << 3)) * perMoisture, 0.0);
    const k = min(<i32>x, last);
    const t = table + (<usize>k << 3);
    const a = load<f64>(t);
    store<f32>(u + (i << 2), <f32>(a + (load<f64>(t, 8) - a) * (x - <f64>k)));
  }
}

/** Largest of pace x u over the cells. */
export function fastest(from: i32, to: i32, pace: usize, u: usize): f32 {
  let most: f32 = 0;
  for (let c = from; c < to; c++) {
    const i = <usize>c << 2;
    most = max(most, load<f32>(pace + i) * load<f32>(u + i));
  }
  return most;
}
