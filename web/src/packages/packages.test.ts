import { describe, expect, it } from 'vitest';
import { told } from './packages';

const none = { items: 6, came: 0, missing: 0, changed: 0, gone: 0, fresh: 0, doubtful: 0 };

describe('what an export told', () => {
  it('says that all is as it was known', () => {
    expect(told(none)).toBe('The shell holds 6 items, all as known.');
  });
  it('names only what there is to tell', () => {
    expect(told({ ...none, came: 5, missing: 1, fresh: 2 })).toBe(
      'The shell holds 6 items: 5 of the package are there, 1 item of it is missing, 2 items added by hand.',
    );
  });
});
