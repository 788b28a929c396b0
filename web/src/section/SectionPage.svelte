<script lang="ts">
  import { api, got, type Schemas, type StepKind } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Standing from '../marks/Standing.svelte';
  import StepMark from '../marks/StepMark.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { place } from '../frame/place.svelte';
  import { readAgain } from '../frame/reading';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';

  import Subscribe from '../calendar/Subscribe.svelte';
  import SectionTools from '../tool/SectionTools.svelte';
  import ShellKept from '../packages/ShellKept.svelte';
  import Receipts from './Receipts.svelte';
  import OwnItems from './OwnItems.svelte';
  import RestorePoints from './RestorePoints.svelte';
  import SectionItems from './SectionItems.svelte';

  let { id }: { id: string } = $props();
  type Item = Schemas['ItemLine'];
  let section = $state.raw<Schemas['Section'] | null>(null);
  let items = $state.raw<Item[]>([]);
  /** What is known of its shell, if nobody can ask it. */
  let kept = $state.raw<Schemas['KeptShell'] | undefined>();
  let trouble = $state.raw<unknown>(null);
  keyList.of = [];
  let params = $derived({ path: { id } });
  /** A day of the past; none: as it is now. */
  let on = $derived(place.get('on'));

  async function load() {
    try {
      section = await got(api.GET('/api/sections/{id}', { params }));
      kept = section.shellAddress
        ? undefined
        : (await got(api.GET('/api/packages/{section}', { params: { path: { section: id } } })))[0];
      const query = { on: on || undefined };
      items = await got(api.GET('/api/sections/{id}/items', { params: { ...params, query } }));
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  /** An item is named by its master and its key: two masters may bring the same key. */
  const name = (i: Item) => `${i.masterCode} ${i.key}`;
  let item = $derived(items.find((i) => name(i) === place.get('item')));
  let show = $derived(place.get('show'));
  let find = $derived(place.get('find').toLowerCase());
  let seen = $derived(
    items.filter(
      (i) =>
        (!show || i.state === show) &&
        (!find || i.title.toLowerCase().includes(find)) &&
        (!place.get('master') || i.masterCode === place.get('master')),
    ),
  );
  const states: [Item['state'], StepKind, string][] = [
    ['AS_DELIVERED', 'SAME', 'as delivered'],
    ['CHANGED', 'KEEP', 'changed here'],
    ['GONE', 'RETIRE', 'gone from the shell'],
  ];
  const count = (s: Item['state']) => items.filter((i) => i.state === s).length;

  let reading = $state(false);
  async function read() {
    reading = true;
    try {
      await readAgain([id]);
      await load();
    } catch (e) {
      trouble = e;
    }
    reading = false;
  }

  onEscape(() => {
    if (!place.get('item')) return false;
    place.set({ item: '' });
    return true;
  });
</script>

<div class="page">
  <main>
    <Trouble of={trouble} />
    {#if section}
      <div class="head">
        <h1><span class="fig">{section.code}</span> {section.title}</h1>
        <span class="quiet cut">
          {section.course} · {section.campus} · {section.term} · {section.instructors ||
            'nobody teaches it yet'}{section.students
            ? ` · ${section.students} students`
            : ''}{section.inRoster ? '' : ' · no longer in the roster'}
        </span>
        <a class="link" href="/seen/{id}">As a student</a>
        {#if section.shellAddress}
          <a class="link" href={section.shellAddress} target="_blank" rel="noopener"
            >Open its shell</a
          >
        {:else if !kept}<span class="quiet">It has no shell yet.</span>{/if}
      </div>
      {#each kept?.waits ? [] : section.arriving as a (a.delivery)}
        <p class="arriving" role="status">
          {a.masterCode}, version {a.number}, {a.state === 'NOT_YET'
            ? 'is on its way and waits'
            : 'is arriving now'}. {session.coordinates
            ? ''
            : 'What you change meanwhile stays yours.'}
          {#if session.coordinates}<a class="link" href="/deliveries/{a.delivery}"
              >See the delivery</a
            >{/if}
        </p>
      {/each}
      {#if section.unread.length}
        <section class="unread" aria-label="What cannot be read">
          {#each section.unread as u (u.item)}
            <p>
              {#if !u.item}<b>Its shell cannot be read.</b>{/if}
              {u.why}
              <span class="quiet">{u.remedy} Since <When at={u.since} />.</span>
            </p>
          {/each}
          {#if section.unread.every((u) => u.item)}
            <p class="quiet">All else of the shell was read.</p>
          {/if}
        </section>
      {/if}
      {#if kept}<ShellKept section={id} {kept} done={load} />{/if}
      <div class="masters">
        {#each section.masters as m (m.master)}
          <button
            class="tab mst"
            aria-pressed={place.get('master') === m.code}
            onclick={() => place.set({ master: place.get('master') === m.code ? '' : m.code })}
          >
            <Standing
              share={m.expected ? m.held / m.expected : 1}
              behind={m.newest - m.number}
              changed={m.changed > 0}
            />
            <b class="fig">{m.code}</b> v{m.number}
            <span class="faint">
              {m.held} of {m.expected} items{m.changed
                ? `, ${m.changed} changed here`
                : ''}{m.newest > m.number ? `, newest is v${m.newest}` : ''}, read <When
                at={m.readAt}
              />
            </span>
          </button>
        {:else}
          <p class="quiet">
            Nothing was delivered to this section yet. Take it in hand, then deliver a version under
            Coverage.
          </p>
        {/each}
      </div>
      {#if section.termId}
        {@const due = `/api/calendars/due/file?term=${section.termId}&section=${id}&format=`}
        <div class="dates quiet">
          Its dates: <a class="link" download href="{due}ICS">a calendar</a>,
          <a class="link" download href="{due}XLSX">a table</a>,
          <Subscribe term={section.termId} section={id} />
        </div>
      {/if}
      <SectionTools section={id} />
      <OwnItems section={id} read={section} />
      {#if session.coordinates}<RestorePoints section={id} />{/if}
      {#if on && !items.length}
        <p class="quiet">
          Nothing had been delivered by {on}.
          <button class="link" onclick={() => place.set({ on: '' })}>As it is now</button>
        </p>
      {/if}
      {#if items.length}
        <div class="tools">
          <input
            class="entry find"
            type="search"
            placeholder="Find an item"
            aria-label="Find an item"
            value={place.get('find')}
            oninput={(e) => place.set({ find: e.currentTarget.value })}
          />
          <label class="on"
            >as of <input
              class="entry"
              type="date"
              value={on}
              onchange={(e) => place.set({ on: e.currentTarget.value, show: '' })}
            /></label
          >
          {#if session.coordinates}
            <a class="link" href="/deliveries/ledger?section={section.code}">all its receipts</a>
          {/if}
          {#each on ? [] : states as [s, mark, say] (s)}
            <button
              class="tab st"
              aria-pressed={show === s}
              onclick={() => place.set({ show: show === s ? '' : s })}
            >
              <StepMark kind={mark} /><b class="fig">{count(s)}</b>{say}
            </button>
          {/each}
        </div>
        <SectionItems items={seen} chosen={item} choose={(i) => place.set({ item: name(i) })} />
      {/if}
    {:else if !trouble}<h1>Opening the section …</h1>{/if}
  </main>
  <Receipts section={id} {item} />
</div>
<HandFrame
  title={!session.coordinates
    ? 'What this section got'
    : hand.size
      ? many(hand.size, 'section') + ' in hand'
      : 'No section in hand'}
  words={session.coordinates ? '' : 'Changes of yours are marked here.'}
>
  {#if session.coordinates && section}
    {#if section.shellAddress}<Act onclick={read} disabled={reading}
        >{reading ? 'Reading its shell …' : 'Read its shell again'}</Act
      >{/if}
    <Act onclick={() => hand.toggle(id)}>{hand.has(id) ? 'Put it back' : 'Take it in hand'}</Act>
  {/if}
</HandFrame>

<style>
  .arriving,
  .unread {
    padding: 6px 12px;
    margin: 4px 0 8px;
    border-left: 3px solid var(--do);
    background: var(--do-soft);
  }
  .unread {
    border-left-color: var(--mind-mark);
    background: var(--mind-soft);
  }
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--beside);
  }
  main {
    padding: 12px 0 0 16px;
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0 14px;
    align-items: baseline;
    padding-right: 16px;
  }
  h1 .fig {
    font-size: inherit;
  }
  .masters {
    display: grid;
    justify-items: start;
    gap: 4px;
    padding: 8px 0;
  }
  .mst,
  .st {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .tools {
    display: flex;
    gap: 18px;
    align-items: center;
    padding-bottom: 6px;
  }
  .find {
    width: 180px;
  }
  .on {
    display: flex;
    gap: 6px;
    align-items: center;
    white-space: nowrap;
  }
  .dates {
    display: flex;
    gap: 6px;
    align-items: baseline;
    flex-wrap: wrap;
    font-size: 13px;
    padding: 4px 0;
  }
</style>
