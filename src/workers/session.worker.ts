import { bundleAcross, coverOnFace, sectionAcross } from '../core/armature';
import { hashOf } from '../core/document';
import { Evaluator } from '../core/evaluate';
import { EarlierGrids, extractSurface, thicknessField, voxelise } from '../core/form';
import { waysToBeSooner, waysToHold, withRemedies, type Sooner } from '../core/improve';
import { surfaceOf, wantsFiner, type Piece } from '../core/piece';
import type { Sizes } from '../core/school';
import { whatToLeaveOut } from '../core/plan';
import { optionsOf, questionOf } from './asked';
import type { FaceCover, Picture, SessionAnswer, SessionRequest } from './protocol';
import { breathe, serve, type Work } from './serve';

/** A shell over core, for bench, log and plan alike: likely figures first, then ranges, then remedies and what is sooner. */
const evaluator = new Evaluator();
const surfaces = new Map<string, Picture['surface']>();

/** Whether the face shown of this form is the one to stay. */
let finest = '';

/** What a picture of the piece is known by: the first face of a form that is finely made is a rough one. */
function shownAs(piece: Piece, whole = false) {
  const formKey = hashOf(piece.form.masses.map(({ part, ...m }) => (part ? { ...m, part: part.whole.key } : m)));
  const fine = whole || !wantsFiner(piece) || finest === formKey;
  return { formKey, fine, key: hashOf([formKey, piece.armature, fine]) };
}

function pictureOf(piece: Piece, haveKey: string, whole = false): Picture | null {
  const { formKey, fine, key } = shownAs(piece, whole);
  if (key === haveKey) return null;
  let surface = surfaces.get(formKey);
  if (!surface || (fine && finest !== formKey)) {
    surface = fine ? surfaceOf(piece, looked) : extractSurface(piece.grid);
    if (fine) finest = formKey;
    surfaces.clear();
    surfaces.set(formKey, surface);
  }
  const memberAcross: Record<string, number> = {};
  for (const m of piece.armature.members) {
    const size = piece.stockOf(m.stock)?.sizes.find((s) => s.id === m.size);
    memberAcross[m.id] = size ? sectionAcross(size.section) : 0.004;
  }
  return {
    key,
    formKey,
    surface,
    masses: piece.form.masses.map(({ part: _, ...m }) => m),
    armature: piece.armature,
    memberAcross,
  };
}

/** The faces looked at lately. */
const looked = new EarlierGrids();

let thickest: { readonly form: string; readonly found: FaceCover['thickest'] } | null = null;

function thickestIn(piece: Piece, formKey: string): FaceCover['thickest'] {
  if (thickest?.form === formKey) return thickest.found;
  const { low, high } = piece.extent;
  const whole = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  // A thin piece is measured finely already; a coarser grid is enough to find where it is thick.
  const grid = voxelise(piece.field, { step: Math.max(piece.grid.step, whole / 70), depth: whole });
  const field = thicknessField(grid, piece.field);
  piece.field.at(...field.thickest.at, piece.field.all());
  const place = piece.form.masses[piece.field.owner]?.name ?? 'form';
  thickest = { form: formKey, found: { thickness: field.thickest.thickness, place } };
  return thickest.found;
}

let faceCover: FaceCover | null = null;

function coverFor(piece: Piece): FaceCover {
  const { formKey, key } = shownAs(piece);
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

/** What was chosen last, and of what. */
let before: { readonly id: string; readonly school: string; readonly sizes: Sizes } | null = null;

async function work(request: SessionRequest, { send, stale, rest }: Work<SessionAnswer>): Promise<void> {
  const { asked } = request;
  let { pictureKey } = request;
  const question = questionOf(asked),
    options = optionsOf(asked);
  // While sizes are chosen for what was changed, its verdict is that at the sizes there were.
  const { sizing, school } = asked.build.armature;
  if (
    sizing === 'to-carry' &&
    before?.id === asked.id &&
    before.school === school.kind &&
    !evaluator.isSized(question)
  ) {
    const { sizes } = before;
    const now = evaluator.evaluate(question, { ...options, sizes });
    const soFar = evaluator.piece(question, { sizes });
    if (now.ok && soFar.ok) {
      const picture = pictureKey === null ? null : pictureOf(soFar.value, pictureKey);
      if (picture) pictureKey = picture.key;
      send({ kind: 'nominal', report: now.value, picture, dryingKey: null, milliseconds: 0 });
      await breathe();
      if (stale()) return;
    }
  }
  const began = performance.now();
  const nominal = evaluator.evaluate(question, options);
  if (nominal.ok && sizing === 'to-carry')
    before = { id: asked.id, school: school.kind, sizes: nominal.value.sizing.sizes };
  const piece = evaluator.piece(question);
  const key = evaluator.dryingKey(question);
  if (!nominal.ok || !piece.ok || !key.ok) {
    send({ kind: 'refused', why: !nominal.ok ? nominal : !piece.ok ? piece : (key as never) });
    return;
  }
  const milliseconds = performance.now() - began;
  const picture = pictureKey === null ? null : pictureOf(piece.value, pictureKey);
  send({ kind: 'nominal', report: nominal.value, picture, dryingKey: key.value, milliseconds });
  if (!(await rest())) return;
  const finer = pictureKey === null ? null : pictureOf(piece.value, picture?.key ?? pictureKey, true);
  if (finer) {
    send({ kind: 'picture', picture: finer });
    if (!(await rest())) return;
  }
  const answer = evaluator.judge(question, { ...options, ranges: true });
  if (!answer.ok) return;
  const bare = answer.value.findings.map((f) => ({ ...f, remedies: [] }));
  const cover = pictureKey === null ? null : coverFor(piece.value);
  send({ kind: 'ranges', report: evaluator.reportOf(answer.value, bare), cover });
  if (request.remedies) {
    const steps = withRemedies(evaluator, question, answer.value, { ...options, ranges: true });
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) {
        send({ kind: 'complete', report: step.value });
        break;
      }
      if (!(await rest())) return;
    }
  } else send({ kind: 'complete', report: evaluator.reportOf(answer.value, bare) });
  const { surroundings } = asked;
  const { plan } = answer.value.judging;
  if (!request.ways || !plan || !surroundings) return;
  if (!(await rest())) return;
  if (plan.due !== null && plan.finish.nominal > plan.due) {
    const own = evaluator.toPlan(question, options);
    const left = own.ok
      ? whatToLeaveOut(
          {
            builds: [own.value, ...surroundings.others.filter((o) => o.id !== asked.id)],
            workshop: surroundings.workshop,
            paces: surroundings.paces,
            now: answer.value.judging.now,
          },
          asked.id,
        )
      : null;
    send({ kind: 'leave-out', steps: left?.steps ?? null, finish: left?.finish ?? Infinity });
  }
  const ways: Sooner[] = [];
  const told = (done: boolean) => send({ kind: 'sooner', ways: [...ways].sort((a, b) => a.finish - b.finish), done });
  for (const way of waysToBeSooner(evaluator, question, answer.value, surroundings, options)) {
    if (!(await rest())) return;
    if (!way) continue;
    ways.push(way);
    told(false);
  }
  told(true);
  const holding = waysToHold(evaluator, question, answer.value, surroundings, options);
  for (let step = holding.next(); ; step = holding.next()) {
    if (step.done) {
      send({ kind: 'holding', ways: step.value });
      return;
    }
    if (!(await rest())) return;
  }
}

serve('the build', work);
