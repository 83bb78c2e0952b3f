import { NextResponse } from 'next/server';
import { readLearned, rememberLearned } from '../../../server';
import { answer, withJson } from '../guard';

/** What weighing has taught of clays in rooms, for the next builds. */
export async function GET(): Promise<NextResponse> {
  return NextResponse.json(await readLearned());
}

export async function POST(request: Request): Promise<NextResponse> {
  return withJson(request, 10_000, async (body) => answer(await rememberLearned(body)));
}
