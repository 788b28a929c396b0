<script lang="ts">
  import { untrack } from 'svelte';
  import { api } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { resting } from '../frame/resting.svelte';
  import { many } from '../marks/words';
  import AboutMaster from './AboutMaster.svelte';
  import AddItem from './AddItem.svelte';
  import Changes from './Changes.svelte';
  import Freeze from './Freeze.svelte';
  import Fresh from './Fresh.svelte';
  import ItemPane from './ItemPane.svelte';
  import MasterHand from './MasterHand.svelte';
  import MasterHead from './MasterHead.svelte';
  import Outline from './Outline.svelte';
  import Pack from './Pack.svelte';
  import Picked from './Picked.svelte';
  import Trail from './Trail.svelte';
  import { clip } from './clip.svelte';
  import { OpenMaster } from './master.svelte';
  import { after } from './tree';

  let { id }: { id: string } = $props();
  /** The version looked at; 0 is the draft. */
  let number = $derived(Number(place.get('version') || 0));
  let selected = $derived(place.get('item'));
  const work = untrack(
    () =>
      new OpenMaster(
        id,
        () => number,
        () => selected,
      ),
  );
  let panel = $state<'' | 'freeze' | 'add' | 'pack' | 'about'>('');
  let chosen = $state.raw<ReadonlySet<string>>(new Set());
  let cut = $derived(new Set(clip.of?.cut && clip.of.master === id && !number ? clip.of.keys : []));

  keyList.of = [
    ['arrows', 'From item to item, open and close'],
    ['Page up, Page down, Home, End', 'A page on, to the ends'],
    ['Alt arrows', 'Move the item; right into the module above, left out of it'],
    ['Space, Shift arrows', 'Choose several'],
    ['F2', 'Rename'],
    ['Ctrl X, Ctrl C, Ctrl V', 'Cut, copy, put here; also from master to master'],
    ['Delete', 'Take out'],
    ['Ctrl Z, Ctrl Shift Z', 'Undo, do again'],
  ];

  let master = $derived(work.master);
  /** Only looked at: a version, or what somebody else changes. */
  let fixed = $derived(number > 0 || !work.writable);
  let nodes = $derived(work.nodes);
  let newest = $derived(work.newest);
  $effect(() => void work.load());
  resting(
    () => selected && `${number}/${selected}`,
    () => void work.loadItem(),
  );

  onEscape(() => {
    if (panel) panel = '';
    else if (place.get('pick')) place.set({ pick: '' });
    else if (place.get('from')) place.set({ from: '', to: '' });
    else if (place.get('tab')) place.set({ tab: '' });
    else if (selected) place.set({ item: '' });
    else return false;
    return true;
  });

  async function takeOut(keys: string[]) {
    chosen = new Set();
    if (keys.includes(selected)) place.set({ item: '' });
    await work.takeOut(keys);
    if (!work.trouble) work.turned = `${many(keys.length, 'item')} taken out`;
  }

  async function restore() {
    const version = number;
    await work.restore(version);
    if (work.trouble) return;
    place.set({ version: '', tab: '', from: '', to: '' });
    await work.load();
    work.turned = `The draft is version ${version} again`;
  }

  async function remove() {
    const version = number;
    await work.deleteVersion(version);
    if (work.trouble) return;
    place.set({ version: '', tab: '', from: '', to: '' });
    await work.load();
    work.turned = `Version ${version} is deleted`;
  }

  /** Says every few seconds that this page is open, and at which item. */
  $effect(() => {
    if (fixed) return;
    const say = () => void work.here(['write', 'questions', 'who'].includes(place.get('tab')));
    void selected;
    say();
    const timer = setInterval(say, 8_000);
    return () => clearInterval(timer);
  });

  function dropped(e: DragEvent) {
    const files = [...(e.dataTransfer?.files ?? [])];
    if (!files.length || fixed) return;
    e.preventDefault();
    const at = nodes.find((n) => n.key === selected);
    void work.addFiles(files, at?.kind === 'MODULE' ? at.key : at?.parent);
  }

  function pick(away: boolean) {
    const keys = chosen.size
      ? nodes.filter((n) => chosen.has(n.key)).map((n) => n.key)
      : [selected].filter(Boolean);
    if (!keys.length || (away && fixed)) return;
    const title = nodes.find((n) => n.key === keys[0])?.title ?? '';
    clip.of = { master: id, version: number, keys, cut: away, title };
    chosen = new Set();
  }

  /** Into the module looked at, else after the item looked at. */
  async function put() {
    if (!clip.of || fixed) return;
    const at = nodes.find((n) => n.key === selected);
    const to =
      at?.kind === 'MODULE'
        ? { parent: at.key }
        : { parent: at?.parent, before: at && after(nodes, at) };
    const keys = await work.paste(clip.of, to);
    if (work.trouble) return;
    if (clip.of.cut) clip.of = null;
    place.set({ item: keys[0] });
  }

  function shortcut(e: KeyboardEvent) {
    const typing = (e.target as Element).closest?.('input, textarea, select, [contenteditable]');
    if (typing || !(e.ctrlKey || e.metaKey) || e.altKey) return;
    const key = e.key.toLowerCase();
    if (key === 'z' && !fixed) void work.turn(e.shiftKey ? 'redo' : 'undo');
    else if (key === 'y' && !fixed) void work.turn('redo');
    else if (key === 'x') pick(true);
    else if (key === 'c' && !getSelection()?.toString()) pick(false);
    else if (key === 'v') void put();
    else return;
    e.preventDefault();
  }

  async function freeze(note: string) {
    await work.freeze(note);
    if (!work.trouble) panel = '';
  }

  let marks = $derived(
    new Map(
      number ? [] : work.since.map((c) => [c.key, c.how === 'ADDED' ? 'ADD' : 'UPDATE'] as const),
    ),
  );
</script>

<div class="page">
  <header>
    <MasterHead {work} {number} bind:panel {restore} {remove} />
    <div class="trail">
      {#if master}<Trail versions={master.versions} {number} draft={work.draftWords()} />{/if}
      {#if work.turned}
        <p class="turned" role="status">
          <span class="cut">{work.turned}</span>
          <button type="button" class="link" onclick={() => void work.turn('undo')}>Undo</button>
        </p>
      {/if}
    </div>
    <Trouble of={work.trouble} />
  </header>
  <section
    class="tree-side"
    role="presentation"
    ondragover={(e) => e.dataTransfer?.types.includes('Files') && e.preventDefault()}
    ondrop={dropped}
  >
    <Outline
      {nodes}
      {selected}
      {marks}
      select={(key) => place.set({ item: key })}
      bind:chosen
      {cut}
      move={fixed ? undefined : (keys, to) => work.move(keys, to)}
      remove={fixed ? undefined : takeOut}
      rename={fixed ? undefined : (key, title) => work.rename(key, title)}
    />
  </section>
  <main class="pane">
    {#if panel === 'pack'}
      <Pack
        {id}
        {number}
        selected={nodes.find((n) => n.key === selected)}
        close={() => (panel = '')}
      />
    {:else if panel === 'about' && master}
      <AboutMaster
        {master}
        changed={() => ((panel = ''), void work.change(async () => {}))}
        cancel={() => (panel = '')}
      />
    {:else if panel === 'freeze' && !fixed}
      <Freeze
        {id}
        number={newest + 1}
        stamp={work.stamp}
        {freeze}
        lead={(key) => ((panel = ''), place.set({ item: key, tab: 'write' }))}
        cancel={() => (panel = '')}
      />
    {:else if place.get('pick') && !fixed}
      <Picked
        {id}
        pick={place.get('pick')}
        done={(keys) => (place.set({ pick: '', item: keys[0] ?? '' }), work.change(async () => {}))}
        cancel={() => place.set({ pick: '' })}
      />
    {:else if panel === 'add' && !fixed}
      <AddItem
        {id}
        {nodes}
        {selected}
        done={(key) => (
          (panel = ''),
          place.set({ item: key, tab: 'write' }),
          work.change(async () => {})
        )}
        cancel={() => (panel = '')}
      />
    {:else if place.get('from')}
      <Changes {id} numbers={work.numbers} stamp={work.stamp} />
    {:else if work.item}
      <ItemPane {work} {number} takeOut={() => takeOut([selected])} />
    {:else}
      <div class="hint">
        {#if nodes.length}
          <p>Choose an item on the left to see it as students would.</p>
          {#if master && work.writable}
            <Fresh
              on={master.freshEachTerm}
              set={(on) => {
                const params = { path: { id } };
                return on
                  ? api.PUT('/api/masters/{id}/fresh', { params })
                  : api.DELETE('/api/masters/{id}/fresh', { params });
              }}
              changed={() => void work.change(async () => {})}
            />
          {/if}
          {#if newest && work.since.length}<Changes
              {id}
              numbers={work.numbers}
              stamp={work.stamp}
            />{/if}
        {:else if master}
          <h2>This master is empty</h2>
          {#if work.writable}
            <p class="quiet">
              Add its first item, or make a master from a cartridge under Sources.
            </p>
            <p><Act main onclick={() => (panel = 'add')}>Add an item</Act></p>
          {/if}
        {/if}
      </div>
    {/if}
  </main>
</div>
<svelte:window onkeydown={shortcut} />
<MasterHand
  {work}
  {number}
  bind:chosen
  {pick}
  put={() => void put()}
  takeOut={(keys) => void takeOut(keys)}
/>

<style>
  /* What was done is told beside the trail: below it, all that follows would jump. */
  .trail {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: end;
    column-gap: 16px;
  }
  .turned {
    color: var(--ink-2);
    display: flex;
    gap: 8px;
    max-width: 420px;
    padding-bottom: 2px;
  }
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
