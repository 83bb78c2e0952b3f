import { NextResponse } from 'next/server';
import { moveStock, stockReport } from '../../../server';
import { answer, withJson } from '../guard';

export async function GET(): Promise<NextResponse> {
  return NextResponse.json(await stockReport());
}

export async function POST(request: Request): Promise<NextResponse> {
  return withJson(request, 10_000, async (body) => answer(await moveStock(body)));
}
