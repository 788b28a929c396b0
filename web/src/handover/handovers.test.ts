import { expect, test } from 'vitest';
import { groups, type HandOver } from './handovers';

const of = (kind: HandOver['kind'], section: string, more: Partial<HandOver> = {}): HandOver => ({
  kind,
  who: 'INSTRUCTORS',
  section,
  code: section,
  title: '',
  campus: '',
  instructors: '',
  host: '',
  tool: '',
  owner: '',
  ownerMail: '',
  dueSet: false,
  overdue: false,
  note: '',
  steps: '',
  contact: '',
  ...more,
});

test('hand-overs of one kind and one tool are one line', () => {
  const all = groups([
    of('OPEN_ONCE', 's1', { host: 'a.example', tool: 'A' }),
    of('OPEN_ONCE', 's2', { host: 'a.example', tool: 'A' }),
    of('OPEN_ONCE', 's1', { host: 'b.example', tool: 'B' }),
  ]);
  expect(all.map((g) => [g.what, g.all.length])).toEqual([
    ['Open A once', 2],
    ['Open B once', 1],
  ]);
});

test('what is overdue comes first, then what is due next', () => {
  const all = groups([
    of('CREATE_SHELL', 's1', { due: '2027-02-01' }),
    of('CLEAR_SHELL', 's2', { due: '2027-01-09' }),
    of('SWITCH_SUPPORT_ON', 's3', { due: '2027-03-01', overdue: true }),
  ]);
  expect(all.map((g) => g.kind)).toEqual(['SWITCH_SUPPORT_ON', 'CLEAR_SHELL', 'CREATE_SHELL']);
});
