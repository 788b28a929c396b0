<script lang="ts">
  import { Alert } from 'flowbite-svelte';
  import { Problem } from '../api/client';

  let { of }: { of: unknown } = $props();
  let said = $derived(of instanceof Error ? of.message : 'Something went wrong.');
  let remedy = $derived(of instanceof Problem ? of.remedy : 'Load the page again.');
</script>

{#if of}
  <Alert class="trouble" role="alert"><b>{said}</b> {remedy}</Alert>
{/if}

<style>
  :global(.trouble) {
    background: var(--harm-soft);
    color: var(--ink);
    border-left: 3px solid var(--harm);
    border-radius: 0;
    padding: 8px 12px;
    font: inherit;
    margin: 8px 0;
  }
</style>
