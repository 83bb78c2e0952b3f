import type { NextResponse } from 'next/server';
import { copyBuild } from '../../../../../server';
import { answer, guardWrite } from '../../../guard';

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<NextResponse> {
  return guardWrite(request) ?? answer(await copyBuild((await params).id));
}
