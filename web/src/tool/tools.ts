import type { Schemas } from '../api/client';
import type { Marks } from '../lists/lines';
import type { TieKind } from '../marks/tieShapes';

export type Tools = Schemas['Tools'];
export type Connection = Schemas['ConnectionView'];
export type Standing = Schemas['ToolState']['standing'];
export type Reason = Schemas['ToolState']['reason'];
export type Stage = Connection['stages'][number];
export type Whose = Schemas['ToolState']['whose'];

/** The columns, from the left to the right. */
export const standings: readonly Standing[] = [
  'NOT_CONNECTED',
  'WAITS',
  'TIED_WRONGLY',
  'NOT_OPENED',
  'WORKS',
];

/** The mark of each. */
export const tieOf: Record<Standing, TieKind> = {
  NOT_CONNECTED: 'none',
  WAITS: 'waits',
  TIED_WRONGLY: 'wrong',
  NOT_OPENED: 'open',
  WORKS: 'works',
};

export const standingWords: Record<Standing, string> = {
  NOT_CONNECTED: 'not connected',
  WAITS: 'waits',
  TIED_WRONGLY: 'wrongly tied',
  NOT_OPENED: 'not opened yet',
  WORKS: 'works',
};

export const reasonWords: Record<Reason, string> = {
  NO_HOST: 'the link leads to no host',
  NO_CONNECTION: 'nobody has entered a connection',
  TWO_CONNECTIONS: 'two connections are for it, and neither is the narrower',
  SUPPORT_OFF: 'tool support is switched off in the shell',
  NO_CREDENTIALS: 'its credentials are not entered',
  NOT_IN_SHELL: 'its credentials are not in the shell yet',
  PLACEHOLDER: 'the package brought a placeholder key',
  REFUSED: 'the tool refuses its credentials',
  NOT_APPROVED: 'an administrator has not approved it',
  NOT_AGREED: 'the instructor has not accepted its agreement',
  TOOL_TAKES_TIME: 'the tool is making it ready',
  NOT_PAIRED: 'no course on the tool’s side yet',
  OTHER_TERM: 'tied to another term’s course',
  MASTERS_COURSE: 'tied to the master’s own course',
  SHARED_COURSE: 'two sections are tied to one course',
  NEVER_OPENED: 'the instructor has not opened it once',
  STUDENTS_SHUT_OUT: 'opens for the instructor, not for students',
  NO_ANSWER: 'the tool did not answer when last tested',
  WORKS: 'works',
};

export const stageWords: Record<Stage, string> = {
  SUPPORT: 'tool support in the shell',
  CREDENTIALS: 'credentials',
  APPROVAL: 'approval',
  AGREEMENT: 'agreement at the first opening',
  WAIT: 'a wait after it',
  PAIRING: 'a course on the tool’s side',
  FIRST_OPENING: 'first opening',
};

export const whoseWords: Record<Whose, string> = {
  ADMINISTRATOR: 'an administrator',
  COORDINATOR: 'a coordinator',
  INSTRUCTOR: 'the instructor',
  NOBODY: 'nobody: it goes on by itself',
};

export const wayWords: Record<Connection['way'], string> = {
  KEY_AND_SECRET: 'key and secret (LTI 1.1)',
  REGISTRATION: 'registration (LTI 1.3)',
  OPEN: 'nothing to connect',
};

/** A host in a section. */
export interface Cell {
  section: Schemas['ToolSectionView'];
  host: string;
  state: Schemas['ToolState'];
  links: number;
  course: string;
  said: string;
  /** Whether credentials are being written: 1, or in trouble: 2. */
  writing: number;
}

/** A host and its sections, by how far they are. */
export interface HostBand extends Marks {
  host: string;
  name: string;
  /** Columns where its sections can be at all. */
  can: readonly boolean[];
  asked: boolean;
  cells: Cell[];
  slots: Cell[][];
  links: number;
}

/** What narrows the picture down. */
export interface Narrow {
  text: string;
  course: string;
  campus: string;
}

/** First openings of a host that are overdue: the term has begun (`Due` of the core says when). */
export function overdue(h: HostBand, before: number): number {
  return before <= 0 ? h.slots[3].length : 0;
}

/** Every host, the one with most overdue openings first, then the one with most to do. */
export function hosts(t: Tools, narrow: Narrow): HostBand[] {
  const wanted = narrow.text.trim().toLowerCase();
  const passes = t.sections.map(
    (s) =>
      (!narrow.course || s.course === narrow.course) &&
      (!narrow.campus || s.campus === narrow.campus) &&
      (!wanted || `${s.code} ${s.title} ${s.instructors}`.toLowerCase().includes(wanted)),
  );
  const all = t.hosts.map((h) => {
    const cells: Cell[] = [];
    h.section.forEach((place, i) => {
      if (passes[place])
        cells.push({
          section: t.sections[place],
          host: h.host,
          state: t.states[h.state[i]],
          links: h.links[i],
          course: h.course[i],
          said: h.said[i],
          writing: h.writing[i],
        });
    });
    return {
      host: h.host,
      name: h.name,
      can: standings.map((s) => h.standings.includes(s)),
      asked: h.asked,
      cells,
      slots: standings.map((s) => cells.filter((c) => c.state.standing === s)),
      links: cells.reduce((n, c) => n + c.links, 0),
    };
  });
  return all
    .filter((h) => h.cells.length)
    .sort(
      (a, b) =>
        overdue(b, t.before) - overdue(a, t.before) ||
        undone(b) - undone(a) ||
        a.name.localeCompare(b.name),
    );
}

/** Sections of a host where something is still to be done. */
export function undone(h: HostBand): number {
  return h.cells.length - h.slots[4].length;
}

/** How many sections have tool links, and in how many of these all of them work. */
export function working(all: readonly HostBand[]): { sections: number; work: number } {
  const some = new Set<string>();
  const dead = new Set<string>();
  for (const h of all)
    for (const c of h.cells) {
      some.add(c.section.id);
      if (c.state.standing !== 'WORKS') dead.add(c.section.id);
    }
  return { sections: some.size, work: some.size - dead.size };
}

/** How often each reason is, the most frequent first. */
export function byReason(cells: readonly Cell[]): [Reason, Cell[]][] {
  const by = new Map<Reason, Cell[]>();
  for (const c of cells) {
    const some = by.get(c.state.reason);
    if (some) some.push(c);
    else by.set(c.state.reason, [c]);
  }
  return [...by].sort((a, b) => b[1].length - a[1].length);
}

/** Cells where credentials are missing, or may be, and can be written. */
export function toWrite(cells: readonly Cell[], all: readonly Connection[]): Cell[] {
  const keyed = new Set(all.filter((c) => c.entered).map((c) => c.id));
  return cells.filter(
    (c) =>
      (c.state.standing === 'NOT_CONNECTED' || c.state.stuck === 'APPROVAL') &&
      c.section.shell &&
      !c.section.byHand &&
      c.state.connection &&
      keyed.has(c.state.connection),
  );
}

/** Connections whose credentials end within 30 days, or have ended; the next first. */
export function ending(all: readonly Connection[], today: string): Connection[] {
  const last = new Date(Date.parse(today) + 30 * 86_400_000).toISOString().slice(0, 10);
  return all
    .filter((c) => c.expires && c.expires <= last)
    .sort((a, b) => a.expires!.localeCompare(b.expires!));
}

/** Days until the first day, in words. */
export function firstDay(before: number): string {
  if (before > 1) return `first day of term in ${before} days`;
  if (before === 1) return 'first day of term tomorrow';
  return before === 0 ? 'first day of term today' : '';
}

/** Cells where only a person can enter credentials, and has not said so yet. */
export function toEnter(cells: readonly Cell[]): Cell[] {
  return cells.filter((c) => c.section.byHand && c.state.stuck === 'CREDENTIALS');
}
