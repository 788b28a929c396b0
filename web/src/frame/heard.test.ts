import { expect, it, vi } from 'vitest';
import { heard } from './heard';

it('leaves an answer that comes after the next question was asked', async () => {
  const shown: string[] = [];
  let late: (answer: string) => void = () => {};
  const leave = heard(new Promise<string>((done) => (late = done)), (a) => shown.push(a), vi.fn());
  leave();
  heard(Promise.resolve('the second day'), (a) => shown.push(a), vi.fn());
  await Promise.resolve();
  late('the first day');
  await Promise.resolve();
  expect(shown).toEqual(['the second day']);
});
