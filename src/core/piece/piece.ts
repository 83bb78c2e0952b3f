import {
  bundleAcross,
  coverOfMember,
  drawnPath,
  memberMass,
  sectionAcross,
  type Armature,
  type CoverInputs,
  type FaceDistance,
  type Member,
  type MemberCover,
} from '../armature';
import { findBulk, findClay, findStock, findWrap, hashOf, partHash, type Build, type Mass } from '../document';
import type { BulkKind, ClayFamily, Stock, Wrap } from '../catalogue';
import {
  clayOver,
  coatsOf,
  coreFace,
  holdOf,
  layersOverClay,
  layersUnderClay,
  mixClay,
  paintedThickness,
  type ClayHold,
  type CoreFace,
  type MixedClay,
  type PaintedAt,
} from '../clay';
import {
  DistanceField,
  isBare,
  measureForm,
  resolveForm,
  sampleForm,
  solidExtent,
  type Box,
  type FormVolumes,
  type ResolvedForm,
  type VoxelGrid,
} from '../form';
import { lumpLoad, type LumpedLoad } from '../load';
import type { RoomHistory } from '../log';
import { failure, success, type Result, type Vec3 } from '../quantity';
import { resolveArmature } from '../school';
import { clampFactor } from './clamp-factor';
import { limbRooms, stretchesOf, type LimbRoom } from './limb-room';
import type { ResultCache } from './result-cache';
import { outlinesOf } from './outline';
import { unsupportedOf, type Unsupported } from './unsupported';

/** A build with everything looked up, made and measured: what all judgements read from. */
export interface Piece {
  readonly build: Build;
  readonly form: ResolvedForm;
  readonly regions: readonly string[];
  readonly regionOfMass: readonly number[];
  readonly armature: Armature;
  readonly lostEdits: readonly string[];
  readonly clay: ClayFamily;
  readonly mixed: MixedClay;
  /** What it holds with while it is fresh, in this room. */
  readonly hold: ClayHold;
  readonly bulk: BulkKind;
  readonly wrap: Wrap;
  /** kg to a m2 of core that the wrap adds; a skin takes the place of as much bulk. */
  readonly wrapPerArea: number;
  readonly face: CoreFace;
  /** By region: the face under its clay, with the region's own layers, and what layers weigh to a m2. */
  readonly faces: readonly CoreFace[];
  readonly layersPerArea: readonly number[];
  /** What the log knows of it. */
  readonly known: PieceHistory;
  /** What weighing found, now and before: factors on how fast water leaves the face and moves inside. */
  readonly factors: PieceFactors;
  readonly coats: readonly (readonly number[])[];
  readonly grid: VoxelGrid;
  /** Box of what is inside, to a cell. */
  readonly extent: Box;
  readonly volumes: FormVolumes;
  readonly load: LumpedLoad;
  readonly cover: readonly MemberCover[];
  /** What a member would have over it, were it so far across: one strand, and all of them; metres. */
  readonly coverAs: (m: Member, across: { readonly strand: number; readonly whole: number }) => MemberCover | null;
  /** What every stretch between two joints can take, whatever runs in it. */
  readonly limbs: () => readonly LimbRoom[];
  /** Outlines from eight sides, hung on the bones: what wind presses on. */
  readonly outlines: () => readonly LumpedLoad[];
  /** What nothing comes near enough to, or is joined to; worst first, what is near its limit too. */
  readonly unsupported: () => readonly Unsupported[];
  /** By region: members that lie in its clay with too little over them and nothing but clay between. */
  readonly thinOver: readonly (readonly ThinPlace[])[];
  /** By mass: how deep the core lies under the face, Infinity where there is none. */
  readonly coreDepths: Float64Array;
  /** What was painted thicker or thinner, place by place, and the most of it in each region; null where the clay stands outside an object. */
  readonly painted: PaintedAt | null;
  readonly paintedMost: readonly number[];
  /** The form as a function of place, as it was sampled. */
  readonly field: DistanceField;
  readonly stockOf: (id: string) => Stock | undefined;
}

export interface ThinPlace {
  readonly member: string;
  readonly name: string;
  readonly least: number;
}

/** What the bench log tells of a piece: the room it really dried in, and what its weighings say. */
export interface PieceHistory {
  readonly room: RoomHistory;
  readonly fitted: Fitted | null;
}
export const nothingKnown: PieceHistory = { room: { spells: [], off: [] }, fitted: null };

/** What a fit of the weighings found, frozen: it serves every variant of the piece. */
export interface Fitted {
  /** It speaks of this clay only. */
  readonly clay: string;
  readonly evaporation: number;
  readonly diffusion: number;
  /** Covariance of the logarithms of evaporation and diffusion, by rows. */
  readonly covariance: readonly [readonly [number, number], readonly [number, number]];
  readonly weighings: number;
}

export interface PieceFactors {
  readonly evaporation: number;
  readonly diffusion: number;
  /** Covariance of their logarithms, where weighing has told it; null where only the usual ranges are known. */
  readonly covariance: Fitted['covariance'] | null;
}

/** Learned before and found now belong to one clay each; of another clay they say nothing. */
function factorsFor(clay: string, { learned }: Build['room'], fitted: Fitted | null): PieceFactors {
  const before = learned?.clay === clay ? learned : null;
  const now = fitted?.clay === clay ? fitted : null;
  const own = before
    ? ([
        [before.spread.evaporation ** 2, 0],
        [0, before.spread.diffusion ** 2],
      ] as const)
    : null;
  return {
    evaporation: clampFactor((now?.evaporation ?? 1) * (before?.evaporation ?? 1)),
    diffusion: clampFactor((now?.diffusion ?? 1) * (before?.diffusion ?? 1)),
    covariance: now?.covariance ?? own,
  };
}

/** Clay that is kept damp, cut and hollowed wants nothing rigid close under its face. */
const coverInDamp = 0.015;

/** Distances are kept this finely deep, so that a small change of thickness does not sample the form anew. */
const depthStep = 0.005;

const depthsKept = 50_000;

/** A build's form and its armature as the school sets it out: what there is before anything is measured. */
function setOut(build: Build, cache: ResultCache) {
  const form = resolveForm(build);
  if (!form.ok) return form;
  const clay = findClay(build, build.brief.clay);
  if (!clay.ok) return clay;
  const stockOf = (id: string) => findStock(build, id);
  const across = (stock: string, size: string): number => {
    const found = stockOf(stock)?.sizes.find((s) => s.id === size);
    return found ? sectionAcross(found.section) : 0;
  };
  const sizesOf = (stock: string): string[] =>
    stockOf(stock)
      ?.sizes.filter((s) => s.id.endsWith('mm'))
      .map((s) => s.id) ?? [];
  const { masses } = form.value;
  const clayOn = Float64Array.from(masses, (m) => (isBare(m) ? 0 : clayOver(build, m.region)));
  // Clay over an object stands outside it, and a shell is as thick as its clay: only then does the face follow the coats.
  const outward = masses.some((m) => m.role === 'core' || m.shape.kind === 'shell');
  const formKey = outward ? `${partHash(build.form)}:${clayOn.join(',')}` : partHash(build.form);
  const field = cache.keep('field', formKey, () => new DistanceField(masses, clayOn, form.value.countedWith));
  const everyone = field.all();
  // The same places are asked for again whenever an armature is set out anew in the same form.
  const depths = cache.keep('depths', formKey, () => new Map<string, number>());
  const depthAt = (p: Vec3): number => {
    const place = `${p[0]},${p[1]},${p[2]}`;
    const known = depths.get(place);
    if (known !== undefined) return known;
    const depth = -field.at(p[0], p[1], p[2], everyone);
    if (depths.size < depthsKept) depths.set(place, depth);
    return depth;
  };
  const armatureKey = `${formKey}:${partHash(build.armature)}:${clayOn.join(',')}:${partHash(build.materials.values)}`;
  const made = cache.keep('schooled', armatureKey, () =>
    resolveArmature(build, form.value, {
      clayOver: (r) => clayOver(build, r),
      across,
      sizesOf,
      depthAt,
      toCarry: build.armature.sizing !== 'by-hand',
    }),
  );
  if (!made.ok) return made;
  const schooled = made.value.armature;
  return success({
    form: form.value,
    clay: clay.value,
    stockOf,
    across,
    clayOn,
    outward,
    formKey,
    armatureKey,
    field,
    everyone,
    schooled,
    lostEdits: [...form.value.lostEdits, ...made.value.lostEdits],
  });
}

/** Which bulk and which stock a build uses, by id: what is kept of the catalogue with it. */
export function materialsUsed(
  build: Build,
  cache: ResultCache,
): Result<{ readonly bulk: string; readonly stocks: readonly string[] }> {
  const set = setOut(build, cache);
  if (!set.ok) return set;
  const { bulk, members, base } = set.value.schooled;
  return success({ bulk, stocks: [...new Set([...members.map((m) => m.stock), base.stock])] });
}

export function makePiece(build: Build, cache: ResultCache, known: PieceHistory = nothingKnown): Result<Piece> {
  const set = setOut(build, cache);
  if (!set.ok) return set;
  const { form, clay, stockOf, across, clayOn, outward, formKey, armatureKey, field, everyone, schooled } = set.value;
  const { masses, regions } = form;
  const bulk = findBulk(build, schooled.bulk);
  if (!bulk.ok) return bulk;
  const wrap = findWrap(schooled.wrap);
  if (!wrap.ok) return wrap;
  const stock = checkStock(schooled, stockOf);
  if (!stock.ok) return stock;

  const regionOfMass = masses.map((m) => regions.indexOf(m.region));
  const face = coreFace(bulk.value, wrap.value);
  const coats = regions.map((r) => coatsOf(build, r));
  const faces = regions.map((r) => {
    const under = layersUnderClay(build, r);
    return under ? coreFace(bulk.value, ...under) : face;
  });
  // A hard skin takes the place of as much bulk.
  const weighs = (l: Wrap) => Math.max(0, l.perArea - (l.skin ? l.skin.thickness * bulk.value.density : 0));
  const layersPerArea = regions.map((r) => {
    const under = layersUnderClay(build, r) ?? [wrap.value];
    return (
      (face.solid ? 0 : under.reduce((sum, l) => sum + weighs(l), 0)) +
      layersOverClay(build, r).reduce((sum, l) => sum + l.perArea, 0)
    );
  });
  const wrapPerArea = Math.max(0, ...layersPerArea);
  const thickness = Float64Array.from(masses, (m, i) => coreDepth(m, clayOn[i]!, face.solid));
  const { painted: strokes } = build.regions;
  const painted = outward ? null : paintedThickness(strokes, build.form.start.size);
  const paintedMost = regions.map(() => 0);
  if (painted) {
    for (const s of strokes) {
      const at = s.at.map((v) => v * build.form.start.size) as unknown as Vec3;
      field.at(at[0], at[1], at[2], everyone);
      const r = regionOfMass[field.owner] ?? 0;
      paintedMost[r] = Math.max(paintedMost[r] ?? 0, painted(...at));
    }
  }
  const depth =
    thickness.reduce((most, t) => (t < Infinity ? Math.max(most, t) : most), 0) + Math.max(0, ...paintedMost);
  const held = schooled.nodes.filter((n) => n.held).map((n) => n.at);
  const near = nearFace(field);
  // What stands and what is bent is told member by member: most edits of an armature leave most of it as it was.
  const heldKey = `${formKey}:${held.join(';')}`;
  const drawn = (m: Member): Member => {
    const { drawnIn } = m;
    if (!drawnIn) return m;
    // What a way of building sets out to carry is all meant to be inside, however far it stands out of a pose.
    const wellOutside = build.armature.sizing !== 'by-hand' ? Math.max(0.02, 4 * drawnIn) : 0.02;
    const key = `${heldKey}:${drawnIn}:${wellOutside}:${m.path.join(';')}`;
    return { ...m, path: cache.keep('drawn', key, () => drawnPath(m.path, drawnIn, held, near, wellOutside)) };
  };
  const armature = cache.keep('armature', armatureKey, () => ({ ...schooled, members: schooled.members.map(drawn) }));
  const grid = cache.keep('grid', `${formKey}:${Math.ceil(depth / depthStep)}`, () =>
    sampleForm(field, Math.ceil(depth / depthStep) * depthStep, cache.grids),
  );
  const extent = cache.keep('extent', formKey, () => solidExtent(grid));
  const volumeKey = `${formKey}:${[...thickness].join(',')}${painted ? `:${hashOf(strokes)}` : ''}`;
  const volumes = cache.keep('volumes', volumeKey, () => measureForm(grid, thickness, painted));
  const massOf = (m: Member) => memberMass(m, stockOf(m.stock)!);
  // The armature follows from its own part, the form, the clay over it and the stock it is cut from.
  const hungKey = `${volumeKey}:${partHash(build.armature)}:${hashOf(coats)}:${partHash(build.materials.values)}:${layersPerArea.join(',')}`;
  const load = cache.keep('load', hungKey, () =>
    lumpLoad(
      volumes.parcels,
      regionOfMass,
      regions.length,
      masses.map((m) => m.id),
      armature.nodes,
      armature.bones,
      armature.members,
      massOf,
      volumes.perMass.map((m, i) =>
        m.clay <= 0 || wrapPerArea === 0 ? 0 : (m.area * layersPerArea[regionOfMass[i]!]!) / wrapPerArea,
      ),
      field.countedWith,
    ),
  );
  const coverKey = `${heldKey}:${clayOn.join(',')}:${clay.setting === 'damp'}`;
  const coverAs: Piece['coverAs'] = (m, { strand, whole }) => {
    const key = `${coverKey}:${m.id}:${m.name}:${strand}:${whole}:${m.path.join(';')}`;
    const inputs: CoverInputs = {
      acrossOf: () => ({ strand, whole }),
      held,
      near,
      clayOver: (i) => clayOn[i] ?? 0,
      ...(clay.setting === 'damp' ? { least: coverInDamp } : {}),
    };
    return cache.keep('member cover', key, () => coverOfMember(m, inputs));
  };
  const cover = cache.keep('cover', `${armatureKey}:${clay.setting === 'damp'}`, () =>
    armature.members.flatMap((m) => {
      const strand = across(m.stock, m.size);
      return coverAs(m, { strand, whole: bundleAcross(strand, m.strands) }) ?? [];
    }),
  );
  const limbs = () =>
    limbRooms(
      cache.keep('stretches', formKey, () => stretchesOf(form, near)),
      { clayOver: (i) => clayOn[i] ?? 0, ...(clay.setting === 'damp' ? { least: coverInDamp } : {}) },
    );
  const mixed = mixClay(clay, build.materials.waterWorkedIn);
  const hold = holdOf(clay, mixed, build.room.temperature);
  const unsupported = () => {
    const { nodes, bones, members, base } = armature;
    const key = hashOf([
      volumeKey,
      nodes,
      bones.map((b) => [b.id, b.from, b.to, b.tie]),
      members.map((m) => [m.path, m.bones]),
      [base.at, base.width, base.depth, base.standing],
      [hold, bulk.value, face.grip, mixed.wetDensity],
    ]);
    return cache.keep('unsupported', key, () =>
      unsupportedOf({
        grid,
        masses,
        coreDepths: thickness,
        clayDensity: mixed.wetDensity,
        bulkDensity: face.solid ? 0 : bulk.value.density,
        clay: hold,
        grip: face.grip,
        bulk: face.solid ? null : bulk.value,
        armature,
      }),
    );
  };
  const outlines = () =>
    cache.keep('outlines', `${hungKey}:${heldKey}`, () =>
      outlinesOf({ grid, armature, form, countedWith: field.countedWith, stockOf }),
    );
  return success({
    outlines,
    cover,
    coverAs,
    unsupported,
    limbs,
    field,
    coreDepths: thickness,
    painted,
    paintedMost,
    build,
    form,
    regions,
    regionOfMass,
    armature,
    lostEdits: set.value.lostEdits,
    clay,
    mixed,
    hold,
    bulk: bulk.value,
    wrap: wrap.value,
    wrapPerArea,
    faces,
    layersPerArea,
    known,
    factors: factorsFor(clay.id, build.room, known.fitted),
    thinOver: regions.map((_, r) =>
      cover.flatMap((c) => {
        const own = c.thinOver.filter((t) => regionOfMass[t.mass] === r);
        return own.length > 0 ? [{ member: c.member, name: c.name, least: Math.min(...own.map((t) => t.least)) }] : [];
      }),
    ),
    face,
    coats,
    grid,
    extent,
    volumes,
    load,
    stockOf,
  });
}

/** Metres about a place within which the masses that can matter are asked for once. */
const closeBy = 0.015;

/**
 * The form's distance near a place: only the masses that can matter there are asked. Places are mostly asked for one
 * beside the other; of a form of many masses those that matter about the last are kept apart.
 */
function nearFace(field: DistanceField): (centre: Vec3, radius: number) => FaceDistance {
  const everyone = field.all();
  return (centre, radius) => {
    const kept = new Int32Array(everyone.length);
    field.prune(centre[0], centre[1], centre[2], radius * field.slope, everyone, everyone.length, kept);
    const { count } = field.pruned;
    const close = field.many ? new Int32Array(count) : kept;
    let closeCount = count;
    let about: Vec3 | null = null;
    return (p) => {
      if (field.many && (!about || Math.hypot(p[0] - about[0], p[1] - about[1], p[2] - about[2]) > closeBy)) {
        field.prune(p[0], p[1], p[2], closeBy * field.slope, kept, count, close);
        closeCount = field.pruned.count;
        about = p;
      }
      const distance = field.at(p[0], p[1], p[2], close, closeCount);
      return { distance, mass: field.owner };
    };
  };
}

/** Depth of the core under the finished face; Infinity where it is clay all through. */
function coreDepth(mass: Mass, clay: number, solid: boolean): number {
  if (mass.shape.kind === 'shell') return Infinity;
  return solid && (mass.role ?? 'face') === 'face' ? Infinity : clay;
}

function checkStock(armature: Armature, stockOf: (id: string) => Stock | undefined): Result<null> {
  const wanted: [string, string, string][] = armature.members.map((m) => [m.id, m.stock, m.size]);
  wanted.push(['base', armature.base.stock, armature.base.size]);
  for (const [id, stock, size] of wanted) {
    const found = stockOf(stock);
    if (!found) return failure('unknown-stock', `armature.${id}.stock`, `there is no stock "${stock}"`);
    if (!found.sizes.some((s) => s.id === size))
      return failure('unknown-size', `armature.${id}.size`, `${found.name} does not come in "${size}"`);
  }
  return success(null);
}
