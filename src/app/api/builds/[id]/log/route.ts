import { NextResponse } from 'next/server';
import { addToLog, readLog } from '../../../../../server';
import { answer, withJson } from '../../../guard';

type Context = { params: Promise<{ id: string }> };

export async function GET(_: Request, { params }: Context): Promise<NextResponse> {
  return NextResponse.json(await readLog((await params).id));
}

export async function POST(request: Request, { params }: Context): Promise<NextResponse> {
  return withJson(request, 50_000, async (body) => answer(await addToLog((await params).id, body)));
}
