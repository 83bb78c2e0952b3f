import { NextResponse } from 'next/server';
import { addPhoto, largestUpload, readPhoto } from '../../../../../../server';
import { answer, guardWrite, readBounded, refuse } from '../../../../guard';

type Context = { params: Promise<{ id: string; photoId: string }> };

export async function GET(_: Request, { params }: Context): Promise<NextResponse> {
  const { id, photoId } = await params;
  const photo = await readPhoto(id, photoId);
  if (!photo) return refuse({ ok: false, code: 'no-such-build', path: 'photoId', message: 'there is no such picture' });
  return new NextResponse(new Uint8Array(photo.bytes), {
    headers: { 'content-type': photo.mime, 'cache-control': 'private, max-age=31536000, immutable' },
  });
}

export async function POST(request: Request, { params }: Context): Promise<NextResponse> {
  const refused = guardWrite(request);
  if (refused) return refused;
  const { id, photoId } = await params;
  const bytes = await readBounded(request, largestUpload);
  if (!bytes)
    return refuse({
      ok: false,
      code: 'too-large',
      path: 'the picture',
      message: `a picture is at most ${largestUpload / 1e6} MB`,
    });
  return answer(await addPhoto(id, photoId, bytes));
}
