import { devicesFor, readAll } from '../../../../../server';
import { refuse, route } from '../../../guard';

/** Readings of the bench's devices, once a second, as server-sent events; a page that stays open asks again after a while. */
const everyMs = 1000;
const longestMs = 15 * 60_000;

export const GET = route<{ params: Promise<{ id: string }> }>(async (request, { params }) => {
  const devices = await devicesFor((await params).id);
  if (!devices) return refuse({ ok: false, code: 'no-such-build', path: 'id', message: 'there is no such build' });
  const encoder = new TextEncoder();
  const began = Date.now();
  let timer: ReturnType<typeof setInterval> | undefined;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const end = () => {
        clearInterval(timer);
        try {
          controller.close();
        } catch {
          // The page is gone already.
        }
      };
      const tell = async () => {
        try {
          controller.enqueue(encoder.encode(`data: ${JSON.stringify(await readAll(devices, Date.now()))}\n\n`));
        } catch {
          end();
        }
        if (Date.now() - began > longestMs) end();
      };
      void tell();
      timer = setInterval(() => void tell(), everyMs);
      request.signal.addEventListener('abort', end);
    },
    cancel() {
      clearInterval(timer);
    },
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
});
