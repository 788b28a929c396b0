<script lang="ts">
  import type { Schemas } from '../api/client';
  import { place } from '../frame/place.svelte';
  import { figure, kind } from '../marks/words';

  type Found = Schemas['FoundItem'];
  type Facet = Schemas['FacetCount']['facet'];

  /** Words and values that narrow the library down. */
  let {
    q,
    facets,
    counts,
    narrow,
  }: {
    q: string;
    facets: string[];
    counts: readonly Schemas['FacetCount'][];
    narrow: (facet: Facet, value: string) => void;
  } = $props();
  const names: Record<Facet, string> = {
    KIND: 'Kind',
    SOURCE: 'Source',
    SUBJECT: 'Subject',
    MAKER: 'Maker',
    LICENCE: 'Licence',
    COST: 'Cost',
    LEVEL: 'Level',
    LANGUAGE: 'Language',
    HOST: 'Leads to',
    AUDIENCE: 'For',
  };
  const few = 6;

  let wide = $state.raw<ReadonlySet<Facet>>(new Set());

  function values(facet: Facet) {
    const all = counts.filter((c) => c.facet === facet);
    return wide.has(facet) ? all : all.slice(0, few);
  }
  const told = (facet: Facet) => counts.filter((c) => c.facet === facet).length;
  /** Whether there is anything to choose between. */
  const telling = (facet: Facet) =>
    told(facet) > 1 &&
    counts.some((c) => c.facet === facet && !['not said', 'our own'].includes(c.value));
  const word = (c: Schemas['FacetCount']) =>
    c.facet === 'KIND' ? kind(c.value as Found['kind'], 2) : c.value;
</script>

<nav aria-label="Narrow down">
  <input
    class="entry"
    type="search"
    placeholder="Words in title or text"
    aria-label="Words in title or text"
    value={q}
    oninput={(e) => place.set({ q: e.currentTarget.value, item: '' })}
  />
  {#each Object.entries(names) as [facet, name] (facet)}
    {@const f = facet as Facet}
    {#if telling(f) || facets.some((x) => x.startsWith(facet + ':'))}
      <h2>{name}</h2>
      <ul>
        {#each values(f) as c (c.value)}
          <li>
            <button
              type="button"
              class="value"
              aria-pressed={facets.includes(`${facet}:${c.value}`)}
              onclick={() => narrow(f, c.value)}
            >
              <span class="cut">{word(c)}</span><span class="fig faint">{figure(c.items)}</span>
            </button>
          </li>
        {/each}
        {#if told(f) > few && !wide.has(f)}
          <li>
            <button type="button" class="link" onclick={() => (wide = new Set([...wide, f]))}
              >{told(f) - few} more</button
            >
          </li>
        {/if}
      </ul>
    {/if}
  {/each}
</nav>

<style>
  nav {
    padding: 12px;
    overflow: auto;
    border-right: 1px solid var(--line);
    min-height: 0;
  }
  nav h2 {
    font-size: 12px;
    color: var(--ink-2);
    padding: 12px 0 2px;
    font-weight: 600;
  }
  .value {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    width: 100%;
    padding: 1px 6px;
    text-align: left;
    cursor: pointer;
    border-radius: var(--r);
  }
  .value:hover {
    background: var(--line-soft);
  }
  .value[aria-pressed='true'] {
    background: var(--do-soft);
    font-weight: 650;
  }
</style>
