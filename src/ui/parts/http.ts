/** Calls to our own server. A failure carries the server's sentence, or says that it could not be reached. */
export type Answered<T> = { ok: true; value: T } | { ok: false; offline: boolean; message: string; path: string };

export async function call<T>(method: 'GET' | 'POST' | 'PUT', url: string, body?: unknown, keepalive = false): Promise<Answered<T>> {
  let response: Response;
  try {
    response = await fetch(url, {
      method, keepalive,
      ...(body === undefined ? {} : body instanceof Blob ? { body } : { body: typeof body === 'string' ? body : JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
  } catch {
    return { ok: false, offline: true, message: 'The server could not be reached.', path: '' };
  }
  const json = (await response.json().catch(() => null)) as { error?: { message: string; path: string } } | null;
  if (response.ok) return { ok: true, value: json as T };
  return { ok: false, offline: false, message: json?.error?.message ?? `the server answered ${response.status}`, path: json?.error?.path ?? '' };
}
