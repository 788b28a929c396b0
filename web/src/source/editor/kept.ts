import { csrf, Problem, type Schemas } from '../../api/client';

export type Kept = Schemas['FileRef'];

/** Where a link leads, and the words it has where none are chosen. */
export type Picked = { href: string; words: string };

/** How a text names a file, wherever it goes. */
export const fileAddress = (f: Kept) =>
  `zref:file/${f.sha256}/${encodeURIComponent(f.name ?? 'file')}`;

/** How a text names an item of the same master. */
export const itemAddress = (key: string) => `zref:item/${key}`;

/** Sends a file as the body of a call. */
export async function send<T>(to: string, file: File): Promise<T> {
  const headers = { 'Content-Type': 'application/octet-stream', 'X-XSRF-TOKEN': csrf() };
  const answer = await fetch(to, { method: 'POST', headers, body: file });
  const body = (await answer.json()) as T & { detail?: string; remedy?: string };
  if (!answer.ok) throw new Problem(answer.status, body.detail ?? 'Not sent.', body.remedy ?? '');
  return body;
}

/** Sends a file, so that items of a draft can name it. */
export const sendFile = (master: string, file: File) =>
  send<Kept>(`/api/masters/${master}/draft/files?fileName=${encodeURIComponent(file.name)}`, file);
