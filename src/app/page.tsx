import { readSettings, shelf } from '../server';
import Shelf from '../ui/shelf/shelf';

export const dynamic = 'force-dynamic';

export default async function Page() {
  const [pieces, ways] = await Promise.all([shelf(), readSettings()]);
  return <Shelf pieces={pieces} ways={ways} today={new Date().toISOString().slice(0, 10)} />;
}
