<script lang="ts">
  import type { Sort } from './ribbon';

  /** The mark of what a date is. */
  let { sort }: { sort: Sort } = $props();
</script>

<svg viewBox="0 0 12 12" width="12" height="12" aria-hidden="true" class={sort}>
  {#if sort === 'plain'}
    <circle cx="6" cy="6" r="1.5" />
  {:else if sort === 'off'}
    <path d="M1 2 5.4 6 1 10zM11 2 6.6 6 11 10z" />
  {:else if sort === 'two'}
    <path
      class="line"
      d="M4.4 2.6a3.4 3.4 0 1 0 0 6.8 3.4 3.4 0 0 0 0-6.8zM7.6 2.6a3.4 3.4 0 1 0 0 6.8 3.4 3.4 0 0 0 0-6.8z"
    />
  {:else if sort === 'outside'}
    <path d="M1 1h10v10H1zM3 5h6v2H3z" fill-rule="evenodd" />
  {:else}
    <path class="line" d="M6 1 11 6 6 11 1 6z" />
  {/if}
</svg>

<style>
  .plain {
    fill: var(--calm);
  }
  .off,
  .two {
    fill: var(--mind-mark);
  }
  .outside {
    fill: var(--harm);
  }
  .line {
    fill: none;
    stroke: currentColor;
    stroke-width: 1.4;
  }
  .two .line {
    stroke: var(--mind-mark);
  }
  .own .line {
    stroke: var(--own);
  }
</style>
