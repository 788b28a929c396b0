import { api, got, type Schemas } from '../api/client';
import { send } from '../source/editor/kept';
import { many } from '../marks/words';

export type Waits = Schemas['WaitingPackage'];
export type Told = Schemas['ExportTold'];

/** Where the package of a section is fetched, and its sheet. */
export const packageOf = (section: string) => `/api/packages/${section}/package`;
export const sheetOf = (section: string) => `/api/packages/${section}/sheet`;
export const allOf = (delivery: string) => `/api/packages/all?delivery=${delivery}`;

/** These packages were brought in; how many there were. */
export async function broughtIn(sections: string[]): Promise<number> {
  return (await got(api.POST('/api/packages/brought-in', { body: { sections } }))).length;
}

/** What a shell holds, by what was exported from it. */
export const upload = (section: string, file: File) =>
  send<Told>(`/api/packages/${section}/export?fileName=${encodeURIComponent(file.name)}`, file);

/** What an export told, in words. */
export function told(t: Told): string {
  const parts = [
    t.came && `${t.came} of the package are there`,
    t.missing && `${many(t.missing, 'item')} of it ${t.missing === 1 ? 'is' : 'are'} missing`,
    t.changed && `${many(t.changed, 'item')} changed there`,
    t.gone && `${many(t.gone, 'item')} gone from it`,
    t.fresh && `${many(t.fresh, 'item')} added by hand`,
    t.doubtful && `${t.doubtful} only perhaps what they were taken for`,
  ].filter(Boolean);
  return `The shell holds ${many(t.items, 'item')}${parts.length ? ': ' + parts.join(', ') : ', all as known'}.`;
}
