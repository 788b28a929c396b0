import { expect, test } from 'vitest';
import { taskWords } from './tasks';

const points = {
  differs: 'POINTS',
  here: '20',
  there: '10',
  mend: 'INTO_DRAFT',
  master: 'm',
} as const;
const date = {
  ...points,
  differs: 'DATE',
  here: '2027-02-12T18:00',
  there: '2027-02-14T18:00',
} as const;

test('points that differ are scaled', () => {
  expect(taskWords(points, 'FlyFloor')).toEqual({
    what: '20 points in the shell, 10 in FlyFloor',
    then: 'Scores that come back are scaled.',
    value: '10 points',
  });
});

test('of two dates it is told which students see and which counts', () => {
  const words = taskWords(date, 'FlyFloor');
  expect(words.what).toMatch(/^students see .*12.*18:00; .*14.*18:00 counts$/);
  expect(words.then).toBe('FlyFloor takes the work, so its date counts.');
  expect(taskWords({ ...date, mend: 'OPEN_AGAIN' }, 'FlyFloor').then).toContain('The shell leads');
});

test('a task of the section’s own is corrected there', () => {
  expect(taskWords({ ...points, master: undefined }, 'FlyFloor').then).toContain(
    'correct it there',
  );
});
