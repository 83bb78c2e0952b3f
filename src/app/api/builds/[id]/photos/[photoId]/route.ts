import { NextResponse } from 'next/server';
import { addPhoto, largestUpload, readPhoto } from '../../../../../../server';
import { answer, readBounded, refuse, route } from '../../../../guard';

type Context = { params: Promise<{ id: string; photoId: string }> };

export const GET = route<Context>(async (_, { params }) => {
  const { id, photoId } = await params;
  const photo = await readPhoto(id, photoId);
  if (!photo) return refuse({ ok: false, code: 'no-such-build', path: 'photoId', message: 'there is no such picture' });
  return new NextResponse(new Uint8Array(photo.bytes), {
    headers: { 'content-type': photo.mime, 'cache-control': 'private, max-age=31536000, immutable' },
  });
});

export const POST = route<Context>(async (request, { params }) => {
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
});
