/*
 * Keeps the bench's pages on this device, so that they open where there is no connection. Pages and readings are asked for
 * first and taken from what was kept only when nothing answers; files that never change are taken from it at once.
 * Writes are never kept here: the page has its own outbox for them.
 */
const kept = 'sostegno-bench-1';

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => {
  event.waitUntil((async () => {
    for (const name of await caches.keys()) if (name !== kept && name.startsWith('sostegno-bench')) await caches.delete(name);
    await self.clients.claim();
  })());
});

const forever = (url) => url.pathname.startsWith('/_next/static/') || /^\/api\/builds\/[^/]+\/photos\//.test(url.pathname);
const worthKeeping = (url) => /^\/build\/[^/]+(\/tonight)?$/.test(url.pathname) || /^\/api\/builds\/[^/]+\/(log|plan)$/.test(url.pathname) || url.pathname === '/';
/** A page asked for piece by piece by the framework is another answer than the page itself. */
const whole = (request) => !request.headers.has('rsc');

async function keep(request, answer) {
  // Where there is no room to keep it, the page has it all the same.
  if (answer.ok && answer.type === 'basic') await (await caches.open(kept)).put(request, answer.clone()).catch(() => undefined);
  return answer;
}

/** A worker is told what to run behind the # of its address: an answer made anew stands at the address that was asked for. */
async function fromKept(request) {
  const answer = await caches.match(request) ?? await keep(request, await fetch(request));
  return new Response(answer.body, { status: answer.status, headers: answer.headers });
}

async function fromNetworkFirst(request) {
  try {
    return await keep(request, await fetch(request));
  } catch (error) {
    const found = await caches.match(request, { ignoreVary: true }) ?? await caches.match(request, { ignoreSearch: true, ignoreVary: true });
    if (found) return new Response(found.body, { status: found.status, headers: [...found.headers, ['x-bench-kept', 'yes']] });
    throw error;
  }
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin || request.headers.get('accept') === 'text/event-stream') return;
  if (url.searchParams.has('as')) return;
  if (forever(url)) event.respondWith(fromKept(request));
  else if (worthKeeping(url) && whole(request)) event.respondWith(fromNetworkFirst(request));
});
