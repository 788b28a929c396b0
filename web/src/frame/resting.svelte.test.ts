import { flushSync } from 'svelte';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { place } from './place.svelte';
import { resting } from './resting.svelte';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

function watched() {
  place.go('/x?item=a');
  const seen: string[] = [];
  const stop = $effect.root(() =>
    resting(
      () => place.get('item'),
      (v) => seen.push(v),
    ),
  );
  flushSync();
  const to = (item: string, after: number) => {
    vi.advanceTimersByTime(after);
    place.set({ item });
    flushSync();
  };
  return { seen, to, stop };
}

it('opens at once what is chosen slowly', () => {
  const { seen, to, stop } = watched();
  to('b', 500);
  to('c', 500);
  vi.advanceTimersByTime(0);
  expect(seen).toEqual(['a', 'b', 'c']);
  stop();
});

it('opens only the last of what is run through', () => {
  const { seen, to, stop } = watched();
  for (const item of ['b', 'c', 'd', 'e']) to(item, 40);
  vi.advanceTimersByTime(1_000);
  expect(seen).toEqual(['a', 'e']);
  stop();
});
