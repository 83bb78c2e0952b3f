import { NextResponse } from 'next/server';
import { notesFor } from '../../../../../server';
import { route } from '../../../guard';

/** What was written at earlier pieces for this one. */
export const GET = route<{ params: Promise<{ id: string }> }>(async (_, { params }) => {
  return NextResponse.json(await notesFor((await params).id));
});
