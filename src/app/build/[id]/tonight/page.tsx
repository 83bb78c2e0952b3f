import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { lastFullFindings, lastReadable, openBuild, readSettings } from '../../../../server';
import Tonight from '../../../../ui/tonight/tonight';
import Unreadable from '../../../../ui/parts/unreadable';

export const dynamic = 'force-dynamic';
type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const opened = await openBuild((await params).id);
  return { title: opened.ok ? `Bench card, ${opened.value.build.name} · Sostegno` : 'Sostegno' };
}

export default async function Page({ params }: Props) {
  const { id } = await params;
  const [opened, full, ways] = await Promise.all([openBuild(id), lastFullFindings(id), readSettings()]);
  if (!opened.ok) {
    if (opened.code === 'no-such-build') notFound();
    return <Unreadable id={id} why={`${opened.path}: ${opened.message}`} last={await lastReadable(id)} />;
  }
  return <Tonight id={id} build={opened.value.build} full={full} ways={ways} />;
}
