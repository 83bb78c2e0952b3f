import { z } from 'zod';
import { setOnTheGo } from '../../../../../server';
import { answer, route, withJson } from '../../../guard';

const wantedSchema = z.strictObject({ active: z.boolean() });

export const PUT = route<{ params: Promise<{ id: string }> }>(async (request, { params }) => {
  return withJson(request, 1_000, async (body) => {
    const wanted = wantedSchema.safeParse(body);
    if (!wanted.success) return answer({ ok: false, code: 'bad-request', path: 'active', message: 'true or false' });
    return answer(await setOnTheGo((await params).id, wanted.data.active));
  });
});
