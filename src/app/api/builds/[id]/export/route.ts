import { NextResponse } from 'next/server';
import { exportBuild } from '../../../../../server';
import { refuse } from '../../../guard';

export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<NextResponse> {
  const file = await exportBuild((await params).id);
  if (!file.ok) return refuse(file);
  return new NextResponse(file.value.text, {
    headers: { 'content-type': 'application/json; charset=utf-8', 'content-disposition': `attachment; filename="${file.value.name}"` },
  });
}
