import { NextResponse } from 'next/server';
import { readWorkshop, writeWorkshop } from '../../../server';
import { answer, route, withJson } from '../guard';

export const GET = route(async (request) => {
  return NextResponse.json(await readWorkshop(new URL(request.url).searchParams.get('zone') ?? undefined));
});

export const PUT = route(async (request) => {
  return withJson(request, 100_000, async (body) => answer(await writeWorkshop(body)));
});
