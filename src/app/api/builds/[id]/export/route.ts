import { NextResponse } from 'next/server';
import { exportBuild, packBuild } from '../../../../../server';
import { refuse, route } from '../../../guard';

/** The build as a file; with its log and pictures where `?whole` asks for them. */
export const GET = route<{ params: Promise<{ id: string }> }>(async (request, { params }) => {
  const { id } = await params;
  const named = (name: string, type: string) => ({
    headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` },
  });
  if (new URL(request.url).searchParams.has('whole')) {
    const packed = await packBuild(id);
    return packed.ok
      ? new NextResponse(new Uint8Array(packed.value.bytes), named(packed.value.name, 'application/gzip'))
      : refuse(packed);
  }
  const file = await exportBuild(id);
  return file.ok
    ? new NextResponse(file.value.text, named(file.value.name, 'application/json; charset=utf-8'))
    : refuse(file);
});
