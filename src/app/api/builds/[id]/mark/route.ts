import type { NextResponse } from 'next/server';
import { z } from 'zod';
import { markBuild } from '../../../../../server';
import { answer, withJson } from '../../../guard';

const markSchema = z.object({ mark: z.enum(['archive', 'unarchive', 'delete', 'restore']) });

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<NextResponse> {
  return withJson(request, 10_000, async (body) => {
    const wanted = markSchema.safeParse(body);
    if (!wanted.success)
      return answer({ ok: false, code: 'bad-request', path: 'mark', message: 'archive, unarchive, delete or restore' });
    return answer(await markBuild((await params).id, wanted.data.mark));
  });
}
