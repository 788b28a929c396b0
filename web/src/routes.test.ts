import { describe, expect, it } from 'vitest';
import Coverage from './coverage/Coverage.svelte';
import Deliveries from './delivery/Deliveries.svelte';
import MySections from './section/MySections.svelte';
import SectionPage from './section/SectionPage.svelte';
import MasterPage from './source/MasterPage.svelte';
import { found } from './routes';

describe('the page of a path', () => {
  it('is one of something where its id follows', () => {
    expect(found('/sources/masters/m1', true)).toEqual({ one: MasterPage, id: 'm1' });
  });
  it('is the list where no id follows', () => {
    expect(found('/deliveries/', true)).toEqual({ page: Deliveries });
  });
  it('is coverage for whatever else there is', () => {
    expect(found('/', true)).toEqual({ page: Coverage });
  });
  it('is an instructor’s own where they may not look', () => {
    expect(found('/sources/masters/m1', false)).toEqual({ page: MySections });
    expect(found('/sections/s1', false)).toEqual({ one: SectionPage, id: 's1' });
  });
});
