import { NextResponse } from 'next/server';
import { addToLog, readLog } from '../../../../../server';
import { answer, route, withJson } from '../../../guard';

type Context = { params: Promise<{ id: string }> };

export const GET = route<Context>(async (_, { params }) => {
  return NextResponse.json(await readLog((await params).id));
});

export const POST = route<Context>(async (request, { params }) => {
  return withJson(request, 50_000, async (body) => answer(await addToLog((await params).id, body)));
});
