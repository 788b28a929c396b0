import { api, csrf, got, problem, Problem, type Schemas } from '../api/client';

/** A file on its way in: sent, then read. */
export interface Coming {
  name: string;
  sent: number;
  size: number;
  intake: Schemas['Intake'] | null;
  trouble: Problem | null;
}

export const coming = $state<{ list: Coming[] }>({ list: [] });

/** A package becomes an edition; an archive, a master or a cartridge of its own. */
export type What = 'cartridges/intakes' | 'archives';

/** Sends a file and follows its reading. Resolves when it is in, or refused. */
export async function takeIn(file: File, what: What = 'cartridges/intakes'): Promise<Coming> {
  coming.list.unshift({ name: file.name, sent: 0, size: file.size, intake: null, trouble: null });
  const row = coming.list[0];
  try {
    const id = await send(file, what, (n) => (row.sent = n));
    do {
      await new Promise((r) => setTimeout(r, 350));
      row.intake = await got(api.GET('/api/cartridges/intakes/{id}', { params: { path: { id } } }));
    } while (row.intake.state === 'READING');
  } catch (e) {
    row.trouble = e instanceof Problem ? e : new Problem(0, String(e), 'Try again.');
  }
  return row;
}

/** fetch cannot tell how much is sent, so this is an XMLHttpRequest. */
function send(file: File, what: What, progress: (n: number) => void): Promise<string> {
  return new Promise((resolve, reject) => {
    const x = new XMLHttpRequest();
    x.open('POST', `/api/${what}?fileName=` + encodeURIComponent(file.name));
    x.setRequestHeader('Content-Type', 'application/octet-stream');
    x.setRequestHeader('X-XSRF-TOKEN', csrf());
    x.upload.onprogress = (e) => progress(e.loaded);
    x.onerror = () => reject(new Problem(0, 'The file did not get through.', 'Send it again.'));
    x.onload = () => {
      const body = JSON.parse(x.responseText || '{}') as { id: string };
      if (x.status < 300) resolve(body.id);
      else reject(problem(x.status, body));
    };
    x.send(file);
  });
}
