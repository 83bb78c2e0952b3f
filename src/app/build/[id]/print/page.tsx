import { notFound } from 'next/navigation';
import { readSettings, openSheet } from '../../../../server';
import Sheet from '../../../../ui/print/sheet';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [sheet, ways] = await Promise.all([openSheet(id), readSettings()]);
  if (!sheet.ok) {
    if (sheet.code === 'no-such-build') notFound();
    throw new Error(`${sheet.path}: ${sheet.message}`);
  }
  return <Sheet id={id} data={sheet.value} units={ways.units} />;
}
