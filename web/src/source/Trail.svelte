<script lang="ts">
  import type { Schemas } from '../api/client';
  import { place } from '../lib/place.svelte';
  import { day } from '../lib/words';

  /** Versions in a row; one opens, two compare. */
  let {
    versions,
    number,
    draft,
  }: { versions: Schemas['VersionView'][]; number: number; draft: string } = $props();
  let seen = $derived(versions.slice(-7));
</script>

<div class="tr" aria-label="Trail of versions" role="group">
  {#each seen as v (v.id)}
    <button
      class="v fig"
      class:on={number === v.number}
      title={v.note}
      aria-pressed={number === v.number}
      onclick={() =>
        place.set({
          version: String(v.number),
          from: v.number > 1 ? String(v.number - 1) : '',
          to: v.number > 1 ? String(v.number) : '',
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
        from: versions.length ? String(versions.length) : '',
        to: '',
        item: '',
      })}>{draft}</button
  >
</div>

<style>
  .tr {
    display: flex;
    margin-top: 8px;
    height: 32px;
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
