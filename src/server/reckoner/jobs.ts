import sharp from 'sharp';
import { parseBuild, type Build } from '../../core/document';
import {
  asBriefed,
  cardOf,
  emptyCard,
  Evaluator,
  type BuildCard,
  type EvaluateOptions,
  type Question,
  type Report,
} from '../../core/evaluate';
import type { LogEntry } from '../../core/log';
import type { FullFindings } from '../../core/piece';
import type { BuildToPlan, PlanSurroundings, StockNeed } from '../../core/plan';
import { success, type Result } from '../../core/quantity';
import { needsOf, pictureOfPiece, sheetOf, templatesOf, type SheetContents } from '../../core/sheet';
import { readAll, simulatedDevices, type StreamedReading } from '../devices/readings';

/** What is worked out of a build for the server, in a thread beside it: each with what it is asked and what it answers. */
export interface Jobs {
  /** What the shelf shows of a build. */
  readonly card: {
    readonly ask: {
      readonly id: string;
      readonly text: string;
      readonly log: readonly LogEntry[];
      readonly now: number;
      readonly full: FullFindings | null;
      readonly surroundings: PlanSurroundings;
    };
    readonly answer: Result<BuildCard>;
  };
  readonly report: {
    readonly ask: { readonly question: Question; readonly options: EvaluateOptions };
    readonly answer: Result<Report>;
  };
  readonly toPlan: {
    readonly ask: { readonly question: Question; readonly options: EvaluateOptions };
    readonly answer: Result<BuildToPlan>;
  };
  readonly needs: {
    readonly ask: { readonly id: string; readonly build: Build };
    readonly answer: Result<StockNeed[]>;
  };
  readonly sheet: {
    readonly ask: { readonly build: Build; readonly copies: number };
    readonly answer: Result<SheetContents>;
  };
  readonly templates: { readonly ask: { readonly build: Build }; readonly answer: ReturnType<typeof templatesOf> };
  /** Whether it can be worked out at all. */
  readonly check: { readonly ask: { readonly build: Build }; readonly answer: Result<null> };
  /** What the devices on its bench say. */
  readonly readings: {
    readonly ask: {
      readonly id: string;
      readonly build: Build;
      readonly log: readonly LogEntry[];
      readonly now: number;
    };
    readonly answer: Result<StreamedReading[]>;
  };
}
export type JobName = keyof Jobs;

const evaluator = new Evaluator();
const unreadable = 'It cannot be read. Open it to take an earlier version back.';

/**
 * For the shelf, larger than it is shown, for fine screens. The piece is the one the card was worked out with. A card
 * whose picture cannot be drawn or packed is shown without one: its figures stand.
 */
async function cardPicture(question: Question): Promise<string | null> {
  const piece = evaluator.piece(question);
  if (!piece.ok) return null;
  try {
    const { width, height, rgba } = pictureOfPiece(piece.value, 432, 282);
    const packed = await sharp(rgba, { raw: { width, height, channels: 4 } })
      .webp({ quality: 78, alphaQuality: 90 })
      .toBuffer();
    return `data:image/webp;base64,${packed.toString('base64')}`;
  } catch (error) {
    process.stderr.write(`cards: no picture (${(error as Error).message})\n`);
    return null;
  }
}

const work: { readonly [K in JobName]: (ask: Jobs[K]['ask']) => Jobs[K]['answer'] | Promise<Jobs[K]['answer']> } = {
  card: async ({ id, text, log, now, full, surroundings }) => {
    const build = parseBuild(text);
    if (!build.ok) return success({ ...emptyCard, problem: unreadable });
    const question = { build: build.value, log, now };
    const card = cardOf(question, evaluator, { id, full, surroundings });
    return success(card.problem === null ? { ...card, picture: await cardPicture(question) } : card);
  },
  report: ({ question, options }) => evaluator.evaluate(question, options),
  toPlan: ({ question, options }) => evaluator.toPlan(question, options),
  needs: ({ id, build }) => needsOf(evaluator, id, build),
  sheet: ({ build, copies }) => sheetOf(asBriefed(build), evaluator, { copies }),
  templates: ({ build }) => templatesOf(asBriefed(build), evaluator),
  check: ({ build }) => {
    const report = evaluator.evaluate(asBriefed(build));
    return report.ok ? success(null) : report;
  },
  readings: async ({ id, build, log, now }) => success(await readAll(simulatedDevices(id, build, log, evaluator), now)),
};

export async function workOn<K extends JobName>(name: K, ask: Jobs[K]['ask']): Promise<Jobs[K]['answer']> {
  return work[name](ask);
}
