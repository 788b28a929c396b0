import { describe, expect, it } from 'vitest';
import { limits, parameterLines, parametersOf } from './relink';

describe('a relink rule', () => {
  it('says line by line what is sent along', () => {
    expect(parametersOf('section={section-code}\n\n old= \nunit')).toEqual({
      section: '{section-code}',
      old: '',
      unit: '',
    });
    expect(parameterLines({ section: '{section-code}', old: '' })).toEqual([
      'sends section={section-code}',
      'without old',
    ]);
  });

  it('says what it is limited to', () => {
    const rule = {
      from: '//a.example{*rest}',
      to: 'https://b.example{*rest}',
      parameters: {},
      masters: ['m', 'x'],
      terms: ['t'],
      campuses: ['quay'],
      fromDay: '2026-08-31',
    };
    expect(
      limits(rule, [{ id: 'm', code: 'LGT 110' }], [{ id: 't', title: 'Autumn 2026' }]),
    ).toEqual(['in LGT 110, a master out of reach', 'Autumn 2026', 'at quay', 'from 2026-08-31']);
    expect(
      limits({ ...rule, masters: [], terms: [], campuses: [], fromDay: undefined }, [], []),
    ).toEqual(['in every master']);
  });
});
