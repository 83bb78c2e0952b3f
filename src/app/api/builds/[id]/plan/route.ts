import { NextResponse } from 'next/server';
import { calendarOfPlan, planOf, planSurroundings, tableOfPlan } from '../../../../../server';
import { refuse, route } from '../../../guard';

type Context = { params: Promise<{ id: string }> };

/** What a plan needs besides the build; or the saved build's plan as a calendar or a table. */
export const GET = route<Context>(async (request, { params }) => {
  const { id } = await params;
  const query = new URL(request.url).searchParams;
  const as = query.get('as'),
    zone = query.get('zone') ?? undefined;
  if (as === null) return NextResponse.json(await planSurroundings(id, zone));
  if (as !== 'ics' && as !== 'csv')
    return refuse({ ok: false, code: 'bad-format', path: 'as', message: 'a plan goes out as ics or csv' });
  const now = Date.now() / 1000;
  const plan = await planOf(id, now, zone);
  if (!plan.ok) return refuse(plan);
  const { own, whole } = plan.value;
  const text = as === 'ics' ? calendarOfPlan(own, now) : { ok: true as const, value: tableOfPlan(own, whole.zone) };
  if (!text.ok) return refuse(text);
  const slug =
    own.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'plan';
  return new NextResponse(text.value, {
    headers: {
      'content-type': as === 'ics' ? 'text/calendar; charset=utf-8' : 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${slug}-plan.${as}"`,
      'cache-control': 'no-store',
    },
  });
});
