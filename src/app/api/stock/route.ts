import { NextResponse } from 'next/server';
import { moveStock, stockReport } from '../../../server';
import { answer, route, withJson } from '../guard';

export const GET = route(async () => {
  return NextResponse.json(await stockReport({ wait: false }));
});

export const POST = route(async (request) => {
  return withJson(request, 10_000, async (body) => answer(await moveStock(body)));
});
