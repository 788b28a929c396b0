<script lang="ts">
  import { untrack } from 'svelte';
  import Act from '../../frame/Act.svelte';
  import { kind } from '../../marks/words';
  import type { Node } from '../tree';
  import { itemAddress, type Picked } from './kept';

  /** Where a link leads: an item of the same master, or an address. */
  let {
    nodes,
    href,
    done,
    cancel,
  }: {
    nodes: Node[];
    href: string;
    done: (to: Picked | null) => void;
    cancel: () => void;
  } = $props();
  let typed = $state(untrack(() => (href.startsWith('zref:') ? '' : href)));
  let found = $derived.by(() => {
    const q = typed.trim().toLowerCase();
    if (!q || /^(https?:|mailto:|tel:)/.test(q)) return [];
    return nodes
      .filter((n) => n.kind !== 'MODULE' && n.title.toLowerCase().includes(q))
      .slice(0, 6);
  });
  let address = $derived(
    /^(https?:\/\/|mailto:|tel:).+/.test(typed.trim())
      ? typed.trim()
      : /^[\w-]+(\.[\w-]+)+(\/\S*)?$/.test(typed.trim())
        ? 'https://' + typed.trim()
        : '',
  );

  function enter(e: KeyboardEvent) {
    if (e.key === 'Escape') {
      e.stopPropagation();
      cancel();
    }
    if (e.key !== 'Enter') return;
    e.preventDefault();
    if (found.length) pick(found[0]);
    else if (address) done({ href: address, words: typed.trim() });
  }
  const pick = (n: Node) => done({ href: itemAddress(n.key), words: n.title });
</script>

<div class="link">
  <label>
    <span class="words">Leads to an item of this master, or to an address</span>
    <!-- svelte-ignore a11y_autofocus -->
    <input class="entry" bind:value={typed} onkeydown={enter} autofocus autocomplete="off" />
  </label>
  <span class="acts">
    <Act main disabled={!address} onclick={() => done({ href: address, words: typed.trim() })}
      >Link</Act
    >
    {#if href}<Act onclick={() => done(null)}>No link</Act>{/if}
    <Act onclick={cancel}>Cancel</Act>
  </span>
  {#if found.length}
    <ul aria-label="Items">
      {#each found as n (n.key)}
        <li>
          <button type="button" class="cut" onclick={() => pick(n)}
            >{n.title} <span class="quiet">{kind(n.kind)}</span></button
          >
        </li>
      {/each}
    </ul>
  {/if}
</div>

<style>
  .link {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 4px 10px;
    align-items: end;
    padding: 6px 10px;
    border-bottom: 1px solid var(--line-soft);
    background: var(--paper);
  }
  .acts {
    display: flex;
    gap: 8px;
  }
  ul {
    grid-column: 1 / 3;
  }
  li button {
    width: 100%;
    text-align: left;
    padding: 3px 6px;
    cursor: pointer;
  }
  li button:hover,
  li button:focus-visible {
    background: var(--do-soft);
  }
</style>
