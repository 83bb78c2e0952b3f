import { NextResponse } from 'next/server';
import { lookedAt } from '../../../server';
import { route } from '../guard';

/** The shelf's cards of the builds named by `ids`; what is old of them is worked out, and there when they are next asked for. */
export const GET = route(async (request) => {
  const ids = (new URL(request.url).searchParams.get('ids') ?? '').split(',').filter(Boolean).slice(0, 200);
  return NextResponse.json(await lookedAt(ids), { headers: { 'cache-control': 'no-store' } });
});
