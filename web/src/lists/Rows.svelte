<script lang="ts" generics="T">
  import type { Snippet } from 'svelte';
  import type { HTMLAttributes } from 'svelte/elements';

  /** A long list of which only what is seen is drawn. Every row has the same height. */
  let {
    rows,
    height,
    row,
    label,
    role = 'rowgroup',
    key = (_r: T, i: number): string | number => i,
    least = '0',
    left = $bindable(0),
    ...rest
  }: {
    rows: T[];
    height: number;
    row: Snippet<[T, number]>;
    label?: string;
    role?: string;
    /** What makes a row the same row when the list changes its order. */
    key?: (row: T, i: number) => string | number;
    /** Width below which the rows are moved sideways instead of squeezed. */
    least?: string;
    /** How far they are moved. */
    left?: number;
  } & Omit<HTMLAttributes<HTMLDivElement>, 'role'> = $props();
  let top = $state(0);
  let room = $state(600);
  let box = $state<HTMLElement>();
  let from = $derived(Math.max(0, Math.floor(top / height) - 8));
  let to = $derived(Math.min(rows.length, Math.ceil((top + room) / height) + 8));

  /** Rows that are in sight at once. */
  export function page(): number {
    return Math.max(1, Math.floor(room / height) - 1);
  }

  /** Brings a row into sight. */
  export function reveal(i: number) {
    if (!box) return;
    if (i * height < box.scrollTop) box.scrollTop = i * height;
    else if ((i + 1) * height > box.scrollTop + room) box.scrollTop = (i + 1) * height - room;
  }
</script>

<div
  class="rows"
  bind:this={box}
  bind:clientHeight={room}
  onscroll={(e) => ((top = e.currentTarget.scrollTop), (left = e.currentTarget.scrollLeft))}
  {role}
  aria-label={label}
  {...rest}
>
  <div
    style="height:{rows.length * height}px;position:relative;min-width:{least}"
    role="presentation"
  >
    <div style="transform:translateY({from * height}px)" role="presentation">
      {#each rows.slice(from, to) as r, i (key(r, from + i))}{@render row(r, from + i)}{/each}
    </div>
  </div>
</div>

<style>
  .rows:focus-visible {
    outline: 2px solid var(--do);
    outline-offset: -2px;
  }
  .rows {
    overflow: auto;
    min-height: 0;
    flex: 1;
  }
</style>
