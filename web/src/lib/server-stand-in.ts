import { vi } from 'vitest';

/** What a page asked of the server. */
export interface Asked {
  method: string;
  path: string;
  body: unknown;
}

/**
 * Answers a page's calls in a test, by "METHOD path": with a value, with what a function makes of
 * the body, or with a problem of a status.
 */
export function serve(answers: Record<string, unknown>): Asked[] {
  const asked: Asked[] = [];
  vi.stubGlobal('fetch', async (request: Request) => {
    const path = new URL(request.url).pathname;
    const text = await request.text();
    const body: unknown = text ? JSON.parse(text) : undefined;
    asked.push({ method: request.method, path, body });
    const found = answers[`${request.method} ${path}`];
    if (found === undefined) return new Response('{}', { status: 404 });
    const value: unknown = typeof found === 'function' ? found(body) : found;
    if (value instanceof Response) return value;
    return Response.json(value);
  });
  return asked;
}

export function refusal(status: number, detail: string, remedy: string): Response {
  return Response.json({ detail, remedy }, { status });
}
