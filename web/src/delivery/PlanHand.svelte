<script lang="ts">
  import type { Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import When from '../frame/When.svelte';
  import { place } from '../frame/place.svelte';
  import { many } from '../marks/words';
  import { address, type Order } from './order';

  /** What can be done with a plan that is not confirmed. */
  let {
    detail,
    order,
    planned,
    change,
    confirm,
  }: {
    detail: Schemas['DeliveryDetail'];
    order: Order;
    planned: boolean;
    change: (to: Partial<Order>) => void;
    confirm: (begin: Schemas['Begin']) => void;
  } = $props();
  let d = $derived(detail.delivery);
  let ready = $derived(detail.lines.filter((l) => l.state === 'PLANNED'));
  let later = $derived(detail.lines.filter((l) => l.state === 'NOT_YET').length);
  let moving = $derived(ready.filter((l) => l.steps > 0).length);
  let all = $derived(detail.together.length);
  /** Every part of the order has a plan. */
  let whole = $derived(planned && detail.together.every((o) => o.state !== 'PLANNING'));
  let open = $derived(place.get('choices'));
  let at = $state('');
  let tell = $state<NonNullable<Schemas['Begin']['tell']>>('SENDER');
  let note = $state('');

  function reorder() {
    const said = new URLSearchParams({ of: d.id, master: d.master, v: String(d.number) });
    for (const [name, value] of Object.entries(address(order))) if (value) said.set(name, value);
    place.go('/deliveries/new?' + said.toString());
  }
  let word = $derived(detail.secondWord);
  let words = $derived.by(() => {
    if (word?.askedBy && word.mine) return 'Waits for a second person’s word';
    if (word && !word.askedBy) return `Ask for a second word on ${many(ready.length, 'section')}`;
    const n = many(moving || ready.length, 'section');
    if (d.takesBack) return `Take back in ${n}`;
    if (d.edit && moving) return `Change it in ${n}`;
    if (!ready.length && later) return `Let ${many(later, 'section')} wait`;
    return moving || !planned || all
      ? `Deliver ${all ? `all ${all} ` : ''}to ${n}${later ? `, ${later} later` : ''}`
      : 'Record that nothing was to do';
  });
</script>

{#if word && !open}
  <span class="quiet word" role="status">
    {#if word.askedBy}
      {word.mine ? 'You asked' : `${word.askedBy} asked`} for a second word <When
        at={word.askedAt ?? ''}
      />.
    {:else if word.why === 'SECTIONS'}So many sections need a second person’s word.
    {:else}It removes something, so it needs a second person’s word.{/if}
  </span>
{/if}
{#if open === 'open'}
  {#if d.takesBack}
    <select
      class="entry"
      aria-label="What was changed since"
      disabled={!planned}
      value={d.clash}
      onchange={(e) => change({ clash: e.currentTarget.value as Order['clash'] })}
    >
      <option value="KEEP_SECTION">Changed since: it stays</option>
      <option value="TAKE_VERSION">Changed since: undo it too</option>
    </select>
  {:else if !d.edit}
    <select
      class="entry"
      aria-label="In a clash"
      disabled={!planned}
      value={d.clash}
      onchange={(e) => change({ clash: e.currentTarget.value as Order['clash'] })}
    >
      <option value="KEEP_SECTION">Clash: keep the section’s</option>
      <option value="TAKE_VERSION">Clash: take the version’s</option>
      <option value="PUT_BACK">Put back all that was changed</option>
    </select>
    <select
      class="entry"
      aria-label="With a twin"
      disabled={!planned}
      value={d.twin}
      onchange={(e) => change({ twin: e.currentTarget.value as Order['twin'] })}
    >
      <option value="ADOPT">Twin: adopt it unchanged</option>
      <option value="ADD">Twin: add ours beside it</option>
      <option value="LEAVE">Twin: leave it alone</option>
    </select>
    <Act disabled={!planned} onclick={reorder}>What, and how it arrives …</Act>
  {/if}
{/if}
{#if open === 'time'}
  <label class="at"
    >Begin at <input class="entry" type="datetime-local" bind:value={at} required /></label
  >
{/if}
{#if !open}
  <select class="entry tell" aria-label="Who is told by mail when it has ended" bind:value={tell}>
    <option value="SENDER">Mail me at the end</option>
    <option value="INSTRUCTORS">Mail me and the instructors</option>
    <option value="NOBODY">Mail nobody</option>
  </select>
  {#if tell === 'INSTRUCTORS'}
    <input
      class="entry"
      aria-label="Why it comes, for the instructors"
      placeholder="Why it comes"
      maxlength="5000"
      bind:value={note}
    />
  {/if}
{/if}
<Act onclick={() => place.set({ choices: open ? '' : 'open' })}>{open ? 'Close' : 'Choices…'}</Act>
{#if open !== 'time'}
  <Act disabled={!whole || !ready.length} onclick={() => place.set({ choices: 'time' })}
    >At a set time…</Act
  >
  <Act
    main
    disabled={!whole || !(ready.length + later) || word?.mine}
    onclick={() => confirm({ tell, note })}>{words}</Act
  >
{:else}
  <Act
    main
    disabled={!whole || !at || !ready.length}
    onclick={() => confirm({ at: new Date(at).toISOString(), tell, note })}>{words} then</Act
  >
{/if}

<style>
  .tell {
    max-width: 190px;
  }
  .word {
    max-width: 220px;
    font-size: 13px;
    line-height: 16px;
  }
  .at {
    display: flex;
    gap: 8px;
    align-items: center;
  }
</style>
