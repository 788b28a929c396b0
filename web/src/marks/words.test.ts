import { describe, expect, it } from 'vitest';
import { ago, aspectList, kind, many, size } from './words';

describe('words', () => {
  it('counts things with the right ending', () => {
    expect(many(1, 'section')).toBe('1 section');
    expect(many(1834, 'section')).toBe('1,834 sections');
    expect(kind('QUIZ', 2)).toBe('quizzes');
  });

  it('says times as people say them', () => {
    const now = Date.parse('2026-11-25T12:00:00Z');
    expect(ago('2026-11-25T11:59:50Z', now)).toBe('just now');
    expect(ago('2026-11-25T11:58:00Z', now)).toBe('2 minutes ago');
    expect(ago('2026-11-25T09:00:00Z', now)).toBe('3 hours ago');
    expect(ago('2026-09-03T12:00:00Z', now)).toMatch(/^3 Sept?$/);
    expect(ago('2025-02-03T12:00:00Z', now)).toBe('3 Feb 2025');
  });

  it('says sizes and aspects', () => {
    expect(size(4_200_000)).toBe('4.2 MB');
    expect(aspectList(['WORDING', 'TIMING'])).toBe('wording, timing');
  });
});
