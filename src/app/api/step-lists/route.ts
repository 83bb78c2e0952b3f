import { NextResponse } from 'next/server';
import { keepStepList, readStepLists } from '../../../server';
import { answer, withJson } from '../guard';

export async function GET(): Promise<NextResponse> {
  return NextResponse.json(await readStepLists());
}

export async function POST(request: Request): Promise<NextResponse> {
  return withJson(request, 200_000, async (body) => answer(await keepStepList(body)));
}
