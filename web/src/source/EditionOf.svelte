<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';

  /** Of which cartridge a package is an edition, and how to say that it is of another. */
  let { edition, changed }: { edition: Schemas['Edition']; changed: () => void } = $props();
  let asking = $state(false);
  let others = $state.raw<Schemas['Edition'][]>([]);
  let trouble = $state.raw<unknown>(null);

  async function ask() {
    asking = true;
    try {
      const all = await got(api.GET('/api/cartridges'));
      const seen = new Set([edition.cartridge]);
      others = all.filter((e) => !seen.has(e.cartridge) && seen.add(e.cartridge));
    } catch (e) {
      trouble = e;
    }
  }

  async function assign(cartridge?: string) {
    const params = { path: { id: edition.id } };
    try {
      await got(
        api.PUT('/api/cartridges/editions/{id}/cartridge', { params, body: { cartridge } }),
      );
      asking = false;
      trouble = null;
      changed();
    } catch (e) {
      trouble = e;
    }
  }
</script>

<span class="line">
  {edition.title}, its edition {edition.number}
  {#if asking}
    <select
      class="entry"
      aria-label="Another cartridge"
      onchange={(e) => e.currentTarget.value && void assign(e.currentTarget.value)}
    >
      <option value="">an edition of …</option>
      {#each others as o (o.cartridge)}<option value={o.cartridge}>{o.title}</option>{/each}
    </select>
    {#if edition.number > 1}<Act onclick={() => void assign()}>A cartridge of its own</Act>{/if}
    <Act onclick={() => (asking = false)}>As it is</Act>
  {:else}
    <button type="button" class="link" onclick={() => void ask()}>It is another’s</button>
    <a class="link" href="/api/cartridges/{edition.cartridge}/archive" download
      >Keep an archive of all its editions</a
    >
  {/if}
</span>
<Trouble of={trouble} />

<style>
  .line {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
  }
  select {
    max-width: 260px;
  }
</style>
