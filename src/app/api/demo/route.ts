import { NextResponse } from 'next/server';
import { loadDemo } from '../../../server';
import { route } from '../guard';

/** Loads the demo data again, beside what is there. */
export const POST = route(async () => {
  await loadDemo(Date.now() / 1000, true);
  return NextResponse.json({});
});
