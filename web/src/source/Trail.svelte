<script lang="ts">
  import type { Schemas } from '../api/client';
  import { place } from '../frame/place.svelte';
  import { day } from '../marks/words';

  /** Versions in a row; one opens, two compare. */
  let {
    versions,
    number,
    draft,
  }: { versions: Schemas['VersionView'][]; number: number; draft: string } = $props();
  let whole = $state(false);
  let earlier = $derived(Math.max(0, versions.length - 7));
  const before = (n: number) => versions.filter((v) => v.number < n).at(-1)?.number ?? 0;
  let seen = $derived(whole ? versions : versions.slice(-7));
</script>

<div class="tr" aria-label="Trail of versions" role="group">
  {#if earlier && !whole}
    <button class="v early" onclick={() => (whole = true)}>{earlier} earlier</button>
  {/if}
  {#each seen as v (v.id)}
    <button
      class="v fig"
      class:on={number === v.number}
      title={v.note}
      aria-pressed={number === v.number}
      onclick={() =>
        place.set({
          version: String(v.number),
          from: String(before(v.number) || ''),
          to: before(v.number) ? String(v.number) : '',
          tab: '',
        })}
    >
      v{v.number} · {day(v.frozenAt)}
      {#if v.sections}<span class="faint"
          >{v.sections} {v.sections === 1 ? 'section' : 'sections'}</span
        >{/if}
    </button>
  {/each}
  <button
    class="v draft"
    class:on={number === 0}
    aria-pressed={number === 0}
    onclick={() =>
      place.set({
        version: '',
        from: String(versions.at(-1)?.number ?? ''),
        to: '',
        item: '',
      })}>{draft}</button
  >
</div>

<style>
  .tr {
    display: flex;
    margin-top: 4px;
    padding-top: 4px;
    overflow-x: auto;
    overflow-y: hidden;
    scrollbar-width: thin;
    font-size: 13px;
  }
  .v {
    position: relative;
    border-top: 2px solid var(--calm);
    padding: 5px 14px 0 0;
    color: var(--ink-2);
    text-align: left;
    white-space: nowrap;
    min-width: 120px;
    cursor: pointer;
  }
  .v:before {
    content: '';
    position: absolute;
    left: 0;
    top: -6px;
    width: 2px;
    height: 10px;
    background: var(--calm);
  }
  .v.early {
    border-top-style: dotted;
    min-width: 76px;
    color: var(--ink-3);
  }
  .v.draft {
    border-top: 2px dashed var(--do);
    flex: 1;
  }
  .v.draft:before {
    background: var(--do);
  }
  .v.on {
    color: var(--ink);
    font-weight: 650;
  }
  .v:hover {
    color: var(--do);
  }
</style>
