import type { Cut } from '../armature';
import type { Build } from '../build';
import type { ClayToBuy } from '../clay';
import { sensible, success, type Result } from '../quantity';
import { cautionsFor } from './cautions';
import type { Evaluator } from './evaluate';

/** What the printed sheet holds. */
export interface SheetContents {
  readonly name: string;
  readonly facts: string;
  readonly startDate: string;
  readonly cuts: readonly Cut[];
  readonly clay: ClayToBuy & { readonly name: string };
  readonly bulk: { readonly name: string; readonly mass: number } | null;
  readonly wrap: { readonly name: string; readonly length: number } | null;
  readonly board: { readonly name: string; readonly width: number; readonly depth: number };
  readonly hardware: readonly { readonly name: string; readonly count: number; readonly note: string }[];
  readonly cautions: readonly string[];
}

/** Width of tape or cloth strip laid edge to edge, twine to the turn; metres. */
const wrapWidth: Record<string, number> = { tape: 0.038, cloth: 0.05, twine: 0.006, mesh: 0.5 };
const lap = 1.15;

export function sheetOf(build: Build, evaluator: Evaluator): Result<SheetContents> {
  const report = evaluator.evaluate(build);
  if (!report.ok) return report;
  const made = evaluator.piece(build);
  if (!made.ok) return made;
  const { armature, bulk, wrap, clay, face, stockOf } = made.value;
  const board = stockOf(armature.base.stock);
  const size = board?.sizes.find((s) => s.id === armature.base.size)?.label ?? '';
  const bulkMass = report.value.ledger.items.filter((i) => i.kind === 'bulk').reduce((sum, i) => sum + i.wet, 0);
  const { screws } = armature.base;
  return success({
    name: build.name, facts: `${sensible(build.form.start.size * 100)} % of life size, ${clay.name}`, startDate: build.brief.startDate,
    cuts: report.value.cuts, clay: { ...report.value.clay, name: clay.name },
    bulk: face.solid ? null : { name: bulk.name, mass: bulkMass },
    wrap: face.solid || wrap.id === 'none' ? null : { name: wrap.name, length: (report.value.size.area * lap) / (wrapWidth[wrap.id] ?? 0.05) },
    board: { name: `${board?.name ?? armature.base.stock}, ${size}`, width: armature.base.width, depth: armature.base.depth },
    hardware: [
      ...armature.hardware.map((h) => ({ name: h.name, count: h.count, note: '' })),
      { name: 'wood screws', count: screws.count, note: `${sensible(screws.diameter * 1000)} mm thick, ${sensible(screws.threadLength * 1000)} mm in the board` },
    ],
    cautions: cautionsFor(made.value),
  });
}
