import { hasBench, watchDevices } from '../../../../../server';
import { refuse, route } from '../../../guard';

type Context = { params: Promise<{ id: string }> };

/** Readings of the bench's devices, as they come, as server-sent events; a page that stays open asks again after a while. */
const longestMs = 15 * 60_000;

export const GET = route<Context>(async (request, { params }) => {
  const { id } = await params;
  const there = await hasBench(id);
  if (!there.ok) return refuse(there);
  const encoder = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const leave = watchDevices(id, (readings) => {
        try {
          controller.enqueue(encoder.encode(`data: ${JSON.stringify(readings)}\n\n`));
        } catch {
          end();
        }
      });
      const over = setTimeout(() => end(), longestMs);
      end = () => {
        clearTimeout(over);
        leave();
        try {
          controller.close();
        } catch {
          // The page is gone already.
        }
      };
      request.signal.addEventListener('abort', () => end());
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
});
