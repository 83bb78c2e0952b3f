import { bundleAcross, coverOnFace, sectionAcross } from '../core/armature';
import { hashOf } from '../core/build';
import { extractSurface, thicknessField, voxelise } from '../core/form';
import { Evaluator, type Piece } from '../core/verdict';
import type { Answer, EvaluateRequest, FaceCover, Picture } from './protocol';

/** A shell over core: nominal first, then ranges, then remedies, giving way to a newer request between steps. */
const evaluator = new Evaluator();
let newest = 0;

const send = (answer: Answer): void => self.postMessage(answer);
const breathe = () =>
  new Promise<void>((resolve) => {
    const channel = new MessageChannel();
    channel.port1.onmessage = () => {
      channel.port1.close();
      resolve();
    };
    channel.port2.postMessage(null);
  });

const surfaces = new Map<string, Picture['surface']>();

function pictureOf(piece: Piece, haveKey: string): Picture | null {
  const formKey = hashOf(piece.form.masses);
  const key = hashOf([formKey, piece.armature]);
  if (key === haveKey) return null;
  let surface = surfaces.get(formKey);
  if (!surface) {
    surface = extractSurface(piece.grid);
    surfaces.clear();
    surfaces.set(formKey, surface);
  }
  const memberAcross: Record<string, number> = {};
  for (const m of piece.armature.members) {
    const size = piece.stockOf(m.stock)?.sizes.find((s) => s.id === m.size);
    memberAcross[m.id] = size ? sectionAcross(size.section) : 0.004;
  }
  return { key, surface, masses: piece.form.masses, armature: piece.armature, memberAcross };
}

let thickest: { readonly form: string; readonly found: FaceCover['thickest'] } | null = null;

function thickestIn(piece: Piece, formKey: string): FaceCover['thickest'] {
  if (thickest?.form === formKey) return thickest.found;
  const { low, high } = piece.extent;
  const whole = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  // A thin piece is measured finely already; a coarser grid is enough to find where it is thick.
  const grid = voxelise(piece.field, { step: Math.max(piece.grid.step, whole / 70), depth: whole });
  const field = thicknessField(grid, piece.field);
  piece.field.at(...field.thickest.at, piece.field.all());
  thickest = {
    form: formKey,
    found: { thickness: field.thickest.thickness, place: piece.form.masses[piece.field.owner]?.name ?? 'form' },
  };
  return thickest.found;
}

let faceCover: FaceCover | null = null;

function coverFor(piece: Piece): FaceCover {
  const formKey = hashOf(piece.form.masses);
  const key = hashOf([formKey, piece.armature]);
  if (faceCover?.key === key) return faceCover;
  const surface = surfaces.get(formKey);
  const across = (m: Piece['armature']['members'][number]) => {
    const size = piece.stockOf(m.stock)?.sizes.find((s) => s.id === m.size);
    return bundleAcross(size ? sectionAcross(size.section) : 0, m.strands);
  };
  faceCover = {
    key,
    values: surface ? coverOnFace(surface.positions, piece.armature.members, across) : new Float32Array(0),
    thickest: thickestIn(piece, formKey),
  };
  return faceCover;
}

async function evaluate({ seq, build, units, pictureKey }: EvaluateRequest): Promise<void> {
  const began = performance.now();
  const nominal = evaluator.evaluate(build, { units });
  const piece = evaluator.piece(build);
  if (!nominal.ok || !piece.ok) {
    send({ kind: 'failed', seq, why: !nominal.ok ? nominal : (piece as never) });
    return;
  }
  const milliseconds = performance.now() - began;
  send({ kind: 'nominal', seq, report: nominal.value, picture: pictureOf(piece.value, pictureKey), milliseconds });
  await breathe();
  if (seq !== newest) return;
  const ranged = evaluator.evaluate(build, { units, ranges: true });
  if (!ranged.ok) return;
  send({ kind: 'ranges', seq, report: ranged.value, cover: coverFor(piece.value) });
  const steps = evaluator.inSteps(build, { units, ranges: true, remedies: true });
  for (let done = 0; ; done++) {
    await breathe();
    if (seq !== newest) return;
    const step = steps.next();
    if (!step.done) {
      send({ kind: 'progress', seq, done });
      continue;
    }
    if (step.value.ok) send({ kind: 'complete', seq, report: step.value.value });
    return;
  }
}

self.onmessage = (event: MessageEvent<EvaluateRequest>) => {
  newest = event.data.seq;
  evaluate(event.data).catch((error: Error) => {
    send({
      kind: 'failed',
      seq: event.data.seq,
      why: { ok: false, code: 'bug', path: 'the build', message: error.message },
    });
  });
};
