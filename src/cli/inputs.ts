import { z } from 'zod';
import {
  bucklingOfModel,
  factorFrame,
  freedoms,
  memberPeaks,
  MovedFrame,
  type FactoredFrame,
  type FrameLoad,
  type FrameModel,
  type FrameSolution,
} from '../core/armature';
import { describeIssue } from '../core/document';
import { clays, dryingCoefficientsSchema, type DryingCoefficients } from '../core/catalogue';
import { mostShrinkage } from '../core/clay';
import { crackIndex, diffusionAt, dryLayer, evaporationCurve, rigidRestraint, type DryingCourse } from '../core/drying';
import { failure, success, type Result, type Vec3 } from '../core/quantity';

/** The solvers' own file formats: SI throughout, global axes, z up. */
const number = z.number();
const vec3 = z.tuple([number, number, number]);
const positive = z.number().positive();

const frameSchema = z.strictObject({
  nodes: z.record(
    z.string(),
    z.strictObject({
      at: vec3,
      fixed: z.union([z.boolean(), z.array(z.enum(freedoms))]).optional(),
    }),
  ),
  members: z.record(
    z.string(),
    z.strictObject({
      from: z.string(),
      to: z.string(),
      E: positive,
      G: positive,
      A: positive,
      Iy: positive,
      Iz: positive,
      J: positive,
      up: vec3.optional(),
    }),
  ),
  loads: z
    .array(
      z.union([
        z.strictObject({ node: z.string(), force: vec3.optional(), moment: vec3.optional() }),
        z.strictObject({ member: z.string(), perLength: vec3 }),
      ]),
    )
    .default([]),
  /** Solved as the frame stands once it has moved. */
  secondOrder: z.boolean().default(false),
});

const coefficients = dryingCoefficientsSchema;

const dryingSchema = z.strictObject({
  clay: z.union([z.string(), coefficients]),
  thickness: z.number().positive().max(5),
  geometry: z.enum(['slab', 'cylinder', 'sphere']).default('slab'),
  innerFace: z.number().min(0).max(1).default(0),
  air: z
    .strictObject({
      temperature: z.number().min(-5).max(95).default(20),
      relativeHumidity: z.number().min(0).max(0.999).default(0.5),
      speed: z.number().min(0).max(50).default(0.1),
    })
    .prefault({}),
  cover: z.number().min(0).max(1e7).default(0),
  surfaceMoisture: z.number().min(0).max(10).optional(),
  initialMoisture: z.number().positive().max(10).optional(),
  times: z.array(z.number().min(0).max(1e9)).max(100_000).optional(),
});

function checked<T>(schema: z.ZodType<T>, input: unknown): Result<T> {
  const parsed = schema.safeParse(input);
  if (parsed.success) return success(parsed.data);
  const { path, message } = describeIssue(parsed.error);
  return failure('bad-input', path, message);
}

export function solveFrameFile(input: unknown): Result<unknown> {
  const file = checked(frameSchema, input);
  if (!file.ok) return file;
  const { nodes, members, loads, secondOrder } = file.value;
  const model: FrameModel = {
    nodes: Object.entries(nodes).map(([id, n]) => ({
      id,
      at: n.at,
      fixed: n.fixed === true ? [...freedoms] : n.fixed === false || n.fixed === undefined ? [] : n.fixed,
    })),
    members: Object.entries(members).map(([id, m]) => ({ id, ...m })),
  };
  const factored = factorFrame(model);
  if (!factored.ok) return factored;
  const still = factored.value.solve(loads as FrameLoad[]);
  if (!still.ok) return still;
  const buckling = bucklingOfModel(model, still.value.forces);
  if (!buckling.ok) return buckling;
  const { factor } = buckling.value;
  const solved = secondOrder ? solveMovedFile(factored.value, loads as FrameLoad[], still.value, factor) : still;
  if (!solved.ok) return solved;
  const { displacements, reactions, forces } = solved.value;
  const triple = (a: Float64Array, i: number): Vec3 => [a[i]!, a[i + 1]!, a[i + 2]!];
  const held = model.nodes.map((n) => (n.fixed?.length ?? 0) > 0);
  return success({
    displacements: Object.fromEntries(
      model.nodes.map((n, i) => [
        n.id,
        { translation: triple(displacements, i * 6), rotation: triple(displacements, i * 6 + 3) },
      ]),
    ),
    reactions: Object.fromEntries(
      model.nodes.flatMap((n, i) =>
        held[i] ? [[n.id, { force: triple(reactions, i * 6), moment: triple(reactions, i * 6 + 3) }]] : [],
      ),
    ),
    members: Object.fromEntries(model.members.map((m, i) => [m.id, memberPeaks(forces[i] ?? [])])),
    bucklingFactor: Number.isFinite(factor) ? factor : null,
  });
}

function solveMovedFile(
  frame: FactoredFrame,
  loads: readonly FrameLoad[],
  still: FrameSolution,
  factor: number,
): Result<FrameSolution> {
  const moved = MovedFrame.of(frame, loads, still, 1);
  if (!moved.ok) return moved;
  const found = factor > 1 ? moved.value.at(1) : null;
  return (
    found ??
    failure('folds', 'loads', `the frame folds under ${factor.toPrecision(3)} of this load: it has no place to rest`)
  );
}

function clayOf(given: string | DryingCoefficients): Result<DryingCoefficients> {
  // No clay loses more volume than the water it gives off.
  if (typeof given !== 'string')
    return success({ ...given, shrinkage: Math.min(given.shrinkage, mostShrinkage(given)) });
  const found = clays.get(given);
  if (!found)
    return failure(
      'unknown-clay',
      'clay',
      `there is no clay "${given}"; known: ${[...clays.values()]
        .filter((c) => c.drying)
        .map((c) => c.id)
        .join(', ')}`,
    );
  if (!found.drying) return failure('does-not-dry', 'clay', `${found.name} does not dry`);
  return success(found.drying);
}

export function solveDryingFile(input: unknown): Result<unknown> {
  const file = checked(dryingSchema, input);
  if (!file.ok) return file;
  const { air, cover, times, ...rest } = file.value;
  const clay = clayOf(file.value.clay);
  if (!clay.ok) return clay;
  const sorted = times && [...times].sort((a, b) => a - b);
  const course: DryingCourse = dryLayer({
    clay: clay.value,
    geometry: rest.geometry,
    thickness: rest.thickness,
    innerFace: rest.innerFace,
    phases: [
      {
        until: Infinity,
        curve: evaporationCurve(air, cover),
        relativeHumidity: air.relativeHumidity,
        diffusion: diffusionAt(air.temperature),
      },
    ],
    initialMoisture: rest.initialMoisture,
    surfaceMoisture: rest.surfaceMoisture,
    ...(sorted ? { times: sorted } : {}),
  });
  const crack = crackIndex(clay.value, rest.thickness, course, rigidRestraint);
  return success({
    touchDry: course.touchDry,
    leatherHard: course.leatherHard,
    throughDry: course.throughDry,
    crackIndexPerRestraint: crack.perRestraint,
    crackIndexDifferential: crack.differential,
    history: course.history.map(({ time, meanMoisture, surfaceMoisture, massPerArea }) => ({
      time,
      meanMoisture,
      surfaceMoisture,
      massPerArea,
    })),
  });
}
