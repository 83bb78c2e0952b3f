import { z } from 'zod';
import { failure, success, type Result } from '../quantity';
import type { WholeDrying, WholeFrame, WholeStage } from './whole-result';

/**
 * A whole drying as bytes, to be kept beside the build it was worked out from: a line of JSON that says what follows
 * and how long it is, then the arrays one after another. What is read is checked against that line.
 */
export const mostWholeBytes = 400_000_000;
const version = 1;

const place = z.strictObject({
  at: z.tuple([z.number(), z.number(), z.number()]),
  region: z.string(),
  time: z.number(),
  value: z.number(),
});
const maybe = z.number().nullable();
const head = z.strictObject({
  version: z.literal(version),
  key: z.string().max(40),
  step: z.number().positive(),
  cells: z.number().int(),
  steps: z.number().int(),
  volume: z.number(),
  balance: z.number(),
  regions: z
    .array(
      z.strictObject({
        id: z.string(),
        touchDry: maybe,
        leatherHard: maybe,
        throughDry: maybe,
        steady: maybe,
        hold: maybe,
        crack: z.number(),
        restrained: z.number(),
        differential: z.number(),
        crackAt: maybe,
      }),
    )
    .max(300),
  last: place,
  worst: place,
  firstCrack: place.nullable(),
  stages: z
    .array(
      z.strictObject({
        size: z.tuple([
          z.number().int().min(1).max(4000),
          z.number().int().min(1).max(4000),
          z.number().int().min(1).max(4000),
        ]),
        origin: z.tuple([z.number(), z.number(), z.number()]),
        step: z.number().positive(),
        cells: z.number().int().min(0),
        marked: z.number().int().min(0),
        faces: z.number().int().min(0),
      }),
    )
    .max(20),
  frames: z
    .array(
      z.strictObject({
        time: z.number(),
        stage: z.number().int().min(0),
        wettest: z.number().int().min(0),
        mass: z.number(),
      }),
    )
    .max(2000),
});

export function writeWhole(whole: WholeDrying, key: string): Uint8Array<ArrayBuffer> {
  const { stages, frames, ...rest } = whole;
  // Every lattice cell that shows something, those too that were joined to a neighbour.
  const marks = stages.map((s) => {
    const where: number[] = [];
    s.indexOf.forEach((c, i) => {
      if (c >= 0) where.push(i);
    });
    return { where: Int32Array.from(where), cell: Int32Array.from(where, (i) => s.indexOf[i]!) };
  });
  const text = JSON.stringify({
    version,
    key,
    ...rest,
    stages: stages.map((s, k) => ({
      size: s.size,
      origin: s.origin,
      step: s.step,
      cells: s.latticeOf.length,
      marked: marks[k]?.where.length ?? 0,
      faces: s.face.cell.length,
    })),
    frames: frames.map(({ time, stage, wettest, mass }) => ({ time, stage, wettest, mass })),
  });
  const line = new TextEncoder().encode(`${text}\n`);
  const arrays: ArrayBufferView[] = [
    ...stages.flatMap((s, k) => [
      s.latticeOf,
      marks[k]?.where ?? new Int32Array(0),
      marks[k]?.cell ?? new Int32Array(0),
      s.face.cell,
      s.face.crack,
      s.face.crackedAt,
      s.face.holdAt,
    ]),
    ...frames.map((f) => f.wet),
  ];
  const out = new Uint8Array(line.length + arrays.reduce((sum, a) => sum + a.byteLength, 0));
  out.set(line);
  let at = line.length;
  for (const a of arrays) {
    out.set(new Uint8Array(a.buffer, a.byteOffset, a.byteLength), at);
    at += a.byteLength;
  }
  return out;
}

export function readWhole(bytes: Uint8Array): Result<{ readonly whole: WholeDrying; readonly key: string }> {
  if (bytes.length > mostWholeBytes) return failure('too-large', 'the drying', 'it is larger than any drying there is');
  const end = bytes.indexOf(10);
  if (end < 0) return failure('broken', 'the drying', 'its first line is missing');
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder().decode(bytes.subarray(0, end)));
  } catch {
    return failure('broken', 'the drying', 'its first line is not JSON');
  }
  const parsed = head.safeParse(json);
  if (!parsed.success)
    return failure(
      'broken',
      `the drying, ${parsed.error.issues[0]?.path.join('.') ?? ''}`,
      parsed.error.issues[0]?.message ?? 'is not valid',
    );
  const { stages: told, frames, key, version: _, ...rest } = parsed.data;
  const wanted =
    told.reduce((sum, s) => sum + s.cells * 4 + s.marked * 8 + s.faces * 16, 0) +
    frames.reduce((sum, f) => sum + (told[f.stage]?.cells ?? 0), 0);
  if (bytes.length - end - 1 !== wanted)
    return failure('broken', 'the drying', `it holds ${bytes.length - end - 1} bytes where ${wanted} are told of`);
  let at = end + 1;
  const take = (length: number) => {
    const piece = bytes.slice(at, at + length);
    at += length;
    return piece.buffer;
  };
  const stages: WholeStage[] = [];
  for (const s of told) {
    const latticeOf = new Int32Array(take(s.cells * 4));
    const where = new Int32Array(take(s.marked * 4)),
      cell = new Int32Array(take(s.marked * 4));
    const face = {
      cell: new Int32Array(take(s.faces * 4)),
      crack: new Float32Array(take(s.faces * 4)),
      crackedAt: new Float32Array(take(s.faces * 4)),
      holdAt: new Float32Array(take(s.faces * 4)),
    };
    const total = s.size[0] * s.size[1] * s.size[2];
    if (total > 2e8) return failure('broken', 'the drying', 'its lattice is larger than any there is');
    const indexOf = new Int32Array(total).fill(-1);
    if (latticeOf.some((i) => i < 0 || i >= total))
      return failure('broken', 'the drying', 'a cell lies outside its lattice');
    for (let k = 0; k < where.length; k++) {
      const i = where[k]!,
        c = cell[k]!;
      if (i < 0 || i >= total || c < 0 || c >= s.cells)
        return failure('broken', 'the drying', 'a place belongs to no cell');
      indexOf[i] = c;
    }
    if (face.cell.some((c) => c < 0 || c >= s.cells)) return failure('broken', 'the drying', 'a face has no cell');
    stages.push({ size: s.size, origin: s.origin, step: s.step, latticeOf, indexOf, face });
  }
  const kept: WholeFrame[] = [];
  for (const f of frames) {
    const stage = told[f.stage];
    if (!stage || f.wettest >= Math.max(1, stage.cells))
      return failure('broken', 'the drying', 'a moment belongs to no stage');
    kept.push({ ...f, wet: new Uint8Array(take(stage.cells)) });
  }
  return success({ key, whole: { ...rest, stages, frames: kept } });
}
