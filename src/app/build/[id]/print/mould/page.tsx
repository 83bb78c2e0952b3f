import type { Metadata } from 'next';
import { answerOf, openBuild, planSurroundings, readLog, readSettings } from '../../../../../server';
import MouldSheet from '../../../../../ui/print/mould-sheet';
import { cannotShow } from '../../cannot-show';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Mould · Sostegno' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const now = Math.floor(Date.now() / 1000);
  const [opened, report, log, surroundings, ways] = await Promise.all([
    openBuild(id),
    answerOf(id, now),
    readLog(id),
    planSurroundings(id),
    readSettings(),
  ]);
  if (!opened.ok) return cannotShow(id, 'The mould', opened);
  if (!report.ok) return cannotShow(id, 'The mould', report);
  const asked = { id, build: opened.value.build, log, now, units: ways.units, surroundings, full: null };
  return <MouldSheet asked={asked} plan={report.value.plan} zone={surroundings.workshop.zone} />;
}
