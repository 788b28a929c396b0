import { describe, expect, it } from 'vitest';
import type { Aspect, Schemas } from '../api/client';
import { aspects, groups, type Section, type Variants } from './variants';

const view = (html: string, more = {}) =>
  ({ title: 'Brief', html, shown: true, points: '100', ...more }) as Schemas['ItemView'];
const section = (code: string, more: Partial<Section> = {}): Section => ({
  section: code,
  code,
  campus: 'Quay',
  instructors: 'J',
  number: 2,
  here: [2, 1, 1, 1, 1, 1],
  changed: [],
  accepted: [],
  ...more,
});
const variants = (...sections: Section[]): Variants => ({
  masterCode: 'LGT',
  kind: 'ASSIGNMENT',
  title: 'Brief',
  rule: 'ADAPTABLE',
  newest: 3,
  versions: [
    { number: 1, forms: [0, 1, 1, 1, 1, 1], view: view('one') },
    { number: 2, forms: [2, 1, 1, 1, 1, 1], view: view('two') },
    { number: 3, forms: [2, 1, 1, 1, 1, 1], view: view('two') },
  ],
  sections,
  views: [
    { forms: [5, 1, 1, 1, 1, 1], view: view('two, and more') },
    { forms: [2, 6, 1, 1, 1, 1], view: view('two', { points: '80' }) },
  ],
});
const own = (code: string, form: number, changed: Aspect[] = ['WORDING']) =>
  section(code, { here: [form, 1, 1, 1, 1, 1], changed });

describe('one item across sections', () => {
  it('stands at the newest version that says the same', () => {
    const [g] = groups(variants(section('a'), section('b', { number: 3 })), aspects(''));
    expect([g.title, g.about, g.sections.length]).toEqual([
      'As version 3',
      'newest, as delivered',
      2,
    ]);
  });
  it('is told apart by what sections made of it, equal ones together', () => {
    const of = groups(variants(own('a', 5), own('b', 5), own('c', 7)), aspects(''));
    expect(of.map((g) => [g.title, g.sections.map((s) => s.code)])).toEqual([
      ['Other wording', ['a', 'b']],
      ['Other wording', ['c']],
    ]);
  });
  it('is grouped by one aspect alone', () => {
    const graded = section('a', { here: [2, 6, 1, 1, 1, 1], changed: ['GRADING'] });
    expect(groups(variants(graded), aspects('WORDING'))[0].title).toBe('As version 3');
    expect(groups(variants(graded), aspects('GRADING'))[0].title).toBe('Fewer points');
  });
  it('says where it is missing and why', () => {
    const of = groups(
      variants(section('a', { here: undefined }), section('b', { here: undefined, number: 0 })),
      aspects(''),
    );
    expect(of[0].about).toBe('taken out in 1, never received in 1');
  });
  it('says what was accepted', () => {
    const s = section('a', { here: [5, 1, 1, 1, 1, 1], accepted: ['WORDING'] });
    expect(groups(variants(s), aspects(''))[0].about).toBe('accepted in 1 section');
  });
});
