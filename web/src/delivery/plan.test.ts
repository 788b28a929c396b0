import { describe, expect, it } from 'vitest';
import type { Kind, Schemas, StepKind } from '../api/client';
import {
  Cell,
  inWords,
  left,
  marks,
  moving,
  picture as draw,
  stepOf,
  stepsByKind,
  totals,
  within,
  words,
  exceptions,
} from './plan';

const row = (key: string, kind: Kind, parent?: string, inVersion = true) => ({
  key,
  kind,
  title: key.toUpperCase(),
  parent,
  inVersion,
});
const plan: Schemas['DeliveryPlan'] = {
  rows: [
    row('w1', 'MODULE'),
    row('a', 'PAGE', 'w1'),
    row('b', 'PAGE', 'w1'),
    row('w2', 'MODULE'),
    row('c', 'PAGE', 'w2'),
    row('old', 'PAGE', undefined, false),
  ],
  lines: ['l0', 'l1', 'l2'],
  codes: [
    { kind: 'UPDATE', reason: 'VERSION_MOVED', moves: true },
    { kind: 'KEEP', reason: 'CHANGED_HERE', moves: false },
    { kind: 'RETIRE', reason: 'GONE_FROM_VERSION', moves: true },
  ],
  steps: [[1, 1, 5, 2], [], [1, 0]],
};
const picture = (open = new Set<string>(), only: StepKind | '' = '') =>
  draw(plan, stepsByKind(plan), open, only);

describe('the plan picture', () => {
  it('folds what is the same everywhere, and modules and sections with nothing to do', () => {
    const p = picture();
    expect(p.rows.map((r) => r.title)).toEqual([
      'W1',
      'A',
      '2 more the same in all',
      'Not in the version',
      'OLD',
      '1 module with nothing to do',
    ]);
    expect(p.columns).toEqual([0, 2]);
    expect(p.idle).toBe(1);
  });

  it('counts only steps that move, and orders cells by section', () => {
    const a = picture().rows[1];
    expect(a.type === 'item' && moving(a.cells)).toBe(1);
    expect(a.type === 'item' && a.cells.map((c) => c.line)).toEqual([0, 2]);
  });

  it('opens a fold, and shows one kind of step alone', () => {
    expect(picture(new Set(['w1'])).rows.filter((r) => r.type === 'item')).toHaveLength(4);
    expect(picture(new Set(), 'RETIRE').rows.map((r) => r.title)).toContain('OLD');
    expect(picture(new Set(), 'RETIRE').columns).toEqual([0]);
  });

  it('draws only the steps between two lines', () => {
    const cells = [0, 2, 5, 9].map((line) => new Cell(0, line, plan.codes[0]));
    expect(within(cells, 1, 5).map((c) => c.line)).toEqual([2, 5]);
    expect(within(cells, 6, 8)).toEqual([]);
    expect(within(cells, 0, 9)).toHaveLength(4);
  });

  it('draws the marks in sight as one path for each colour, where their steps stand', () => {
    const p = picture();
    const sight = { fromRow: 0, toRow: p.rows.length, fromCol: 0, toCol: 2 };
    const all = marks(p, sight, 24, 24);
    expect(all.map((m) => m.layer.colour)).toEqual(['var(--own)', 'var(--do)', 'var(--harm)']);
    // A is the second row: kept by the first line, updated in the last, which is the second column.
    expect(all[1].d).toBe('M36 31.8l4.6 7.8h-9.2z');
    expect(marks(p, { ...sight, toCol: 1 }, 24, 24).map((m) => m.layer.colour)).toEqual([
      'var(--own)',
      'var(--harm)',
    ]);
    expect(marks(p, { ...sight, toRow: 1 }, 24, 24)).toEqual([]);
  });

  it('finds the step of a line', () => {
    const a = picture().rows[1];
    expect(a.type === 'item' && stepOf(a.cells, 2)?.kind).toBe('UPDATE');
    expect(a.type === 'item' && stepOf(a.cells, 1)).toBeUndefined();
  });

  it('holds many sections of many items', () => {
    const large = {
      rows: Array.from({ length: 300 }, (_, i) => row('k' + i, 'PAGE')),
      lines: Array.from({ length: 100 }, (_, i) => 'l' + i),
      codes: plan.codes,
      steps: Array.from({ length: 100 }, () =>
        Array.from({ length: 600 }, (_, i) => (i % 2 ? 0 : i / 2)),
      ),
    };
    const all = stepsByKind(large);
    expect(draw(large, all, new Set()).rows).toHaveLength(301);
    expect(all.get('')?.rows.flat()).toHaveLength(30_000);
  });

  it('adds up steps by kind over all sections', () => {
    const line = (counts: Partial<Record<StepKind, number>>) => ({ counts }) as never;
    expect(totals([line({ ADD: 2, SAME: 10 }), line({ ADD: 1 })])).toEqual({ ADD: 3, SAME: 10 });
  });

  it('estimates what is left once something is done', () => {
    const now = Date.parse('2026-11-25T12:01:00Z');
    expect(left('2026-11-25T12:00:00Z', 0, 10, now)).toBeNull();
    expect(left('2026-11-25T12:00:00Z', 30, 60, now)).toBe(60);
    expect(inWords(43)).toBe('about 45 seconds left');
    expect(inWords(600)).toBe('about 10 minutes left');
  });

  it('keeps paragraphs, headings and points on lines of their own', () => {
    expect(words('<h2>Lamps</h2>\n<p>One.</p><p>Two <b>three</b></p><ul><li>a<li>b</ul>')).toBe(
      'Lamps\nOne.\nTwo three\n· a\n· b',
    );
  });
});

describe('a plan on paper', () => {
  it('tells what is out of the ordinary once for all sections alike', () => {
    const paper = {
      rows: [{ key: 'a', kind: 'PAGE', title: 'Loads', inVersion: true }],
      lines: ['1', '2', '3'],
      codes: [
        { kind: 'ADD', reason: 'NEW_IN_VERSION', moves: true },
        { kind: 'CLASH', reason: 'BOTH_MOVED', moves: false },
      ],
      steps: [
        [0, 1],
        [0, 0],
        [0, 1],
      ],
    } as Parameters<typeof exceptions>[0];
    const lines = ['1', '2', '3'].map((id) => ({ id, code: 's' + id }) as Schemas['DeliveryLine']);
    expect(exceptions(paper, lines).map((e) => [e.title, e.kind, e.codes])).toEqual([
      ['Loads', 'CLASH', ['s1', 's3']],
    ]);
  });
});
