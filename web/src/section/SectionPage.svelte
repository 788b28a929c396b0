<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../lib/Act.svelte';
  import HandFrame from '../lib/HandFrame.svelte';
  import Rows from '../lib/Rows.svelte';
  import Standing from '../lib/Standing.svelte';
  import StepMark from '../lib/StepMark.svelte';
  import Trouble from '../lib/Trouble.svelte';
  import When from '../lib/When.svelte';
  import { hand } from '../lib/hand.svelte';
  import { keyList } from '../lib/keys.svelte';
  import { onEscape } from '../lib/escape.svelte';
  import { place } from '../lib/place.svelte';
  import { session } from '../lib/session.svelte';
  import { aspectList, kind, many } from '../lib/words';

  let { id }: { id: string } = $props();
  type Item = Schemas['ItemLine'];
  let section = $state.raw<Schemas['Section'] | null>(null);
  let items = $state.raw<Item[]>([]);
  let receipts = $state.raw<Schemas['ReceiptLine'][]>([]);
  let trouble = $state.raw<unknown>(null);
  keyList.of = [];
  let params = $derived({ path: { id } });

  async function load() {
    try {
      section = await got(api.GET('/api/sections/{id}', { params }));
      items = await got(api.GET('/api/sections/{id}/items', { params }));
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  /** An item is named by its master and its key: two masters may bring the same key. */
  const name = (i: Item) => `${i.masterCode} ${i.key}`;
  let item = $derived(items.find((i) => name(i) === place.get('item')));
  $effect(() => {
    if (!item) return;
    const { master, key } = item;
    void got(
      api.GET('/api/sections/{id}/masters/{master}/items/{key}/receipts', {
        params: { path: { id, master, key } },
      }),
    ).then(
      (r) => (receipts = r),
      (e) => (trouble = e),
    );
  });
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
  const how: Record<string, string> = {
    ADDED: 'added',
    UPDATED: 'updated',
    ADOPTED: 'adopted as it was',
    KEPT: 'kept as the section has it',
    RETIRED: 'taken out',
  };
  const states: [string, string, string][] = [
    ['AS_DELIVERED', 'SAME', 'as delivered'],
    ['CHANGED', 'KEEP', 'changed here'],
    ['GONE', 'RETIRE', 'gone from the shell'],
  ];
  const count = (s: string) => items.filter((i) => i.state === s).length;

  async function readAgain() {
    try {
      await got(api.POST('/api/deliveries/readings', { body: { sections: [id] } }));
      setTimeout(load, 1500);
    } catch (e) {
      trouble = e;
    }
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
        {#if section.shellAddress}
          <a class="link" href={section.shellAddress} target="_blank" rel="noopener"
            >Open its shell</a
          >
        {:else}<span class="quiet">It has no shell yet.</span>{/if}
      </div>
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
          {#each states as [s, mark, say] (s)}
            <button
              class="tab st"
              aria-pressed={show === s}
              onclick={() => place.set({ show: show === s ? '' : s })}
            >
              <StepMark kind={mark} /><b class="fig">{count(s)}</b>{say}
            </button>
          {/each}
        </div>
        <div class="l top" aria-hidden="true">
          <span></span><span>Item</span><span>Kind</span><span>Master</span><span>Last receipt</span
          ><span>By</span>
          <span>Changed here</span>
        </div>
        <Rows rows={seen} height={26} role="group" label="Items delivered">
          {#snippet row(i: Item)}
            <button class="l" class:at={i === item} onclick={() => place.set({ item: name(i) })}>
              <StepMark
                kind={i.state === 'CHANGED' ? 'KEEP' : i.state === 'GONE' ? 'RETIRE' : 'SAME'}
              />
              <span class="cut" class:gone={i.state === 'GONE'} class:mod={i.kind === 'MODULE'}
                >{i.title}</span
              >
              <span class="quiet cut">{kind(i.kind)}</span>
              <span class="fig">{i.masterCode} v{i.number}</span>
              <span class="quiet"><When at={i.at} /></span>
              <span class="quiet cut">{i.by}</span>
              <span class="own cut"
                >{i.state === 'GONE' ? 'removed' : aspectList(i.changedHere)}</span
              >
            </button>
          {/snippet}
        </Rows>
      {/if}
    {:else if !trouble}<h1>Opening the section …</h1>{/if}
  </main>
  <aside class="aside">
    {#if item}
      <h2>{item.title}</h2>
      <p class="quiet">{kind(item.kind)} of {item.masterCode}</p>
      <ol>
        {#each receipts as r, i (i)}
          <li>
            <b class="fig">v{r.number}</b>
            {how[r.how] ?? r.how}
            <span class="quiet">
              {r.writes.length && r.writes.length < 6 ? `(${aspectList(r.writes)})` : ''}
              <When at={r.at} /> by {r.by}
            </span>
            {#if session.coordinates}<a class="link" href="/deliveries/{r.delivery}"
                >in this delivery</a
              >{/if}
          </li>
        {/each}
      </ol>
    {:else}
      <h2>What it got, and when</h2>
      <p class="quiet">
        Choose an item to see every receipt of it in this section: version, delivery, day and
        person.
      </p>
    {/if}
  </aside>
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
    {#if section.shellAddress}<Act onclick={readAgain}>Read its shell again</Act>{/if}
    <Act onclick={() => hand.toggle(id)}>{hand.has(id) ? 'Put it back' : 'Take it in hand'}</Act>
  {/if}
</HandFrame>

<style>
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
    width: 220px;
  }
  .l {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr) 100px 100px 104px 140px 140px;
    gap: 8px;
    align-items: center;
    height: 26px;
    width: 100%;
    text-align: left;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13px;
    cursor: pointer;
  }
  .l.top {
    color: var(--ink-2);
    cursor: default;
  }
  .l.at {
    background: var(--do-soft);
  }
  .own {
    color: var(--own);
  }
  .mod {
    font-weight: 650;
  }
  .gone {
    text-decoration: line-through;
  }
  ol {
    padding-top: 10px;
    display: grid;
    gap: 8px;
  }
  li {
    border-left: 2px solid var(--calm);
    padding-left: 10px;
  }
  @media (max-width: 1180px) {
    .l {
      grid-template-columns: 18px minmax(150px, 1fr) 76px 84px 78px 104px 110px;
    }
  }
  @media (min-width: 1600px) {
    .l {
      grid-template-columns: 18px minmax(0, 3fr) 120px 120px 120px 180px minmax(0, 2fr);
    }
  }
</style>
