import { NextResponse } from 'next/server';
import { loadDemo } from '../../../server';
import { guardWrite } from '../guard';

/** Loads the demo data again, beside what is there. */
export async function POST(request: Request): Promise<NextResponse> {
  const refused = guardWrite(request);
  if (refused) return refused;
  await loadDemo(Date.now() / 1000, true);
  return NextResponse.json({});
}
