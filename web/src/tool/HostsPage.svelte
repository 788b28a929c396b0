<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import Tie from '../marks/Tie.svelte';
  import { day, many } from '../marks/words';
  import HostPane from './HostPane.svelte';
  import HostRows from './HostRows.svelte';
  import HostsHand from './HostsHand.svelte';
  import {
    ending,
    firstDay,
    hosts,
    standings,
    standingWords,
    tieOf,
    working,
    type Tools,
  } from './tools';

  const AGAIN = 1_500;
  let tools = $state.raw<Tools | null>(null);
  let trouble = $state.raw<unknown>(null);
  let reading = $state(0);
  /** Looked at again and again while something is under way. */
  let until = $state(0);

  keyList.of = [
    ['arrows', 'From mark to mark'],
    ['Space', 'Take a section in hand'],
    ['Enter', 'Open the section beside'],
  ];

  $effect(() => {
    const term = session.term?.id;
    void reading;
    if (!term) return;
    let timer: ReturnType<typeof setTimeout>;
    untrack(async () => {
      try {
        tools = await got(api.GET('/api/tools', { params: { query: { term } } }));
        trouble = null;
        const busy = tools.hosts.some((h) => h.writing.includes(1));
        const told = tools.sections.filter((s) => s.shell && !s.byHand).length;
        if (busy || Date.now() < until) timer = setTimeout(() => reading++, AGAIN);
        else if (tools.looked < told) timer = setTimeout(() => reading++, 4 * AGAIN);
      } catch (e) {
        trouble = e;
      }
    });
    return () => clearTimeout(timer);
  });

  /** Something was begun: what comes of it is seen within the next seconds. */
  function begun() {
    until = Date.now() + 12_000;
    reading++;
  }

  let text = $derived(place.get('find'));
  let course = $derived(place.get('course'));
  let campus = $derived(place.get('campus'));
  let bands = $derived(tools ? hosts(tools, { text, course, campus }) : []);
  let host = $derived(bands.find((b) => b.host === place.get('host')));
  let chosen = $derived(host?.cells.filter((c) => hand.has(c.section.id)) ?? []);
  let works = $derived(working(bands));
  let counts = $derived(standings.map((_, i) => bands.reduce((n, b) => n + b.slots[i].length, 0)));
  let links = $derived(bands.reduce((n, b) => n + b.links, 0));
  let courses = $derived([...new Set(tools?.sections.map((s) => s.course))].sort());
  let campuses = $derived([...new Set(tools?.sections.map((s) => s.campus))].sort());
</script>

<div class="page">
  <main class="left">
    <div class="head">
      <h1>
        {#if !tools}Reading what is known of tools …
        {:else if bands.length}Tool links work in {works.work} of {many(works.sections, 'section')}
        {:else}Tools{/if}
      </h1>
      {#if bands.length}
        <span class="quiet">
          {[many(bands.length, 'host'), many(links, 'link'), firstDay(tools?.before ?? -1)]
            .filter(Boolean)
            .join(' · ')}
        </span>
      {/if}
      <div class="filters">
        <input
          class="entry"
          type="search"
          placeholder="Find a section"
          aria-label="Find a section"
          value={text}
          oninput={(e) => place.set({ find: e.currentTarget.value })}
        />
        {#each [['course', 'All courses', 'Course', courses], ['campus', 'All campuses', 'Campus', campuses]] as const as [name, none, short, options] (name)}
          <select
            class="entry"
            aria-label={none}
            value={place.get(name)}
            onchange={(e) => place.set({ [name]: e.currentTarget.value })}
          >
            <option value="">{short}</option>
            {#each options as o (o)}<option>{o}</option>{/each}
          </select>
        {/each}
      </div>
    </div>
    {#if bands.length}
      <div class="sum">
        {#each standings as s, i (s)}
          <span
            ><Tie kind={tieOf[s]} size={16} /><b class="fig">{counts[i]}</b>{standingWords[s]}</span
          >
        {/each}
        <span class="ways"
          ><a class="link" href="/tools/rules">Rules for links</a><a
            class="link"
            href="/tools/requests">Requests</a
          ></span
        >
      </div>
    {/if}
    {#each ending(tools?.connections ?? [], new Date().toISOString().slice(0, 10)) as c (c.id)}
      <p class="ends">
        The credentials of <b>{c.name}</b>
        {c.expires! < new Date().toISOString().slice(0, 10) ? 'ended on' : 'end on'}
        {day(c.expires!)}. An administrator enters new ones; they are written wherever the old ones
        stand.
      </p>
    {/each}
    <Trouble of={trouble} />
    {#if bands.length}
      <HostRows {bands} {host} before={tools?.before ?? 1} />
    {:else if tools && (text || course || campus)}
      <p class="quiet none">No section with tool links is like this. Take a filter away.</p>
    {:else if tools}
      <p class="quiet none">
        No section of this term holds a tool link yet. They are seen here as soon as something that
        has some was <a class="link" href="/deliveries/new">delivered</a>.
      </p>
    {:else if !trouble}
      <div class="skeleton tall" role="status" aria-label="Reading"></div>
    {/if}
  </main>
  {#if tools && bands.length}
    <HostPane {tools} {host} {chosen} {begun} />
  {/if}
</div>
{#if tools && bands.length}
  <HostsHand {tools} {host} {chosen} {begun} />
{/if}

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--beside);
  }
  .left {
    display: flex;
    flex-direction: column;
    min-height: 0;
    padding: 12px 0 0 16px;
  }
  .head {
    display: flex;
    align-items: baseline;
    gap: 14px;
    padding-right: 16px;
    flex-wrap: wrap;
  }
  .filters {
    margin-left: auto;
    display: flex;
    gap: 6px;
  }
  .filters :global(.entry) {
    min-height: 26px;
    padding-top: 1px;
    padding-bottom: 1px;
    font-size: 13px;
    max-width: 124px;
  }
  .sum {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 20px;
    margin: 6px 0 10px;
    color: var(--ink-2);
  }
  .sum span {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .sum b {
    color: var(--ink);
  }
  .sum .ways {
    gap: 14px;
    margin-left: auto;
    padding-right: 16px;
  }
  .none {
    padding: 24px 0;
  }
  .ends {
    color: var(--mind);
    padding: 0 16px 8px 0;
  }
</style>
