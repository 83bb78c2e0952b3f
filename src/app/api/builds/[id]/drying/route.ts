import { NextResponse } from 'next/server';
import { keepDrying, keptDrying, lastFullFindings, mostKeptBytes } from '../../../../../server';
import { answer, readBounded, refuse, route } from '../../../guard';

type Context = { params: Promise<{ id: string }> };

/** The whole drying kept with a build, by the key of what it was worked out from, packed; or, with `?findings`, what the last one found. */
export const GET = route<Context>(async (request, { params }) => {
  if (new URL(request.url).searchParams.has('findings'))
    return NextResponse.json(await lastFullFindings((await params).id), { headers: { 'cache-control': 'no-store' } });
  const key = new URL(request.url).searchParams.get('key') ?? '';
  const kept = await keptDrying((await params).id, key);
  if (!kept) return new NextResponse(null, { status: 204 });
  return new NextResponse(new Uint8Array(kept), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
  });
});

export const PUT = route<Context>(async (request, { params }) => {
  const bytes = await readBounded(request, mostKeptBytes);
  if (!bytes)
    return refuse({
      ok: false,
      code: 'too-large',
      path: 'the drying',
      message: `a kept drying is at most ${mostKeptBytes / 1e6} MB`,
    });
  const search = new URL(request.url).searchParams;
  return answer(
    await keepDrying((await params).id, search.get('key') ?? '', Number(search.get('revision') ?? 0), bytes),
  );
});
