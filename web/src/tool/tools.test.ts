import { describe, expect, it } from 'vitest';
import {
  ending,
  firstDay,
  hosts,
  overdue,
  toEnter,
  toWrite,
  undone,
  working,
  type Connection,
  type Tools,
} from './tools';

const section = (n: number, more = {}) => ({
  id: 's' + n,
  code: '110-0' + n,
  title: 'Light',
  course: n < 3 ? 'LGT 110' : 'SND 120',
  campus: 'North',
  instructors: 'Agnes Pell',
  shell: true,
  byHand: false,
  ...more,
});
const works = { standing: 'WORKS', reason: 'WORKS', whose: 'NOBODY', connection: 'c' } as const;
const keyless = {
  standing: 'NOT_CONNECTED',
  reason: 'NOT_IN_SHELL',
  stuck: 'CREDENTIALS',
  whose: 'COORDINATOR',
  connection: 'c',
} as const;
const host = (name: string, at: number[], state: number[]) => ({
  host: name,
  name,
  standings: ['NOT_CONNECTED', 'WORKS'] as const,
  asked: false,
  section: at,
  state,
  links: at.map(() => 5),
  course: at.map(() => ''),
  said: at.map(() => ''),
  writing: at.map(() => 0),
});
const tools = {
  sections: [section(1), section(2, { byHand: true }), section(3), section(4)],
  states: [works, keyless],
  hosts: [host('a.example', [0, 1], [0, 0]), host('b.example', [1, 2, 3], [1, 0, 1])],
  connections: [],
  looked: 4,
  before: 3,
} as unknown as Tools;
const all = { text: '', course: '', campus: '' };

describe('the picture of hosts', () => {
  it('begins with the host that has most to do', () => {
    expect(hosts(tools, all).map((h) => [h.host, undone(h), h.links])).toEqual([
      ['b.example', 2, 15],
      ['a.example', 0, 10],
    ]);
  });

  it('begins with overdue first openings once the term has begun', () => {
    const unopened = { ...keyless, standing: 'NOT_OPENED', reason: 'NEVER_OPENED' };
    const some = [host('a.example', [0], [2]), host('b.example', [1, 2], [1, 1])];
    const now = (before: number) =>
      hosts(
        { ...tools, states: [works, keyless, unopened], hosts: some, before } as unknown as Tools,
        all,
      );
    expect(now(1).map((h) => [h.host, overdue(h, 1)])).toEqual([
      ['b.example', 0],
      ['a.example', 0],
    ]);
    expect(now(0).map((h) => [h.host, overdue(h, 0)])).toEqual([
      ['a.example', 1],
      ['b.example', 0],
    ]);
  });

  it('hatches the stages that a host does not have', () => {
    expect(hosts(tools, all)[0].can).toEqual([true, false, false, false, true]);
  });

  it('counts a section as working where all its hosts work', () => {
    expect(working(hosts(tools, all))).toEqual({ sections: 4, work: 2 });
  });

  it('leaves hosts out that no section that is looked for has', () => {
    const few = hosts(tools, { ...all, text: '110-04' });
    expect(few.map((h) => [h.host, h.cells.length])).toEqual([['b.example', 1]]);
    expect(hosts(tools, { ...all, course: 'LGT 110' })).toHaveLength(2);
  });
});

describe('what is to be done', () => {
  const cells = hosts(tools, all).flatMap((h) => h.cells);
  const keyed = { id: 'c', way: 'KEY_AND_SECRET', entered: true } as Connection;

  it('is written where it is missing, if there is an interface and a secret', () => {
    expect(toWrite(cells, [keyed]).map((c) => c.section.id)).toEqual(['s4']);
    expect(toWrite(cells, [{ ...keyed, entered: false }])).toEqual([]);
  });

  it('is entered by hand where there is none', () => {
    expect(toEnter(cells).map((c) => c.section.id)).toEqual(['s2']);
  });

  it('is said against the first day', () => {
    expect([firstDay(6), firstDay(1), firstDay(0), firstDay(-9)]).toEqual([
      'first day of term in 6 days',
      'first day of term tomorrow',
      'first day of term today',
      '',
    ]);
  });
});

it('credentials that end within a month are told, the next first', () => {
  const c = (name: string, expires?: string) => ({ name, expires }) as Connection;
  const all = [c('late', '2026-12-28'), c('b', '2026-12-27'), c('a', '2026-11-20'), c('none')];
  expect(ending(all, '2026-11-27').map((x) => x.name)).toEqual(['a', 'b']);
});
