<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import { ago, kind, many } from '../marks/words';

  /** What stands in a section's shell that no master brought, as of the last reading. */
  let {
    section,
    read,
  }: {
    section: string;
    /** Asked again whenever the section was read again. */
    read: unknown;
  } = $props();
  let items = $state.raw<Schemas['AddedByHand'][]>([]);
  let trouble = $state.raw<unknown>(null);
  $effect(() => {
    void read;
    const params = { path: { id: section } };
    void got(api.GET('/api/sections/{id}/own', { params })).then(
      (o) => (items = o),
      (e) => (trouble = e),
    );
  });
</script>

<Trouble of={trouble} />
{#if items.length}
  <details>
    <summary>{many(items.length, 'item')} added by hand</summary>
    <ul>
      {#each items as o, i (i)}
        <li>
          <span class="cut">{o.title}</span>
          <span class="quiet">{kind(o.kind)}</span>
          <span class="faint">{o.by}{o.at ? `, ${ago(o.at)}` : ''}</span>
        </li>
      {/each}
    </ul>
  </details>
{/if}

<style>
  details {
    margin: 2px 0 6px;
    font-size: 13.5px;
  }
  ul {
    max-height: 180px;
    overflow: auto;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 340px) 110px 1fr;
    gap: 12px;
    border-bottom: 1px solid var(--line-soft);
    padding: 2px 0;
  }
</style>
