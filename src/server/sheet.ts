import { asBriefed } from '../core/evaluate';
import type { Result } from '../core/quantity';
import { Evaluator } from '../core/evaluate';
import { sheetOf, templatesOf, type SheetContents } from '../core/sheet';
import { openBuild } from './builds';

const evaluator = new Evaluator();

/** The printed sheet of a build on the shelf, for so many copies of it. */
export async function openSheet(id: string, copies = 1): Promise<Result<SheetContents>> {
  const open = await openBuild(id);
  return open.ok ? sheetOf(asBriefed(open.value.build), evaluator, { copies }) : open;
}

/** Its bent members at full size. */
export async function openTemplates(id: string): Promise<ReturnType<typeof templatesOf>> {
  const open = await openBuild(id);
  return open.ok ? templatesOf(asBriefed(open.value.build), evaluator) : open;
}
