import type { Result } from '../core/quantity';
import type { SheetContents } from '../core/sheet';
import { openBuild } from './builds';
import { workOut, type Jobs } from './reckoner';

/** The printed sheet of a build on the shelf, for so many copies of it. */
export async function openSheet(id: string, copies = 1): Promise<Result<SheetContents>> {
  const open = await openBuild(id);
  return open.ok ? workOut('sheet', { build: open.value.build, copies }) : open;
}

/** Its bent members at full size. */
export async function openTemplates(id: string): Promise<Jobs['templates']['answer']> {
  const open = await openBuild(id);
  return open.ok ? workOut('templates', { build: open.value.build }) : open;
}
