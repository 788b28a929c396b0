import { expect, test } from 'vitest';
import { groups, platformsOf, stepsOf, type HandOver } from './handovers';

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
  platformName: '',
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

test('steps are said once, or by platform where they differ', () => {
  const on = (platform: string, platformName: string, steps: string) =>
    of('CREATE_SHELL', 's' + platform, { platform, platformName, steps });
  const same = [on('1', 'Quay', 'Ask IT.'), on('2', 'Harbour', 'Ask IT.')];
  expect(stepsOf(same)).toEqual([{ on: 'Quay, Harbour', steps: 'Ask IT.', contact: '' }]);
  const two = [...same, on('3', 'Mill', 'Copy the empty shell.'), of('CREATE_SHELL', 's4')];
  expect(stepsOf(two).map((d) => d.on)).toEqual(['Quay, Harbour', 'Mill', 'no platform yet']);
  expect(platformsOf(two).map((p) => p.name)).toEqual(['Quay', 'Harbour', 'Mill']);
});
