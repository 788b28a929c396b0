import type { StepKind } from '../api/client';
import { aspectList } from '../marks/words';
import type { Change } from './merge.svelte';

/** The step that a change means for the master. */
export const marks: Record<Change['what'], StepKind> = {
  SAME: 'SAME',
  TAKE: 'UPDATE',
  ADD: 'ADD',
  RETIRE: 'RETIRE',
  CLASH: 'CLASH',
  STAYS: 'KEEP',
  TAKEN_OUT: 'KEEP',
  DOUBT: 'TWIN',
};
/** What a change does to the master, in words. */
export function does(c: Change, side: 'OURS' | 'THEIRS' | 'TOGETHER' | undefined): string {
  switch (c.what) {
    case 'TAKE':
      return 'take: ' + aspectList(c.theirs);
    case 'ADD':
      return 'take: new';
    case 'RETIRE':
      return 'gone there: take out';
    case 'CLASH': {
      const said = { OURS: 'ours stays', THEIRS: 'edition’s taken', TOGETHER: 'both taken' };
      return side ? said[side] : 'both changed the ' + aspectList(c.clash);
    }
    case 'STAYS':
      return c.ours.length ? 'gone there; ours changed, stays' : 'gone there; holds ours, stays';
    case 'TAKEN_OUT':
      return 'changed there; not in ours';
    case 'DOUBT':
      return 'decide the pair';
    default:
      return '';
  }
}
