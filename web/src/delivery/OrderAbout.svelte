<script lang="ts">
  import { words } from './orderWords';
  import type { Kind, Schemas } from '../api/client';
  import { figure, kind as kindWord, kinds as everyKind, many } from '../marks/words';
  import StepMark from '../marks/StepMark.svelte';
  import Ticked from './Ticked.svelte';
  import type { Order } from './order';
  import NamedParts from './NamedParts.svelte';
  import { leavesOut } from './partSets.svelte';
  import { why } from './ticks';

  /** What comes along and why, what is always left out, and whether it fits the shells. */
  let {
    forecast,
    order,
    kinds,
    kind,
    back,
    say,
    version,
    sections,
    drop,
  }: {
    forecast: Schemas['DeliveryForecast'];
    order: Order;
    kinds: ReadonlyMap<Kind, { all: number; on: number }>;
    kind: (k: Kind, on: boolean) => void;
    /** Takes an item back that was left out. */
    back: (key: string) => void;
    say: (change: Partial<Order>) => void;
    version: string;
    sections: readonly string[];
    /** Takes sections out of the hand. */
    drop?: (sections: string[]) => void;
  } = $props();
  const MOST = 12;
  let along = $derived(forecast.rows.filter((r) => r.because && r.along && !r.chosen));
  let missed = $derived(forecast.rows.filter((r) => r.missed));
  let titles = $derived(new Map(forecast.rows.map((r) => [r.key, r.title])));
  let shown = $derived(everyKind.filter((k) => kinds.has(k)));

  type Unfit = Schemas['Unfit'][];
  const codes = (u: Unfit) =>
    u
      .slice(0, 3)
      .map((x) => x.code)
      .join(', ') + (u.length > 3 ? ' …' : '');
  const about = (u: Unfit) => [...new Set(u.map((x) => x.about))].slice(0, 2).join(', ');
  let fits = $derived(
    [
      {
        u: forecast.unfit.otherTerm,
        harm: true,
        words: (u: Unfit) =>
          `${many(u.length, 'section')} of ${about(u)}, not of the term of the others`,
      },
      {
        u: forecast.unfit.otherCourse,
        harm: true,
        words: (u: Unfit) =>
          `${many(u.length, 'section')} of ${about(u)}, for which this master is not meant`,
      },
      {
        u: forecast.unfit.own,
        harm: true,
        words: (u: Unfit) => `${many(u.length, 'section')} from whose shell this master was made`,
      },
      {
        u: forecast.unfit.otherCampus,
        harm: true,
        words: (u: Unfit) =>
          `${many(u.length, 'section')} at ${about(u)}, not at the campus of the others`,
      },
      {
        u: forecast.unfit.noShell,
        harm: false,
        words: (u: Unfit) => `${many(u.length, 'section')} without a shell`,
        then: '; they wait, and are filled when they have one.',
      },
      {
        u: forecast.unfit.packageWaits,
        harm: false,
        words: (u: Unfit) =>
          `${many(u.length, 'section')} whose last package is not brought in yet`,
        then: '; they wait until it is.',
      },
    ].filter((f) => f.u.length),
  );
</script>

<h2>By kind</h2>
<div class="kinds" role="group" aria-label="By kind">
  {#each shown as k (k)}
    {@const n = kinds.get(k)!}
    <button
      type="button"
      class="kind"
      role="checkbox"
      aria-checked={n.on === n.all ? 'true' : n.on ? 'mixed' : 'false'}
      onclick={() =>
        kind(k, n.on === n.all || (order.what !== 'SOME' && !order.withoutKinds.includes(k)))}
    >
      <Ticked tick={n.on === n.all ? 'on' : n.on ? 'some' : 'off'} />
      <span class="cut">{kindWord(k, 2)}</span>
      <span class="fig">{n.on === n.all ? figure(n.all) : `${n.on} of ${n.all}`}</span>
    </button>
  {/each}
</div>

{#if along.length}
  <h2>Comes along, because</h2>
  {#each along.slice(0, MOST) as r (r.key)}
    <p class="along">
      <b>{r.title}</b>
      <span class="quiet"
        >{why(r.because!)}{r.sections
          ? `; ${many(r.sections, 'section')} ${r.sections === 1 ? 'gets' : 'get'} something of it`
          : '; all have it as it is'}.</span
      >
    </p>
  {/each}
  {#if along.length > MOST}<p class="quiet">and {many(along.length - MOST, 'item')} more.</p>{/if}
{/if}

{#if leavesOut(order)}
  <h2>Left out</h2>
  <ul class="out">
    {#each order.withoutKinds as k (k)}
      <li>
        all {kindWord(k, 2)}
        <button type="button" class="link" onclick={() => kind(k, false)}>Bring them</button>
      </li>
    {/each}
    {#each order.withoutTitles as t (t)}
      <li>
        titles with “{t}”
        <button
          type="button"
          class="link"
          onclick={() => say({ withoutTitles: order.withoutTitles.filter((x) => x !== t) })}
          >Bring them</button
        >
      </li>
    {/each}
    {#each order.without.slice(0, MOST) as key (key)}
      <li>
        {titles.get(key) ?? 'an item that is gone'}
        <button type="button" class="link" onclick={() => back(key)}>Bring it</button>
      </li>
    {/each}
    {#if order.without.length > MOST}
      <li class="quiet">and {many(order.without.length - MOST, 'item')} more</li>
    {/if}
  </ul>
{/if}

{#if order.onto === 'CLEAN'}
  <h2>Started clean</h2>
  <p class="quiet">{words.clean[order.what]}</p>
{/if}

{#if missed.length || fits.length}
  <h2>Fits?</h2>
  {#each missed.slice(0, MOST) as r (r.key)}
    <p class="fit">
      <StepMark kind="CLASH" size={12} /><span
        >{r.title} is left out, though {why(r.missed!)}.
        <button type="button" class="link" onclick={() => back(r.key)}>Bring it</button></span
      >
    </p>
  {/each}
  {#each fits as f (f.words(f.u))}
    <p class="fit">
      <StepMark kind={f.harm ? 'BLOCKED' : 'CLASH'} size={12} /><span
        >{f.words(f.u)} ({codes(f.u)}){f.then ?? '.'}
        {#if drop}
          <button type="button" class="link" onclick={() => drop(f.u.map((x) => x.section))}
            >Take {f.u.length === 1 ? 'it' : 'them'} out</button
          >{/if}</span
      >
    </p>
  {/each}
{/if}

<NamedParts {order} {say} {version} {sections} />

<style>
  h2 {
    margin: 14px 0 4px;
  }
  h2:first-child {
    margin-top: 2px;
  }
  .kinds {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
    gap: 0 14px;
  }
  .kind {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr) auto;
    align-items: center;
    text-align: left;
    height: 24px;
    font-size: 13px;
    cursor: pointer;
  }
  .kind .fig {
    color: var(--ink-2);
  }
  .along {
    margin: 0 0 6px;
    font-size: 13.5px;
  }
  .along b,
  .along span {
    display: block;
  }
  .out li {
    display: flex;
    gap: 10px;
    justify-content: space-between;
    font-size: 13.5px;
  }
  .fit {
    display: grid;
    grid-template-columns: 20px minmax(0, 1fr);
    align-items: baseline;
    margin: 0 0 6px;
    font-size: 13.5px;
  }
</style>
