<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import { place } from '../frame/place.svelte';

  /** What a delivery is called; and the end of a plan that nobody wants. */
  let { delivery, changed }: { delivery: Schemas['DeliverySummary']; changed: () => void } =
    $props();
  let trouble = $state.raw<unknown>(null);
  let sure = $state(false);
  let params = $derived({ path: { id: delivery.id } });

  async function name(to: string) {
    if (to.trim() === delivery.name) return;
    try {
      await got(api.PUT('/api/deliveries/{id}/name', { params, body: { name: to } }));
      trouble = null;
      changed();
    } catch (e) {
      trouble = e;
    }
  }

  async function throwAway() {
    if (!sure) {
      sure = true;
      return;
    }
    try {
      await got(api.DELETE('/api/deliveries/{id}', { params }));
      place.go('/deliveries');
    } catch (e) {
      trouble = e;
    }
  }
</script>

<div class="called">
  <input
    class="entry"
    aria-label="Name of this delivery"
    placeholder="Name, to find it again"
    maxlength="200"
    value={delivery.name}
    onchange={(e) => void name(e.currentTarget.value)}
  />
  {#if !delivery.confirmedAt}
    <button class="link" onclick={throwAway} onblur={() => (sure = false)}
      >{sure ? 'Yes, throw this plan away' : 'Throw this plan away'}</button
    >
  {/if}
  <Trouble of={trouble} />
</div>

<style>
  .called {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 12px;
    margin: 2px 0 6px;
  }
  input {
    width: min(340px, 100%);
    min-height: 28px;
    padding-block: 2px;
  }
</style>
