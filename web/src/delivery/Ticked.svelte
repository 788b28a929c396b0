<script lang="ts">
  import type { Tick } from './ticks';

  /** Our own box: filled where an item is brought, dashed with a dot where it comes along. */
  let { tick }: { tick: Tick } = $props();
</script>

<svg width="13" height="13" viewBox="0 0 13 13" aria-hidden="true" class={tick}>
  <rect x="1" y="1" width="11" height="11" rx="1.5" />
  {#if tick === 'on'}<path d="M3.5 6.7 5.6 8.8 9.6 4.4" />
  {:else if tick === 'some'}<path d="M3.8 6.5h5.4" />
  {:else if tick === 'along'}<circle cx="6.5" cy="6.5" r="2" />{/if}
</svg>

<style>
  rect {
    fill: none;
    stroke: var(--ink-3);
  }
  path {
    fill: none;
    stroke: var(--do);
    stroke-width: 1.8;
  }
  .on rect {
    fill: var(--do);
    stroke: var(--do);
  }
  .on path {
    stroke: var(--do-ink);
  }
  .some rect {
    stroke: var(--do);
    stroke-width: 1.4;
  }
  .along rect {
    stroke: var(--do);
    stroke-width: 1.4;
    stroke-dasharray: 2 1.4;
  }
  .along circle {
    fill: var(--do);
  }
</style>
