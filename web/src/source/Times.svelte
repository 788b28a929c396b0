<script lang="ts">
  import type { Schemas } from '../api/client';
  import type { Entry } from './entry';
  import type { Node } from './tree';

  /** When an item opens, is due and closes: real times, or patterns that follow the calendar. */
  let {
    entry = $bindable(),
    item,
    nodes,
  }: { entry: Entry; item: Schemas['ItemView']; nodes: Node[] } = $props();
  const has = (f: Schemas['ItemView']['fields'][number]) => item.fields.includes(f);
  let points = $derived([
    ['opens', 'Opens', has('OPEN')],
    ['due', 'Due', has('DUE')],
    ['closes', 'Closes', has('OPEN')],
  ] as const);
  /** "2 days after KEY due" is read with the item's title. */
  const follows = (text: string) => {
    const key = /(?:^| )([A-Za-z0-9._-]+) (?:opens|due|closes)/.exec(text)?.[1];
    return nodes.find((n) => n.key === key)?.title ?? '';
  };
  let named = $derived(
    points.map(([p, word]) => [word, follows(entry[p])] as const).filter(([, t]) => t),
  );
</script>

{#if has('WITHIN')}
  <div class="line">
    <label
      ><span class="words">What stands in it opens</span><input
        class="entry fig"
        placeholder="as each says; or week 3 Mon 8:00"
        bind:value={entry.within.start}
      /></label
    >
    {#if entry.within.start}
      <label
        ><span class="words">and then every so many weeks</span><input
          class="entry fig short"
          type="number"
          min="0"
          max="52"
          bind:value={entry.within.everyWeeks}
        /></label
      >
      <label class="check"
        ><input type="checkbox" bind:checked={entry.within.oneAfterOther} />each closes when the
        next opens</label
      >
    {/if}
  </div>
{:else}
  <div class="line">
    {#each points as [p, word, can] (p)}
      {#if can}
        <label
          ><span class="words">{word}</span><input
            class="entry fig"
            list="patterns"
            maxlength="140"
            placeholder={p === 'due' ? 'week 5 Mon 23:59' : 'at any time'}
            bind:value={entry[p]}
          /></label
        >
      {/if}
    {/each}
  </div>
  <p class="quiet">
    A pattern such as week 5 Mon, teaching day 12, meeting 7 or 3 days after first day becomes each
    section's own date; 2026-10-05 18:00 is the same for all.
    {#each named as [word, title] (word)}{word} follows “{title}”.{/each}
  </p>
  <datalist id="patterns">
    {#each nodes.filter((n) => n.kind === 'ASSIGNMENT' || n.kind === 'QUIZ') as n (n.key)}
      <option value="2 days after {n.key} due">{n.title}</option>
    {/each}
  </datalist>
{/if}

<style>
  .line {
    display: flex;
    gap: 8px 12px;
    align-items: end;
    flex-wrap: wrap;
  }
  label {
    min-width: 180px;
  }
  .short {
    width: 84px;
  }
  .check {
    display: flex;
    gap: 5px;
    align-items: center;
  }
  p {
    font-size: 13px;
  }
</style>
