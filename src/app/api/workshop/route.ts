import { NextResponse } from 'next/server';
import { readWorkshop, writeWorkshop } from '../../../server';
import { answer, withJson } from '../guard';

export async function GET(request: Request): Promise<NextResponse> {
  return NextResponse.json(await readWorkshop(new URL(request.url).searchParams.get('zone') ?? undefined));
}

export async function PUT(request: Request): Promise<NextResponse> {
  return withJson(request, 100_000, async (body) => answer(await writeWorkshop(body)));
}
