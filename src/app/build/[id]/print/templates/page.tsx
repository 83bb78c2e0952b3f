import { openTemplates, readSettings } from '../../../../../server';
import Templates from '../../../../../ui/print/templates';
import { cannotShow } from '../../cannot-show';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [made, ways] = await Promise.all([openTemplates(id), readSettings()]);
  if (!made.ok) return cannotShow(id, 'The templates', made);
  return <Templates id={id} {...made.value} units={ways.units} />;
}
