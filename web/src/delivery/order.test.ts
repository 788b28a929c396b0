import { describe, expect, it } from 'vitest';
import { row } from '../../test/forecast-row';
import { address, chosen, differs, ofChosen, read, usual } from './order';
import { kindToggled, said, ticks, toggled } from './ticks';

const rows = [
  row('week', { kind: 'MODULE', chosen: 0 }),
  row('reading', { parent: 'week' }),
  row('quiz', { parent: 'week', kind: 'QUIZ' }),
  row('bank', { parent: 'week', kind: 'QUESTION_BANK', chosen: 0, along: 1 }),
];

describe('an order', () => {
  it('is told whole by its address', () => {
    const order = {
      ...usual,
      what: 'SOME',
      items: ['a', 'b'],
      withoutKinds: ['ANNOUNCEMENT'],
      dates: 'LEFT',
    } as const;
    expect(read(new URLSearchParams(address(order)))).toEqual(order);
    expect(Object.values(address(usual)).filter(Boolean)).toEqual([]);
    expect(read(new URLSearchParams('what=ELSE&clash=BOTH'))).toEqual(usual);
  });

  it('treats some kinds otherwise, and tells that a recipe did not', () => {
    const order = {
      ...usual,
      clashOf: { QUIZ: 'TAKE_VERSION' },
      twinOf: { PAGE: 'LEAVE' },
    } as const;
    expect(address(order).clashOf).toBe('QUIZ:TAKE_VERSION');
    expect(read(new URLSearchParams(address(order)))).toEqual(order);
    expect(ofChosen(chosen(order))).toEqual(order);
    expect(differs(order, chosen({ ...order, twinOf: {} }))).toEqual(['twins by kind']);
    expect(read(new URLSearchParams('clashOf=QUIZ:BOTH,NOTHING:LEAVE'))).toEqual(usual);
  });

  it('ticks a module as what stands in it', () => {
    const t = ticks(rows);
    expect(t.get('week')).toBe('some');
    expect(t.get('bank')).toBe('along');
    expect(ticks(rows.slice(0, 3)).get('week')).toBe('on');
  });

  it('leaves out what is unticked, and takes it back', () => {
    const without = toggled(usual, rows, rows[1], 'on');
    expect(without.without).toEqual(['reading']);
    const out = rows.map((r) => (r.key === 'reading' ? { ...r, chosen: 0, leftOut: true } : r));
    expect(toggled(without, out, out[1], 'off')).toEqual(usual);
  });

  it('takes back an item whose kind or module was left out', () => {
    const kind = kindToggled(usual, 'QUIZ', true);
    expect(kind.withoutKinds).toEqual(['QUIZ']);
    expect(toggled(kind, rows, { ...rows[2], leftOut: true }, 'off')).toEqual(usual);
    const module = { ...usual, without: ['week'] };
    expect(toggled(module, rows, { ...rows[2], leftOut: true }, 'off')).toEqual(usual);
  });

  it('becomes a choice of some when something unchanged is ticked', () => {
    const changed = { ...usual, what: 'CHANGED' } as const;
    const next = toggled(changed, rows, rows[3], 'off');
    expect(next.what).toBe('SOME');
    expect(next.items).toEqual(['reading', 'quiz', 'bank']);
  });

  it('leaves out what would come along', () => {
    const some = { ...usual, what: 'SOME', items: ['quiz'] } as const;
    expect(toggled(some, rows, rows[3], 'along').without).toEqual(['bank']);
  });

  it('ticks what is clicked before the totals have followed the choice of some', () => {
    const some = { ...usual, what: 'SOME' } as const;
    expect(toggled(some, rows, rows[1], 'on').items).toEqual(['reading']);
    expect(toggled(some, rows, rows[0], 'on').items).toEqual(['week']);
    const both = { ...some, items: ['reading', 'quiz'] };
    expect(toggled(both, rows, rows[1], 'on').items).toEqual(['quiz']);
  });

  it('takes a module with all in it', () => {
    const some = { ...usual, what: 'SOME', items: ['quiz'] } as const;
    expect(toggled(some, rows, rows[0], 'off').items).toEqual(['week']);
    const less = toggled({ ...some, items: ['week'] }, rows, rows[2], 'on');
    expect(less.items).toEqual(['week']);
    expect(less.without).toEqual(['quiz']);
  });

  it('says why an item comes along, and what lacks one that is left out', () => {
    const b = { key: 'quiz', title: 'Quiz 3', why: 'BANK' } as const;
    expect(said({ ...rows[3], because: b }, usual)).toBe('Quiz 3 draws from it');
    expect(said({ ...rows[3], leftOut: true, missed: b }, usual)).toBe(
      'left out, though Quiz 3 draws from it',
    );
    expect(said(row('a', { steps: { ADD: 3 } }), usual)).toBe('new');
    expect(said(row('a', { steps: { ADD: 3, UPDATE: 1, CLASH: 2 } }), usual)).toBe(
      'new in 3, 1 update, 2 clashes',
    );
  });

  it('says where it differs from a recipe', () => {
    const recipe = { ...usual, dates: 'AWAY', without: ['a', 'b'] } as const;
    expect(ofChosen(chosen(recipe))).toEqual(recipe);
    expect(differs({ ...recipe, without: ['b', 'a'] }, chosen(recipe))).toEqual([]);
    expect(differs({ ...usual, items: ['c'], what: 'SOME' }, chosen(recipe))).toEqual([
      'what is brought',
      'dates',
      'chosen items',
      'what is left out',
    ]);
  });
});
