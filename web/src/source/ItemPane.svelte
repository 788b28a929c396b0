<script lang="ts">
  import type { Schemas } from '../api/client';
  import { place } from '../frame/place.svelte';
  import ItemAbout from './ItemAbout.svelte';
  import ItemFacts from './ItemFacts.svelte';
  import ItemRules from './ItemRules.svelte';
  import Write from './Write.svelte';

  /** An item of a master: as students see it, or to be written. A frozen one is only looked at. */
  let {
    item,
    page,
    stamp,
    frozen,
    change,
    takeOut,
  }: {
    item: Schemas['ItemView'];
    page: string;
    stamp: number;
    frozen: boolean;
    change: (body: Schemas['ItemChange']) => Promise<void>;
    takeOut: () => void;
  } = $props();

  let tab = $derived(place.get('tab') || 'see');
</script>

<div class="ph">
  <b class="cut">{item.title}</b>
  <span class="tabs" role="tablist">
    <button
      class="tab"
      role="tab"
      aria-selected={tab === 'see'}
      onclick={() => place.set({ tab: '' })}>As students see it</button
    >
    {#if !frozen}
      <button
        class="tab"
        role="tab"
        aria-selected={tab === 'write'}
        onclick={() => place.set({ tab: 'write' })}>Write</button
      >
      <button class="tab" role="tab" aria-selected="false" onclick={takeOut}>Take out</button>
    {/if}
  </span>
</div>
{#if tab === 'write' && !frozen}
  {#key item.key + stamp}<Write {item} save={change} />{/key}
{:else}
  <div class="seen"><ItemAbout {item} /><ItemFacts {item} {page} /></div>
{/if}
<ItemRules {item} {frozen} {change} />

<style>
  .seen {
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .ph {
    display: flex;
    gap: 18px;
    align-items: baseline;
    padding: 10px 20px 6px;
    border-bottom: 1px solid var(--line-soft);
  }
  .tabs {
    margin-left: auto;
    display: flex;
    gap: 18px;
  }
</style>
