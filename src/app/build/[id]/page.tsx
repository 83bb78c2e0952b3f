import type { Metadata } from 'next';
import { lastFullFindings, latestOfLog, openBuild, readSettings } from '../../../server';
import Bench from '../../../ui/bench/bench';
import { askForLog } from './ask-for-log';
import { cannotShow } from './cannot-show';

export const dynamic = 'force-dynamic';
type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ station?: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const opened = await openBuild((await params).id);
  return { title: opened.ok ? `${opened.value.build.name} · Sostegno` : 'Sostegno' };
}

export default async function Page({ params, searchParams }: Props) {
  const [{ id }, { station = null }] = await Promise.all([params, searchParams]);
  const [opened, full, ways, latest] = await Promise.all([
    openBuild(id),
    lastFullFindings(id),
    readSettings(),
    latestOfLog(id),
  ]);
  if (!opened.ok) return cannotShow(id, 'The bench', opened);
  askForLog(id);
  return <Bench opened={{ ...opened.value, full, latest }} ways={ways} station={station} />;
}
