import { z } from 'zod';
import { markBuild, marks } from '../../../../../server';
import { answer, route, withJson } from '../../../guard';

const markSchema = z.object({ mark: z.enum(marks) });

export const POST = route<{ params: Promise<{ id: string }> }>(async (request, { params }) => {
  return withJson(request, 10_000, async (body) => {
    const wanted = markSchema.safeParse(body);
    if (!wanted.success) return answer({ ok: false, code: 'bad-request', path: 'mark', message: marks.join(', ') });
    return answer(await markBuild((await params).id, wanted.data.mark));
  });
});
