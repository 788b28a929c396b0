import { beforeEach, describe, expect, it } from 'vitest';
import { hand } from './hand.svelte';

describe('the hand', () => {
  beforeEach(() => hand.drop());

  it('holds each section once', () => {
    hand.take(['a', 'b']);
    hand.take(['b', 'c']);
    expect([...hand.sections]).toEqual(['a', 'b', 'c']);
  });

  it('lets a section go when it is chosen again', () => {
    hand.take(['a', 'b']);
    hand.toggle('a');
    expect(hand.has('a')).toBe(false);
    expect(hand.size).toBe(1);
  });

  it('stays across pages', () => {
    hand.only(['x']);
    expect(JSON.parse(sessionStorage.getItem('hand')!)).toEqual(['x']);
  });
});
