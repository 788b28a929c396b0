import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { changeOf, entryOf, merged } from './entry';

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

  it('takes over what somebody else changed, and keeps what was written here', () => {
    const mine = { ...entryOf(item), html: '<p>Mine.</p>' };
    const now = { ...entryOf(item), title: 'Plot, renamed', points: '12' };
    const met = merged(mine, entryOf(item), now);
    expect(met.clash).toBe(false);
    expect(met.entry).toMatchObject({ title: 'Plot, renamed', points: '12', html: '<p>Mine.</p>' });
    expect(changeOf(met.entry, now)).toEqual({ html: '<p>Mine.</p>' });
  });

  it('says so where both wrote the same, and keeps mine to be decided on', () => {
    const mine = { ...entryOf(item), html: '<p>Mine.</p>' };
    const now = { ...entryOf(item), html: '<p>Theirs.</p>' };
    const met = merged(mine, entryOf(item), now);
    expect(met).toMatchObject({ clash: true, entry: { html: '<p>Mine.</p>' } });
  });
});
