<script lang="ts">
  import { api, got, type Difference, type Schemas, type StepKind } from '../api/client';
  import StepMark from '../marks/StepMark.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { heard } from '../frame/heard';
  import { place } from '../frame/place.svelte';
  import { aspectList, kind, many } from '../marks/words';
  import TextChanges from './TextChanges.svelte';

  /** What differs between two versions; 0 is the draft. */
  let {
    id,
    numbers,
    stamp = 0,
  }: {
    id: string;
    numbers: number[];
    /** Another number after each change of the draft. */
    stamp?: number;
  } = $props();
  let changes = $state.raw<Schemas['ChangeView'][] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let open = $state('');
  let from = $derived(Number(place.get('from') || (numbers.at(-1) ?? 0)));
  let to = $derived(Number(place.get('to') || 0));

  $effect(() => {
    const query = { from, to };
    void stamp;
    return heard(
      got(api.GET('/api/masters/{id}/changes', { params: { path: { id }, query } })),
      (c) => (changes = c),
      (e) => (trouble = e),
    );
  });

  const marks: Record<Difference, StepKind> = {
    ADDED: 'ADD',
    GONE: 'RETIRE',
    MOVED: 'UPDATE',
    CHANGED: 'UPDATE',
  };
  const name = (n: number) => (n ? 'version ' + n : 'the draft');
</script>

<section>
  <div class="head">
    <h2>From</h2>
    <select
      class="entry"
      aria-label="From version"
      value={from}
      onchange={(e) => place.set({ from: e.currentTarget.value })}
    >
      {#each numbers as n (n)}<option value={n}>version {n}</option>{/each}
    </select>
    <h2>to</h2>
    <select
      class="entry"
      aria-label="To version"
      value={to}
      onchange={(e) => place.set({ to: e.currentTarget.value, from: String(from) })}
    >
      {#each numbers as n (n)}<option value={n}>version {n}</option>{/each}
      <option value={0}>the draft</option>
    </select>
    {#if changes}<span class="quiet"
        >{changes.length ? many(changes.length, 'difference') : ''}</span
      >{/if}
  </div>
  <Trouble of={trouble} />
  {#if changes && !changes.length}<p class="quiet">
      Nothing differs from {name(from)} to {name(to)}.
    </p>{/if}
  <ul aria-label="Differences">
    {#each changes ?? [] as c (c.key)}
      <li>
        <StepMark kind={marks[c.how]} />
        <span class="how">{c.how.toLowerCase()}</span>
        {#if c.how === 'GONE'}
          <span class="cut">{c.title}</span>
        {:else}
          <button
            class="link cut plain"
            onclick={() =>
              place.set({ item: c.key, from: '', to: '', version: to ? String(to) : '' })}
            >{c.title}</button
          >
        {/if}
        <span class="quiet cut">
          {kind(c.kind)}{c.aspects.length ? ': ' + aspectList(c.aspects) : ''}{c.rule
            ? `${c.aspects.length ? ', ' : ': '}edit rule or whom it is for`
            : ''}{c.before !== c.title ? `, was “${c.before}”` : ''}
        </span>
        {#if c.aspects.includes('WORDING')}
          <button
            class="link"
            aria-expanded={open === c.key}
            aria-label="Text of {c.title}"
            onclick={() => (open = open === c.key ? '' : c.key)}>text</button
          >
        {:else}<span></span>{/if}
      </li>
      {#if open === c.key}
        <li class="whole"><TextChanges {id} key={c.key} {from} {to} /></li>
      {/if}
    {/each}
  </ul>
</section>

<style>
  section {
    padding: 16px 20px;
    overflow: auto;
    min-height: 0;
    grid-row: 1 / 4;
  }
  .head {
    display: flex;
    gap: 10px;
    align-items: center;
    padding-bottom: 8px;
  }
  li {
    display: grid;
    grid-template-columns: 16px 70px minmax(0, auto) minmax(0, 1fr) 40px;
    gap: 8px;
    align-items: center;
    height: 28px;
    border-bottom: 1px solid var(--line-soft);
  }
  .whole {
    display: block;
    height: auto;
  }
  .how {
    color: var(--ink-2);
  }
  .plain {
    text-decoration: none;
    text-align: left;
  }
</style>
