<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import { place } from './place.svelte';

  const subjects: Record<Schemas['Hit']['subject'], string> = {
    SECTION: 'Sections',
    MASTER: 'Masters',
    CARTRIDGE: 'Cartridges',
    ITEM: 'Items of drafts',
  };
  let text = $state('');
  let hits = $state.raw<Schemas['Hit'][]>([]);
  let says = $state('');
  let at = $state(0);
  let focused = $state(false);
  let field: HTMLInputElement;

  /** Until the answer to what was typed is there; Enter then opens its first hit. */
  let looking = $state(false);
  let openFirst = false;

  $effect(() => {
    const q = text.trim();
    openFirst = false;
    looking = q !== '';
    if (!q) {
      hits = [];
      return;
    }
    const timer = setTimeout(async () => {
      try {
        const found = await got(api.GET('/api/search', { params: { query: { q } } }));
        if (q !== text.trim()) return;
        hits = found;
        says = 'Nothing found.';
      } catch (e) {
        if (q !== text.trim()) return;
        hits = [];
        says = (e as Error).message;
      }
      at = 0;
      looking = false;
      if (openFirst && hits[0]) open(hits[0]);
    }, 120);
    return () => clearTimeout(timer);
  });

  function open(hit: Schemas['Hit']) {
    text = '';
    field.blur();
    place.go(hit.address);
  }

  function keys(e: KeyboardEvent) {
    if (e.key === 'ArrowDown') at = Math.min(at + 1, hits.length - 1);
    else if (e.key === 'ArrowUp') at = Math.max(at - 1, 0);
    else if (e.key === 'Enter' && looking) openFirst = true;
    else if (e.key === 'Enter' && hits[at]) open(hits[at]);
    else if (e.key === 'Escape') field.blur();
    else return;
    e.preventDefault();
  }

  function anywhere(e: KeyboardEvent) {
    const typing = (e.target as Element).closest?.('input, textarea, select');
    if ((e.key === '/' && !typing) || (e.key === 'k' && (e.metaKey || e.ctrlKey))) {
      e.preventDefault();
      field.focus();
    }
  }
</script>

<svelte:window onkeydown={anywhere} />
<div class="search">
  <input
    bind:this={field}
    bind:value={text}
    class="entry"
    type="search"
    placeholder="Search everything"
    role="combobox"
    aria-label="Search everything"
    aria-expanded={focused && hits.length > 0}
    aria-controls="hits"
    aria-activedescendant={hits.length ? 'hit-' + at : undefined}
    onfocus={() => (focused = true)}
    onblur={() => setTimeout(() => (focused = false), 150)}
    onkeydown={keys}
  />
  <kbd aria-hidden="true">/</kbd>
  <ul id="hits" role="listbox" aria-label="Found" hidden={!focused || !text.trim()}>
    {#each hits as hit, i (hit.address)}
      {#if hit.subject !== hits[i - 1]?.subject}
        <li class="subject faint" role="presentation">{subjects[hit.subject]}</li>
      {/if}
      <li
        id="hit-{i}"
        role="option"
        aria-selected={i === at}
        onpointerdown={() => open(hit)}
        class:on={i === at}
      >
        <span class="cut">{hit.name}</span> <span class="faint beside">{hit.beside}</span>
      </li>
    {:else}
      <li class="faint" role="option" aria-selected="false">{looking ? 'Looking …' : says}</li>
    {/each}
  </ul>
</div>

<style>
  .search {
    position: relative;
    flex: 0 1 190px;
    min-width: 90px;
  }
  input {
    min-height: 28px;
    padding: 2px 28px 2px 8px;
  }
  input::-webkit-search-cancel-button {
    display: none;
  }
  kbd {
    position: absolute;
    right: 7px;
    top: 5px;
  }
  ul {
    position: absolute;
    right: 0;
    top: 32px;
    width: 460px;
    background: var(--raise);
    border: 1px solid var(--line);
    border-radius: var(--r);
    box-shadow: 0 6px 18px rgb(0 0 0 / 12%);
    z-index: 40;
    padding: 4px 0;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 4px 12px;
    color: var(--ink);
    cursor: pointer;
  }
  .subject {
    cursor: default;
    padding: 6px 12px 1px;
    font-size: 12px;
  }
  .beside {
    flex: none;
  }
  li.on {
    background: var(--do-soft);
  }
</style>
