import type { Result } from '../core/quantity';
import { Evaluator, sheetOf, type SheetContents } from '../core/verdict';
import { openBuild } from './builds';

const evaluator = new Evaluator();

/** The printed sheet of a build on the shelf. */
export async function openSheet(id: string): Promise<Result<SheetContents>> {
  const open = await openBuild(id);
  return open.ok ? sheetOf(open.value.build, evaluator) : open;
}
