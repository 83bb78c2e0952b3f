import { layersOverClay, layersUnderClay } from '../clay';
import { cureHours } from '../cure';
import type { StepKind } from '../document';
import { coatState, type Piece, type PieceReport, type RegionReport } from '../piece';
import { clayKeptWarm, puttyCure } from './clocks';
import type { PlannedStep } from './plan';
import { castStepPrefix } from './cast-steps';
import { groundWaits, ovenMinutes, smoothsTheFace } from './step-rates';

/**
 * Whether a plan can be followed as it stands. Looks at when each step is put, at what it does to the piece, and at what the
 * report says the piece is at that hour; it knows nothing of how plans are made or of what a step was told to wait for.
 * What comes too late is no fault where the step says so itself.
 */
export const orderRules = [
  'what carries before what is carried',
  'glued joins, gauze and grounds dry before they are covered',
  'clay warm when it is wanted',
  'each coat when the one under it allows it',
  'soft work while it is soft',
  'hard work when it is hard',
  'fine marks after all that dulls them',
  'covers off when the drying says',
  'no prop away before the piece keeps its place',
  'put together before it is worked over',
  'nothing on the clay once it is covered',
  'sealed, painted and moulded when the clay is ready',
  'the end last',
  'cast in a mould that has been opened and is dry',
] as const;
export type OrderRule = (typeof orderRules)[number];

export interface OutOfOrder {
  readonly rule: OrderRule;
  /** The step that is out of its order. */
  readonly step: string;
  readonly says: string;
}

const hour = 3600;
/** Seconds that rounding to whole minutes may take off. */
const rounding = 60;

/** Work on the face; and what leaves no fine mark where it goes. */
const onTheFace: readonly StepKind[] = ['clay', 'smoothing', 'refining', 'mending', 'detail', 'sanding'];
const dulling: readonly StepKind[] = ['clay', 'smoothing', 'refining', 'mending', 'sanding', 'opening'];
const covering: readonly StepKind[] = ['sealing', 'painting', 'moulding'];
const carries: readonly StepKind[] = ['setting-out', 'armature', 'bulk', 'ground', 'clay'];

/** `steps` of one piece; those of a class, of one of its groups. */
export function outOfOrder(piece: Piece, report: PieceReport, steps: readonly PlannedStep[]): OutOfOrder[] {
  const look = new Look(piece, report, steps);
  return [
    ...beforeClay(look),
    ...coats(look),
    ...faceWork(look),
    ...tending(look),
    ...covered(look),
    ...atTheEnd(look),
    ...inTheMould(look),
  ];
}

/** The steps, and what the report says of the piece when one of them begins. */
class Look {
  readonly regions: readonly RegionReport[];

  constructor(
    readonly piece: Piece,
    readonly report: PieceReport,
    readonly steps: readonly PlannedStep[],
  ) {
    this.regions = report.regions.filter((r) => r.clayVolume > 0);
  }

  get setting() {
    return this.piece.clay.setting;
  }
  find(id: string): PlannedStep | undefined {
    return this.steps.find((s) => s.id === id);
  }
  of(...kinds: readonly StepKind[]): PlannedStep[] {
    return this.steps.filter((s) => kinds.includes(s.kind));
  }
  /** Steps on a region, or on all of the piece. */
  on(region: string, kinds: readonly StepKind[]): PlannedStep[] {
    return this.of(...kinds).filter((s) => s.region === null || s.region === region);
  }
  /** Solvent or hot air over all of it. */
  get smoothedOver(): PlannedStep[] {
    return this.steps.filter((s) => smoothsTheFace(s.id.split('/')[0]!, this.setting));
  }
  lastLaid(region: string): PlannedStep | undefined {
    return this.of('clay')
      .filter((s) => s.region === region)
      .reduce<PlannedStep | undefined>((w, s) => (w && w.until >= s.until ? w : s), undefined);
  }
  get lastBake(): PlannedStep | undefined {
    return this.steps
      .filter((s) => /^bake\//.test(s.id))
      .reduce<PlannedStep | undefined>((w, s) => (w && w.until >= s.until ? w : s), undefined);
  }
  /** From when the clay of a region is hard; minus infinity where it never gets hard, and nothing waits for that. */
  hardFrom(r: RegionReport): number {
    return this.stateFrom(r, 'through');
  }
  stateFrom(r: RegionReport, state: 'through' | 'steady'): number {
    const laid = this.lastLaid(r.id)?.until ?? -Infinity;
    if (this.setting === 'dries') {
      const coat = r.coats[r.coats.length - 1];
      const after = coat ? coatState(r, coat, state) : null;
      return after === null ? Infinity : laid + after.nominal;
    }
    if (this.setting === 'sets') return laid + (this.report.cure?.cureHours ?? 0) * hour;
    if (this.setting === 'bakes') return (this.lastBake?.until ?? Infinity) + hour;
    return -Infinity;
  }
}

const told = (s: PlannedStep): boolean => s.clashes.some((c) => c.kind === 'window' || c.kind === 'never');
const fault = (rule: OrderRule, step: PlannedStep, says: string): OutOfOrder => ({ rule, step: step.id, says });
const early = (rule: OrderRule, step: PlannedStep, from: number, why: string): OutOfOrder[] =>
  Number.isFinite(from) && step.from < from - rounding
    ? [fault(rule, step, `${((from - step.from) / hour).toFixed(1)} h before ${why}`)]
    : [];

function beforeClay(look: Look): OutOfOrder[] {
  const out: OutOfOrder[] = [];
  const { piece, report } = look;
  const rank = (s: PlannedStep) => carries.indexOf(s.kind);
  const built = look.of(...carries);
  for (const s of built)
    for (const other of built)
      if (rank(other) < rank(s) && other.until > s.from + rounding)
        out.push(fault('what carries before what is carried', s, `${other.id} is not over`));
  const clay = look.of('clay');
  for (const prop of look.of('props'))
    for (const s of clay) out.push(...early('what carries before what is carried', s, prop.until, 'its props stand'));
  // Everything that goes on after a step, save what is only measured or put to warm.
  const over = (s: PlannedStep) =>
    look
      .of('bulk', 'ground', 'props', 'clay')
      .filter((x) => x !== s && rank(x) >= rank(s) && x.from >= s.from && (x.kind !== s.kind || x.id > s.id));
  const dry = 'glued joins, gauze and grounds dry before they are covered';
  const armature = look.find('armature');
  if (armature && piece.armature.bones.some((b) => b.joinFrom === 'epoxied' || b.joinTo === 'epoxied'))
    for (const s of over(armature))
      out.push(
        ...early(
          dry,
          s,
          armature.until + cureHours(puttyCure, piece.build.room.temperature) * hour,
          'its glued joins have set',
        ),
      );
  const layers = new Map(
    piece.regions.flatMap((r) => layersUnderClay(piece.build, r) ?? []).map((l) => [`ground/${l.id}`, l.id]),
  );
  if (layers.size === 0 && look.find('bulk')) layers.set('bulk', piece.wrap.id);
  for (const [id, layer] of layers) {
    const put = look.find(id);
    if (!put) continue;
    if (ovenMinutes[layer] !== undefined) {
      const baked = look.steps.find(
        (s) => s.kind === 'heat' && s.tools.includes('oven') && s.from >= put.until && !/^bake\//.test(s.id),
      );
      for (const s of clay) {
        if (!baked) out.push(fault(dry, s, 'the undercoat was never baked'));
        else out.push(...early(dry, s, baked.until + hour, 'the undercoat is cool'));
      }
    } else
      for (const s of over(put))
        out.push(...early(dry, s, put.until + (groundWaits[layer] ?? 0) * hour, `the ${layer} is dry`));
  }
  const { warming } = report.heat;
  const first = clay.reduce<PlannedStep | undefined>((w, s) => (w && w.from <= s.from ? w : s), undefined);
  const warm = look.find('warm');
  if (warming && first) {
    const rule = 'clay warm when it is wanted';
    if (!warm) out.push(fault(rule, first, 'nobody put the clay to warm'));
    else {
      out.push(...early(rule, first, warm.until + warming.time, 'the clay is warm'));
      if (first.from > warm.until + warming.time + clayKeptWarm + rounding && !told(first))
        out.push(fault(rule, warm, `${((first.from - warm.until) / hour).toFixed(0)} h before it is used`));
    }
  }
  return out;
}

function coats(look: Look): OutOfOrder[] {
  const rule = 'each coat when the one under it allows it';
  return look.regions.flatMap((r) => {
    const laid = look
      .of('clay')
      .filter((s) => s.region === r.id)
      .sort((a, b) => Number(a.id.split('/')[2]) - Number(b.id.split('/')[2]));
    return laid.slice(1).flatMap((s, k) => {
      const before = laid[k]!;
      if (look.setting === 'bakes') {
        const bake = look.steps
          .filter((x) => /^bake\//.test(x.id) && x.from >= before.until - rounding)
          .reduce<number>((m, x) => Math.min(m, x.until), Infinity);
        return bake === Infinity
          ? [fault(rule, s, 'the coat under it was never baked')]
          : early(rule, s, bake + hour, 'the coat under it is cool');
      }
      const coat = r.coats[k];
      if (!coat) return early(rule, s, before.until, 'the coat under it is on');
      const wait = look.piece.build.stages.waits[k] ?? { until: 'through-dry' as const, hours: 0 };
      const state = { 'touch-dry': 'touch', 'leather-hard': 'leather', 'through-dry': 'through' } as const;
      const ready = coatState(r, coat, state[wait.until]);
      return early(
        rule,
        s,
        ready === null ? Infinity : before.until + ready.nominal + wait.hours * hour,
        'the coat under it is ready',
      );
    });
  });
}

function faceWork(look: Look): OutOfOrder[] {
  const out: OutOfOrder[] = [];
  const { setting, report } = look;
  for (const r of look.regions) {
    const laid = look.lastLaid(r.id);
    if (!laid) continue;
    const hard = look.hardFrom(r);
    for (const s of look.on(r.id, onTheFace).filter((x) => x.kind !== 'clay')) {
      const whole = s.region === null;
      if (setting === 'bakes') {
        if (s.kind === 'sanding') out.push(...early('hard work when it is hard', s, hard, 'it is baked and cool'));
        else if (!whole && look.lastBake && s.until > look.lastBake.from + rounding)
          out.push(fault('soft work while it is soft', s, 'it is baked already'));
        continue;
      }
      if (setting !== 'dries' && setting !== 'sets') continue;
      if (s.kind === 'smoothing' && !whole) {
        const until =
          setting === 'sets'
            ? (report.cure?.softMinutes ?? 0) * 60
            : (r.coats[r.coats.length - 1]?.course.smoothUntil ?? Infinity);
        if (s.from < laid.until - rounding) out.push(fault('soft work while it is soft', s, 'the clay is not on'));
        if (s.from > laid.until + until + rounding && !told(s))
          out.push(
            fault(
              'soft work while it is soft',
              s,
              `${((s.from - laid.until - until) / hour).toFixed(1)} h after it can be smoothed`,
            ),
          );
      } else out.push(...early('hard work when it is hard', s, hard, 'it is hard'));
    }
    const fine = look.on(r.id, ['detail']);
    const dulls = [...look.on(r.id, dulling), ...look.smoothedOver];
    for (const mark of fine)
      for (const s of new Set(dulls))
        if (s.until > mark.from + rounding)
          out.push(fault('fine marks after all that dulls them', mark, `${s.id} comes over it`));
  }
  for (const join of look.of('opening').filter((s) => s.id !== 'cut-open'))
    for (const s of look.of('refining', 'mending', 'detail', 'sanding'))
      out.push(...early('put together before it is worked over', s, join.until, `${join.id} is over`));
  return out;
}

function tending(look: Look): OutOfOrder[] {
  const out: OutOfOrder[] = [];
  const { piece, report, regions } = look;
  const first = look.of('clay').reduce<number>((m, s) => Math.min(m, s.from), Infinity);
  const firstOver = look.of('clay').find((s) => s.from === first)?.until ?? Infinity;
  const covers = piece.build.room.covers.filter((c) => c.until !== null && c.kind !== 'none');
  covers.forEach((c, i) => {
    const s = look.find(`uncover/${i + 1}`);
    const rule = 'covers off when the drying says';
    const off = firstOver + (c.until ?? 0) * hour;
    if (!s) return;
    out.push(...early(rule, s, off, 'it may come off'));
    if (s.from > off + 24 * hour && !told(s))
      out.push(fault(rule, s, `${((s.from - off) / hour).toFixed(0)} h after it should`));
  });
  const away = look.find('props-away');
  if (away) {
    const rule = 'no prop away before the piece keeps its place';
    const { letGo } = report;
    if (letGo.when === 'never') out.push(fault(rule, away, 'it never carries itself'));
    for (const r of regions) {
      const laid = look.lastLaid(r.id)?.until ?? -Infinity;
      const keeps =
        letGo.when === 'after' && letGo.sags <= letGo.keeps && letGo.after !== null
          ? laid + letGo.after
          : look.hardFrom(r);
      out.push(...early(rule, away, keeps, `the ${r.name} keeps its place`));
      if (keeps === -Infinity) out.push(fault(rule, away, 'clay that stays soft keeps no pose'));
    }
  }
  return out;
}

function covered(look: Look): OutOfOrder[] {
  const out: OutOfOrder[] = [];
  const over = look.of(...covering);
  const first = over.reduce<PlannedStep | undefined>((w, s) => (w && w.from <= s.from ? w : s), undefined);
  if (first)
    for (const s of [...look.of(...onTheFace), ...look.smoothedOver])
      if (s.until > first.from + rounding)
        out.push(fault('nothing on the clay once it is covered', s, `${first.id} is on already`));
  for (const s of over)
    for (const r of look.regions)
      out.push(
        ...early(
          'sealed, painted and moulded when the clay is ready',
          s,
          look.stateFrom(r, s.kind === 'painting' ? 'through' : 'steady'),
          `the ${r.name} is ready`,
        ),
      );
  // Skins before paint, paint before a mould.
  for (const s of look.of('painting', 'moulding'))
    for (const layer of new Set(
      look.piece.regions.flatMap((r) => layersOverClay(look.piece.build, r).map((l) => l.id)),
    )) {
      const seal = look.find(`seal/${layer}`);
      if (seal)
        out.push(
          ...early(
            'sealed, painted and moulded when the clay is ready',
            s,
            seal.until + (groundWaits[layer] ?? 6) * hour,
            `the ${layer} is dry`,
          ),
        );
    }
  return out;
}

function inTheMould(look: Look): OutOfOrder[] {
  const rule = 'cast in a mould that has been opened and is dry';
  const opened = Math.max(...look.of('moulding').flatMap((s) => (s.id.endsWith('/open') ? [s.until] : [])));
  const casts = look.steps.filter((s) => s.id.startsWith(castStepPrefix));
  return casts.flatMap((s, i) => {
    const before = casts[i - 1];
    // Plaster that still gives off its water takes none from latex.
    const dries = i === 0 ? (s.after[0]?.least.nominal ?? 0) : 0;
    return [
      ...early(rule, s, opened + dries, dries > 0 ? 'the mould is dry' : 'the mould is open'),
      ...(before ? early(rule, s, before.until, `${before.id} is over`) : []),
    ];
  });
}

function atTheEnd(look: Look): OutOfOrder[] {
  const rule = 'the end last';
  const out: OutOfOrder[] = [];
  const ends = look.steps.filter((s) => s.kind === 'fitting' || s.id === 'take-apart' || s.id === 'reclaim');
  for (const end of ends)
    for (const s of look.steps)
      // What is cast in the mould does not hold up what becomes of the master.
      if (s !== end && !ends.includes(s) && !s.id.startsWith(castStepPrefix) && s.until > end.from + rounding)
        out.push(fault(rule, end, `${s.id} is not over`));
  const [apart, reclaim, picture] = ['take-apart', 'reclaim', 'photograph'].map((id) => look.find(id));
  if (reclaim)
    out.push(
      ...(apart
        ? early(rule, reclaim, apart.until, 'it is taken apart')
        : [fault(rule, reclaim, 'it was not taken apart')]),
    );
  if (picture) {
    for (const s of look.of(...onTheFace, 'sealing', 'painting'))
      out.push(...early(rule, picture, s.until, `${s.id} is over`));
    for (const s of look.of('moulding')) out.push(...early(rule, s, picture.until, 'it is photographed'));
  }
  return out;
}
