import type { Schemas } from '../api/client';

export type HandOver = Schemas['HandOverView'];
export type Kind = HandOver['kind'];

/** What is to be done, in words. */
export function words(kind: Kind, tool: string): string {
  switch (kind) {
    case 'CREATE_SHELL':
      return 'Create a shell';
    case 'CLEAR_SHELL':
      return 'Clear the shell';
    case 'SWITCH_SUPPORT_ON':
      return 'Switch tool support on';
    case 'ENTER_CREDENTIALS':
      return `Enter the credentials of ${tool}`;
    case 'APPROVE':
      return `Approve ${tool}`;
    case 'OPEN_ONCE':
      return `Open ${tool} once`;
    case 'PUT_RIGHT':
      return `Put right: ${tool}`;
    case 'OPEN_SHELL':
      return 'Open the shell to students';
  }
}

export const whoWords: Record<HandOver['who'], string> = {
  ADMINISTRATORS: 'administrators',
  INSTRUCTORS: 'instructors',
};

/** Hand-overs of one kind and tool. */
export interface Group {
  id: string;
  kind: Kind;
  host: string;
  what: string;
  who: HandOver['who'];
  all: HandOver[];
  overdue: number;
  reminded: number;
  /** The nearest day; empty if none is said. */
  due: string;
}

/** Those with most that is overdue first, then by their nearest day. */
export function groups(all: readonly HandOver[]): Group[] {
  const by = new Map<string, Group>();
  for (const h of all) {
    const id = `${h.kind}:${h.host}`;
    const g = by.get(id) ?? {
      id,
      kind: h.kind,
      host: h.host,
      what: words(h.kind, h.tool || h.host),
      who: h.who,
      all: [],
      overdue: 0,
      reminded: 0,
      due: '',
    };
    g.all.push(h);
    if (h.overdue) g.overdue++;
    if (h.reminded) g.reminded++;
    if (h.due && (!g.due || h.due < g.due)) g.due = h.due;
    by.set(id, g);
  }
  return [...by.values()].sort(
    (a, b) =>
      b.overdue - a.overdue ||
      (a.due || '9').localeCompare(b.due || '9') ||
      b.all.length - a.all.length ||
      a.what.localeCompare(b.what),
  );
}

/** Platforms of the shells that they are about, each once. */
export function platformsOf(all: readonly HandOver[]): { id: string; name: string }[] {
  const by = new Map<string, string>();
  for (const h of all) if (h.platform) by.set(h.platform, h.platformName);
  return [...by].map(([id, name]) => ({ id, name }));
}

/** How something is done on some platforms. */
export interface Done {
  on: string;
  steps: string;
  contact: string;
}

/** How they are done: once, or for each platform where that differs. */
export function stepsOf(all: readonly HandOver[]): Done[] {
  const by = new Map<string, Done & { names: string[] }>();
  for (const h of all) {
    const said = JSON.stringify([h.steps, h.contact]);
    const same = by.get(said) ?? { on: '', steps: h.steps, contact: h.contact, names: [] };
    const name = h.platformName || 'no platform yet';
    if (!same.names.includes(name)) same.names.push(name);
    by.set(said, same);
  }
  return [...by.values()].map(({ steps, contact, names }) => ({
    on: names.join(', '),
    steps,
    contact,
  }));
}
