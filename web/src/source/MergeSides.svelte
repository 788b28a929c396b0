<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import StepMark from '../marks/StepMark.svelte';
  import Whose from '../marks/Whose.svelte';
  import { aspectList } from '../marks/words';
  import type { Change, OpenMerge } from './merge.svelte';

  /** Both sides of an item, why they are taken for one, and the decision. */
  let {
    work,
    change,
    name,
    code,
  }: { work: OpenMerge; change: Change; name: string; code: string } = $props();
  let sides = $state.raw<Schemas['SidesView'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let editing = $state(false);
  let text = $state('');
  let other = $state('');

  $effect(() => {
    const path = { id: work.master, edition: work.edition, key: change.key };
    void work.view;
    void got(
      api.GET('/api/masters/{id}/editions/{edition}/items/{key}', { params: { path } }),
    ).then(
      (s) => (sides = s),
      (e) => (trouble = e),
    );
  });

  let pair = $derived(work.view?.pairs.find((p) => p.newer === change.newer));
  let decided = $derived(work.sides.get(change.key));
  let before = $derived(pair && work.view?.older.find((n) => n.key === pair.older)?.title);
  /** Items of the new edition that the older one could have become instead. */
  let others = $derived(
    work.changes.filter((c) => c.what === 'ADD' && c.kind === change.kind && c.newer),
  );
  const share = (n: number) => n.toFixed(2);
  const edition = $derived(name.replace('e', 'E'));

  function decide(side: 'OURS' | 'THEIRS' | 'TOGETHER') {
    work.decide(
      change.key,
      decided === side && !editing ? undefined : side,
      editing ? text : undefined,
    );
    editing = false;
  }
</script>

{#snippet runs(all: readonly Schemas['Run'][])}
  <p class="text">
    <Whose runs={all} />
  </p>
{/snippet}

<h2>
  {before && before !== change.title ? `${before} → ${change.title}` : change.title}
</h2>
<Trouble of={trouble} />
{#if change.what === 'CLASH'}
  <p class="mind">
    <StepMark kind="CLASH" />
    {edition} and {code} both changed the {aspectList(change.clash)}.
  </p>
{:else if change.what === 'DOUBT'}
  <p class="mind"><StepMark kind="TWIN" /> Is this one and the same?</p>
{:else if change.what === 'STAYS'}
  <p>{edition} has it no longer. {code} changed it, so it stays.</p>
{:else if change.what === 'TAKEN_OUT'}
  <p>{edition} changed it, but {code} had taken it out. It is not put back.</p>
{:else if change.what === 'RETIRE'}
  <p>{edition} has it no longer, and {code} did not change it.</p>
{/if}
{#if pair}
  <dl>
    <dt>Identifier</dt>
    <dd>{pair.evidence.identifier ? 'the same' : 'another'}</dd>
    <dd></dd>
    <dt>{change.kind === 'MODULE' ? 'What it holds' : 'Text'}</dt>
    <dd>{pair.evidence.equal ? 'equal to the letter' : 'words in common'}</dd>
    <dd class="fig">{share(pair.evidence.text)}</dd>
    <dt>Title</dt>
    <dd>{before === change.title ? 'the same' : 'another'}</dd>
    <dd class="fig">{share(pair.evidence.title)}</dd>
    <dt>Neighbours</dt>
    <dd>the module, before and after</dd>
    <dd class="fig">{share(pair.evidence.neighbours)}</dd>
    <dt>Together</dt>
    <dd>
      {pair.certainty === 'DECIDED'
        ? 'decided by a person'
        : pair.certainty === 'SURE'
          ? 'sure enough to pair'
          : 'not sure: we ask'}
    </dd>
    <dd class="fig">{share(pair.evidence.together)}</dd>
  </dl>
  <div class="acts">
    {#if pair.certainty === 'DOUBTFUL'}
      <Act main onclick={() => void work.decidePair(pair.older, pair.newer)}>They are one</Act>
    {/if}
    {#if pair.certainty === 'DECIDED'}
      <Act onclick={() => void work.forgetPair(pair.older)}>Take the decision back</Act>
    {:else}
      <Act onclick={() => void work.decidePair(pair.older, undefined)}>They are two</Act>
    {/if}
    {#if others.length}
      <select
        class="entry"
        aria-label="It became another item"
        bind:value={other}
        onchange={() => other && void work.decidePair(pair.older, other)}
      >
        <option value="">It became …</option>
        {#each others as o (o.key)}<option value={o.newer}>{o.title}</option>{/each}
      </select>
    {/if}
  </div>
{/if}
{#if sides}
  {#if sides.other.length}
    <ul>
      {#each sides.other as o (o)}<li>{o}</li>{/each}
    </ul>
  {/if}
  {#if sides.theirs.length}
    <div class="card">
      <h3>{edition} <span class="quiet">new</span></h3>
      {@render runs(sides.theirs)}
    </div>
  {/if}
  {#if sides.ours && change.newer}
    <div class="card">
      <h3>{code}, draft <span class="quiet">ours</span></h3>
      {@render runs(sides.ours)}
    </div>
  {/if}
  {#if change.what === 'CLASH'}
    {#if sides.merged && change.clash.includes('WORDING')}
      <div class="card together">
        <h3>
          Together
          <button
            type="button"
            class="link"
            onclick={() => {
              text = work.texts.get(change.key) ?? sides!.mergedHtml ?? '';
              editing = !editing;
            }}>{editing ? 'close' : 'edit'}</button
          >
        </h3>
        {#if editing}
          <textarea class="entry" rows="8" aria-label="The merged text" bind:value={text}
          ></textarea>
        {:else}
          {@render runs(sides.merged)}
          {#if !sides.clean}
            <p class="mind">Both changed the same words: both stand here. Edit what should stay.</p>
          {/if}
          {#if sides.stays.length}
            <p class="mind">Both changed its {sides.stays.join(' and ')} too: there, ours stays.</p>
          {/if}
        {/if}
      </div>
    {/if}
    <div class="acts">
      {#if sides.merged && change.clash.includes('WORDING')}
        <Act main={!decided || decided === 'TOGETHER'} onclick={() => decide('TOGETHER')}
          >Take both</Act
        >
      {/if}
      <Act main={decided === 'THEIRS'} onclick={() => decide('THEIRS')}>{edition}’s</Act>
      <Act main={decided === 'OURS'} onclick={() => decide('OURS')}>Ours</Act>
    </div>
  {/if}
{/if}

<style>
  h2 {
    font-size: 14px;
  }
  dl {
    display: grid;
    grid-template-columns: 86px minmax(0, 1fr) auto;
    gap: 4px 10px;
  }
  dt {
    color: var(--ink-2);
  }
  .mind {
    color: var(--mind);
    display: flex;
    gap: 6px;
    align-items: baseline;
  }
  .acts {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
  }
  .acts select {
    max-width: 180px;
  }
  .card {
    background: var(--raise);
    border: 1px solid var(--line);
    border-radius: var(--r);
    padding: 8px 10px;
    max-height: 260px;
    overflow: auto;
  }
  .together {
    border-color: var(--do);
  }
  h3 {
    font-size: 12px;
    display: flex;
    justify-content: space-between;
    padding-bottom: 4px;
  }
  .text {
    white-space: pre-line;
    overflow-wrap: anywhere;
  }
  textarea {
    width: 100%;
    font-family: var(--figure);
    font-size: 12px;
  }
</style>
