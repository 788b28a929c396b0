<script lang="ts">
  import type { Schemas, StepKind } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import StepMark from '../marks/StepMark.svelte';
  import { figure } from '../marks/words';
  import type { Change, OpenMerge } from './merge.svelte';

  /** Which editions are compared, and how they differ, counted. */
  let {
    work,
    edition,
    master,
  }: {
    work: OpenMerge;
    edition: Schemas['Edition'] | null;
    master: Schemas['MasterView'] | null;
  } = $props();
  const of = (...what: Change['what'][]) =>
    work.changes.filter((c) => what.includes(c.what)).length;
  let counts = $derived([
    ['SAME', of('SAME'), 'the same'],
    ['UPDATE', of('TAKE', 'TAKEN_OUT'), 'changed'],
    ['ADD', of('ADD'), 'new'],
    ['RETIRE', of('RETIRE', 'STAYS'), 'gone'],
    ['CLASH', of('CLASH'), of('CLASH') === 1 ? 'clash with ours' : 'clashes with ours'],
    ['TWIN', of('DOUBT'), of('DOUBT') === 1 ? 'pair in doubt' : 'pairs in doubt'],
  ] as [StepKind, number, string][]);
</script>

<header>
  <div class="line">
    <h1 class="cut">
      {edition && master
        ? `${edition.title}: edition ${edition.number} for ${master.code}`
        : 'Laying the editions side by side …'}
    </h1>
    {#if work.view}
      <span class="quiet cut">
        {figure(work.view.older.length)} items before, {figure(work.view.newer.length)} now
      </span>
    {/if}
  </div>
  {#if work.view}
    <div class="counts">
      {#each counts as [mark, n, word] (word)}
        <span><StepMark kind={mark} /> <b class="fig">{figure(n)}</b> {word}</span>
      {/each}
      <label><input type="checkbox" bind:checked={work.brief} /> only what differs</label>
    </div>
  {/if}
  <Trouble of={work.trouble} />
</header>

<style>
  header {
    padding: 14px 16px 6px;
    display: grid;
    gap: 8px;
    min-width: 0;
  }
  .line {
    display: flex;
    gap: 14px;
    align-items: baseline;
    min-width: 0;
  }
  h1 {
    max-width: 75%;
    flex: none;
  }
  .counts {
    display: flex;
    gap: 6px 20px;
    flex-wrap: wrap;
    align-items: center;
    color: var(--ink-2);
  }
  .counts span {
    display: inline-flex;
    gap: 6px;
    align-items: center;
  }
  .counts b {
    color: var(--ink);
  }
</style>
