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
