import { describe, expect, it } from 'vitest';
import { file, query, said, type Asked } from './ledger';

const nothing: Asked = {
  section: '',
  master: '',
  version: '',
  item: '',
  delivery: '',
  person: '',
  from: '',
  to: '',
};

describe('the ledger', () => {
  it('asks only for what matters', () => {
    expect(query({ ...nothing, section: '110-04', version: '3' })).toEqual({
      section: '110-04',
      version: 3,
    });
    expect(query({ ...nothing, version: 'x' })).toEqual({});
  });
  it('is a table of the same', () => {
    expect(file({ ...nothing, from: '2026-09-01' }, 'CSV')).toBe(
      '/api/ledger/receipts/file?format=CSV&from=2026-09-01',
    );
  });
  it('says how many it found, and of which days', () => {
    expect(said(nothing, 1, false)).toBe('1 receipt');
    expect(said({ ...nothing, from: '2026-09-01', to: '2026-09-03' }, 200, true)).toBe(
      'The newest 200 receipts, from 2026-09-01 to 2026-09-03',
    );
  });
});
