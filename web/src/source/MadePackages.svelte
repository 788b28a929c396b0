<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import When from '../frame/When.svelte';
  import { size } from '../marks/words';

  /** Packages that are made in the background, or were made these days. */
  let { id, ordered }: { id: string; ordered: number } = $props();
  let all = $state.raw<Schemas['MadePackage'][]>([]);
  let waiting = $derived(all.some((p) => p.state === 'MAKING'));
  const path = $derived({ id });

  const load = () =>
    got(api.GET('/api/masters/{id}/packages', { params: { path } })).then(
      (p) => (all = p),
      () => {}, // asked again in a second, or when the page is opened again
    );
  $effect(() => {
    void ordered;
    void load();
  });
  $effect(() => {
    if (!waiting) return;
    const timer = setInterval(() => void load(), 1_000);
    return () => clearInterval(timer);
  });
</script>

{#if all.length}
  <ul aria-label="Packages made in the background" aria-live="polite">
    {#each all as p (p.id)}
      <li>
        {#if p.state === 'READY'}
          <a class="link" href="/api/masters/{id}/packages/{p.id}" download>{p.fileName}</a>
          <span class="quiet">{size(p.bytes ?? 0)}, made <When at={p.at} /></span>
        {:else if p.state === 'FAILED'}
          <span>{p.fileName}</span> <span class="harm">{p.problem} Order it again.</span>
        {:else}
          <span>{p.fileName}</span>
          <span class="quiet"
            >is being made{p.bytes ? `, ${size(p.bytes)} so far` : ''}; you may leave this page</span
          >
        {/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  li {
    display: flex;
    gap: 10px;
    flex-wrap: wrap;
  }
  .harm {
    color: var(--harm);
  }
</style>
