import type { DryingCoefficients } from '../catalogue';
import type { ClayCells } from './clay-cells';
import { ClayDryer, type DryerState, type WholePieceJob } from './clay-dryer';
import { differentialShare, liftedOffRestraint, restrainedStrain } from './cracking';
import { miscutShare, shutOffCells, wettestButShare } from './miscut';
import { Neighbourhoods } from './neighbourhood';
import {
  wetScale,
  type WholeDrying,
  type WholeFrame,
  type WholePlace,
  type WholeRegion,
  type WholeStage,
} from './whole-result';

const { max, min } = Math;

/**
 * What happens to the whole piece as it dries, watched at fixed times: how wet every place is, when each region is
 * ready for what, where it cracks first and when. The crack index of a place adds what the core holds back of the
 * shrinkage round it, and its skin against the clay it hangs together with: through the thickness, and along the face
 * where thin parts dry before thick ones. Judged as in `cracking.ts`, place by place.
 */
export interface WatchedStage {
  /** Thickness of the coat that went on, by region; nothing where none did. Metres. */
  readonly thickness: readonly number[];
  /** No clay came: what has happened to its faces goes on. */
  readonly continues: boolean;
  /** Share of the shrinkage held back, for places on the outer face: three coordinates each. */
  readonly restraintAt: (places: Float32Array, regions: Uint8Array) => Float32Array;
}

export interface WholePieceInputs extends WholePieceJob {
  /** One for each of the job's stages. */
  readonly watched: readonly WatchedStage[];
  readonly regions: readonly string[];
  /** Seconds, rising: the piece is looked at then. */
  readonly times: readonly number[];
  /** From here on the core holds nothing back; Infinity where it stays. */
  readonly freeFrom: number;
  /** Moisture the room leaves in it. */
  readonly equilibrium: number;
  /** Crack index that counts as cracked. */
  readonly crackLimit: number;
}

interface FaceState {
  readonly restraint: Float32Array;
  readonly restrained: Float32Array;
  readonly differential: Float32Array;
  readonly crackedAt: Float32Array;
  readonly holdAt: Float32Array;
  /** Mean shrinkage round it when last looked at. */
  readonly mean: Float32Array;
  readonly places: Float32Array;
  readonly area: Float64Array;
  readonly region: Uint8Array;
  readonly surface: Float32Array;
}

interface RegionLook {
  readonly time: number;
  readonly stage: number;
  readonly touched: number;
  readonly mean: number;
  readonly wettest: number;
  readonly held: number;
}

const freed = liftedOffRestraint;
const skinShare = differentialShare;

export class WholePieceRun {
  private dryer: ClayDryer;
  private at = 0;
  private stage = -1;
  private cells!: ClayCells;
  private faces!: FaceState;
  private near!: Neighbourhoods;
  /** Cells that the cutting into cells has shut off from every face: what is in them is in no clay there is. */
  private shutOff!: Uint8Array;
  /** By region: share of its clay that may lie in badly cut cells, and does not hold it back from counting as dry. */
  private miscut: readonly number[] = [];
  private readonly frames: WholeFrame[] = [];
  private readonly stages: WholeStage[] = [];
  private readonly looks: RegionLook[][];
  private readonly firstWater: number;
  private firstCrack: WholePlace | null = null;
  private worst: WholePlace;
  private readonly regionCrack: RegionCrack[];
  private lastWet: WholePlace | null = null;

  constructor(readonly inputs: WholePieceInputs) {
    this.dryer = new ClayDryer(inputs);
    this.firstWater = this.dryer.water();
    this.looks = inputs.regions.map(() => []);
    this.regionCrack = inputs.regions.map(() => ({ crack: 0, restrained: 0, differential: 0, at: null }));
    this.worst = { at: [0, 0, 0], region: inputs.regions[0] ?? '', time: 0, value: 0 };
    this.enterStage();
  }

  /** Share of the work done, by time dried. */
  get done(): number {
    const last = this.inputs.times[this.inputs.times.length - 1] ?? 1;
    return min(1, this.dryer.time / last);
  }

  /** Works for about `steps` steps; true when all has been looked at. */
  work(steps: number): boolean {
    const { times } = this.inputs;
    while (this.at < times.length) {
      if (!this.dryer.advance(times[this.at]!, steps)) return false;
      if (this.dryer.stage !== this.stage) this.enterStage();
      this.look();
      this.at += 1;
      if (this.at >= times.length) break;
      // Dry through and settled everywhere: what follows is the same again.
      if (this.dryer.stage === this.inputs.stages.length - 1 && this.settled()) {
        this.at = times.length;
        break;
      }
      return false;
    }
    return true;
  }

  state(): DryerState {
    return this.dryer.state();
  }

  result(): WholeDrying {
    this.closeStage();
    const { inputs, dryer } = this;
    const had = this.firstWater + dryer.added;
    return {
      step: dryer.cells.lattice.step,
      cells: dryer.cells.count,
      steps: dryer.steps,
      volume: dryer.cells.volume,
      stages: this.stages,
      frames: this.frames,
      regions: inputs.regions.map((id, r) =>
        regionResult(id, this.sinceItsLastClay(r), this.regionCrack[r]!, inputs.clay, inputs.equilibrium),
      ),
      last: this.lastWet ?? this.worst,
      worst: this.worst,
      firstCrack: this.firstCrack,
      balance: (had - dryer.water() - dryer.evaporated) / had,
    };
  }

  /** Looks at a region from the last stage on that brought clay to it. */
  private sinceItsLastClay(r: number): RegionLook[] {
    const last = this.inputs.watched.reduce((k, w, i) => (!w.continues && (w.thickness[r] ?? 0) > 0 ? i : k), 0);
    return (this.looks[r] ?? []).filter((l) => l.stage >= last);
  }

  private settled(): boolean {
    const { clay, equilibrium } = this.inputs;
    return this.looks.every(
      (l) => l.length === 0 || l[l.length - 1]!.wettest <= equilibrium + 0.015 * (clay.w0 - equilibrium),
    );
  }

  private enterStage(): void {
    const before = this.stage >= 0 ? { faces: this.faces, stage: this.closeStage() } : null;
    this.stage = this.dryer.stage;
    this.cells = this.dryer.cells;
    const { cells } = this;
    const { count, cell, area } = cells.outerFaces;
    const places = new Float32Array(count * 3),
      region = new Uint8Array(count);
    const { size, origin, step } = cells.lattice;
    for (let f = 0; f < count; f++) {
      const i = cells.latticeOf[cell[f]! - cells.pad]!;
      region[f] = cells.region[cell[f]!]!;
      places[f * 3] = origin[0] + ((i % size[0]) + 0.5) * step;
      places[f * 3 + 1] = origin[1] + ((Math.floor(i / size[0]) % size[1]) + 0.5) * step;
      places[f * 3 + 2] = origin[2] + (Math.floor(i / (size[0] * size[1])) + 0.5) * step;
    }
    const watched = this.inputs.watched[this.stage];
    const f32 = () => new Float32Array(count);
    const never = () => new Float32Array(count).fill(Infinity);
    this.faces = {
      restraint: watched?.restraintAt(places, region) ?? f32(),
      restrained: f32(),
      differential: f32(),
      crackedAt: never(),
      holdAt: never(),
      mean: f32(),
      places,
      area,
      region,
      surface: f32(),
    };
    this.shutOff = shutOffCells(cells);
    this.miscut = this.inputs.regions.map((_, r) => miscutShare(step, watched?.thickness[r] ?? 0, this.miscut[r] ?? 0));
    this.near = new Neighbourhoods(
      cells,
      (watched?.thickness ?? []).map((t) => max(t, step)),
      this.dryer.fresh,
    );
    // What has shrunk already when the stage begins is not held back again.
    this.shrinkages();
    for (let f = 0; f < count; f++) this.faces.mean[f] = this.near.meanAt(f);
    if (before && watched?.continues) this.goOn(before.faces, before.stage);
  }

  /** Faces that were there keep what has come to them. */
  private goOn(old: FaceState, stage: WholeStage): void {
    const oldFaceOf = new Map<number, number>();
    stage.face.cell.forEach((c, f) => oldFaceOf.set(stage.latticeOf[c]!, f));
    const { cells } = this.dryer;
    for (let f = 0; f < this.faces.region.length; f++) {
      const was = oldFaceOf.get(cells.latticeOf[cells.outerFaces.cell[f]! - cells.pad]!);
      if (was === undefined) continue;
      for (const key of ['restrained', 'differential', 'crackedAt', 'holdAt', 'mean'] as const)
        this.faces[key][f] = old[key][was]!;
    }
  }

  private closeStage(): WholeStage {
    const kept = this.stages[this.stage];
    if (kept) return kept;
    this.settleCracks();
    // The dryer may have gone on to the next stage's cells.
    const { cells } = this;
    const { size, origin, step } = cells.lattice;
    const crack = Float32Array.from(
      this.faces.restrained,
      (r, f) => r + differentialShare * this.faces.differential[f]!,
    );
    const closed: WholeStage = {
      size,
      origin,
      step,
      latticeOf: cells.latticeOf,
      indexOf: Int32Array.from(cells.cellOf, (c) => (c < 0 ? -1 : c - cells.pad)),
      face: {
        cell: Int32Array.from(cells.outerFaces.cell, (c) => c - cells.pad),
        crack,
        crackedAt: this.faces.crackedAt,
        holdAt: this.faces.holdAt,
      },
    };
    this.stages.push(closed);
    return closed;
  }

  private shrinkages(): void {
    const { clay } = this.inputs;
    const { cells, moisture } = this.dryer;
    const { w0, w_sl } = clay;
    const per = 1 / (w0 - w_sl);
    this.near.gather(cells, (c) => {
      const s = (w0 - moisture[c]!) * per;
      return s < 0 ? 0 : s > 1 ? 1 : s;
    });
  }

  private look(): void {
    const { clay, equilibrium, freeFrom, crackLimit } = this.inputs;
    const { cells, moisture, time } = this.dryer;
    const { faces } = this;
    this.dryer.surfaceMoisture(faces.surface);
    this.shrinkages();
    const thickness = this.inputs.watched[this.stage]?.thickness ?? [];
    const span = clay.w0 - equilibrium;
    const wet = new Uint8Array(cells.count);
    const regions = this.inputs.regions.length;
    const regionWettest = new Float64Array(regions).fill(-Infinity),
      shrunk = new Float64Array(regions),
      volume = new Float64Array(regions),
      all = new Float64Array(regions);
    let wettest = 0,
      most = -Infinity;
    const { pad, count, region: regionOf, inverse } = cells;
    const fresh = this.dryer.fresh,
      shut = this.shutOff;
    // The inner loop calls nothing: imported functions cost more here than what they do.
    const { w0, w_sl } = clay;
    const perShrink = 1 / (w0 - w_sl),
      perWet = wetScale / span;
    for (let c = 0; c < count; c++) {
      if (shut[c] === 1) continue;
      const w = moisture[c + pad]!,
        r = regionOf[c + pad]!;
      if (w > most) {
        most = w;
        wettest = c;
      }
      if (w > regionWettest[r]!) regionWettest[r] = w;
      all[r] = all[r]! + 1;
      if (fresh === null || fresh[c] === 1) {
        const v = 1 / inverse[c + pad]!;
        const s = (w0 - w) * perShrink;
        volume[r] = volume[r]! + v;
        shrunk[r] = shrunk[r]! + v * (s < 0 ? 0 : s > 1 ? 1 : s);
      }
      const share = (w - equilibrium) * perWet + 0.5;
      wet[c] = share < 0 ? 0 : share > wetScale ? wetScale : share;
    }
    if (this.miscut.some((m) => m > 0)) {
      const told = this.withoutMiscut(regionWettest);
      wettest = told.wettest;
      most = told.most;
    }
    const touched = new Float64Array(regions),
      held = new Float64Array(regions),
      inReach = new Float64Array(regions),
      area = new Float64Array(regions);
    const cracked = new Float64Array(regions),
      top = new Float64Array(regions),
      highest = new Int32Array(regions);
    const full = thickness.map((t) => (t > 0 ? restrainedStrain(clay, t, 1) : 0));
    const { capacityWet, capacityDry, shrinkage } = clay;
    const fall = Math.log(capacityWet / capacityDry);
    const grown = (s: number) => (Math.exp(fall * s) - 1) / (Math.exp(fall) - 1 || 1);
    for (let f = 0; f < faces.region.length; f++) {
      const r = faces.region[f]!;
      let s = (w0 - faces.surface[f]!) * perShrink;
      s = s < 0 ? 0 : s > 1 ? 1 : s;
      const mean = this.near.meanAt(f);
      if (full[r]! > 0) {
        const before = faces.mean[f]!;
        if (mean > before) {
          const restraint = time > freeFrom ? min(freed, faces.restraint[f]!) : faces.restraint[f]!;
          // What a layer of this thickness holds back grows as the strain it takes falls: see `restrainedStrain`.
          const more = fall > 1e-9 ? grown(mean) - grown(before) : mean - before;
          faces.restrained[f] = faces.restrained[f]! + restraint * full[r]! * more;
          faces.mean[f] = mean;
        }
        const skin = s > mean ? (shrinkage * (s - mean)) / (capacityWet * Math.exp(-fall * s)) : 0;
        if (skin > faces.differential[f]!) faces.differential[f] = skin;
        const index = faces.restrained[f]! + skinShare * faces.differential[f]!;
        if (index > crackLimit) {
          cracked[r] = cracked[r]! + faces.area[f]!;
          if (index > top[r]!) {
            top[r] = index;
            highest[r] = f;
          }
          if (faces.crackedAt[f] === Infinity) faces.crackedAt[f] = time;
        }
      }
      const a = faces.area[f]!;
      area[r] = area[r]! + a;
      const firm = s >= 0.8 && mean >= 0.5;
      if (firm && faces.holdAt[f] === Infinity) faces.holdAt[f] = time;
      // What it lies on no hand touches: it counts only where a region has nothing else.
      const counts = this.dryer.lies(f) ? a * 1e-9 : a;
      inReach[r] = inReach[r]! + counts;
      if (s >= 0.8) touched[r] = touched[r]! + counts;
      if (firm) held[r] = held[r]! + counts;
    }
    this.noteCracks(cracked, highest, area);
    for (let r = 0; r < regions; r++) {
      if (all[r]! === 0) continue;
      this.looks[r]?.push({
        time,
        stage: this.stage,
        touched: touched[r]! / max(1e-30, inReach[r]!),
        held: held[r]! / max(1e-30, inReach[r]!),
        mean: volume[r]! > 0 ? shrunk[r]! / volume[r]! : 1,
        wettest: regionWettest[r]!,
      });
    }
    if (most > equilibrium + 0.05 * span || !this.lastWet)
      this.lastWet = {
        at: placeOf(cells, wettest),
        region: this.inputs.regions[cells.region[wettest + cells.pad]!] ?? '',
        time,
        value: (most - equilibrium) / span,
      };
    this.frames.push({ time, stage: this.stage, wet, wettest, mass: this.dryer.solids() + this.dryer.water() });
  }

  /**
   * Lowers each region's wettest to what all but its miscut share has come below, and finds the cell that is wettest so.
   * Cells as large as the coat is thick are cut at odd angles here and there, and keep water that real clay would not.
   */
  private withoutMiscut(regionWettest: Float64Array): { readonly wettest: number; readonly most: number } {
    const { cells, moisture } = this.dryer;
    const { pad, count, region } = cells;
    const { equilibrium, clay } = this.inputs;
    const marks = wettestButShare(cells, moisture, this.shutOff, this.miscut, equilibrium, clay.w0);
    marks.forEach((mark, r) => (regionWettest[r] = min(regionWettest[r]!, mark)));
    let wettest = 0,
      most = -Infinity;
    for (let c = 0; c < count; c++) {
      const w = moisture[c + pad]!;
      if (this.shutOff[c] === 1 || w > regionWettest[region[c + pad]!]! || w <= most) continue;
      most = w;
      wettest = c;
    }
    return { wettest, most };
  }

  /** Where a region has cracked: over a square centimetre at least, so that one badly cut cell says nothing. */
  private noteCracks(cracked: Float64Array, highest: Int32Array, whole: Float64Array): void {
    for (let r = 0; r < cracked.length; r++) {
      const region = this.regionCrack[r]!;
      if (region.at !== null || cracked[r]! < leastCrack(whole[r]!)) continue;
      region.at = this.dryer.time;
      this.firstCrack ??= this.placeAt(highest[r]!, this.dryer.time);
    }
  }

  private placeAt(f: number, time: number): WholePlace {
    const { faces } = this;
    return {
      at: [faces.places[f * 3]!, faces.places[f * 3 + 1]!, faces.places[f * 3 + 2]!],
      region: this.inputs.regions[faces.region[f]!] ?? '',
      time,
      value: faces.restrained[f]! + skinShare * faces.differential[f]!,
    };
  }

  /** The index that the worst square centimetre of each region has reached, as its stage ends. */
  private settleCracks(): void {
    const { faces } = this;
    const index = (f: number) => faces.restrained[f]! + skinShare * faces.differential[f]!;
    this.inputs.regions.forEach((_, r) => {
      const own: number[] = [];
      let whole = 0;
      for (let f = 0; f < faces.region.length; f++)
        if (faces.region[f] === r) {
          own.push(f);
          whole += faces.area[f]!;
        }
      own.sort((a, b) => index(b) - index(a));
      let area = 0;
      const at = own.find((f) => (area += faces.area[f]!) >= leastCrack(whole));
      if (at === undefined) return;
      const region = this.regionCrack[r]!;
      if (index(at) > region.crack)
        Object.assign(region, {
          crack: index(at),
          restrained: faces.restrained[at],
          differential: skinShare * faces.differential[at]!,
        });
      if (index(at) > this.worst.value) this.worst = this.placeAt(at, this.frames[this.frames.length - 1]?.time ?? 0);
    });
  }
}

interface RegionCrack {
  crack: number;
  restrained: number;
  differential: number;
  at: number | null;
}

/** m2 of face that has to be past a mark: a square centimetre, or a hundredth of a small region. */
function leastCrack(whole: number): number {
  return min(1e-4, whole / 100);
}

function placeOf(cells: ClayCells, index: number): [number, number, number] {
  const { size, origin, step } = cells.lattice;
  const i = cells.latticeOf[index]!;
  return [
    origin[0] + ((i % size[0]) + 0.5) * step,
    origin[1] + ((Math.floor(i / size[0]) % size[1]) + 0.5) * step,
    origin[2] + (Math.floor(i / (size[0] * size[1])) + 0.5) * step,
  ];
}

/** Time at which a watched figure crosses a mark for good, between two looks. */
function crossing(
  looks: readonly RegionLook[],
  value: (l: RegionLook) => number,
  mark: number,
  rising: boolean,
): number | null {
  let at: number | null = null;
  let before: RegionLook | null = null;
  for (const l of looks) {
    const reached = rising ? value(l) >= mark : value(l) <= mark;
    if (!reached) at = null;
    else if (at === null) {
      const a = before ? value(before) : value(l),
        b = value(l);
      const share = before && a !== b ? min(1, max(0, (mark - a) / (b - a))) : 1;
      at = before ? before.time + share * (l.time - before.time) : l.time;
    }
    before = l;
  }
  return at;
}

function regionResult(
  id: string,
  looks: readonly RegionLook[],
  crack: RegionCrack,
  clay: DryingCoefficients,
  equilibrium: number,
): WholeRegion {
  const span = clay.w0 - equilibrium;
  return {
    id,
    touchDry: crossing(looks, (l) => l.touched, 0.95, true),
    leatherHard: crossing(looks, (l) => l.mean, 0.5, true),
    throughDry: crossing(looks, (l) => l.wettest, equilibrium + 0.05 * span, false),
    steady: crossing(looks, (l) => l.wettest, equilibrium + 0.02 * span, false),
    hold: crossing(looks, (l) => l.held, 0.9, true),
    crack: crack.crack,
    restrained: crack.restrained,
    differential: crack.differential,
    crackAt: crack.at,
  };
}
