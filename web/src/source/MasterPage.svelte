<script lang="ts">
  import { api, got, Problem, type Schemas } from '../api/client';
  import Act from '../lib/Act.svelte';
  import HandFrame from '../lib/HandFrame.svelte';
  import Trouble from '../lib/Trouble.svelte';
  import { onEscape } from '../lib/escape.svelte';
  import { hand } from '../lib/hand.svelte';
  import { keyList } from '../lib/keys.svelte';
  import { place } from '../lib/place.svelte';
  import { resting } from '../lib/resting.svelte';
  import { session } from '../lib/session.svelte';
  import { many } from '../lib/words';
  import AddItem from './AddItem.svelte';
  import Changes from './Changes.svelte';
  import Freeze from './Freeze.svelte';
  import ItemPane from './ItemPane.svelte';
  import Outline from './Outline.svelte';
  import TakeOut from './TakeOut.svelte';
  import Trail from './Trail.svelte';
  import type { Node, Target } from './tree';

  let { id }: { id: string } = $props();
  let master = $state.raw<Schemas['MasterView'] | null>(null);
  let nodes = $state.raw<Node[]>([]);
  let item = $state.raw<Schemas['ItemView'] | null>(null);
  let since = $state.raw<Schemas['ChangeView'][]>([]);
  let trouble = $state.raw<unknown>(null);
  let freezing = $state(false);
  let adding = $state(false);
  let doomed = $state<Node | null>(null);
  let stamp = $state(0);

  keyList.of = [
    ['arrows', 'From item to item, open and close'],
    ['Page up, Page down, Home, End', 'A page on, to the ends'],
    ['Alt arrows', 'Move the item; right into the module above, left out of it'],
    ['Delete', 'Take the item out'],
  ];

  /** The version looked at; 0 is the draft. */
  let number = $derived(Number(place.get('version') || 0));
  let selected = $derived(place.get('item'));
  let newest = $derived(master?.versions.length ?? 0);
  let params = $derived({ path: { id } });

  async function load() {
    try {
      master = await got(api.GET('/api/masters/{id}', { params }));
      nodes = await got(
        api.GET('/api/masters/{id}/versions/{number}/outline', {
          params: { path: { id, number } },
        }),
      );
      const from = master.versions.length;
      since = from
        ? await got(
            api.GET('/api/masters/{id}/changes', {
              params: { path: { id }, query: { from, to: 0 } },
            }),
          )
        : [];
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  let chosen = $derived(selected && `${number}/${selected}`);
  async function loadItem(key: string) {
    const asked = chosen;
    try {
      const i = await got(
        api.GET('/api/masters/{id}/versions/{number}/items/{key}', {
          params: { path: { id, number, key } },
        }),
      );
      if (asked === chosen) item = i;
      trouble = null;
    } catch (e) {
      trouble = e;
    }
  }
  resting(
    () => chosen,
    () => (selected ? void loadItem(selected) : (item = null)),
  );

  /** Carries a change out, then shows what is there now. */
  async function change(call: () => Promise<unknown>) {
    trouble = null;
    try {
      await call();
      await load();
      if (selected && nodes.some((n) => n.key === selected)) await loadItem(selected);
      stamp++;
    } catch (e) {
      trouble = e;
    }
  }

  onEscape(() => {
    if (adding) adding = false;
    else if (freezing) freezing = false;
    else if (place.get('from')) place.set({ from: '', to: '' });
    else if (place.get('tab')) place.set({ tab: '' });
    else if (selected) place.set({ item: '' });
    else return false;
    return true;
  });

  const move = (key: string, to: Target) =>
    change(() =>
      got(
        api.POST('/api/masters/{id}/draft/items/{key}/place', {
          params: { path: { id, key } },
          body: to,
        }),
      ),
    );
  /** Says what was seen, so that nobody's change is lost; where one was, it is shown. */
  async function edit(body: Schemas['ItemChange']) {
    const seen = item?.aspects;
    await change(() =>
      got(
        api.PATCH('/api/masters/{id}/draft/items/{key}', {
          params: { path: { id, key: selected } },
          body: { ...body, seen },
        }),
      ),
    );
    const conflict = trouble;
    if (conflict instanceof Problem && conflict.status === 409) {
      await loadItem(selected);
      trouble = conflict;
    }
  }
  const takeOut = (key: string) => (doomed = nodes.find((n) => n.key === key) ?? null);
  function removeNow() {
    const key = doomed!.key;
    doomed = null;
    if (selected === key) place.set({ item: '' });
    return change(() =>
      got(
        api.DELETE('/api/masters/{id}/draft/items/{key}', {
          params: {
            path: { id, key },
            query: { seen: item?.key === key ? item.state : '' },
          },
        }),
      ),
    );
  }

  async function freeze(note: string) {
    await change(() => got(api.POST('/api/masters/{id}/versions', { params, body: { note } })));
    freezing = trouble !== null;
  }

  let marks = $derived(
    new Map(number ? [] : since.map((c) => [c.key, c.how === 'ADDED' ? 'ADD' : 'UPDATE'] as const)),
  );
  let draftWords = $derived.by(() => {
    if (!newest) return 'Draft, never frozen';
    const changed = since.filter((c) => c.how !== 'GONE' && c.how !== 'ADDED').length;
    const added = since.filter((c) => c.how === 'ADDED').length;
    const gone = since.filter((c) => c.how === 'GONE').length;
    const words = [
      changed && `${changed} changed`,
      added && `${added} added`,
      gone && `${gone} gone`,
    ];
    return `Draft: ${words.filter(Boolean).join(', ') || 'nothing changed'} since v${newest}`;
  });
  let held = $derived(master?.versions.reduce((n, v) => n + v.sections, 0) ?? 0);
  let old = $derived(
    master?.versions.filter((v) => v.number < newest).reduce((n, v) => n + v.sections, 0) ?? 0,
  );

  async function takeOld() {
    const term = session.term?.id;
    if (!term) return;
    const c = await got(api.GET('/api/coverage', { params: { query: { term } } }));
    const held = c.standings[c.masters.findIndex((m) => m.id === id)];
    hand.only(held.section.filter((_, i) => held.number[i] < newest).map((s) => c.sections[s].id));
    place.go('/coverage?master=' + id);
  }
</script>

<div class="page">
  <header>
    <div class="line">
      <h1 class="cut" title={master?.title}>
        {master ? `${master.code} ${master.title}` : 'Opening the master …'}
      </h1>
      {#if master}
        <span class="quiet cut">
          Master · {many(nodes.length, 'item')}{#if master.builtOn}&nbsp;· built on <a
              class="link"
              href="/sources/editions/{master.edition}">{master.builtOn}</a
            >{/if}{held ? ` · held by ${many(held, 'section')}` : ''}
        </span>
        <span class="can">
          {#if number}
            <Act onclick={() => place.set({ version: '', tab: '' })}>Back to the draft</Act>
          {:else}
            <Act onclick={() => ((adding = !adding), (freezing = false))}>Add an item</Act>
            <Act main onclick={() => ((freezing = !freezing), (adding = false))}
              >Freeze version {newest + 1}</Act
            >
          {/if}
        </span>
      {/if}
    </div>
    {#if master}<Trail versions={master.versions} {number} draft={draftWords} />{/if}
    {#if freezing}
      <Freeze number={newest + 1} {freeze} cancel={() => (freezing = false)} />
    {/if}
    <Trouble of={trouble} />
  </header>
  <section class="tree-side">
    <Outline
      {nodes}
      {selected}
      {marks}
      select={(key) => place.set({ item: key })}
      move={number ? undefined : move}
      remove={number ? undefined : takeOut}
    />
  </section>
  <main class="pane">
    {#if adding && !number}
      <AddItem
        {id}
        {nodes}
        {selected}
        done={(key) => (
          (adding = false),
          place.set({ item: key, tab: 'write' }),
          change(async () => {})
        )}
        cancel={() => (adding = false)}
      />
    {:else if place.get('from')}
      <Changes {id} {newest} />
    {:else if item}
      <ItemPane
        {item}
        page="/api/masters/{id}/versions/{number}/items/{item.key}/page?{stamp}"
        {stamp}
        frozen={number > 0}
        change={edit}
        takeOut={() => takeOut(selected)}
      />
    {:else}
      <div class="hint">
        {#if nodes.length}
          <p>Choose an item on the left to see it as students would.</p>
          {#if newest && since.length}<Changes {id} {newest} />{/if}
        {:else if master}
          <h2>This master is empty</h2>
          <p class="quiet">Add its first item, or make a master from a cartridge under Sources.</p>
          <p><Act main onclick={() => (adding = true)}>Add an item</Act></p>
        {/if}
      </div>
    {/if}
  </main>
</div>
<HandFrame
  title={hand.size ? many(hand.size, 'section') + ' in hand' : 'No section in hand'}
  words={old
    ? `${many(old, 'section')} ${old === 1 ? 'holds' : 'hold'} an older version than v${newest}`
    : newest
      ? 'No section holds an older version.'
      : 'Freeze a version, then deliver it.'}
>
  {#if newest}<Act onclick={takeOld}>Take those without v{newest} in hand</Act>{/if}
</HandFrame>

<TakeOut
  of={doomed}
  below={doomed ? nodes.filter((n) => n.parent === doomed?.key).length : 0}
  yes={removeNow}
  no={() => (doomed = null)}
/>

<style>
  .page {
    display: grid;
    grid-template-columns: var(--tree) minmax(0, 1fr);
    grid-template-rows: auto minmax(0, 1fr);
  }
  header {
    grid-column: 1 / 3;
    padding: 10px 16px 8px;
    border-bottom: 1px solid var(--line);
    background: var(--paper);
    min-width: 0;
  }
  .line {
    display: flex;
    align-items: center;
    gap: 14px;
    min-width: 0;
  }
  h1 {
    max-width: 55%;
    flex: none;
  }
  .can {
    flex: none;
    margin-left: auto;
    display: flex;
    gap: 8px;
  }
  .tree-side {
    border-right: 1px solid var(--line);
    min-height: 0;
  }
  .pane {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto;
    min-height: 0;
  }
  .hint {
    padding: 22px 36px;
    display: grid;
    gap: 8px;
    align-content: start;
    grid-row: 1 / 4;
    min-height: 0;
    overflow: auto;
  }
</style>
