import type { Schemas } from '../api/client';
import { many } from '../marks/words';

export type Picture = Schemas['RibbonPicture'];
export type Row = Schemas['RibbonRow'];
export type Due = Schemas['DueDate'];
export type Calendar = Schemas['CalendarOfTerm'];
export type Remark = Due['remarks'][number];

/** What a date is, for whoever looks over them. */
export type Sort = 'plain' | 'off' | 'two' | 'outside' | 'own';
export const sorts: readonly Sort[] = ['plain', 'off', 'two', 'outside', 'own'];
export const sortWords: Record<Sort, string> = {
  plain: 'as the pattern says',
  off: 'on a day off',
  two: 'two on one day',
  outside: 'out of place',
  own: 'kept by the section',
};

const sortOf: Record<Remark, Sort> = {
  MOVED_OFF_DAY: 'off',
  ON_DAY_OFF: 'off',
  TWO_ON_ONE_DAY: 'two',
  NO_SUCH_DAY: 'outside',
  AFTER_END: 'outside',
  TOO_FEW_MEETINGS: 'outside',
  NO_MEETINGS: 'outside',
  NO_FINALS: 'outside',
  OUTSIDE: 'outside',
  IN_ORDER: 'outside',
  NOTHING_TO_FOLLOW: 'outside',
  CIRCLE: 'outside',
};

export const remarkWords: Record<Remark, string> = {
  MOVED_OFF_DAY: 'moved from a day off',
  ON_DAY_OFF: 'stays on a day off',
  TWO_ON_ONE_DAY: 'another one is due that day now',
  NO_SUCH_DAY: 'the term has no such day; the nearest is taken',
  AFTER_END: 'would be after the end; the last teaching day is taken',
  TOO_FEW_MEETINGS: 'it does not meet so often; the last meeting is taken',
  NO_MEETINGS: 'it is not known when it meets',
  NO_FINALS: 'the calendar has no finals; the last teaching day is taken',
  OUTSIDE: 'outside the term',
  IN_ORDER: 'opening and closing were put in order around it',
  NOTHING_TO_FOLLOW: 'what it follows has no date',
  CIRCLE: 'dates follow each other in a circle',
};

/** Everything that is to be said of a date. */
export function sortsOf(d: Due): Sort[] {
  const all = new Set(d.remarks.map((r) => sortOf[r]));
  if (d.own.length) all.add('own');
  return all.size ? [...all] : ['plain'];
}

const DAY = 86_400_000;
/** Days since 1970 of a local date, or of a date and time. */
export const dayOf = (iso: string) => Date.parse(iso.slice(0, 10) + 'T00:00Z') / DAY;
export const isoOf = (day: number) => new Date(day * DAY).toISOString().slice(0, 10);

/** A date, and the sections that have it. */
export interface At {
  due: Due;
  row: Row;
}

/** A line of the ribbon: what is due each day. */
export interface Band {
  /** Its name among all lines; two may have the same words. */
  key: string;
  title: string;
  words: string;
  sections: string[];
  calendar?: Calendar;
  first: number;
  end: number;
  /** By the day, what is due on it. */
  byDay: Map<number, At[]>;
  /** Dates of all sections. */
  dates: number;
  highest: number;
}

export interface Ribbon {
  from: number;
  days: number;
  bands: Band[];
  counts: Record<Sort, number>;
  dates: number;
  /** Items that want a look. */
  looks: number;
}

const names = ['', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
export const weekdays = (days: number[]) => days.map((d) => names[d]).join(', ');

function meets(r: Row): string {
  if (!r.meets.length) return '';
  return (r.evenings ? 'evenings on ' : '') + weekdays(r.meets).replace(/, ([^,]*)$/, ' and $1');
}

const end = (c: Calendar) => dayOf(c.says.finalsLast ?? c.says.last);

function band(
  title: string,
  words: string,
  rows: Row[],
  calendar: Calendar | undefined,
  keep: (d: Due) => boolean,
): Band {
  const byDay = new Map<number, At[]>();
  let dates = 0;
  for (const row of rows)
    for (const due of row.dates) {
      if (!keep(due)) continue;
      const day = dayOf(due.due);
      byDay.set(day, [...(byDay.get(day) ?? []), { due, row }]);
      dates += due.sections;
    }
  let highest = 1;
  for (const all of byDay.values()) highest = Math.max(highest, load(all));
  return {
    key: [title, rows.length, rows[0].sections[0]].join(' '),
    title,
    words,
    sections: rows.flatMap((r) => r.sections),
    calendar,
    first: calendar ? dayOf(calendar.says.first) : 0,
    end: calendar ? end(calendar) : 0,
    byDay,
    dates,
    highest,
  };
}

/** Courses with most dates first; a course stays together. */
function busiest(rows: Row[]): Row[] {
  const most = new Map<string, number>();
  for (const r of rows) most.set(r.course, Math.max(most.get(r.course) ?? 0, r.dates.length));
  return [...rows].sort((a, b) => most.get(b.course)! - most.get(a.course)!);
}

/** How much is due: one for each section and item. */
export const load = (all: At[]) => all.reduce((n, a) => n + a.due.sections, 0);

/**
 * @param only of these dates alone; all if absent
 * @param text that course, title or item contain
 */
export function ribbon(p: Picture, only?: Sort, text = ''): Ribbon {
  const find = text.trim().toLowerCase();
  const rows = p.rows.filter(
    (r) =>
      !find ||
      `${r.course} ${r.title}`.toLowerCase().includes(find) ||
      r.dates.some((d) => d.title.toLowerCase().includes(find)),
  );
  const byName = (d: Due, r: Row) =>
    !find ||
    `${r.course} ${r.title}`.toLowerCase().includes(find) ||
    d.title.toLowerCase().includes(find);
  const counts: Record<Sort, number> = { plain: 0, off: 0, two: 0, outside: 0, own: 0 };
  let dates = 0;
  let looks = 0;
  for (const r of rows)
    for (const d of r.dates) {
      dates += d.sections;
      const all = sortsOf(d);
      if (all[0] !== 'plain') looks++;
      for (const s of all) counts[s] += s === 'plain' ? d.sections : s === 'own' ? d.own.length : 1;
    }
  const keep = (d: Due) => !only || sortsOf(d).includes(only);
  const bands: Band[] = [];
  const whole = p.calendars.find((c) => c.whole);
  const withDates = busiest(rows.filter((r) => r.dates.length));
  if (withDates.length > 1)
    bands.push(band('All sections', 'what is due each day', withDates, whole, keep));
  for (const r of withDates) {
    const c = p.calendars.find((x) => x.id === r.calendar);
    const part = c && !c.whole ? c.says.name : '';
    const words = [many(r.sections.length, 'section'), part, meets(r)].filter(Boolean).join(', ');
    bands.push(band(r.course, words, [r], c, (d) => keep(d) && byName(d, r)));
  }
  const used = p.calendars.filter((c) => c.whole || c.sections);
  const from = Math.min(...used.map((c) => monday(dayOf(c.says.first))));
  const to = Math.max(...used.map((c) => end(c)));
  return { from, days: to - from + 1, bands, counts, dates, looks };
}

/** The Monday of a week; 1 January 1970 was a Thursday. */
export const monday = (day: number) => day - ((((day + 3) % 7) + 7) % 7);

/** A stretch of days, by their places from the first that is shown. */
export interface Stretch {
  at: number;
  days: number;
  name: string;
}

/** Days off of a calendar, within what is shown. */
export function off(c: Calendar, from: number, days: number): Stretch[] {
  return c.says.off
    .map((o) => stretch(o.first, o.last, o.name, from, days))
    .filter((s) => s.days > 0);
}

export function finals(c: Calendar, from: number, days: number): Stretch | undefined {
  const { finalsFirst, finalsLast } = c.says;
  return finalsFirst && finalsLast
    ? stretch(finalsFirst, finalsLast, 'Finals', from, days)
    : undefined;
}

function stretch(first: string, last: string, name: string, from: number, days: number): Stretch {
  const at = Math.max(0, dayOf(first) - from);
  const to = Math.min(days, dayOf(last) - from + 1);
  return { at, days: to - at, name };
}

/** The number of each week from the first that is shown; empty where it is not counted. */
export function weeks(c: Calendar, from: number, days: number): { day: number; n: string }[] {
  const all = [];
  const finalsFirst = c.says.finalsFirst ? dayOf(c.says.finalsFirst) : Infinity;
  for (let day = from; day < from + days; day += 7) {
    const n = c.mondays.indexOf(isoOf(day)) + 1;
    all.push({ day, n: day + 6 >= finalsFirst ? 'ex' : n ? String(n) : '–' });
  }
  return all;
}

/** The next place with something that wants a look, line by line; undefined if there is none. */
export function next(
  r: Ribbon,
  band: number,
  day: number,
): { band: number; day: number } | undefined {
  const wants = (b: Band) =>
    [...b.byDay.entries()]
      .filter(([, all]) => all.some((a) => sortsOf(a.due)[0] !== 'plain'))
      .map(([d]) => d)
      .sort((a, b) => a - b);
  const own = r.bands.map((b, i) => (b.calendar && i === 0 && r.bands.length > 1 ? [] : wants(b)));
  for (let i = 0; i <= r.bands.length; i++) {
    const at = (band + i) % r.bands.length;
    const found =
      own[at].find((d) => i > 0 || d > day) ?? (i === r.bands.length ? own[at][0] : undefined);
    if (found !== undefined) return { band: at, day: found };
  }
  return undefined;
}

/** Items that are to move, by their master. */
export function movedBy(all: At[]): [string, string[]][] {
  const by = new Map<string, Set<string>>();
  for (const a of all) {
    const items = by.get(a.due.master) ?? new Set();
    by.set(a.due.master, items.add(a.due.item));
  }
  return [...by].map(([m, items]) => [m, [...items]]);
}

/** How many items of a master have real dates instead of patterns. */
export function realDates(p: Picture, master: string): number {
  const real = p.rows.flatMap((r) =>
    r.dates.filter((d) => d.master === master && !d.pattern).map((d) => d.item),
  );
  return new Set(real).size;
}
