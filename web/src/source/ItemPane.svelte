<script lang="ts">
  import type { Schemas } from '../api/client';
  import { place } from '../frame/place.svelte';
  import ItemAbout from './ItemAbout.svelte';
  import ItemFacts from './ItemFacts.svelte';
  import ItemRules from './ItemRules.svelte';
  import Questions from './Questions.svelte';
  import SectionPick from './SectionPick.svelte';
  import TextChanges from './TextChanges.svelte';
  import Who from './Who.svelte';
  import Write from './Write.svelte';
  import type { OpenMaster } from './master.svelte';

  /** An item of a master: as students see it, or to be written. A frozen one is only looked at. */
  let { work, number, takeOut }: { work: OpenMaster; number: number; takeOut: () => void } =
    $props();

  let item = $derived(work.item!);
  let tab = $derived(place.get('tab') || 'see');
  let section = $state('');
  let fixed = $derived(number > 0 || !work.writable);
  let before = $derived(work.numbers.filter((n) => !number || n < number).at(-1) ?? 0);
  let others = $derived(work.others.filter((o) => o.key === item.key));
  let tabs = $derived(
    (
      [
        ['see', 'As students see it', true],
        ['write', 'Write', !fixed],
        ['questions', 'Questions', !fixed && item.fields.includes('QUESTIONS')],
        ['who', 'For whom, when', !fixed],
        ['since', `Since version ${before}`, before > 0 && item.fields.includes('TEXT')],
      ] as const
    ).filter(([, , can]) => can),
  );
  let marked = $derived(/z-(value|blank|builder|instructor)/.test(item.html));
  const change = (c: Schemas['ItemChange']) => work.edit(c);
</script>

<div class="ph">
  <b class="cut" title={item.title}>{item.title}</b>
  {#if others.length}
    <span class="others cut"
      >{others.map((o) => o.name).join(', ')}
      {others.some((o) => o.writing) ? 'is writing this' : 'is looking at this'}</span
    >
  {/if}
  <span class="tabs" role="tablist">
    {#each tabs as [name, words] (name)}
      <button
        class="tab"
        role="tab"
        aria-selected={tab === name}
        onclick={() => place.set({ tab: name === 'see' ? '' : name })}>{words}</button
      >
    {/each}
    {#if !fixed}
      <button class="tab" role="tab" aria-selected="false" onclick={takeOut}>Take out</button>
    {/if}
  </span>
</div>
{#if tab === 'write' && !fixed}
  {#key item.key}<Write master={work.id} {item} nodes={work.nodes} save={change} />{/key}
{:else if tab === 'questions' && !fixed}
  {#key item.key + item.aspects.WORDING}<Questions
      master={work.id}
      {item}
      saved={() => work.change(async () => {})}
    />{/key}
{:else if tab === 'who' && !fixed}
  {#key item.key + work.stamp}
    <Who {item} nodes={work.nodes} {change} tie={(keys, together) => work.tie(keys, together)} />
  {/key}
{:else if tab === 'since' && before}
  <TextChanges id={work.id} key={item.key} from={before} to={number} stamp={work.stamp} />
{:else}
  <div class="seen">
    {#if marked}
      <p class="fill">
        <SectionPick label="Filled in for a section …" bind:section />
        {#if section}
          <span class="quiet">as it will arrive there, without notes to the builder</span>
        {/if}
      </p>
    {/if}
    <ItemAbout {item} nodes={work.nodes} />
    <ItemFacts
      {item}
      page="/api/masters/{work.id}/versions/{number}/items/{item.key}/page?{section
        ? 'section=' + section + '&'
        : ''}{work.stamp}"
    />
  </div>
{/if}
<ItemRules {item} frozen={fixed} {change} />

<style>
  .seen {
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .fill {
    display: flex;
    gap: 10px;
    align-items: center;
    padding: 5px 20px;
    background: var(--paper);
    border-bottom: 1px solid var(--line-soft);
  }
  .ph {
    display: flex;
    gap: 18px;
    align-items: baseline;
    padding: 10px 20px 6px;
    border-bottom: 1px solid var(--line-soft);
    min-width: 0;
  }
  .others {
    color: var(--mind);
    font-size: 13px;
  }
  .tabs {
    margin-left: auto;
    display: flex;
    gap: 16px;
    flex: none;
  }
</style>
