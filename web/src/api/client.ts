import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Kind = Schemas['ItemView']['kind'];
export type Aspect = Schemas['ItemLine']['changedHere'][number];
export type Field = Schemas['ItemView']['fields'][number];
export type EditRule = Schemas['ItemView']['rule'];
export type StepKind = Schemas['StepCode']['kind'];
export type Reason = Schemas['StepCode']['reason'];
export type AspectStep = Schemas['StepSides']['aspects'][string];
export type LineState = Schemas['DeliveryLine']['state'];
export type DeliveryState = Schemas['DeliverySummary']['state'];
export type How = Schemas['ReceiptLine']['how'];
export type Difference = Schemas['ChangeView']['how'];

/** Counts by a word of the server's; the description of the API cannot name the words of a map. */
export function counted<Word extends string>(counts: Record<string, number>): [Word, number][] {
  return Object.entries(counts) as [Word, number][];
}

/** What went wrong, as the server says it (RFC 9457), with what to do. */
export class Problem extends Error {
  constructor(
    public status: number,
    detail: string,
    public remedy: string,
  ) {
    super(detail);
  }
}

export function csrf(): string {
  const found = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie);
  return found ? decodeURIComponent(found[1]) : '';
}

export const api = createClient<paths>({
  baseUrl: location.origin,
  fetch: (request) => globalThis.fetch(request),
});

let signedOut = () => {};
/** What to do when a call finds nobody signed in. */
export function onSignedOut(then: () => void) {
  signedOut = then;
}

api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-XSRF-TOKEN', csrf());
    return request;
  },
});

/** The data of a call, or a Problem thrown. */
export async function got<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let result;
  try {
    result = await call;
  } catch {
    throw new Problem(0, 'Zephyrmist does not answer.', 'Look at your connection, then try again.');
  }
  if (result.response.ok) return result.data as T;
  throw problem(result.response.status, result.error);
}

export function problem(status: number, body: unknown): Problem {
  const p = (body ?? {}) as { detail?: string; remedy?: string };
  if (status === 401) signedOut();
  return new Problem(
    status,
    p.detail ?? 'Something went wrong.',
    p.remedy ?? 'Nothing was changed. Try again.',
  );
}
