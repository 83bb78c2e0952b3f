import { NextResponse } from 'next/server';
import { keepStepList, readStepLists } from '../../../server';
import { answer, route, withJson } from '../guard';

export const GET = route(async () => {
  return NextResponse.json(await readStepLists());
});

export const POST = route(async (request) => {
  return withJson(request, 200_000, async (body) => answer(await keepStepList(body)));
});
