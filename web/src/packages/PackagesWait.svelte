<script lang="ts">
  import type { Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { many } from '../marks/words';
  import { allOf, broughtIn } from './packages';

  /** Packages of a delivery that somebody has to bring in. */
  let { delivery, lines }: { delivery: string; lines: Schemas['DeliveryLine'][] } = $props();
  let trouble = $state.raw<unknown>(null);
  let said = $state('');
  let n = $derived(lines.length);
  let inHand = $derived(lines.filter((l) => hand.has(l.section)));

  async function done(some: Schemas['DeliveryLine'][]) {
    trouble = null;
    try {
      const there = await broughtIn(some.map((l) => l.section));
      said = `${many(there, 'section')} ${there === 1 ? 'goes' : 'go'} on now.`;
    } catch (e) {
      trouble = e;
    }
  }
</script>

<div class="wait" role="status">
  <b>{many(n, 'package')} {n === 1 ? 'waits' : 'wait'} to be brought in.</b>
  <a class="link" href={allOf(delivery)} download
    >Download {n === 1 ? 'it' : 'all'} with {n === 1 ? 'its sheet' : 'their sheets'}</a
  >
  {#if inHand.length && inHand.length < n}
    <Act onclick={() => done(inHand)}>The {inHand.length} in hand were brought in</Act>
  {/if}
  <Act onclick={() => done(lines)}>{n === 1 ? 'It was' : 'All were'} brought in</Act>
  <span class="quiet">Or upload the export of a shell at its section: that proves it.</span>
  {#if said}<span>{said}</span>{/if}
  <Trouble of={trouble} />
</div>

<style>
  .wait {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: center;
    padding: 6px 12px;
    margin-bottom: 8px;
    border-left: 3px solid var(--mind-mark);
    background: var(--mind-soft);
  }
</style>
