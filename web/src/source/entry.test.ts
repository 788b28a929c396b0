import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { changeOf, entryOf } from './entry';

const item = {
  key: 'k',
  kind: 'ASSIGNMENT',
  title: 'Plot',
  html: '<p>Draw.</p>',
  fields: [],
  attached: [],
  parameters: { unit: '3' },
  criteria: [],
  groups: ['North'],
  entries: [],
  conditions: [],
  points: '10',
} as unknown as Schemas['ItemView'];

describe('what is written of an item', () => {
  it('is no change as long as nothing was written', () => {
    expect(changeOf(entryOf(item), entryOf(item))).toEqual({});
  });

  it('is a change of what differs and of nothing else', () => {
    const now = entryOf(item);
    now.points = '';
    now.handIn = { ways: ['file'], endings: '.pdf, docx', checked: true };
    now.groups = 'North\n\n South ';
    now.parameters[0].value = '4';
    now.parameters.push({ name: ' ', value: 'lost' });
    expect(changeOf(now, entryOf(item))).toEqual({
      points: '',
      handIn: { ways: ['file'], endings: ['pdf', 'docx'], checked: true },
      groups: ['North', 'South'],
      parameters: { unit: '4' },
    });
  });
});
