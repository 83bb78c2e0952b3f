import { readSettings, openSheet } from '../../../../server';
import Sheet from '../../../../ui/print/sheet';
import { cannotShow } from '../cannot-show';

export const dynamic = 'force-dynamic';

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ copies?: string | string[] }>;
}) {
  const [{ id }, { copies }] = await Promise.all([params, searchParams]);
  const wanted = Number(copies);
  const [sheet, ways] = await Promise.all([openSheet(id, wanted >= 1 ? wanted : 1), readSettings()]);
  if (!sheet.ok) return cannotShow(id, 'The cut sheet', sheet);
  return <Sheet id={id} data={sheet.value} units={ways.units} />;
}
