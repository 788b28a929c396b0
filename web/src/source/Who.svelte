<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import type { Node } from './tree';

  /** For whom an item is, when it opens, and what it goes with. */
  let {
    item,
    nodes,
    change,
    tie,
  }: {
    item: Schemas['ItemView'];
    nodes: Node[];
    change: (c: Schemas['ItemChange']) => Promise<unknown>;
    tie: (keys: string[], together: boolean) => Promise<void>;
  } = $props();
  type What = Schemas['Waits']['what'];
  const whats: [What, string][] = [
    ['READ', 'was opened'],
    ['HANDED_IN', 'was handed in'],
    ['SCORE', 'was graded with at least'],
    ['DAY', 'this day has come'],
  ];
  const own = untrack(() => item.own);
  const rowsOf = () =>
    item.conditions.map((c) => ({
      item: c.item ?? '',
      what: c.what as string,
      value: c.percent ?? c.from ?? '',
    }));
  let campuses = $state.raw<Schemas['CampusView'][]>([]);
  let chosen = $state<string[]>([...(own?.appliesTo.campuses ?? [])]);
  let modes = $state((own?.appliesTo.modes ?? []).join(', '));
  let tags = $state((own?.appliesTo.tags ?? []).join(', '));
  let nobody = $state(own?.appliesTo.nobody ?? false);
  let instructors = $state(untrack(() => item.instructorsOnly));
  let rows = $state(untrack(rowsOf));
  const begun = untrack(() => JSON.stringify(written()));
  let other = $state('');

  void got(api.GET('/api/campuses')).then((c) => (campuses = c));

  const list = (text: string) =>
    text
      .split(',')
      .map((t) => t.trim())
      .filter(Boolean);
  function written() {
    return { chosen, modes, tags, nobody, instructors, rows };
  }
  let changed = $derived(JSON.stringify(written()) !== begun);
  let titles = $derived(new Map(nodes.map((n) => [n.key, n.title])));
  let tied = $derived(item.own?.goesWith ?? []);
  let others = $derived(nodes.filter((n) => n.key !== item.key && !tied.includes(n.key)));

  function waits(r: { item: string; what: string; value: string }): Schemas['Waits'] {
    const what = r.what as What;
    if (what === 'DAY') return { what, from: r.value };
    return { what, item: r.item, percent: what === 'SCORE' ? r.value : undefined };
  }

  async function send(e: SubmitEvent) {
    e.preventDefault();
    await change({
      appliesTo: { campuses: chosen, modes: list(modes), tags: list(tags), nobody },
      instructorsOnly: instructors === item.instructorsOnly ? undefined : instructors,
      conditions: rows.map(waits),
    });
  }
</script>

<form onsubmit={send}>
  <fieldset>
    <legend>Sections it is meant for</legend>
    <div class="line">
      {#each campuses as c (c.sourcedId)}
        <label class="check"
          ><input
            type="checkbox"
            value={c.sourcedId}
            bind:group={chosen}
            disabled={nobody}
          />{c.name}</label
        >
      {/each}
      <span class="quiet">{chosen.length ? '' : 'none chosen: every campus'}</span>
    </div>
    <div class="line">
      <label
        ><span class="words">Ways of teaching</span><input
          class="entry"
          placeholder="all"
          disabled={nobody}
          bind:value={modes}
        /></label
      >
      <label
        ><span class="words">Tags, one of which a section has</span><input
          class="entry"
          placeholder="any"
          disabled={nobody}
          bind:value={tags}
        /></label
      >
    </div>
    <label class="check"
      ><input type="checkbox" bind:checked={nobody} />It stays in the master: a note from builder to
      builder</label
    >
    <label class="check"
      ><input type="checkbox" bind:checked={instructors} />It is for instructors: it arrives, and no
      student sees it</label
    >
  </fieldset>
  <fieldset>
    <legend>It opens when</legend>
    {#each rows as r, i (i)}
      <div class="line">
        {#if r.what !== 'DAY'}
          <select class="entry" aria-label="Item, condition {i + 1}" bind:value={r.item}>
            <option value="">choose an item</option>
            {#each others.filter((n) => n.kind !== 'MODULE') as n (n.key)}
              <option value={n.key}>{n.title}</option>
            {/each}
          </select>
        {/if}
        <select class="entry" aria-label="What, condition {i + 1}" bind:value={r.what}>
          {#each whats as [value, words] (value)}<option {value}>{words}</option>{/each}
        </select>
        {#if r.what === 'SCORE'}
          <label class="check"
            ><input
              class="entry fig short"
              aria-label="Percent, condition {i + 1}"
              inputmode="decimal"
              bind:value={r.value}
            />%</label
          >
        {:else if r.what === 'DAY'}
          <input
            class="entry fig"
            type="datetime-local"
            aria-label="Day, condition {i + 1}"
            bind:value={r.value}
          />
        {/if}
        <button
          type="button"
          class="link"
          aria-label="Take out condition {i + 1}"
          onclick={() => (rows = rows.filter((_, n) => n !== i))}>Take out</button
        >
      </div>
    {/each}
    <span
      ><Act onclick={() => (rows = [...rows, { item: '', what: 'READ', value: '' }])}
        >Add a condition</Act
      ></span
    >
  </fieldset>
  <span><Act main type="submit" disabled={!changed}>Save for {item.title}</Act></span>
  <fieldset>
    <legend>It goes with</legend>
    <p class="quiet">Choosing one offers the others.</p>
    {#each tied as k (k)}<p>{titles.get(k) ?? k}</p>{/each}
    <div class="line">
      <select class="entry" aria-label="Another item that goes with it" bind:value={other}>
        <option value="">choose an item</option>
        {#each others as n (n.key)}<option value={n.key}>{n.title}</option>{/each}
      </select>
      <Act disabled={!other} onclick={() => void tie([item.key, other], true)}>Tie</Act>
      {#if tied.length}<Act onclick={() => void tie([item.key], false)}>Untie this one</Act>{/if}
    </div>
  </fieldset>
</form>

<style>
  form {
    padding: 12px 20px;
    display: grid;
    gap: 14px;
    align-content: start;
    min-height: 0;
    overflow: auto;
    background: var(--raise);
  }
  fieldset {
    display: grid;
    gap: 8px;
  }
  legend {
    font-weight: 650;
    padding-bottom: 4px;
  }
  .line {
    display: flex;
    gap: 8px 14px;
    align-items: center;
    flex-wrap: wrap;
  }
  .check {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  select {
    max-width: 320px;
  }
  .short {
    width: 70px;
  }
</style>
