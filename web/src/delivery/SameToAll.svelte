<script lang="ts">
  import type { Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { many } from '../marks/words';
  import { OtherShells } from './otherShells.svelte';
  import { address, ofDelivery } from './order';

  /** What was tried in a shell of its own goes to all the same way. */
  let { detail }: { detail: Schemas['DeliveryDetail'] } = $props();
  const others = new OtherShells();
  let shells = $derived(others.all);
  let tried = $derived(
    shells.filter((s) => detail.lines.some((l) => l.section === s.section && l.state === 'DONE')),
  );
  let only = $derived(tried.length > 0 && tried.length === detail.lines.length);

  function same() {
    const said = new URLSearchParams({
      master: detail.delivery.master,
      v: String(detail.delivery.number),
    });
    for (const [k, v] of Object.entries(address(ofDelivery(detail)))) if (v) said.set(k, v);
    place.go('/deliveries/new?' + said);
  }
</script>

{#if only}
  <div class="tried" role="status">
    <b>Tried in {tried.map((s) => s.title).join(', ')}.</b>
    {#each tried.filter((s) => s.address) as s (s.section)}
      <a class="link" href={s.address} target="_blank" rel="noopener">See it as a student</a>
    {/each}
    <Act main onclick={same}
      >The same to {hand.size ? many(hand.size, 'section') + ' in hand' : 'sections'} …</Act
    >
  </div>
{/if}

<style>
  .tried {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: center;
    padding: 6px 12px;
    margin-bottom: 8px;
    border-left: 3px solid var(--do);
    background: var(--do-soft);
  }
</style>
