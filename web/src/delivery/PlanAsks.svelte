<script lang="ts">
  import type { Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { many } from '../marks/words';
  import { waits } from './waits';
  import type { Order } from './order';

  /** What of a plan fails, what waits, and what a person is asked for many sections at once. */
  let {
    detail,
    plan,
    order,
    planned,
    change,
  }: {
    detail: Schemas['DeliveryDetail'];
    plan: Schemas['DeliveryPlan'] | null;
    order: Order;
    planned: boolean;
    change: (to: Partial<Order>) => void;
  } = $props();
  let confirmed = $derived(Boolean(detail.delivery.confirmedAt));
  let failing = $derived(
    detail.lines.filter(
      (l) => l.state === 'NEEDS_PERSON' || (l.state === 'TRYING_AGAIN' && !confirmed),
    ),
  );
  let waiting = $derived(waits(detail.lines));

  /** Sections in whose lines a reason stands. */
  function because(reason: Schemas['StepCode']['reason']) {
    if (!plan) return [];
    const codes = new Set(plan.codes.flatMap((c, i) => (c.reason === reason ? [i] : [])));
    const { lines, steps } = plan;
    const so = new Set(lines.filter((_, i) => steps[i].some((c, j) => j % 2 && codes.has(c))));
    return codes.size ? detail.lines.filter((l) => so.has(l.id)) : [];
  }
  let emptied = $derived(because('EMPTIED'));
  let worked = $derived(because('NOT_CLEARED'));
  let added = $derived(because('WEEKS_ADDED'));
  let placeless = $derived(because('NO_WEEK'));
  const codes = (lines: Schemas['DeliveryLine'][]) =>
    lines
      .slice(0, 4)
      .map((l) => l.code)
      .join(', ') + (lines.length > 4 ? ' …' : '');
</script>

{#each failing as l (l.id)}
  <p class="failing">
    <b class="fig">{l.code}</b>
    {l.reason}
    {l.remedy ?? 'It is tried again.'}
  </p>
{/each}
{#if !confirmed}
  {#each waiting as w (w.what)}
    <p class="ask">
      <span>{w.said} ({codes(w.lines)}). {w.then}</span>
    </p>
  {/each}
  {#if worked.length}
    <p class="ask">
      <span
        >{many(worked.length, 'shell')}
        {worked.length === 1 ? 'is' : 'are'} not cleared: students have handed in work in {codes(
          worked,
        )}. Nothing is done there.</span
      >
    </p>
  {/if}
  {#if added.length}
    <p class="ask">
      <span
        >{many(added.length, 'shell')}
        {added.length === 1 ? 'has' : 'have'} too few places for weeks ({codes(added)}). Places are
        added.</span
      >
      <Act disabled={!planned} onclick={() => change({ weeks: 'LEAVE_OUT' })}
        >Leave those weeks out</Act
      >
    </p>
  {/if}
  {#if placeless.length}
    <p class="ask">
      <span
        >{many(placeless.length, 'shell')}
        {placeless.length === 1 ? 'has' : 'have'} too few places for weeks ({codes(placeless)}).
        Weeks without a place do not come there.</span
      >
      <Act disabled={!planned} onclick={() => change({ weeks: 'ADD' })}>Add places</Act>
    </p>
  {/if}
  {#if emptied.length}
    <p class="ask">
      <span
        >{many(emptied.length, 'shell')}
        {emptied.length === 1 ? 'was' : 'were'} emptied: nearly all that was delivered is gone from
        {codes(emptied)}. {order.emptied === 'LEAVE'
          ? 'They stay as they are.'
          : 'Nothing is done there until you say so.'}</span
      >
      <Act disabled={!planned} onclick={() => change({ emptied: 'ANEW' })}>Deliver anew</Act>
      {#if order.emptied === 'ASK'}
        <Act disabled={!planned} onclick={() => change({ emptied: 'LEAVE' })}
          >Leave as {emptied.length === 1 ? 'it is' : 'they are'}</Act
        >
      {/if}
    </p>
  {/if}
{/if}

<style>
  .failing {
    background: var(--harm-soft);
    border-left: 3px solid var(--harm);
    padding: 4px 10px;
    margin: 0 16px 4px 0;
  }
  .ask {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 10px;
    align-items: center;
    background: var(--mind-soft);
    border-left: 3px solid var(--mind-mark);
    padding: 6px 10px;
    margin: 0 16px 6px 0;
  }
</style>
