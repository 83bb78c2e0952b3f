import type { Metadata } from 'next';
import { planOf, readSettings } from '../../../../../server';
import PlanSheet from '../../../../../ui/print/plan-sheet';
import { cannotShow } from '../../cannot-show';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Plan · Sostegno' };
type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ zone?: string | string[] }> };

export default async function Page({ params, searchParams }: Props) {
  const [{ id }, { zone }] = await Promise.all([params, searchParams]);
  const now = Date.now() / 1000;
  const [plan, ways] = await Promise.all([
    planOf(id, now, typeof zone === 'string' ? zone : undefined),
    readSettings(),
  ]);
  if (!plan.ok) return cannotShow(id, 'The plan', plan);
  return <PlanSheet id={id} plan={plan.value.own} zone={plan.value.whole.zone} now={now} units={ways.units} />;
}
