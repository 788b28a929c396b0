import { describe, expect, it } from 'vitest';
import { inWords, left, picture, totals, words } from './plan';

const row = (key: string, kind: string, parent?: string, inVersion = true) => ({
  key,
  kind,
  title: key.toUpperCase(),
  parent,
  inVersion,
});
const plan = {
  rows: [
    row('w1', 'MODULE'),
    row('a', 'PAGE', 'w1'),
    row('b', 'PAGE', 'w1'),
    row('w2', 'MODULE'),
    row('c', 'PAGE', 'w2'),
    row('old', 'PAGE', undefined, false),
  ],
  lines: ['l0', 'l1', 'l2'],
  cells: [
    { row: 1, line: 2, kind: 'UPDATE', reason: '', moves: true },
    { row: 1, line: 0, kind: 'KEEP', reason: '', moves: false },
    { row: 5, line: 0, kind: 'RETIRE', reason: '', moves: true },
  ],
};

describe('the plan picture', () => {
  it('folds what is the same everywhere, and modules and sections with nothing to do', () => {
    const p = picture(plan, new Set());
    expect(p.rows.map((r) => r.title)).toEqual([
      'W1',
      'A',
      '2 more the same in all',
      'No longer in the version',
      'OLD',
      '1 module with nothing to do',
    ]);
    expect(p.columns).toEqual([0, 2]);
    expect(p.idle).toBe(1);
  });

  it('counts only steps that move, and orders cells by section', () => {
    const a = picture(plan, new Set()).rows[1];
    expect(a.type === 'item' && a.moving).toBe(1);
    expect(a.type === 'item' && a.cells.map((c) => c.line)).toEqual([0, 2]);
  });

  it('opens a fold, and shows one kind of step alone', () => {
    expect(picture(plan, new Set(['w1'])).rows.filter((r) => r.type === 'item')).toHaveLength(4);
    expect(picture(plan, new Set(), 'RETIRE').rows.map((r) => r.title)).toContain('OLD');
    expect(picture(plan, new Set(), 'RETIRE').columns).toEqual([0]);
  });

  it('adds up steps by kind over all sections', () => {
    const line = (counts: Record<string, number>) => ({ counts }) as never;
    expect(totals([line({ ADD: 2, SAME: 10 }), line({ ADD: 1 })])).toEqual({ ADD: 3, SAME: 10 });
  });

  it('estimates what is left once something is done', () => {
    const now = Date.parse('2026-11-25T12:01:00Z');
    expect(left('2026-11-25T12:00:00Z', 0, 10, now)).toBeNull();
    expect(left('2026-11-25T12:00:00Z', 30, 60, now)).toBe(60);
    expect(inWords(43)).toBe('about 45 seconds left');
    expect(inWords(600)).toBe('about 10 minutes left');
  });

  it('keeps words of neighbouring paragraphs apart', () => {
    expect(words('<p>One.</p><p>Two <b>three</b></p>')).toBe('One. Two three');
  });
});
