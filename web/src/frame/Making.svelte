<script lang="ts">
  import Ring from './Ring.svelte';
  import { session } from './session.svelte';

  /** Data that come by themselves while one looks around already. */
  let { wide = false }: { wide?: boolean } = $props();
  let far = $derived(session.making);
</script>

{#if far?.failed}
  <p
    role="status"
    class="quiet far"
    class:wide
    title="Its weeks after part {far.done} are missing; ./zephyrmist reset, then start, makes it anew"
  >
    {#if wide}The demo college could not be made to its end: ./zephyrmist reset, then start, makes
      it anew.{:else}demo not finished{/if}
  </p>
{:else if far}
  <p
    role="status"
    class="quiet far"
    class:wide
    title="Its past weeks come one after the other; look around meanwhile"
  >
    <Ring done={far.done} of={far.of} />
    {#if wide}The demo college is still being made: {far.done} of {far.of} parts. You can begin.{:else}demo
      <span class="fig">{far.done}/{far.of}</span>{/if}
  </p>
{/if}

<style>
  .far {
    display: flex;
    gap: 6px;
    align-items: center;
    white-space: nowrap;
  }
  .wide {
    white-space: normal;
  }
</style>
