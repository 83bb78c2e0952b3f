import { readEntry, type NoteForNext } from '../core/log';
import * as db from '../db';
import { database } from './store';

const looked = 200,
  shown = 12;

/** What earlier pieces have to tell this one: those of the same clay first, the latest first. */
export async function notesFor(buildId: string): Promise<NoteForNext[]> {
  const store = await database();
  const own = (await db.findBuild(store, buildId))?.document;
  const clay = own === undefined ? null : clayOf(own);
  const notes = (await db.notesForNext(store, looked)).flatMap((row): NoteForNext[] => {
    const { id, at, build, name } = row;
    const read = readEntry({ id, kind: 'note', at, data: JSON.parse(row.data), corrects: null });
    if (build === buildId || !read.ok || read.value.kind !== 'note') return [];
    return [{ id, at, build, name, text: read.value.data.text, sameClay: row.clay === clay }];
  });
  return notes.sort((a, b) => Number(b.sameClay) - Number(a.sameClay)).slice(0, shown);
}

function clayOf(document: string): string | null {
  const { brief } = JSON.parse(document) as { brief?: { clay?: string } };
  return brief?.clay ?? null;
}
