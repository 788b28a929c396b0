import { expect, test } from 'vitest';
import { along } from './along';

test('a row down and up, a page, to both ends', () => {
  expect(along('ArrowDown', 4, 100, 20)).toBe(5);
  expect(along('ArrowUp', 4, 100, 20)).toBe(3);
  expect(along('PageDown', 4, 100, 20)).toBe(24);
  expect(along('PageUp', 44, 100, 20)).toBe(24);
  expect(along('Home', 44, 100, 20)).toBe(0);
  expect(along('End', 44, 100, 20)).toBe(99);
});

test('never beyond the ends', () => {
  expect(along('ArrowUp', 0, 100, 20)).toBe(0);
  expect(along('PageUp', 7, 100, 20)).toBe(0);
  expect(along('ArrowDown', 99, 100, 20)).toBe(99);
  expect(along('PageDown', 95, 100, 20)).toBe(99);
});

test('other keys do not move', () => {
  expect(along('Enter', 4, 100, 20)).toBeUndefined();
});
