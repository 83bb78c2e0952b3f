import { z } from 'zod';
import { openBuild, saveBuild } from '../../../../server';
import { answer, route, withJson } from '../../guard';

const saveSchema = z.object({
  revision: z.number().int(),
  document: z.unknown(),
  history: z.unknown(),
  label: z.string(),
  generation: z.number().int().optional(),
  saveId: z.uuid().optional(),
  mine: z.array(z.uuid()).max(100).optional(),
  aside: z.boolean().optional(),
});
type Context = { params: Promise<{ id: string }> };

export const GET = route<Context>(async (_, { params }) => {
  return answer(await openBuild((await params).id));
});

export const PUT = route<Context>(async (request, { params }) => {
  return withJson(request, 12_000_000, async (body) => {
    const wanted = saveSchema.safeParse(body);
    if (!wanted.success)
      return answer({
        ok: false,
        code: 'bad-request',
        path: 'the request',
        message: 'a save carries its revision and document',
      });
    const { document, history, ...save } = wanted.data;
    return answer(await saveBuild((await params).id, { ...save, document, history }));
  });
});
