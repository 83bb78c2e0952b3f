import type { Metadata } from 'next';
import { readSettings } from '../../server';
import Stock from '../../ui/stock/stock';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Stock · Sostegno' };

export default async function Page() {
  return <Stock ways={await readSettings()} />;
}
