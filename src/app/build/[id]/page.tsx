import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { lastFullFindings, lastReadable, openBuild, readSettings } from '../../../server';
import Bench from '../../../ui/bench/bench';
import Unreadable from '../../../ui/parts/unreadable';

export const dynamic = 'force-dynamic';
type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ station?: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const opened = await openBuild((await params).id);
  return { title: opened.ok ? `${opened.value.build.name} · Sostegno` : 'Sostegno' };
}

export default async function Page({ params, searchParams }: Props) {
  const [opened, ways] = await Promise.all([openBuild((await params).id), readSettings()]);
  if (!opened.ok) {
    if (opened.code === 'no-such-build') notFound();
    return (
      <Unreadable
        id={(await params).id}
        why={`${opened.path}: ${opened.message}`}
        last={await lastReadable((await params).id)}
      />
    );
  }
  const full = await lastFullFindings((await params).id);
  return <Bench opened={{ ...opened.value, full }} ways={ways} station={(await searchParams).station ?? null} />;
}
