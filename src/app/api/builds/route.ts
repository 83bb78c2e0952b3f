import { z } from 'zod';
import { createBuild, importBuild, shelf } from '../../../server';
import { answer, route, withJson } from '../guard';
import { NextResponse } from 'next/server';

const newSchema = z.object({
  name: z.string(),
  startDate: z.string(),
  size: z.number(),
  form: z.string().max(40).optional(),
  type: z.string().max(40).optional(),
});

export const GET = route(async () => {
  return NextResponse.json(await shelf());
});

/** A new build from a few answers, or a build file as it is (with `?file`). */
export const POST = route(async (request) => {
  if (new URL(request.url).searchParams.has('file')) {
    return withJson(request, 8_000_000, async (_, text) => answer(await importBuild(text)));
  }
  return withJson(request, 100_000, async (body) => {
    const wanted = newSchema.safeParse(body);
    if (!wanted.success)
      return answer({
        ok: false,
        code: 'bad-request',
        path: wanted.error.issues[0]?.path.join('.') ?? 'the request',
        message: 'a name, a start date and a size are needed',
      });
    const { name, startDate, size, form, type } = wanted.data;
    return answer(await createBuild(name, startDate, size, form, type));
  });
});
