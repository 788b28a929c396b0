<script lang="ts">
  import type { Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { readAgain } from '../frame/reading';
  import { many } from '../marks/words';
  import KeepSet from './KeepSet.svelte';
  import { handWords, pasted, type Master, type Stand } from './model';

  let {
    chosen,
    master,
    coverage,
    stands,
    again,
  }: {
    chosen: Stand[];
    master?: Master;
    coverage: Schemas['Coverage'];
    stands: Stand[];
    again: () => void;
  } = $props();

  let said = $state('');
  let pasting = $state(false);
  let codes = $state('');
  let version = $state(0);
  let versions = $derived([...(master?.versions ?? [])].reverse());
  /** What is expected of all of them, where that is one version. */
  let expected = $derived(new Set(chosen.map((s) => s.wanted)));
  let usual = $derived(expected.size === 1 ? [...expected][0] : 0);
  let to = $derived(versions.find((v) => v.number === (version || usual)) ?? versions[0]);
  let here = $derived(coverage.sections.filter((s) => hand.has(s.id)).length);
  let behind = $derived(stands.filter((s) => s.master === master && (s.behind > 0 || s.never)));

  function take() {
    const { ids, unknown } = pasted(codes, coverage.sections);
    hand.take(ids);
    pasting = unknown.length > 0;
    codes = unknown.join(' ');
    said = unknown.length
      ? `${many(unknown.length, 'code')} of no section of this term; correct ${unknown.length === 1 ? 'it' : 'them'}`
      : '';
  }

  async function read() {
    try {
      await readAgain(
        [...hand.sections],
        (left) => (said = `Reading again: ${many(left, 'shell')} left …`),
      );
      said = '';
      again();
    } catch (e) {
      said = (e as Error).message;
    }
  }

  function order() {
    if (to && master) place.go(`/deliveries/new?master=${master.id}&v=${to.number}`);
  }
</script>

{#snippet paste()}
  {#if pasting}
    <form
      class="paste"
      onsubmit={(e) => {
        e.preventDefault();
        take();
      }}
    >
      <!-- svelte-ignore a11y_autofocus -->
      <input
        class="entry"
        aria-label="Codes of sections"
        placeholder="110-04, 110-09 …"
        autofocus
        bind:value={codes}
        onkeydown={(e) => {
          if (e.key !== 'Escape') return;
          e.stopPropagation();
          pasting = false;
          said = '';
        }}
      />
      <Act type="submit">Take them</Act>
    </form>
  {:else}
    <button type="button" class="link quiet" onclick={() => (pasting = true)}>Paste codes</button>
  {/if}
{/snippet}
{#if hand.size}
  <HandFrame
    title="{many(hand.size, 'section')} in hand"
    words={said ||
      [handWords(chosen), here < hand.size ? `${hand.size - here} of another term` : '']
        .filter(Boolean)
        .join(' · ')}
  >
    {@render paste()}
    <KeepSet
      what={() => ({ sections: [...hand.sections] })}
      words="Keep as a set"
      told={(s) => (said = s)}
    />
    <button class="link quiet" onclick={() => hand.drop()}>Put all back</button>
    <Act onclick={read}>Read shells again</Act>
    <Act onclick={() => place.go('/deliveries/edit')}>Change in all …</Act>
    {#if to && master}
      {#if versions.length > 1}
        <select
          class="entry"
          aria-label="Version to deliver"
          value={to.number}
          onchange={(e) => (version = Number(e.currentTarget.value))}
        >
          {#each versions as v (v.id)}<option value={v.number}>{master.code} v{v.number}</option
            >{/each}
        </select>
      {/if}
      <Act main onclick={order}>Bring v{to.number} to {many(hand.size, 'section')} …</Act>
    {/if}
  </HandFrame>
{:else}
  <HandFrame
    title="No section in hand"
    words={said
      ? said
      : master && behind.length
        ? `${many(behind.length, 'section')} ${behind.length === 1 ? 'does' : 'do'} not hold ${master.code} as expected`
        : ''}
  >
    {@render paste()}
    {#if master && behind.length}
      <Act onclick={() => hand.only(behind.map((s) => s.section.id))}
        >Take the {behind.length} in hand</Act
      >
    {/if}
  </HandFrame>
{/if}

<style>
  .paste {
    display: flex;
    gap: 8px;
  }
  .paste input {
    width: 220px;
  }
</style>
