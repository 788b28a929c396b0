<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';

  let lines = $state.raw<Schemas['RecordLine'][] | null>(null);
  let more = $state(false);
  let trouble = $state.raw<unknown>(null);
  let q = $derived(place.get('q') ?? '');
  keyList.of = [];

  async function load(words: string, before?: number) {
    try {
      const some = await got(api.GET('/api/record', { params: { query: { q: words, before } } }));
      if (words !== q) return;
      lines = before ? [...(lines ?? []), ...some] : some;
      more = some.length === 100;
      trouble = null;
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load(q));

  function day(at: string): string {
    return new Date(at).toLocaleDateString('en-GB', {
      weekday: 'long',
      day: 'numeric',
      month: 'long',
    });
  }
  const time = (at: string) =>
    new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
</script>

<main class="page folio">
  <div class="folio-head">
    <h1>Record</h1>
    <span class="quiet">Who did what. It is only ever added to; nobody can change it.</span>
    <input
      class="entry"
      type="search"
      aria-label="Find in the record"
      placeholder="A name, a deed, a subject"
      value={q}
      oninput={(e) => place.set({ q: e.currentTarget.value })}
    />
  </div>
  <Trouble of={trouble} />
  {#if lines && !lines.length}
    <p class="quiet">{q ? `Nothing in the record says “${q}”.` : 'Nothing has been done yet.'}</p>
  {/if}
  <ol>
    {#each lines ?? [] as l, i (l.id)}
      {#if !i || day(lines![i - 1].at) !== day(l.at)}
        <li class="day" aria-hidden="true">{day(l.at)}</li>
      {/if}
      <li class="line">
        <time class="fig quiet" datetime={l.at}>{time(l.at)}</time>
        <span>{l.person ?? '–'}</span>
        <span>
          {l.what}
          {#if l.leadsTo}<a class="link" href={l.leadsTo}><b>{l.subject}</b></a>{:else}<b
              >{l.subject}</b
            >{/if}
        </span>
        <span class="quiet cut" title={l.detail}>{l.detail}</span>
      </li>
    {/each}
  </ol>
  {#if more}
    <button type="button" class="link" onclick={() => void load(q, lines?.at(-1)?.id)}
      >Show a hundred more</button
    >
  {/if}
</main>
<HandFrame title="The record" words="Newest first. Find a name or a word to narrow it." />

<style>
  .entry {
    margin-left: auto;
    width: 280px;
  }
  .day {
    color: var(--ink-2);
    padding: 12px 0 4px;
    border-bottom: 1px solid var(--line);
  }
  .line {
    display: grid;
    grid-template-columns: 60px 170px minmax(240px, 2fr) minmax(0, 3fr);
    gap: 12px;
    padding: 4px 0;
    border-bottom: 1px solid var(--line);
  }
</style>
