import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { head } from './plan';
import { waits } from './waits';

const line = (waitsFor: Schemas['DeliveryLine']['waitsFor'], state = 'NOT_YET') =>
  ({ waitsFor, state, code: 'X' }) as Schemas['DeliveryLine'];
const summary = (more: Partial<Schemas['DeliverySummary']>) =>
  ({ masterCode: 'LGT', number: 5, state: 'DONE', ...more }) as Schemas['DeliverySummary'];
const far = { all: 4, done: 4, need: 0, notYet: 0 };

describe('lines that cannot begin yet', () => {
  it('are told by what they wait for', () => {
    expect(waits([line('SHELL'), line('EMPTY'), line('SHELL')]).map((w) => w.said)).toEqual([
      '2 sections have no shell yet',
      '1 shell is not empty',
    ]);
  });
  it('are not told once they wait no longer', () => {
    expect(waits([line('SHELL', 'DONE')])).toEqual([]);
  });
});

describe('a run', () => {
  it('says what is still open', () => {
    expect(head(summary({}), far)).toBe('Delivered: LGT, version 5, to 4 sections');
    expect(head(summary({}), { ...far, done: 2, need: 1, notYet: 1 })).toBe(
      'LGT, version 5: 2 of 4 sections done, 1 needs you, 1 not yet',
    );
    expect(head(summary({ state: 'STOPPED' }), { ...far, done: 1 })).toBe(
      'Stopped: LGT, version 5, 1 of 4 sections done',
    );
  });
  it('says that it takes another back', () => {
    expect(head(summary({ takesBack: 'd' }), far)).toBe(
      'Taken back: LGT, version 5, in 4 sections',
    );
  });
});
