import { NextResponse } from 'next/server';
import { readLearned, rememberLearned } from '../../../server';
import { answer, route, withJson } from '../guard';

/** What weighing has taught of clays in rooms, for the next builds. */
export const GET = route(async () => {
  return NextResponse.json(await readLearned());
});

export const POST = route(async (request) => {
  return withJson(request, 10_000, async (body) => answer(await rememberLearned(body)));
});
