import {
  bundleAcross,
  nest,
  pathLength,
  sectionAcross,
  templateOf,
  type Armature,
  type BaseBoard,
  type Cut,
  type Hole,
  type Nesting,
  type Template,
} from '../armature';
import { soldLength, type Stock } from '../catalogue';
import type { Build } from '../document';
import { clayToBuy, type ClayToBuy } from '../clay';
import { pricePerMetre } from '../piece';
import { sensible, success, type Result } from '../quantity';
import type { Evaluator, Question } from '../evaluate';
import { ingredientsOf, putOnOf, type Ingredient, type PutOn } from './put-on';

/** What the printed sheet holds: for one piece, or a class set with spares. */
export interface SheetContents {
  readonly name: string;
  readonly facts: string;
  readonly startDate: string;
  readonly copies: number;
  readonly spares: number;
  readonly cuts: readonly Cut[];
  readonly stock: readonly StockToBuy[];
  readonly holes: readonly Hole[];
  readonly clay: ClayToBuy & { readonly name: string };
  readonly bulk: { readonly name: string; readonly mass: number; readonly litres: number } | null;
  readonly wrap: { readonly name: string; readonly length: number } | null;
  /** What goes into clay that is mixed here; null where it is bought. */
  readonly ingredients: readonly Ingredient[] | null;
  /** Layers, resin, rubber, plaster: all copies. */
  readonly putOn: readonly PutOn[];
  readonly board: { readonly name: string; readonly base: BaseBoard };
  readonly hardware: readonly { readonly name: string; readonly count: number; readonly note: string }[];
  readonly cautions: readonly string[];
}

/** One stock and size, its cuts laid into the lengths it comes in. */
export interface StockToBuy {
  readonly key: string;
  readonly name: string;
  readonly sold: number;
  readonly pricePerMetre: number;
  readonly nesting: Nesting;
}

/** Width of tape or cloth strip laid edge to edge, twine to the turn; metres. */
const wrapWidth: Record<string, number> = {
  tape: 0.038,
  cloth: 0.05,
  twine: 0.006,
  mesh: 0.5,
  // 100 mm wide, over itself twice and four times.
  gauze: 0.05,
  'gauze-four': 0.025,
  undercoat: 1,
};
const lap = 1.15;
/** One more of every so many, for a class. */
const sparePer = 12;

export interface SheetOptions {
  readonly copies?: number;
}

export function sheetOf(question: Question, evaluator: Evaluator, options: SheetOptions = {}): Result<SheetContents> {
  const { build } = question;
  const report = evaluator.evaluate(question);
  if (!report.ok) return report;
  const made = evaluator.piece(question);
  if (!made.ok) return made;
  const planned = evaluator.toPlan(question, { ranges: false });
  if (!planned.ok) return planned;
  const { steps } = planned.value;
  const copies = Math.min(500, Math.max(1, Math.round(options.copies ?? 1)));
  const spares = copies > 1 ? Math.ceil(copies / sparePer) : 0;
  const times = copies + spares;
  const { armature, bulk, wrap, clay, face, stockOf } = made.value;
  const board = stockOf(armature.base.stock);
  const size = board?.sizes.find((s) => s.id === armature.base.size)?.label ?? '';
  const bulkMass =
    report.value.ledger.items.filter((i) => i.kind === 'bulk').reduce((sum, i) => sum + i.wet, 0) * times;
  const { screws } = armature.base;
  // What is on the shelf is there once, however many are made.
  const { mixed } = made.value;
  const needed = clayToBuy(build, mixed, (report.value.clay.onPiece / mixed.wetDensity) * times);
  return success({
    name: build.name,
    facts: `${sensible(build.form.start.size * 100)} % of life size, ${clay.name}`,
    startDate: build.brief.startDate,
    copies,
    spares,
    cuts: report.value.cuts,
    stock: stockToBuy(build, report.value.cuts, times, stockOf),
    clay: { ...needed, name: clay.name },
    bulk: face.solid ? null : { name: bulk.name, mass: bulkMass, litres: (bulkMass / bulk.density) * 1000 },
    wrap:
      face.solid || wrap.id === 'none'
        ? null
        : { name: wrap.name, length: (times * report.value.size.area * lap) / (wrapWidth[wrap.id] ?? 0.05) },
    ingredients: ingredientsOf(made.value, needed.toBuy, steps),
    putOn: putOnOf(steps, times),
    board: { name: `${board?.name ?? armature.base.stock}, ${size}`, base: armature.base },
    holes: holesOf(armature),
    hardware: [
      ...armature.hardware.map((h) => ({ name: h.name, count: h.count * times, note: '' })),
      ...(screws.count > 0 && armature.base.standing !== 'own'
        ? [
            {
              name: 'wood screws',
              count: screws.count * times,
              note: `${sensible(screws.diameter * 1000)} mm thick, ${sensible(screws.threadLength * 1000)} mm in the board`,
            },
          ]
        : []),
    ],
    cautions: report.value.cautions,
  });
}

/** Each stock's cuts, all copies together, laid into what there is already and then into new lengths. */
function stockToBuy(
  build: Build,
  cuts: readonly Cut[],
  times: number,
  stockOf: (id: string) => Stock | undefined,
): StockToBuy[] {
  const keys = [...new Set(cuts.map((c) => c.key))];
  return keys.map((key): StockToBuy => {
    const own = cuts.filter((c) => c.key === key);
    const [stockId = '', sizeId = ''] = key.split('/');
    const stock = stockOf(stockId);
    const size = stock?.sizes.find((s) => s.id === sizeId);
    const sold = build.materials.sold[key] ?? (stock && size ? soldLength(stock, size) : 2);
    const pieces = own.flatMap((c) =>
      Array.from({ length: c.pieces * times }, () => ({ label: c.name, length: c.cutLength })),
    );
    return {
      key,
      name: `${own[0]?.stock ?? stockId}, ${own[0]?.sizeLabel ?? sizeId}`,
      sold,
      pricePerMetre: pricePerMetre({ build, stockOf }, key),
      nesting: nest({ pieces, sold, had: build.materials.onHand[key] ?? [] }),
    };
  });
}

/** Holes to drill: the school's own, and pilots for the screws. A pilot is seven tenths of its screw. */
function holesOf(armature: Armature): Hole[] {
  const { screws, flangeAt, at } = armature.base;
  const pilots = Array.from({ length: screws.count }, (_, i): [number, number] => {
    const a = (2 * Math.PI * (i + 0.5)) / screws.count;
    return [
      flangeAt[0] - at[0] + (Math.cos(a) * screws.circle) / 2,
      flangeAt[1] - at[1] + (Math.sin(a) * screws.circle) / 2,
    ];
  });
  return [
    ...(armature.holes ?? []),
    ...(screws.count > 0 && armature.base.standing !== 'own'
      ? [
          {
            what: 'pilots for the screws',
            count: screws.count,
            diameter: screws.diameter * 0.7,
            depth: screws.threadLength,
            at: pilots,
          },
        ]
      : []),
  ];
}

/** Bent members at full size, for the templates. */
export function templatesOf(
  question: Question,
  evaluator: Evaluator,
): Result<{
  readonly name: string;
  readonly templates: readonly Template[];
  readonly straight: readonly { readonly name: string; readonly length: number }[];
  readonly across: Readonly<Record<string, number>>;
}> {
  const made = evaluator.piece(question);
  if (!made.ok) return made;
  const { members } = made.value.armature;
  const bent = members.map((m) => ({ m, t: templateOf(m) }));
  return success({
    name: question.build.name,
    templates: bent.flatMap(({ t }) => (t ? [t] : [])),
    straight: bent.flatMap(({ m, t }) => (t ? [] : [{ name: m.name, length: pathLength(m.path) }])),
    across: Object.fromEntries(
      members.map((m) => {
        const section = made.value.stockOf(m.stock)?.sizes.find((s) => s.id === m.size)?.section;
        return [m.id, section ? bundleAcross(sectionAcross(section), m.strands) : 0.003];
      }),
    ),
  });
}
