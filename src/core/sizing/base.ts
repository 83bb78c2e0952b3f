import { checkBase, counterweightAt, groundUnder, liftOf, standingFigures } from '../load';
import { wholeToCarry, type LoadReport, type Piece } from '../piece';
import { utilisationWanted } from './wanted';

/** Figures of the board that the maker left to be chosen, with what they should be: wider, heavier, thicker, better screwed down. */
export function baseFor(piece: Piece, load: LoadReport): Record<string, string | number> {
  const { base } = piece.armature;
  if (base.standing === 'own') return {};
  return {
    ...(tooHeavy(piece, load) ? { standing: 'casters' } : {}),
    ...throughTheDoor(piece, load),
    ...standsBy(piece, load),
    ...heldBy(piece, load),
  };
}

/** Before the drying is known a piece is taken for so much heavier than it comes out. */
const slack = 1.05;

/** Whether a piece is more than three people lift, and does not roll. */
export function tooHeavy(piece: Piece, load: LoadReport): boolean {
  const { base, comesOut } = piece.armature;
  if (piece.build.armature.mount.kind !== 'stands' || comesOut === 'all' || base.standing === 'casters') return false;
  const whole = load.stances[load.stances.length - 1]?.mass ?? 0;
  const { people } = liftOf(wholeToCarry(piece, slack * whole));
  return !Number.isFinite(people);
}

/** Degrees over what is asked, so that it reads sound. */
const toSpare = 0.6;
/** A board grows to this times what the form asked, or to this share of how high its centre lies, before a weight is put on it. */
const widest = 1.4,
  widestOfHeight = 1.3;
const step = 0.02;

/** Metres kept free beside a board, and round the feet on it. */
const clear = 0.04,
  roundFeet = 0.04;

/** A board that no side of goes through the door is cut as narrow as the door wants, where the piece still stands by it. */
function throughTheDoor({ build, armature }: Piece, { stance }: LoadReport): Record<string, number> {
  const { base, nodes, comesOut } = armature;
  const opening = build.brief.travel.doorWidth - clear;
  if (build.armature.mount.kind !== 'stands' || comesOut === 'all') return {};
  if (Math.min(base.width, base.depth) <= opening) return {};
  const { inset } = standingFigures[base.standing];
  const height = stance.centre[2] - groundUnder(base);
  const lean = Math.tan(((build.brief.limits.tipAngle + toSpare) * Math.PI) / 180) * height;
  const feet = nodes.filter((n) => n.held).map((n) => n.at);
  const needs = (k: 0 | 1) => {
    const from = (v: number) => Math.abs(v - base.at[k]);
    const held = Math.max(...feet.map((f) => from(f[k])), from(base.flangeAt[k]) + base.flangeDiameter / 2);
    return 2 * Math.max(from(stance.centre[k]) + lean + inset, held + roundFeet);
  };
  const cut = round(Math.floor(opening / step) * step);
  // Which side goes first through the door is told by what stands on it: it is cut both ways where it can be.
  return {
    ...(base.width > opening && needs(0) <= opening ? { boardWidth: cut } : {}),
    ...(base.depth > opening && needs(1) <= opening ? { boardDepth: cut } : {}),
  };
}

/** Wider first, as far as a board goes well; then a weight on its far edge. */
function standsBy(piece: Piece, { stance }: LoadReport): Record<string, number> {
  const { build } = piece;
  const { base } = piece.armature;
  const wanted = build.brief.limits.tipAngle + toSpare;
  if (build.armature.mount.kind !== 'stands' || stance.tipAngle >= wanted) return {};
  const { width, depth } = base;
  const height = stance.centre[2] - groundUnder(base);
  // A board stands out by so much on the weak side that the lean there is what is asked.
  const short = Math.tan((wanted * Math.PI) / 180) * height - stance.edgeDistance;
  const across = stance.towards === 'left' || stance.towards === 'right';
  const most = (v: number) => Math.max(widest * v, widestOfHeight * height);
  const grown = (v: number) => Math.ceil((Math.min(most(v), v + 2 * short) + 1e-9) / step) * step;
  const out: Record<string, number> = across
    ? { boardWidth: round(grown(width)) }
    : { boardDepth: round(grown(depth)) };
  const now = across ? width : depth;
  if (now + 2 * short <= most(now)) return out;
  const back = stance.towards === 'front' ? 0.4 * depth : stance.towards === 'back' ? -0.4 * depth : 0;
  const kg =
    base.ballast +
    counterweightAt(stance, groundUnder(base), [base.at[0], base.at[1] + back, -base.thickness / 2], wanted);
  return Number.isFinite(kg) && kg <= mostBallast
    ? { ballast: Math.ceil(kg * 10) / 10, ballastBack: round(back) }
    : out;
}
const mostBallast = 500;
const round = (v: number) => Math.round(v * 1000) / 1000;

/** The thinnest board and the least screws that hold what pulls at them. */
function heldBy(piece: Piece, load: LoadReport): Record<string, string | number> {
  const { base } = piece.armature;
  const stock = piece.stockOf(base.stock);
  const worst = Math.max(load.base.screwUtilisation, load.base.boardUtilisation);
  if (!stock || worst < utilisationWanted) return {};
  const moment = load.lifeStages.reduce((m, s) => Math.max(m, s.footMoment), 0);
  const safety = load.base.screwUtilisation > 0 ? safetyOf(piece, load, moment) : 1.5;
  const boards = stock.sizes.flatMap((s) =>
    'height' in s.section && s.section.height >= base.thickness - 1e-6
      ? [{ id: s.id, thickness: s.section.height }]
      : [],
  );
  let best: { readonly figures: Record<string, string | number>; readonly over: number } | null = null;
  for (const flangeDiameter of [base.flangeDiameter, ...plateWidths.filter((w) => w > 1.1 * base.flangeDiameter)])
    for (const { id, thickness } of boards)
      for (const diameter of screwDiameters) {
        if (diameter < base.screws.diameter - 1e-6) continue;
        const wider = flangeDiameter / base.flangeDiameter;
        const threadLength = Math.min(0.1, thickness - 0.002);
        const screws = { ...base.screws, diameter, threadLength, circle: base.screws.circle * wider };
        const found = checkBase(
          { ...base, thickness, flangeDiameter, screws },
          moment,
          safety,
          stock.density,
          stock.strength.nominal * stock.allowed,
        );
        const over = Math.max(found.screwUtilisation, found.boardUtilisation);
        const figures = {
          boardSize: id,
          screwDiameter: diameter,
          screwLength: round(threadLength),
          ...(wider > 1 ? { plateWidth: flangeDiameter } : {}),
        };
        if (over < utilisationWanted) return figures;
        // Where nothing holds soundly, what comes nearest to it.
        if (best === null || over < best.over) best = { figures, over };
      }
  return best?.figures ?? {};
}
/** Steel plates as they are cut, metres. */
const plateWidths = [0.05, 0.075, 0.1, 0.15, 0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5] as const;
const screwDiameters = [0.004, 0.005, 0.006, 0.008] as const;

/** The safety the base was judged with, read back from its figure. */
function safetyOf(piece: Piece, load: LoadReport, moment: number): number {
  const { base } = piece.armature;
  const stock = piece.stockOf(base.stock)!;
  const plain = checkBase(base, moment, 1.5, stock.density, stock.strength.nominal * stock.allowed);
  return plain.boardUtilisation > 0 ? (1.5 * load.base.boardUtilisation) / plain.boardUtilisation : 1.5;
}
