import { expect, test } from 'vitest';
import {
  dayOf,
  finals,
  isoOf,
  load,
  monday,
  movedBy,
  next,
  off,
  ribbon,
  sortsOf,
  weeks,
  type Calendar,
  type Due,
  type Picture,
  type Row,
} from './ribbon';

const calendar = (id: string, first: string, last: string, more: Partial<Calendar> = {}) =>
  ({
    id,
    whole: id === 'whole',
    says: {
      name: id,
      first,
      last,
      finalsFirst: '2027-05-10',
      finalsLast: '2027-05-14',
      zone: 'America/Chicago',
      weeks: 'TEACHING',
      weekdays: [1, 2, 3, 4, 5],
      fit: 'AS_SAID',
      off: [{ name: 'Spring break', first: '2027-03-08', last: '2027-03-12' }],
    },
    mondays: ['2027-01-18', '2027-01-25'],
    teachingDays: 74,
    sections: 3,
    ...more,
  }) as Calendar;

const due = (item: string, at: string, more: Partial<Due> = {}): Due => ({
  master: 'm',
  item,
  kind: 'ASSIGNMENT',
  title: item,
  pattern: 'week 1 Mon 23:59',
  due: at,
  said: at.slice(0, 10),
  remarks: [],
  off: '',
  sections: 2,
  own: [],
  waiting: 0,
  ...more,
});

const row = (course: string, dates: Due[], more: Partial<Row> = {}): Row => ({
  course,
  title: course,
  calendar: 'whole',
  meets: [],
  evenings: false,
  sections: [course + '1', course + '2'],
  dates,
  ...more,
});

const picture = (rows: Row[], calendars = [calendar('whole', '2027-01-18', '2027-05-07')]) =>
  ({ calendars, masters: [], rows, undated: 0 }) as Picture;

test('all sections are the first line, then each course, the busiest first', () => {
  const r = ribbon(
    picture([
      row('LGT 110', [due('a', '2027-02-05T23:59')]),
      row('SND 120', [due('b', '2027-02-05T18:00'), due('c', '2027-02-12T18:00')], {
        meets: [2, 4],
        evenings: true,
      }),
    ]),
  );
  expect(r.bands.map((b) => [b.title, b.dates])).toEqual([
    ['All sections', 6],
    ['SND 120', 4],
    ['LGT 110', 2],
  ]);
  expect(r.bands[1].words).toBe('2 sections, evenings on Tue and Thu');
  expect(load(r.bands[0].byDay.get(dayOf('2027-02-05'))!)).toBe(4);
});

test('sections of a course that meet at other times of the same days have a line of their own', () => {
  const met = (n: number) =>
    row('LGT 110', [due('a', '2027-02-05T23:59')], { meets: [1], sections: ['s' + n, 't' + n] });
  const r = ribbon(picture([met(1), met(2)]));
  expect(r.bands.map((b) => b.words).slice(1)).toEqual(['2 sections, Mon', '2 sections, Mon']);
  expect(new Set(r.bands.map((b) => b.key)).size).toBe(3);
});

test('what is to be told of dates is counted, and shown alone', () => {
  const p = picture([
    row('LGT 110', [
      due('plain', '2027-02-05T23:59'),
      due('moved', '2027-03-15T23:59', { remarks: ['MOVED_OFF_DAY', 'TWO_ON_ONE_DAY'] }),
      due('late', '2027-05-20T23:59', { remarks: ['OUTSIDE'] }),
      due('own', '2027-02-12T23:59', { own: [{ section: 's', code: '01' }] }),
    ]),
  ]);
  const r = ribbon(p);
  expect(r.counts).toEqual({ plain: 2, off: 1, two: 1, outside: 1, own: 1 });
  expect(r.looks).toBe(3);
  expect(ribbon(p, 'outside').bands[0].dates).toBe(2);
  expect(sortsOf(p.rows[0].dates[1])).toEqual(['off', 'two']);
});

test('weeks have the numbers of the calendar, breaks and finals have none', () => {
  const c = calendar('whole', '2027-01-18', '2027-05-07');
  const from = dayOf('2027-01-18');
  const all = weeks(c, from, dayOf('2027-05-14') - from + 1);
  expect(all.map((w) => w.n).slice(0, 3)).toEqual(['1', '2', '–']);
  expect(all.at(-1)!.n).toBe('ex');
  expect(off(c, from, 200)).toEqual([{ at: 49, days: 5, name: 'Spring break' }]);
  expect(finals(c, from, 117)).toEqual({ at: 112, days: 5, name: 'Finals' });
});

test('days are days whatever the clocks of the browser', () => {
  expect(isoOf(dayOf('2027-03-14') + 1)).toBe('2027-03-15');
  expect(isoOf(monday(dayOf('2027-02-07')))).toBe('2027-02-01');
  expect(isoOf(monday(dayOf('2027-02-01')))).toBe('2027-02-01');
});

test('the next that wants a look comes line by line, and begins anew at the end', () => {
  const look = { remarks: ['MOVED_OFF_DAY' as const] };
  const r = ribbon(
    picture([
      row('LGT 110', [due('a', '2027-02-05T23:59', look), due('b', '2027-02-12T23:59', look)]),
      row('SND 120', [due('c', '2027-01-20T23:59', look)]),
    ]),
  );
  const first = next(r, 0, r.from)!;
  expect([first.band, isoOf(first.day)]).toEqual([1, '2027-02-05']);
  const second = next(r, first.band, first.day)!;
  expect(isoOf(second.day)).toBe('2027-02-12');
  const third = next(r, second.band, second.day)!;
  expect([third.band, isoOf(third.day)]).toEqual([2, '2027-01-20']);
  expect(next(r, third.band, third.day)).toEqual(first);
  expect(next(ribbon(picture([row('X', [due('a', '2027-02-05T23:59')])])), 0, 0)).toBeUndefined();
});

test('items are moved once, by their masters', () => {
  const a = { due: due('a', '2027-02-05T23:59'), row: row('LGT 110', []) };
  const b = { due: due('b', '2027-02-05T23:59', { master: 'n' }), row: row('SND 120', []) };
  expect(movedBy([a, a, b])).toEqual([
    ['m', ['a']],
    ['n', ['b']],
  ]);
});
