import type { Metadata } from 'next';
import { lastFullFindings, openBuild, readSettings } from '../../../../server';
import Tonight from '../../../../ui/tonight/tonight';
import { askForLog } from '../ask-for-log';
import { cannotShow } from '../cannot-show';

export const dynamic = 'force-dynamic';
type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const opened = await openBuild((await params).id);
  return { title: opened.ok ? `Bench card, ${opened.value.build.name} · Sostegno` : 'Sostegno' };
}

export default async function Page({ params }: Props) {
  const { id } = await params;
  const [opened, full, ways] = await Promise.all([openBuild(id), lastFullFindings(id), readSettings()]);
  if (!opened.ok) return cannotShow(id, 'The bench card', opened);
  askForLog(id);
  return <Tonight id={id} build={opened.value.build} full={full} ways={ways} />;
}
