import { notFound } from 'next/navigation';
import { openTemplates, readSettings } from '../../../../../server';
import Templates from '../../../../../ui/print/templates';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [made, ways] = await Promise.all([openTemplates(id), readSettings()]);
  if (!made.ok) {
    if (made.code === 'no-such-build') notFound();
    throw new Error(`${made.path}: ${made.message}`);
  }
  return <Templates id={id} {...made.value} units={ways.units} />;
}
