import { readSettings, setAsideSettings, shelf } from '../server';
import Shelf from '../ui/shelf/shelf';

export const dynamic = 'force-dynamic';

export default async function Page() {
  const [pieces, ways] = await Promise.all([shelf(), readSettings()]);
  return (
    <Shelf pieces={pieces} ways={ways} aside={await setAsideSettings()} today={new Date().toISOString().slice(0, 10)} />
  );
}
