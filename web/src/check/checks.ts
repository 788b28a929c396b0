import type { Schemas } from '../api/client';

export type Board = Schemas['Board'];
export type Row = Schemas['CheckRow'];
export type Section = Schemas['CheckedSection'];
export type Weight = Row['weight'];

export const weightWords: Record<Weight, string> = {
  HARM: 'students would meet it',
  WRONG: 'it is wrong',
  CAN_WAIT: 'it can wait',
};

export const whoseWords: Record<Row['whose'], string> = {
  COORDINATOR: 'yours',
  INSTRUCTOR: 'the instructors’',
  ADMINISTRATOR: 'an administrator’s',
};

/** Nothing stands in the way of the first day that is worse than what can wait. */
export const ready = (s: Section) => s.looked && s.worst !== 'HARM' && s.worst !== 'WRONG';

/** A row by its name in the address. */
export const name = (r: Row) => r.check + ' ' + r.subject;

/** Whole days until a day, in the zone of whoever looks; negative after it. */
export function daysUntil(day: string, now = new Date()): number {
  const [y, m, d] = day.split('-').map(Number);
  const today = Date.UTC(now.getFullYear(), now.getMonth(), now.getDate());
  return Math.round((Date.UTC(y, m - 1, d) - today) / 86_400_000);
}

/** "6 days left", "today is the first day", "the first day was 40 days ago". */
export function left(day: string, now = new Date()): string {
  const n = daysUntil(day, now);
  if (n === 0) return 'today is the first day';
  if (n === 1) return '1 day left';
  if (n > 1) return `${n} days left`;
  return n === -1 ? 'the first day was yesterday' : `the first day was ${-n} days ago`;
}

/** Fewer or more than before. */
export function against(since: number | undefined): string {
  if (since === undefined) return '';
  if (since === 0) return 'as many findings as when last counted';
  return since < 0
    ? `${-since} ${since === -1 ? 'finding' : 'findings'} fewer than when last counted`
    : `${since} ${since === 1 ? 'finding' : 'findings'} more than when last counted`;
}

export interface Share {
  course: string;
  campuses: Map<string, { ready: number; all: number; ids: string[] }>;
  ready: number;
  all: number;
}

/** How many are ready, by course and campus; what is furthest from it first. */
export function shares(sections: readonly Section[]): Share[] {
  const by = new Map<string, Share>();
  for (const s of sections) {
    const of = by.get(s.course) ?? { course: s.course, campuses: new Map(), ready: 0, all: 0 };
    const at = of.campuses.get(s.campus) ?? { ready: 0, all: 0, ids: [] };
    at.all++;
    of.all++;
    if (ready(s)) {
      at.ready++;
      of.ready++;
    } else at.ids.push(s.id);
    of.campuses.set(s.campus, at);
    by.set(s.course, of);
  }
  return [...by.values()].sort(
    (a, b) => a.ready / a.all - b.ready / b.all || a.course.localeCompare(b.course),
  );
}

const HEIGHT: Record<Weight, number> = { HARM: 14, WRONG: 9, CAN_WAIT: 5 };

/** One stroke a section, as one path; many strokes stand closer. */
export function strokes(n: number, weight: Weight, width: number): string {
  const step = Math.min(6.5, width / n);
  const stroke = Math.max(step * 0.7, 0.7);
  const h = HEIGHT[weight];
  let d = '';
  for (let i = 0; i < n; i++)
    d += `M${(i * step).toFixed(2)} ${14 - h}h${stroke.toFixed(2)}v${h}h${(-stroke).toFixed(2)}z`;
  return d;
}

/** What its main button does, before "for 12 sections"; empty if a plan does not mend it. */
export function mendWords(r: Row): string {
  switch (r.mend) {
    case 'TOOLS':
    case 'CALENDAR':
    case 'OPEN_SHELL':
    case 'BY_HAND':
      return '';
    default:
      return 'Plan the mend';
  }
}

/** What the mend does, in a sentence. */
export const mends: Record<Row['mend'], string> = {
  DELIVER: 'It is brought with what it needs; all else stays as the sections have it.',
  PUT_BACK_SAID: 'What the item says becomes again what was delivered; the rest of it stays.',
  PUT_BACK_GRADING: 'Its grading becomes again what was delivered; its text and dates stay.',
  PUT_BACK_PLACE: 'It goes back to where it was delivered.',
  PUT_BACK_DATES: 'Its dates become again what was delivered; its text stays.',
  PUT_BACK_TEXT: 'Its text becomes again what was delivered.',
  PUT_BACK_OPENING: 'Who sees it from when on becomes again what was delivered.',
  REMOVE: 'It is taken out, unless students have handed in work on it.',
  REMOVE_EMPTY: 'The empty module is taken out.',
  ONE_FRONT_PAGE: 'The master’s page stays, with what the other says besides.',
  DROP_ENTRIES: 'The entries that lead nowhere are taken out.',
  STRIP_NOTES: 'The note goes, wherever it stands; all else that instructors wrote stays.',
  UNINDENT: 'What stands before its first word goes; the title stays.',
  HIDE: 'It is hidden from students.',
  SHOW: 'It is shown to students.',
  UNLINK: 'Links lead where they were meant to lead; what leads nowhere becomes plain words.',
  DROP_CONDITIONS: 'The condition that nobody can meet is taken off.',
  REPLACE: 'Say which words become which; they are replaced in titles and texts.',
  TOOLS: 'Tools are connected, paired and opened under Tools.',
  CALENDAR: 'Calendars, meetings and patterns are changed under Calendar.',
  OPEN_SHELL: 'Shells are opened to students on a day.',
  BY_HAND: 'No plan can know what belongs there: a person has to see to it.',
};
