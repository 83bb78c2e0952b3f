import { hashOf } from '../core/document';
import { Evaluator } from '../core/evaluate';
import { compareMoulds } from '../core/improve';
import { castKinds, leftAfter, mouldChosen, mouldKinds } from '../core/mould';
import {
  castInHand,
  checkShells,
  comesOff,
  masterOfPiece,
  partingAskedOf,
  partingOf,
  readyToPart,
  shellsOf,
  type PartedMaster,
  type Working,
} from '../core/parting';
import type { SurfaceMesh } from '../core/form';
import { girthsOf, narrowestRound, type Piece } from '../core/piece';
import { failure, success, type Result } from '../core/quantity';
import { optionsOf, questionOf } from './asked';
import type { Asked, MouldAnswer, MouldRequest } from './protocol';
import { breathe, serve, type Work } from './serve';

/** A shell over core for long work on the mould: tells how far it is; stopped by ending the worker. */
const evaluator = new Evaluator();

type Master = PartedMaster & { readonly surface: SurfaceMesh };

/** The last one: most is asked again of the same face. */
let lastMaster: { readonly of: string; readonly master: Result<Master> } | null = null;

function masterFor(asked: Asked): Result<Master & { readonly piece: Piece }> {
  const piece = evaluator.piece(questionOf(asked));
  if (!piece.ok) return piece;
  const { form, extent, build } = piece.value;
  const masses = form.masses.map(({ part, ...m }) => (part ? { ...m, part: part.whole.key } : m));
  const of = hashOf([masses, extent, build.armature.mount.kind, build.mould.keepFree, build.form.start.size]);
  if (lastMaster?.of !== of) lastMaster = { of, master: masterOfPiece(piece.value) };
  const { master } = lastMaster;
  return master.ok ? success({ ...master.value, piece: piece.value }) : master;
}

/** Tells how far it is a few times a second. */
async function toItsEnd<T>(work: Working<T>, { send }: Work<MouldAnswer>): Promise<T> {
  let told = 0;
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
    if (performance.now() - told < 250) continue;
    told = performance.now();
    send({ kind: 'progress', done: value });
    await breathe();
  }
}

async function part(asked: Asked, on: Work<MouldAnswer>): Promise<void> {
  const began = performance.now();
  const master = masterFor(asked);
  if (!master.ok) {
    on.send({ kind: 'refused', why: master });
    return;
  }
  const { face, board, surface, piece } = master.value;
  const parting = await toItsEnd(partingOf(face, board, partingAskedOf(asked.build)), on);
  const girths = girthsOf(piece);
  const narrowest = narrowestRound(piece);
  const seconds = (performance.now() - began) / 1000;
  const parted = { surface, parting, stands: face.stands, comesOff: comesOff(asked.build), girths, narrowest, seconds };
  on.send({ kind: 'parted', parted });
}

async function shells(
  { asked, parting }: Extract<MouldRequest, { kind: 'shells' }>,
  on: Work<MouldAnswer>,
): Promise<void> {
  const master = masterFor(asked);
  if (!master.ok) {
    on.send({ kind: 'refused', why: master });
    return;
  }
  const { face, board } = master.value;
  const { skin, shell } = mouldChosen(asked.build)?.walls ?? { skin: null, shell: null };
  const walls = { skin: skin ?? 0, shell: shell ?? 0, board };
  const checked = checkShells(parting, walls, face.stands);
  if (checked.ok) on.send({ kind: 'shells', shells: await toItsEnd(shellsOf(face, parting, walls), on) });
  else on.send({ kind: 'refused', why: checked });
}

async function inHand(asked: Asked, on: Work<MouldAnswer>): Promise<void> {
  const master = masterFor(asked);
  const chosen = mouldChosen(asked.build);
  const kind = mouldKinds.find((k) => k.id === chosen?.kind),
    cast = castKinds.find((c) => c.id === chosen?.cast);
  if (!master.ok || !kind || !cast) {
    on.send({
      kind: 'refused',
      why: master.ok ? failure('no-mould', 'mould', 'no mould is taken of it') : master,
    });
    return;
  }
  const found = await toItsEnd(castInHand(master.value.face, cast, leftAfter(kind, cast).nominal), on);
  if (found.ok) on.send({ kind: 'in-hand', inHand: found.value });
  else on.send({ kind: 'refused', why: found });
}

function kinds(asked: Asked, { send }: Work<MouldAnswer>): void {
  const rows = compareMoulds(questionOf(asked), evaluator, optionsOf(asked));
  if (rows.ok) send({ kind: 'kinds', rows: rows.value });
  else send({ kind: 'refused', why: rows });
}

async function work(request: MouldRequest, on: Work<MouldAnswer>): Promise<void> {
  await readyToPart();
  if (request.kind === 'part') await part(request.asked, on);
  else if (request.kind === 'shells') await shells(request, on);
  else if (request.kind === 'in-hand') await inHand(request.asked, on);
  else kinds(request.asked, on);
}

serve('the mould', work);
