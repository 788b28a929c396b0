<script lang="ts">
  import { api, got, type Kind, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { kind as kindWord, kinds, many } from '../marks/words';
  import { manner, usual, type Order } from './order';
  import {
    brought,
    leftOut,
    nothingOut,
    only,
    partSets,
    saidBy,
    setWords,
    spared,
    typed,
    type PartSet,
  } from './partSets.svelte';

  /** Parts under a name: brought alone, left out, kept for every master. */
  let {
    order,
    say,
    version,
    sections,
  }: {
    order: Order;
    say: (change: Partial<Order>) => void;
    version: string;
    sections: readonly string[];
  } = $props();
  let trouble = $state.raw<unknown>(null);
  let naming = $state(false);
  /** The set that is said otherwise; none for a new one. */
  let changed = $state('');
  let name = $state('');
  let text = $state('');
  let chosen = $state.raw<Kind[]>([]);
  let named = $state.raw<Schemas['ForecastRow'][] | null>(null);
  let titles = $derived(typed(text));
  let alone = $derived(brought(order, partSets.all));
  let out = $derived(leftOut(order, partSets.all));

  $effect(() => void partSets.load().catch((e) => (trouble = e)));

  function begin(of?: PartSet) {
    const said = of ?? saidBy(order);
    changed = of?.id ?? '';
    name = of?.name ?? '';
    chosen = said.kinds;
    text = said.titles.join(', ');
    naming = true;
  }

  // What the set would name here is told by who carries the rule: the forecast.
  let asked = 0;
  $effect(() => {
    const said = { kinds: [...chosen], titles: [...titles] };
    const mine = ++asked;
    if (!naming || !(said.kinds.length + said.titles.length)) {
      named = null;
      return;
    }
    const wait = setTimeout(() => {
      const choices = manner(usual);
      const body = {
        version,
        sections: [...sections],
        choices: { ...choices, parts: { what: 'SOME' as const, ...said } },
      };
      void got(api.POST('/api/deliveries/forecast', { body })).then(
        (f) =>
          mine === asked &&
          (named = f.rows.filter((r) => r.inVersion && r.chosen && r.kind !== 'MODULE')),
        (e) => mine === asked && (trouble = e),
      );
    }, 250);
    return () => clearTimeout(wait);
  });

  async function keep(e: SubmitEvent) {
    e.preventDefault();
    try {
      await partSets.keep(name, { kinds: chosen, titles }, changed);
      naming = false;
      name = '';
      trouble = null;
    } catch (x) {
      trouble = x;
    }
  }

  async function drop(s: PartSet) {
    try {
      await partSets.drop(s.id);
      trouble = null;
    } catch (x) {
      trouble = x;
    }
  }

  function told(rows: Schemas['ForecastRow'][]): string {
    const some = rows.slice(0, 5).map((r) => r.title);
    if (!some.length) return 'nothing of this version.';
    return `${many(rows.length, 'item')} of this version: ${some.join(', ')}${rows.length > 5 ? ' …' : '.'}`;
  }

  function toggle(k: Kind) {
    chosen = chosen.includes(k) ? chosen.filter((x) => x !== k) : [...chosen, k];
  }
</script>

<h2>Sets of parts, for every master</h2>
{#each partSets.all as s (s.id)}
  <div class="set" role="group" aria-label={s.name}>
    <span><b>{s.name}</b> <span class="quiet">{setWords(s)}</span></span>
    <span class="acts">
      {#if alone?.id === s.id}
        <button type="button" class="link" onclick={() => say({ what: 'EVERYTHING' })}
          >Bring everything again</button
        >
      {:else}
        <button type="button" class="link" onclick={() => say({ ...nothingOut, ...only(s) })}
          >Bring only these</button
        >
      {/if}
      {#if out?.id === s.id}
        <button type="button" class="link" onclick={() => say(nothingOut)}>Bring them again</button>
      {:else}
        <button
          type="button"
          class="link"
          onclick={() =>
            say({ ...(order.what === 'SOME' ? { what: 'EVERYTHING' } : {}), ...spared(s) })}
          >Leave them out</button
        >
      {/if}
      {#if s.mine}
        <button type="button" class="link" onclick={() => begin(s)}>Change it</button>
        <button type="button" class="link" onclick={() => void drop(s)}>Forget it</button>
      {/if}
    </span>
  </div>
{/each}
{#if naming}
  <form class="new" onsubmit={keep}>
    <input
      class="entry"
      aria-label="Name of the set"
      placeholder="name, for instance: my own things to spare"
      maxlength="100"
      required
      bind:value={name}
    />
    <input
      class="entry"
      aria-label="Titles with these words"
      placeholder="titles with: syllabus, calendar"
      maxlength="1000"
      bind:value={text}
    />
    <div class="kinds" role="group" aria-label="Kinds in the set">
      {#each kinds.filter((k) => k !== 'MODULE') as k (k)}
        <label
          ><input type="checkbox" checked={chosen.includes(k)} onchange={() => toggle(k)} />
          {kindWord(k, 2)}</label
        >
      {/each}
    </div>
    <p class="quiet" aria-live="polite">
      {#if named}Names {told(named)}
      {:else}Choose kinds, or words with which a word of a title begins.{/if}
    </p>
    <span class="acts">
      <Act type="submit" disabled={!(chosen.length + titles.length)}>Keep the set</Act>
      <button type="button" class="link" onclick={() => (naming = false)}>Not now</button>
    </span>
  </form>
{:else}
  <button type="button" class="link" onclick={() => begin()}>Keep a set</button>
{/if}
<Trouble of={trouble} />

<style>
  h2 {
    margin: 14px 0 4px;
  }
  .set {
    display: grid;
    gap: 1px;
    margin-bottom: 6px;
    font-size: 13.5px;
  }
  .acts {
    display: flex;
    gap: 14px;
    align-items: center;
  }
  .link {
    font-size: 13px;
  }
  .new {
    display: grid;
    gap: 6px;
    padding: 4px 0 2px;
  }
  .new p {
    margin: 0;
    font-size: 13px;
  }
  .kinds {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
    gap: 0 12px;
    font-size: 13px;
  }
  .kinds label {
    display: flex;
    gap: 6px;
    align-items: center;
    height: 24px;
  }
</style>
