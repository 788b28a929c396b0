<script lang="ts">
  import { api, counted, got, type Aspect, type Schemas } from '../api/client';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { heard } from '../frame/heard';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import Rows from '../lists/Rows.svelte';
  import StepMark from '../marks/StepMark.svelte';
  import { aspect, kind, many } from '../marks/words';

  /** What sections changed of a master, item by item, the most changed first. */
  let { id }: { id: string } = $props();
  type Line = Schemas['DriftLine'];
  type Added = Schemas['AddedLine'];
  let lines = $state.raw<Line[] | null>(null);
  let added = $state.raw<Added[] | null>(null);
  let byHand = $derived(place.get('view') === 'added');
  let master = $state.raw<Schemas['MasterView'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  keyList.of = [];

  $effect(() => {
    return heard(
      got(api.GET('/api/masters/{id}', { params: { path: { id } } })),
      (m) => (master = m),
      (e) => (trouble = e),
    );
  });
  $effect(() => {
    const params = { path: { id } };
    if (!session.term) return;
    const query = { term: session.term.id };
    const both = Promise.all([
      got(api.GET('/api/coverage/masters/{id}/drift', { params: { ...params, query } })),
      got(api.GET('/api/coverage/masters/{id}/added', { params: { ...params, query } })),
    ]);
    return heard(
      both,
      ([l, a]) => ((lines = l), (added = a)),
      (e) => (trouble = e),
    );
  });
  const how = (l: Line) =>
    [
      ...counted<Aspect>(l.changed).map(([a, n]) => `${aspect(a)} in ${n}`),
      l.gone ? `taken out in ${l.gone}` : '',
    ]
      .filter(Boolean)
      .join(' · ');
</script>

<main class="page folio">
  <h1>
    {#if !lines || !master}Looking at what sections changed …
    {:else if lines.length}
      {many(lines.length, 'item')} of {master.code}
      {lines.length === 1 ? 'is' : 'are'} not as delivered somewhere
    {:else}Every section has {master.code} as it was delivered{/if}
  </h1>
  {#if lines && added}
    <nav class="views" aria-label="What sections did">
      <a href="/coverage/drift/{id}" aria-current={byHand ? undefined : 'page'}
        >Changed: {many(lines.length, 'item')}</a
      >
      <a href="/coverage/drift/{id}?view=added" aria-current={byHand ? 'page' : undefined}
        >Added by hand: {many(added.length, 'item')}</a
      >
    </nav>
  {/if}
  <Trouble of={trouble} />
  {#if byHand && added?.length === 0}
    <p class="quiet">Nothing stands in their shells that no master brought.</p>
  {:else if byHand && added}
    <Rows
      rows={added}
      height={32}
      key={(a: Added) => a.kind + a.title}
      row={ofTheirOwn}
      role="group"
      label="Items that sections added by hand"
    />
  {:else if lines}
    <Rows
      rows={lines}
      height={32}
      key={(l: Line) => l.key}
      row={one}
      role="group"
      label="Items that sections changed"
    />
  {/if}
</main>
{#snippet one(l: Line)}
  <a class="l" href="/coverage/items/{id}/{l.key}">
    <StepMark kind={l.gone > l.sections ? 'RETIRE' : 'KEEP'} size={13} />
    <span class="cut">{l.title}</span>
    <span class="quiet">{kind(l.kind)}</span>
    <span class="fig">{many(l.sections + l.gone, 'section')}</span>
    <span class="quiet cut">{how(l)}</span>
  </a>
{/snippet}
{#snippet ofTheirOwn(a: Added)}
  <div class="l own">
    <StepMark kind="ADD" size={13} />
    <span class="cut">{a.title}</span>
    <span class="quiet">{kind(a.kind)}</span>
    <span class="fig">{many(a.sections.length, 'section')}</span>
    <span
      ><button
        type="button"
        class="link"
        aria-label="Take in hand the sections with {a.title}"
        onclick={() => hand.take(a.sections)}>Take in hand</button
      ></span
    >
  </div>
{/snippet}
<HandFrame
  title={hand.size ? many(hand.size, 'section') + ' in hand' : 'No section in hand'}
  words={byHand
    ? 'As of the last reading of each shell.'
    : 'Choose an item to see what was made of it, and where.'}
/>

<style>
  .page {
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
  .l {
    display: grid;
    grid-template-columns: 20px minmax(0, 1fr) 120px 100px minmax(0, 1.2fr);
    gap: 12px;
    align-items: center;
    height: 32px;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13.5px;
  }
  .own {
    height: 31px;
  }
  .views {
    display: flex;
    gap: 18px;
  }
  .views a {
    padding: 2px 0;
    border-bottom: 2px solid transparent;
  }
  .views [aria-current] {
    border-bottom-color: var(--do);
    font-weight: 650;
  }
  .l:hover {
    background: var(--do-soft);
  }
</style>
