<script lang="ts">
  import Act from '../frame/Act.svelte';
  import MasterMore from './MasterMore.svelte';
  import { place } from '../frame/place.svelte';
  import { many } from '../marks/words';
  import type { OpenMaster } from './master.svelte';

  /** What a master is, who else is at it, and what can be done with it as a whole. */
  let {
    work,
    number,
    panel = $bindable(),
    restore,
    remove,
  }: {
    work: OpenMaster;
    number: number;
    panel: '' | 'freeze' | 'add' | 'pack' | 'about';
    restore: () => Promise<void>;
    remove: () => Promise<void>;
  } = $props();
  let master = $derived(work.master);
  let nodes = $derived(work.nodes);
  let newest = $derived(work.newest);
  let held = $derived(work.holders());
  let writable = $derived(work.writable);
  let more = $derived.by(() => {
    const lines: [string, () => void][] = [
      ['Package…', () => turn('pack')],
      ['Put beside…', () => place.go(`/sources/beside?left=master:${work.id}:${number}`)],
    ];
    if (number && writable) {
      lines.push(['Make it the draft', () => void restore()]);
      if (!master?.versions.find((v) => v.number === number)?.sections)
        lines.push([`Delete version ${number}`, () => void remove()]);
    }
    lines.push(['Name, program, end…', () => turn('about')]);
    return lines;
  });
  const turn = (to: typeof panel) => (panel = panel === to ? '' : to);
</script>

<div class="line">
  <h1 class="cut" title={master?.title}>
    {master ? `${master.code} ${master.title}` : 'Opening the master …'}
  </h1>
  {#if master}
    <span class="quiet cut">
      {master.programName || 'The whole college’s'} · {many(
        nodes.length,
        'item',
      )}{#if master.builtOn}&nbsp;· built on <a
          class="link"
          href="/sources/editions/{master.edition}">{master.builtOn}</a
        >{/if}{held.all ? ` · held by ${many(held.all, 'section')}` : ''}
    </span>
    {#if work.others.length}
      <span class="others cut" title={work.others.map((o) => o.name).join(', ')}
        >{work.others.map((o) => o.name).join(', ')}
        {work.others.length === 1 ? 'is' : 'are'} here too</span
      >
    {/if}
    {#if master.newerEdition}
      <a class="link newer" href="/sources/merge/{work.id}/{master.newerEdition}"
        >Edition {master.newerNumber} is here</a
      >
    {/if}
    <span class="can">
      {#if master.retiredAt}<span class="quiet">Retired: nobody receives it</span>
      {:else if !master.yours}<span class="quiet">An administrator changes it</span>{/if}
      <MasterMore lines={more} />
      {#if number}
        <Act onclick={() => place.set({ version: '', tab: '' })}>Back to the draft</Act>
      {:else if writable}
        <Act title="Ctrl Z" onclick={() => void work.turn('undo')}>Undo</Act>
        <Act onclick={() => turn('add')}>Add an item</Act>
        <Act main onclick={() => turn('freeze')}>Freeze version {newest + 1}</Act>
      {/if}
    </span>
  {/if}
</div>

<style>
  .others {
    color: var(--mind);
  }
  .newer {
    flex: none;
    white-space: nowrap;
  }
  .line {
    display: flex;
    align-items: center;
    gap: 14px;
    min-width: 0;
  }
  h1 {
    max-width: 55%;
    flex: 0 1 auto;
    min-width: 90px;
  }
  .can {
    flex: none;
    margin-left: auto;
    display: flex;
    align-items: center;
    gap: 8px;
    white-space: nowrap;
  }
</style>
