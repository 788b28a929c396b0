import { vi } from 'vitest';
import type { paths } from '../src/api/schema';

/** What a page asked of the server. */
export interface Asked {
  method: string;
  path: string;
  body: unknown;
}

type Method = 'get' | 'post' | 'put' | 'patch' | 'delete';
type Ok<Of> = Of extends { responses: infer R }
  ? R[keyof R & (200 | 201 | 202 | 204)] extends { content: infer C extends object }
    ? C[keyof C]
    : unknown
  : never;

/** Part of what the server answers; a word that it never says does not compile. */
export type Some<T> = T extends (infer E)[]
  ? Some<E>[]
  : T extends object
    ? { [K in keyof T]?: Some<T[K]> }
    : T;
type Value<Of> = Some<Ok<Of>> | Response;
type Answers = {
  [
    P in keyof paths as {
      [M in Method]: paths[P] extends Record<M, { responses: unknown }>
        ? `${Uppercase<M>} ${P}`
        : never;
    }[Method]
  ]?: Answer<P>;
};
type Answer<P extends keyof paths> = {
  [M in Method]: paths[P] extends Record<M, infer Of>
    ? Value<Of> | ((body: never) => Value<Of>)
    : never;
}[Method];

/**
 * Answers a page's calls in a test, by "METHOD path" with the path as the server describes it: with
 * a value, with what a function makes of the body, or with a problem of a status.
 */
export function serve(answers: Answers): Asked[] {
  const asked: Asked[] = [];
  const known = Object.entries(answers).map(([call, answer]) => ({
    call: new RegExp('^' + call.replace(/\{\w+\}/g, '[^/]+') + '$'),
    answer: answer as unknown,
  }));
  vi.stubGlobal('fetch', async (request: Request) => {
    const path = new URL(request.url).pathname;
    const text = await request.text();
    const body: unknown = text ? JSON.parse(text) : undefined;
    asked.push({ method: request.method, path, body });
    const found = known.find((k) => k.call.test(`${request.method} ${path}`))?.answer;
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
