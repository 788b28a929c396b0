<script lang="ts">
  import { api, got, type How, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { session } from '../frame/session.svelte';
  import { aspectList, kind } from '../marks/words';

  /** Every receipt of an item in a section. */
  let { section, item }: { section: string; item?: Schemas['ItemLine'] } = $props();
  let receipts = $state.raw<Schemas['ReceiptLine'][]>([]);
  let trouble = $state.raw<unknown>(null);

  $effect(() => {
    if (!item) return;
    const { master, key } = item;
    void got(
      api.GET('/api/sections/{id}/masters/{master}/items/{key}/receipts', {
        params: { path: { id: section, master, key } },
      }),
    ).then(
      (r) => (receipts = r),
      (e) => (trouble = e),
    );
  });
  const how: Record<How, string> = {
    ADDED: 'added',
    GIVEN_BACK: 'the section’s own again',
    UPDATED: 'updated',
    ADOPTED: 'adopted as it was',
    KEPT: 'kept as the section has it',
    RETIRED: 'taken out',
  };
</script>

<aside class="aside">
  <Trouble of={trouble} />
  {#if item}
    <h2>{item.title}</h2>
    <p class="quiet">
      {kind(item.kind)} of {item.masterCode}
      {#if session.coordinates}·
        <a class="link" href="/coverage/items/{item.master}/{item.key}">in all sections</a>{/if}
    </p>
    <ol>
      {#each receipts as r, i (i)}
        <li>
          <b class="fig">v{r.number}</b>
          {how[r.how]}
          <span class="quiet">
            {r.writes.length && r.writes.length < 6 ? `(${aspectList(r.writes)})` : ''}
            <When at={r.at} /> by {r.by}
          </span>
          {#if session.coordinates}<a class="link" href="/deliveries/{r.delivery}"
              >in this delivery</a
            >{/if}
        </li>
      {/each}
    </ol>
  {:else}
    <h2>What it got, and when</h2>
    <p class="quiet">
      Choose an item to see every receipt of it in this section: version, delivery, day and person.
    </p>
  {/if}
</aside>

<style>
  ol {
    padding-top: 10px;
    display: grid;
    gap: 8px;
  }
  li {
    border-left: 2px solid var(--calm);
    padding-left: 10px;
  }
</style>
