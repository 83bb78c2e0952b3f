import { NextResponse } from 'next/server';
import { readSettings, settingsSchema, writeSettings } from '../../../server';
import { answer, route, withJson } from '../guard';

export const GET = route(async () => {
  return NextResponse.json(await readSettings());
});

export const PUT = route(async (request) => {
  return withJson(request, 10_000, async (body) => {
    const wanted = settingsSchema.safeParse(body);
    if (!wanted.success)
      return answer({ ok: false, code: 'bad-request', path: 'settings', message: 'unknown setting' });
    await writeSettings(wanted.data);
    return NextResponse.json(wanted.data);
  });
});
