/** Calls to our own server; `patience` in seconds, after which it counts as not reached. A failure carries the server's sentence, or says that it could not be reached. */
export type Answered<T> =
  | { ok: true; value: T; /** From what this device kept, since nothing answered. */ kept: boolean }
  | { ok: false; offline: boolean; /** 0 where nothing answered. */ status: number; message: string; path: string };

export async function call<T>(
  method: 'GET' | 'POST' | 'PUT',
  url: string,
  body?: unknown,
  keepalive = false,
  patience?: number,
): Promise<Answered<T>> {
  let response: Response;
  try {
    response = await fetch(url, {
      method,
      keepalive,
      ...(patience === undefined ? {} : { signal: AbortSignal.timeout(patience * 1000) }),
      ...(body === undefined
        ? {}
        : body instanceof Blob
          ? { body }
          : {
              body: typeof body === 'string' ? body : JSON.stringify(body),
              headers: { 'content-type': 'application/json' },
            }),
    });
  } catch {
    return { ok: false, offline: true, status: 0, message: 'The server could not be reached.', path: '' };
  }
  const json = (await response.json().catch(() => null)) as { error?: { message: string; path: string } } | null;
  if (response.ok) return { ok: true, value: json as T, kept: response.headers.get('x-bench-kept') === 'yes' };
  return {
    ok: false,
    offline: false,
    status: response.status,
    message: json?.error?.message ?? `the server answered ${response.status}`,
    path: json?.error?.path ?? '',
  };
}
