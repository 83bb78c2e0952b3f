import { NextResponse } from 'next/server';
import { readSettings, settingsSchema, writeSettings } from '../../../server';
import { answer, withJson } from '../guard';

export async function GET(): Promise<NextResponse> {
  return NextResponse.json(await readSettings());
}

export async function PUT(request: Request): Promise<NextResponse> {
  return withJson(request, 10_000, async (body) => {
    const wanted = settingsSchema.safeParse(body);
    if (!wanted.success)
      return answer({ ok: false, code: 'bad-request', path: 'settings', message: 'unknown setting' });
    await writeSettings(wanted.data);
    return NextResponse.json(wanted.data);
  });
}
